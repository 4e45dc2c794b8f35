import Papa from "papaparse";
import type { Editor } from "./edit";

/** A column of the grid over rows of type R. */
export interface Column<R> {
  key: string;
  title: string;
  /** Unit registry key, for the head and for numbers. */
  quantity?: string;
  /** Unit registry key of one row's number, where rows differ. */
  quantityOf?: (row: R) => string;
  /** Width [px]. */
  width: number;
  /** Stored value, SI. */
  value: (row: R) => unknown;
  /** Text shown where it is not simply the value. */
  text?: (row: R) => string;
  /** Value before the last edit, SI. */
  prior?: (row: R) => number | null | undefined;
  /** Where the value comes from; "own" and "" are set upright, the rest in italics. */
  origin?: (row: R) => string;
  /** What is to be known of this row's cell; it is marked then. */
  note?: (row: R) => string;
  editor?: Editor;
  /** Whether this row's cell may be edited. */
  editable?: (row: R) => boolean;
  /** Working of the figure. */
  explain?: (row: R) => { quantity: string; subject: string } | null;
}

export interface Edit<R> {
  row: R;
  column: Column<R>;
  value: unknown;
}

/**
 * A block of cells as copied by spreadsheet programs: rows by newline, cells by tab, quoted where they hold either.
 * A cell is one line here, so a break inside one becomes a space.
 */
export function parseBlock(text: string): string[][] {
  const plain = text.replace(/\r\n?/g, "\n").replace(/\n$/, "");
  const { data } = Papa.parse<string[]>(plain, { delimiter: "\t", newline: "\n" });
  return data.length ? data.map((line) => line.map((cell) => cell.replace(/\s*\n\s*/g, " "))) : [[""]];
}
