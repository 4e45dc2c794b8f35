import { setField, useDocument } from "@/document/store";
import type { Change, Kind } from "@/document/types";
import type { Edit } from "./grid";

/** A function that saves one field of a row; throws when it is refused. */
export function fieldSaver(kind: Kind, id: () => string, field: string, label: string) {
  return (value: unknown): Promise<void> => useDocument().commit(label, setField(kind, id(), field, value));
}

/** A function that saves grid edits as one change set; column keys are field names. */
export function gridSaver<R extends { id: string }>(kind: Kind, what: string) {
  return (edits: Edit<R>[]): Promise<void> => {
    const changes: Change[] = edits.map(({ row, column, value }) => ({
      op: "set",
      kind,
      id: row.id,
      fields: { [column.key]: value },
    }));
    const label =
      edits.length === 1 ? `${what}: ${edits[0]?.column.title ?? ""}` : `${what}: ${edits.length} values`;
    return useDocument().commit(label, changes);
  };
}

/** Rows as choices of an editor. */
export function choicesOf(rows: { id: string; name: string }[]): { value: string; label: string }[] {
  return rows.map((row) => ({ value: row.id, label: row.name }));
}
