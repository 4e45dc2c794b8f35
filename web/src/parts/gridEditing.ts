import { useView } from "@/view/store";
import { computed, nextTick, ref, watch, type Ref } from "vue";
import { toText } from "./edit";
import { parseBlock, type Column, type Edit } from "./grid";
import { canEdit, editorOf, shownText, useTypedCells } from "./gridCells";
import { leftOut, placed, type Place, type Range } from "./gridRange";

interface Given<R> {
  rows: R[];
  columns: Column<R>[];
  save: ((edits: Edit<R>[]) => Promise<void>) | undefined;
}
interface Cursor {
  at: Ref<Place>;
  range: Ref<Range>;
  isMany: Ref<boolean>;
  go: (place: Place) => Promise<void>;
  focusCell: () => Promise<void>;
}

/** What is done to the cells of a grid: typing, filling, emptying, pasting and copying. */
export function useGridEditing<R extends { id: string }>(
  given: () => Given<R>,
  box: Ref<HTMLElement | null>,
  { at, range, isMany, go, focusCell }: Cursor,
) {
  const view = useView();
  const editing = ref<string | null>(null);
  /** What a choice is found by while it is open, where its cell was begun by a letter. */
  const begun = ref("");
  const typed = useTypedCells<R>(
    () => view.system,
    () => given().save,
  );
  const { faults, cellKey, keep } = typed;
  const here = () => ({ row: given().rows[at.value.row], column: given().columns[at.value.column] });

  /** Cells of the range that may be edited. */
  function inRange(): { row: R; column: Column<R> }[] {
    const cells = [];
    for (let i = range.value.top; i <= range.value.bottom; i += 1) {
      for (let j = range.value.left; j <= range.value.right; j += 1) {
        const row = given().rows[i];
        const column = given().columns[j];
        if (row && column && canEdit(row, column)) cells.push({ row, column });
      }
    }
    return cells;
  }
  const wide = computed(() => (isMany.value ? inRange().length : 0));

  async function start(text?: string): Promise<void> {
    const { row, column } = here();
    if (!row || !column?.editor || !canEdit(row, column)) return;
    if (column.editor.type === "yesno") {
      const other = column.value(row) ? "no" : "yes";
      const cells = wide.value > 1 ? inRange().filter((cell) => cell.column === column) : [{ row, column }];
      await keep(cells.map((cell) => ({ ...cell, text: other })));
      return;
    }
    const isChoice = column.editor.type === "choice";
    const kept = faults.value.get(cellKey(row, column));
    begun.value = isChoice ? (text ?? "") : "";
    editing.value =
      (isChoice ? undefined : text) ?? kept?.text ?? toText(column.value(row), editorOf(row, column), view.system);
    await nextTick();
    const input = box.value?.querySelector<HTMLInputElement>(".cell .editor input:not([type=hidden])");
    input?.focus();
    if (text === undefined) input?.select?.();
  } // prettier-ignore

  /** End the editing of a cell; `all` gives what was typed to every cell of the range. */
  async function finish(down: number, right: number, all = false): Promise<void> {
    const { row, column } = here();
    const text = editing.value;
    editing.value = null;
    if (row && column && text !== null) {
      if (all) void keep(inRange().map((cell) => ({ ...cell, text })));
      else if (text !== toText(column.value(row), editorOf(row, column), view.system))
        void keep([{ row, column, text }]);
    }
    if (all) await focusCell();
    else await go({ row: at.value.row + down, column: at.value.column + right });
  }

  async function cancel(): Promise<void> {
    const { row, column } = here();
    if (row && column) faults.value.delete(cellKey(row, column));
    editing.value = null;
    await focusCell();
  }

  /** Let the range step back to what is inherited, or be empty. */
  async function clear(): Promise<void> {
    await keep(
      inRange()
        .filter(({ column }) => column.editor?.clearable)
        .map((cell) => ({ ...cell, text: "" })),
    );
  }

  /** The first line of the range, given to all below it. */
  async function fillDown(): Promise<void> {
    const first = given().rows[range.value.top];
    if (!first) return;
    await keep(
      inRange()
        .filter(({ row }) => row !== first)
        .map(({ row, column }) => ({
          row,
          column,
          text: toText(column.value(first), editorOf(first, column), view.system),
        })),
    );
  }

  /** What a paste could not give to any cell; until the cursor moves on. */
  const dropped = ref("");
  watch([at, editing], () => (dropped.value = ""));
  function onPaste(event: ClipboardEvent): void {
    if (editing.value !== null) return;
    const block = parseBlock(event.clipboardData?.getData("text/plain") ?? "");
    const into = placed(block, range.value);
    const cells = into.flatMap((cell) => {
      const row = given().rows[cell.row];
      const column = given().columns[cell.column];
      return row && column ? [{ row, column, text: cell.text }] : [];
    });
    const open = cells.filter(({ row, column }) => canEdit(row, column));
    dropped.value = leftOut(into.length - cells.length, cells.length - open.length);
    event.preventDefault();
    void keep(open);
  }

  /** The range as spreadsheet programs take it, in the units shown. */
  function onCopy(event: ClipboardEvent): void {
    if (editing.value !== null) return;
    const { top, bottom, left, right } = range.value;
    const lines = given()
      .rows.slice(top, bottom + 1)
      .map((row) =>
        given()
          .columns.slice(left, right + 1)
          .map((column) => copied(row, column))
          .join("\t"),
      );
    event.clipboardData?.setData("text/plain", lines.join("\n"));
    event.preventDefault();
  }

  function copied(row: R, column: Column<R>): string {
    if (!column.editor) return shownText(row, column, view.system);
    if (column.editor.type !== "choice") return toText(column.value(row), editorOf(row, column), view.system);
    const value = column.value(row);
    return column.editor.choices?.find((choice) => choice.value === value)?.label ?? "";
  }

  return { ...typed, editing, begun, wide, dropped, start, finish, cancel, clear, fillDown, onPaste, onCopy };
}
