/** The theme's colour of a name such as "tide", for what is not drawn by style sheets. */
export function tone(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
}
