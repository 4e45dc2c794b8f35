import { declaredField, fieldsOf } from "@/document/fields";
import { useDocument } from "@/document/store";
import type { Kind, Kinds } from "@/document/types";
import type { Editor } from "./edit";
import type { Column } from "./grid";
import { choicesOf, fieldSaver, type FieldSaver } from "./saving";

/** What a screen may say otherwise than the declaration does. */
export interface Otherwise {
  label?: string;
  /** What an empty choice says. */
  empty?: string;
  quantity?: string;
  choices?: Editor["choices"];
}

const TYPES: Record<string, Editor["type"]> = { number: "number", integer: "number", yesno: "yesno", choice: "choice", link: "choice" }; // prettier-ignore

/** How a declared field is edited; things to point at are all of their kind unless the screen chooses among them. */
export function editorOf(kind: Kind, field: string, otherwise: Otherwise = {}): Editor {
  const it = declaredField(kind, field);
  if (!it) return { type: "text" };
  const monthDay = field.startsWith("saving_");
  return {
    type: monthDay ? "month_day" : otherwise.choices ? "choice" : (TYPES[it.type] ?? "text"),
    ...(it.type === "number" || it.type === "integer"
      ? { quantity: otherwise.quantity ?? it.quantity ?? "ratio" }
      : {}),
    ...(it.type === "text" && it.default === "" ? { optional: true } : {}),
    ...(it.nullable ? { clearable: true } : {}),
    ...(it.words ? { choices: Object.entries(it.words).map(([value, label]) => ({ value, label })) } : {}),
    ...(it.numeric ? { numeric: true } : {}),
    ...(it.to && !otherwise.choices
      ? { choices: choicesOf(useDocument().rows(it.to) as { id: string; name: string }[]) }
      : {}),
    ...(otherwise.choices ? { choices: otherwise.choices } : {}),
    ...(otherwise.empty ? { empty: otherwise.empty } : {}),
  };
}

/** What a Field needs. */
export interface FieldBinding {
  label: string;
  value: unknown;
  inherited: unknown;
  editor: Editor;
  help: string | undefined;
  save: FieldSaver;
}

/**
 * Binds fields of one row: `const field = fieldsFor("use", () => props.use)`, then `<Field v-bind="field('warm_limit_c')" />`.
 * Label, unit, choices, help and what the building says where the row says nothing come from the declaration.
 */
export function fieldsFor<K extends Kind>(kind: K, row: () => Kinds[K]) {
  const doc = useDocument();
  return (key: keyof Kinds[K] & string, otherwise: Otherwise = {}): FieldBinding => {
    const it = declaredField(kind, key);
    const label = otherwise.label ?? it?.short ?? it?.label ?? key;
    const name = "name" in row() ? `${(row() as { name: string }).name}: ` : "";
    const ofBuilding = kind !== "project" && it?.nullable ? declaredField("project", key) : undefined;
    return {
      label,
      value: row()[key],
      inherited: ofBuilding && doc.project ? (doc.project as Record<string, unknown>)[key] : undefined,
      editor: editorOf(kind, key, otherwise),
      help: it?.help,
      save: fieldSaver(kind, () => row().id, key, `${name}${(it?.label ?? key).toLowerCase()}`),
    };
  };
}

/** A grid's column of a declared field, `width` pixels wide. */
export function column<K extends Kind>(
  kind: K,
  key: keyof Kinds[K] & string,
  width: number,
  otherwise: Otherwise & Partial<Column<Kinds[K]>> = {},
): Column<Kinds[K]> {
  const it = declaredField(kind, key);
  const editor = editorOf(kind, key, otherwise);
  const text = editor.choices
    ? (row: Kinds[K]) =>
        editor.choices!.find((one) => one.value === String(row[key]))?.label ?? editor.empty ?? "–"
    : undefined;
  return {
    key,
    title: it?.short ?? it?.label ?? key,
    width,
    value: (row) => row[key],
    ...(editor.quantity ? { quantity: editor.quantity } : {}),
    ...(text ? { text } : {}),
    editor,
    ...otherwise,
  };
}

/** Fields that rooms inherit and that a set of the room sheet shows. */
export function sheetFields(sheet: string): string[] {
  return fieldsOf("room")
    .filter(([, it]) => it.sheet === sheet)
    .map(([field]) => field);
}
