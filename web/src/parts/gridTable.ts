import type { System } from "@/units/units";
import { getCoreRowModel, getFilteredRowModel, getSortedRowModel, useVueTable } from "@tanstack/vue-table";
import type { ColumnDef, ColumnFiltersState, Row, SortingState } from "@tanstack/vue-table";
import { computed, ref, watch, type ComputedRef, type Ref } from "vue";
import { toText } from "./edit";
import type { Column } from "./grid";
import { editorOf, shownText } from "./gridCells";
import { useLayout, type Layout } from "./gridLayout";

/** A column where it stands: as wide as it is now, and how far from the left it stays where it is pinned. */
export interface Placed<R> extends Column<R> {
  left: string | undefined;
}

export interface GridTable<R> {
  /** What is shown, in its order. */
  columns: ComputedRef<Placed<R>[]>;
  rows: ComputedRef<R[]>;
  sorting: Ref<SortingState>;
  filters: Ref<ColumnFiltersState>;
  layout: Layout;
  reset: () => void;
  pinned: (key: string) => boolean;
  orderBy: (key: string, down: boolean | null) => void;
  filterBy: (key: string, text: string) => void;
  show: (key: string, shown: boolean) => void;
  pin: (key: string) => void;
  widen: (key: string, to: number) => void;
  move: (key: string, by: number) => void;
}

interface Given<R> {
  name: string;
  columns: Column<R>[];
  rows: R[];
  frozen: number;
  /** Rows that are sums: they stay at the end. */
  strong: ((row: R) => boolean) | undefined;
  /** What rows are kept together by. */
  band: ((row: R) => string) | undefined;
}

const NARROWEST = 32;
const COMPARED = /^\s*(<=|>=|<|>|=)?\s*(-?[\d.,\s]+)\s*(?:(?:\.\.|to)\s*(-?[\d.,\s]+))?\s*$/;

/** Whether a cell passes a filter: a part of its text, or for figures also `> 500`, `<= 20`, `10 to 20`. */
export function passes(shown: string, filter: string): boolean {
  const figure = Number(shown.replace(/[\s\u2009\u202f]/g, "").replace("−", "-"));
  const found = COMPARED.exec(filter);
  const number = (text: string) => Number(text.replace(/[\s,]/g, ""));
  if (found && shown.trim() && !Number.isNaN(figure)) {
    const [, sign, low, high] = found;
    if (high !== undefined) return figure >= number(low!) && figure <= number(high);
    if (sign === "<") return figure < number(low!);
    if (sign === ">") return figure > number(low!);
    if (sign === "<=") return figure <= number(low!);
    if (sign === ">=") return figure >= number(low!);
    if (sign === "=") return figure === number(low!);
  }
  return shown.toLowerCase().includes(filter.trim().toLowerCase());
}

const isEmpty = (value: unknown): boolean =>
  value === null || value === undefined || value === "–" || value === "";

/** Figures by size, texts as people order them ("2" before "10"); what is empty comes last, whichever way. */
export function compare(a: unknown, b: unknown): number {
  if (typeof a === "number" && typeof b === "number") return a - b;
  if (isEmpty(a) || isEmpty(b)) return Number(isEmpty(a)) - Number(isEmpty(b));
  return String(a).localeCompare(String(b), "en", { numeric: true });
}

/**
 * Columns and rows as a grid shows them: ordered, filtered, hidden, pinned, as wide as they were drawn.
 * An order holds until it is asked for anew, so that a sheet does not jump while it is typed into.
 */
