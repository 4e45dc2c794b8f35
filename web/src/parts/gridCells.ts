import { Refusal } from "@/api/client";
import type { System } from "@/units/units";
import { format } from "@/units/units";
import { ref, type Ref } from "vue";
import { faultText, fromText, type Editor } from "./edit";
import type { Column, Edit } from "./grid";

/** A cell with what was typed into it. */
export interface TypedCell<R> {
  row: R;
  column: Column<R>;
  text: string;
}

/** Whether this cell may be edited. */
export function canEdit<R>(row: R, column: Column<R>): boolean {
  return Boolean(column.editor) && (column.editable?.(row) ?? true);
}

/** How a cell is edited; a number in the unit of its own row where rows differ. */
export function editorOf<R>(row: R, column: Column<R>): Editor {
  const editor = column.editor ?? { type: "text" };
  return column.quantityOf ? { ...editor, quantity: column.quantityOf(row) } : editor;
}

/** A cell's value as shown. */
export function shownText<R>(row: R, column: Column<R>, system: System): string {
  if (column.text) return column.text(row);
  const value = column.value(row);
  const quantity = column.quantityOf?.(row) ?? column.quantity;
  if (typeof value === "number" && quantity) return format(value, quantity, system);
  if (typeof value === "boolean") return value ? "yes" : "no";
  return value === null || value === undefined ? "–" : String(value);
}

/** What the cell showed before the last edit; empty where that is the same. */
export function priorText<R>(row: R, column: Column<R>, system: System): string {
  const before = column.prior?.(row);
  if (before === undefined || before === null || !column.quantity) return "";
  const text = format(before, column.quantity, system);
  return text === shownText(row, column, system) ? "" : text;
}

/** Which changes of a set a refusal names. */
function refusedPlaces(error: unknown): Set<number> {
  const paths = error instanceof Refusal ? error.problem.faults.map((fault) => fault.path) : [];
  return new Set(paths.flatMap((path) => /^\/?changes\/(\d+)/.exec(path)?.[1] ?? []).map(Number));
}

/** Saving of typed cells: good ones together, faulty ones kept as typed with the reason. */
export function useTypedCells<R extends { id: string }>(
  system: () => System,
  save: () => ((edits: Edit<R>[]) => Promise<void>) | undefined,
): {
  faults: Ref<Map<string, { text: string; why: string }>>;
  cellKey: (row: R, column: Column<R>) => string;
  keep: (cells: TypedCell<R>[]) => Promise<void>;
  /** Make the thing that a cell names, and give it to every cell of the column that names it. */
  make: (column: Column<R>, text: string, rows: R[]) => Promise<void>;
} {
  const faults = ref(new Map<string, { text: string; why: string }>());
  const cellKey = (row: R, column: Column<R>) => `${row.id}/${column.key}`;

  async function keep(cells: TypedCell<R>[]): Promise<void> {
    const good: (TypedCell<R> & Edit<R>)[] = [];
    for (const cell of cells) {
      const { row, column, text } = cell;
      if (!column.editor || !canEdit(row, column)) continue;
      const read = fromText(text, editorOf(row, column), system());
      if (read.fault) faults.value.set(cellKey(row, column), { text, why: read.fault });
      else if (read.value !== column.value(row) || column.origin) good.push({ ...cell, value: read.value });
      else faults.value.delete(cellKey(row, column));
    }
    const saver = save();
    if (!saver) return;
    // Cells that the server refuses keep what was typed; the others are saved without them.
    for (let waiting = good; waiting.length;) {
      try {
        await saver(waiting);
        for (const { row, column } of waiting) faults.value.delete(cellKey(row, column));
        return;
      } catch (error) {
        const named = refusedPlaces(error);
        const refused = waiting.filter((_, i) => named.size === 0 || named.has(i));
        for (const { row, column, text } of refused) {
          const why = faultText(error, editorOf(row, column), system());
          faults.value.set(cellKey(row, column), { text, why });
        }
        waiting = refused.length ? waiting.filter((cell) => !refused.includes(cell)) : [];
      }
    }
  }

  async function make(column: Column<R>, text: string, rows: R[]): Promise<void> {
    const id = await column.editor?.make?.of(text.trim());
    if (!id) return;
    const named = rows.filter((row) => faults.value.get(cellKey(row, column))?.text.trim() === text.trim());
    await save()?.(named.map((row) => ({ row, column, value: id })));
    for (const row of named) faults.value.delete(cellKey(row, column));
  }

  return { faults, cellKey, keep, make };
}
