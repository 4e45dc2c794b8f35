// Sheets of a page by their label: their columns and rows, and what typing into a cell saves.
import type { VueWrapper } from "@vue/test-utils";
import DataGrid from "../src/parts/DataGrid.vue";
import type { Column, Edit } from "../src/parts/grid";

/** What an edit sends: its name in the history, and its changes. */
export type Sent = [
  label: string,
  changes: { op: string; kind: string; id: string; fields: Record<string, unknown> }[],
];

export function grid(made: VueWrapper, label: string) {
  const found = made.findAllComponents(DataGrid).find((one) => one.props("label") === label)!;
  const columns = () => found.props("columns") as Column<any>[];
  const column = (key: string) => columns().find((one) => one.key === key)!;
  const rows = () => found.props("rows") as any[];
  const row = (id: string) => rows().find((one) => one.id === id);
  const edit = (id: string, key: string, value: unknown) =>
    (found.props("save") as (edits: Edit<any>[]) => Promise<void>)([
      { row: row(id), column: column(key), value } as never,
    ]);
  return { found, column, rows, edit, shown: (id: string, key: string) => column(key).value(row(id)) };
}

/** Press what says a text. */
export async function pressed(made: VueWrapper, text: string): Promise<void> {
  await made
    .findAll("button")
    .find((one) => one.text() === text)!
    .trigger("click");
}
