/** Arrow keys in a list of things: the next or the one before takes the focus and is shown. */
export function onListKey(event: KeyboardEvent): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (!by) return;
  const items = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>(".item")];
  const at = items.indexOf(document.activeElement as HTMLElement);
  const next = items[at + by];
  if (at < 0 || !next) return;
  event.preventDefault();
  event.stopPropagation();
  next.focus();
  next.click();
}
