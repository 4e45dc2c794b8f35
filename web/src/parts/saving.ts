import { setField, useDocument } from "@/document/store";
import type { Change, Kind } from "@/document/types";
import type { Edit } from "./grid";

/** Saves one field of a row; throws when it is refused. It knows which field it is. */
export interface FieldSaver {
  (value: unknown): Promise<void>;
  of: () => { kind: Kind; id: string; field: string };
}

/** A function that saves one field of a row. */
export function fieldSaver(kind: Kind, id: () => string, field: string, label: string): FieldSaver {
  const save = (value: unknown): Promise<void> =>
    useDocument().commit(label, setField(kind, id(), field, value));
  return Object.assign(save, { of: () => ({ kind, id: id(), field }) });
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