export function useGridTable<R extends { id: string }>(
  given: () => Given<R>,
  system: () => System,
): GridTable<R> {
  const { layout, reset } = useLayout(given().name);
  const sorting = ref<SortingState>([]);
  const filters = ref<ColumnFiltersState>([]);
  const byKey = computed(() => new Map(given().columns.map((column) => [column.key, column])));
  const text = (row: R, column: Column<R>) => shownText(row, column, system());
  const value = (row: R, column: Column<R>) => {
    const plain = column.value(row);
    return column.text && typeof plain !== "number" ? column.text(row) : plain;
  };
  const defs = computed<ColumnDef<R>[]>(() =>
    given().columns.map((column) => ({
      id: column.key,
      accessorFn: (row) => (isEmpty(value(row, column)) ? undefined : value(row, column)),
      size: column.width,
      minSize: NARROWEST,
      filterFn: (row: Row<R>, _id: string, filter: string) => {
        const it = byKey.value.get(column.key) ?? column;
        const typed = it.editor ? toText(it.value(row.original), editorOf(row.original, it), system()) : "";
        const shown = text(row.original, it);
        return passes(shown, filter) || (it.editor?.type !== "choice" && passes(typed, filter));
      },
      sortingFn: (a: Row<R>, b: Row<R>, id: string) => compare(a.getValue(id), b.getValue(id)),
      sortUndefined: "last",
    })),
  );
  const pins = computed(
    () =>
      layout.pinned ??
      given()
        .columns.slice(0, given().frozen)
        .map((column) => column.key),
  );
  const table = useVueTable<R>({
    get data() {
      return given().rows;
    },
    get columns() {
      return defs.value;
    },
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
    state: {
      get sorting() {
        return sorting.value;
      },
      get columnFilters() {
        return filters.value;
      },
      get columnVisibility() {
        return Object.fromEntries(Object.entries(layout.hidden).map(([key, hidden]) => [key, !hidden]));
      },
      get columnSizing() {
        return layout.widths;
      },
      get columnOrder() {
        return layout.order;
      },
      get columnPinning() {
        return { left: pins.value };
      },
    },
  });

  const columns = computed<Placed<R>[]>(() => {
    let left = 0;
    // Named here so that they are followed: the table reads them behind getters.
    void [defs.value, layout.hidden, layout.widths, layout.order.length, pins.value];
    return table.getVisibleLeafColumns().flatMap((leaf) => {
      const column = byKey.value.get(leaf.id);
      if (!column) return [];
      const width = leaf.getSize();
      const own = left;
      left += width;
      return [{ ...column, width, left: leaf.getIsPinned() ? `${own}px` : undefined }];
    });
  });

  /** Ids in the order and choice that was asked for last; null where rows stand as they are given. */
  const held = ref<string[] | null>(null);
  function ask(): void {
    const { strong, band, rows } = given();
    if (!sorting.value.length && !filters.value.length) {
      held.value = null;
      return;
    }
    const found = table.getRowModel().rows.map((row) => row.original);
    const bands = band ? new Map([...new Set(rows.map(band))].map((name, i) => [name, i])) : null;
    if (bands && band) found.sort((a, b) => bands.get(band(a))! - bands.get(band(b))!);
    const sums = strong ? found.filter(strong) : [];
    held.value = [...(strong ? found.filter((row) => !strong(row)) : found), ...sums].map((row) => row.id);
  }
  const ids = () => given().rows.map((row) => row.id).join(); // prettier-ignore
  watch([sorting, filters, ids, () => given().band], ask);
  const rows = computed(() => {
    if (!held.value) return given().rows;
    const byId = new Map(given().rows.map((row) => [row.id, row]));
    return held.value.flatMap((id) => byId.get(id) ?? []);
  });

  return {
    columns,
    rows,
    sorting,
    filters,
    layout,
    reset,
    pinned: (key) => pins.value.includes(key),
    orderBy: (key, down) => (sorting.value = down === null ? [] : [{ id: key, desc: down }]),
    filterBy(key, filter) {
      const others = filters.value.filter((one) => one.id !== key);
      filters.value = filter.trim() ? [...others, { id: key, value: filter }] : others;
    },
    show: (key, shown) => (layout.hidden = { ...layout.hidden, [key]: !shown }),
    pin(key) {
      layout.pinned = pins.value.includes(key)
        ? pins.value.filter((one) => one !== key)
        : [...pins.value, key];
    },
    widen: (key, to) => (layout.widths = { ...layout.widths, [key]: Math.max(NARROWEST, Math.round(to)) }),
    move(key, by) {
      const keys = table.getVisibleLeafColumns().map((leaf) => leaf.id);
      const from = keys.indexOf(key);
      const to = from + by;
      if (from < 0 || to < 0 || to >= keys.length) return;
      keys.splice(to, 0, ...keys.splice(from, 1));
      const hidden = given().columns.map((column) => column.key).filter((one) => !keys.includes(one)); // prettier-ignore
      layout.order = [...keys, ...hidden];
      if (pins.value.includes(key) || pins.value.includes(keys[from]!))
        layout.pinned = keys.slice(0, pins.value.length);
    },
  };
}
