import { counted } from "@/units/units";
import { computed, ref, type ComputedRef, type Ref } from "vue";

export interface Place {
  row: number;
  column: number;
}

/** Top left and bottom right of a range, both included. */
export interface Range {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** The place of the cursor, and the range between it and where a sweep began. */
export function useRange(): {
  at: Ref<Place>;
  anchor: Ref<Place>;
  range: ComputedRef<Range>;
  isMany: ComputedRef<boolean>;
  holds: (row: number, column: number) => boolean;
  moveTo: (place: Place, extend: boolean) => void;
} {
  const at = ref<Place>({ row: 0, column: 0 });
  const anchor = ref<Place>({ row: 0, column: 0 });
  const range = computed<Range>(() => ({
    top: Math.min(at.value.row, anchor.value.row),
    bottom: Math.max(at.value.row, anchor.value.row),
    left: Math.min(at.value.column, anchor.value.column),
    right: Math.max(at.value.column, anchor.value.column),
  }));
  const isMany = computed(() => range.value.top !== range.value.bottom || range.value.left !== range.value.right);
  const holds = (row: number, column: number) =>
    isMany.value &&
    row >= range.value.top &&
    row <= range.value.bottom &&
    column >= range.value.left &&
    column <= range.value.right;
  function moveTo(place: Place, extend: boolean): void {
    at.value = place;
    if (!extend) anchor.value = place;
  }
  return { at, anchor, range, isMany, holds, moveTo };
} // prettier-ignore

/** Where a key takes the cursor, or null where the key is none of these. */
export function moved(event: KeyboardEvent, at: Place, rows: number, columns: number): Place | null {
  const far = event.ctrlKey || event.metaKey;
  const place = { ...at };
  if (event.key === "ArrowUp") place.row = far ? 0 : at.row - 1;
  else if (event.key === "ArrowDown") place.row = far ? rows - 1 : at.row + 1;
  else if (event.key === "ArrowLeft") place.column = far ? 0 : at.column - 1;
  else if (event.key === "ArrowRight") place.column = far ? columns - 1 : at.column + 1;
  else if (event.key === "PageUp") place.row = at.row - 20;
  else if (event.key === "PageDown") place.row = at.row + 20;
  else if (event.key === "Home") {
    place.column = 0;
    if (far) place.row = 0;
  } else if (event.key === "End") {
    place.column = columns - 1;
    if (far) place.row = rows - 1;
  } else return null;
  return {
    row: Math.max(0, Math.min(rows - 1, place.row)),
    column: Math.max(0, Math.min(columns - 1, place.column)),
  };
}

/** What a paste left out, as a line; empty where all of it found a place. */
export function leftOut(beyond: number, closed: number): string {
  const parts = [
    beyond && `${counted(beyond, "cell")} beyond the last row or column`,
    closed && `${counted(closed, "cell")} that cannot be edited`,
  ];
  const said = parts.filter(Boolean).join(", and ");
  return said && `Not pasted: ${said}.`;
}

/** Where each cell of a pasted block goes: one figure or line fills the whole range, a block lies from its top left. */
export function placed(block: string[][], range: Range): { row: number; column: number; text: string }[] {
  const height = block.length;
  const width = Math.max(...block.map((line) => line.length));
  const rows = range.bottom - range.top + 1;
  const columns = range.right - range.left + 1;
  // A block that fits the range a whole number of times is laid down again and again.
  const down = rows % height === 0 ? rows : height;
  const across = columns % width === 0 ? columns : width;
  const cells = [];
  for (let i = 0; i < down; i += 1) {
    for (let j = 0; j < across; j += 1) {
      const text = block[i % height]?.[j % width];
      if (text !== undefined) cells.push({ row: range.top + i, column: range.left + j, text });
    }
  }
  return cells;
}
