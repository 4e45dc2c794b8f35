/** Where a pressed pointer is in a drawing's own coordinates; null where it only passes over. */
export function drawnAt(event: PointerEvent): { x: number; y: number } | null {
  if (event.type === "pointermove" && !event.buttons) return null;
  const svg = event.currentTarget as SVGSVGElement;
  const corner = svg.getScreenCTM();
  if (!corner) return null;
  if (event.type === "pointerdown") svg.setPointerCapture(event.pointerId);
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(corner.inverse());
}
