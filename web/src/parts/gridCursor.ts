import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, nextTick, onBeforeUnmount, onMounted, onUpdated, watch, type Ref } from "vue";
import { useRange, type Place } from "./gridRange";

const ROW_PX = 28;
/** How many frames a far row may take until it is drawn. */
const FRAMES = 20;

interface Given<R> {
  rows: R[];
  columns: unknown[];
  selected: string | undefined;
  strong: ((row: R) => boolean) | undefined;
}

/** Where the cursor of a grid is, what is drawn of its rows, and how both follow each other. */
export function useCursor<R extends { id: string }>(
  given: () => Given<R>,
  box: Ref<HTMLElement | null>,
  select: (row: R, atOnce: boolean) => void,
) {
  const { at, anchor, range, isMany, holds, moveTo } = useRange();
  const virtual = useVirtualizer(
    computed(() => ({
      count: given().rows.length,
      getScrollElement: () => box.value,
      estimateSize: () => ROW_PX,
      overscan: 12,
      scrollPaddingStart: 40,
      scrollPaddingEnd: 52,
    })),
  );

  /** The row that this grid chose last: it is known already, however late it comes back as the selection. */
  let chosen: string | undefined;

  /** Bring a selection made elsewhere into view. */
  function showSelected(): void {
    const { rows, selected } = given();
    if (selected === chosen) return;
    const index = rows.findIndex((row) => row.id === selected);
    if (index < 0 || at.value.row === index) return;
    moveTo({ row: index, column: at.value.column }, false);
    virtual.value.scrollToIndex(index, { align: "auto" });
  }
  watch(() => given().selected, showSelected);
  onMounted(() => {
    const { rows, selected, strong } = given();
    const row = rows.find((candidate) => candidate.id === selected);
    // A grid opens at its top, not at its sums.
    if (row && !strong?.(row)) requestAnimationFrame(showSelected);
  });
  // Where rows change their order, the cursor stays with its row.
  watch(
    () => given().rows,
    (now, before) => {
      const id = before[at.value.row]?.id;
      if (!id || isMany.value || now[at.value.row]?.id === id) return;
      const row = now.findIndex((candidate) => candidate.id === id);
      if (row >= 0) moveTo({ row, column: at.value.column }, false);
    },
  );

  async function focusCell(): Promise<void> {
    virtual.value.scrollToIndex(at.value.row);
    const { row, column } = at.value;
    for (let frame = 0; frame < FRAMES; frame += 1) {
      await nextTick();
      if (at.value.row !== row || at.value.column !== column) return;
      const cell = box.value?.querySelector<HTMLElement>(`[data-cell="${row}/${column}"]`);
      if (cell) {
        cell.focus();
        return;
      }
      // The grid keeps the keys while the row is drawn: they must not become commands of the page.
      box.value?.focus({ preventScroll: true });
      await new Promise((drawn) => requestAnimationFrame(drawn));
    }
  }

  /** A focused cell that is scrolled out of what is drawn leaves the focus to the grid. */
  let within = false;
  function noteFocus(event: FocusEvent): void {
    within = box.value?.contains(event.target as Node) ?? false;
  }
  onMounted(() => document.addEventListener("focusin", noteFocus));
  onBeforeUnmount(() => document.removeEventListener("focusin", noteFocus));
  onUpdated(() => {
    if (within && document.activeElement === document.body) box.value?.focus({ preventScroll: true });
  });

  /** Move the cursor; `extend` makes a range of what lies between. */
  async function go(place: Place, extend = false, atOnce = false): Promise<void> {
    const { rows, columns } = given();
    moveTo(
      {
        row: Math.max(0, Math.min(rows.length - 1, place.row)),
        column: Math.max(0, Math.min(columns.length - 1, place.column)),
      },
      extend,
    );
    const target = rows[at.value.row];
    if (target && !extend) {
      chosen = target.id;
      select(target, atOnce);
    }
    await focusCell();
  }

  return { at, anchor, range, isMany, holds, moveTo, virtual, go, focusCell };
}
