import { counted, format, unitOf, type System } from "@/units/units";
import type { Column } from "./grid";
import type { Range } from "./gridRange";

/** Quantities of which a sum means something. */
const ADDED = new Set(["area", "volume", "load", "power", "airflow", "count", "length"]);

/** What a range adds up to: its cells, and the sum where all have one quantity. */
export function summaryOf<R>(rows: R[], columns: Column<R>[], range: Range, system: System): string {
  const { top, bottom, left, right } = range;
  const size = `${bottom - top + 1} × ${right - left + 1} cells`;
  const quantity = columns[left]?.quantity;
  if (left !== right || !quantity) return size;
  const values = rows.slice(top, bottom + 1).map((row) => columns[left]!.value(row));
  const figures = values.filter((value): value is number => typeof value === "number");
  if (!figures.length) return size;
  const sum = figures.reduce((total, value) => total + value, 0);
  const text = (value: number) => `${format(value, quantity, system)} ${unitOf(quantity, system)}`;
  return ADDED.has(quantity)
    ? `${size} · sum ${text(sum)} · mean ${text(sum / figures.length)}`
    : `${size} · mean ${text(sum / figures.length)} · ${text(Math.min(...figures))} to ${text(Math.max(...figures))}`;
}

/** How many rows a filter leaves, as a line; empty where it leaves all. */
export function leftBy(shown: number, all: number): string {
  return shown === all ? "" : `${shown} of ${counted(all, "row")}`;
}
