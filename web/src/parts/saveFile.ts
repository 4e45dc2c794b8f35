/** Let the browser fetch a file that the server names. */
export function saveFile(href: string): void {
  const link = document.createElement("a");
  link.href = href;
  link.click();
}
