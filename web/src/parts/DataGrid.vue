<script setup lang="ts" generic="R extends { id: string }">
import { useView } from "@/view/store";
import { computed, nextTick, ref, toRef, watch } from "vue";
import type { Column, Edit } from "./grid";
import { canEdit, priorText, shownText } from "./gridCells";
import { useCursor } from "./gridCursor";
import { useGridEditing } from "./gridEditing";
import GridEditor from "./GridEditor.vue";
import GridFault from "./GridFault.vue";
import GridHead from "./GridHead.vue";
import GridPaper from "./GridPaper.vue";
import { moved } from "./gridRange";
import { leftBy, summaryOf } from "./gridSums";
import { useGridTable } from "./gridTable";

const props = defineProps<{
  label: string;
  columns: Column<R>[];
  rows: R[];
  selected?: string;
  /** Columns at the left that stay while the others scroll. */
  frozen?: number;
  /** Whether ranges can be swept, copied, filled and cleared. */
  ranges?: boolean;
  /** What a row belongs to; a heavier line stands where it changes. */
  band?: (row: R) => string;
  /** Whether the order of the rows means something, so that no other can be asked for. */
  ordered?: boolean;
  /** Rows that stand out as sums, by id. */
  strong?: (row: R) => boolean;
  /** Saves edits of one gesture together; throws when refused. */
  save?: (edits: Edit<R>[]) => Promise<void>;
}>();
/** A row chosen by the pointer is chosen at once; by keys it may be one of many passed on the way. */
const emit = defineEmits<{ select: [row: R, atOnce: boolean] }>();
defineSlots<{ [name: `cell-${string}`]: (scope: { row: R }) => unknown }>();

const view = useView();
const box = ref<HTMLElement | null>(null);
const head = ref<{ openMenu: (key: string) => void } | null>(null);
const table = useGridTable<R>(
  () => ({
    name: props.label,
    columns: props.columns,
    rows: props.rows,
    frozen: props.frozen ?? 0,
    strong: props.ordered ? undefined : props.strong,
    band: props.band,
  }),
  () => view.system,
);
const { columns: laid, rows: there } = table;
const cursor = useCursor<R>(
  () => ({ rows: there.value, columns: laid.value, selected: props.selected, strong: props.strong }),
  box,
  (row, atOnce) => emit("select", row, atOnce),
);
const { at, anchor, range, isMany, holds, moveTo, virtual, go } = cursor;
const cells = useGridEditing<R>(
  () => ({ rows: there.value, columns: laid.value, save: props.save }),
  box,
  cursor,
);
const { faults, cellKey, make, editing, begun, wide, dropped, start, finish, cancel, clear, fillDown } =
  cells;
const { onPaste, onCopy } = cells;
defineExpose({ clear, fillDown, wide, filtered: computed(() => there.value.length), shown: there });

const template = computed(() => laid.value.map((column) => `${column.width}px`).join(" "));
const width = computed(() => laid.value.reduce((sum, column) => sum + column.width, 0));
const shown = (row: R, column: Column<R>) => shownText(row, column, view.system);
const before = (row: R, column: Column<R>) => priorText(row, column, view.system);
const isHere = (row: number, column: number) => at.value.row === row && at.value.column === column;

/** Name of what begins with a row; empty in its midst. */
function bandAt(index: number): string {
  const row = there.value[index];
  if (!props.band || !row) return "";
  const above = there.value[index - 1];
  return above && props.band(above) === props.band(row) ? "" : props.band(row);
}
function titleOf(row: R, column: Column<R>): string | undefined {
  const why = faults.value.get(cellKey(row, column))?.why;
  return why ?? (column.note?.(row) || undefined) ?? column.origin?.(row) ?? undefined;
}

/** Where the pointer was pressed: rows that scroll past it while it rests there are not swept. */
let pressed = { x: 0, y: 0 };
const RESTS_PX = 3;

/** A press goes to the cell, with Shift it extends the range; on a figure that cannot be edited it shows how it came about. */
async function choose(event: PointerEvent, index: number, columnIndex: number): Promise<void> {
  if (event.button !== 0) return;
  pressed = { x: event.clientX, y: event.clientY };
  if (editing.value !== null) {
    if (isHere(index, columnIndex)) return;
    await finish(0, 0);
  }
  event.preventDefault();
  await go({ row: index, column: columnIndex }, event.shiftKey, true);
  const row = there.value[index];
  const column = laid.value[columnIndex];
  const target = row && column && !canEdit(row, column) && !event.shiftKey ? column.explain?.(row) : null;
  if (target) view.explain(target.quantity, target.subject);
}
function sweep(event: PointerEvent, row: number, column: number): void {
  const went = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > RESTS_PX;
  if (went && event.buttons === 1 && editing.value === null && props.ranges) moveTo({ row, column }, true);
}

/** Go to the cell of a field that is wanted, once the grid shows it. */
watch(
  () => [view.wanted, laid.value, there.value] as const,
  ([wanted]) => {
    if (!wanted || !props.save) return;
    const row = there.value.findIndex((candidate) => candidate.id === wanted.id);
    const column = laid.value.findIndex((candidate) => candidate.key === wanted.field);
    if (row < 0 || column < 0) return;
    view.wanted = null;
    void nextTick(() => go({ row, column }, false, true));
  },
  { immediate: true, flush: "post" },
);

const summary = computed(() => {
  const sums = isMany.value && props.ranges ? summaryOf(there.value, laid.value, range.value, view.system) : "";
  return [leftBy(there.value.length, props.rows.length), sums].filter(Boolean).join(" · ");
}); // prettier-ignore

function explainHere(): boolean {
  const row = there.value[at.value.row];
  const column = laid.value[at.value.column];
  const target = row && column && !canEdit(row, column) ? column.explain?.(row) : null;
  if (target) view.explain(target.quantity, target.subject);
  return Boolean(target);
}

function onKey(event: KeyboardEvent): void {
  if (editing.value !== null || event.altKey || !(event.target as HTMLElement).closest(".cell, .grid"))
    return;
  if ((event.target as HTMLElement).closest(".header")) return;
  const far = event.ctrlKey || event.metaKey;
  const last = { row: there.value.length - 1, column: laid.value.length - 1 };
  const place = moved(event, at.value, there.value.length, laid.value.length);
  const row = there.value[at.value.row];
  const column = laid.value[at.value.column];
  if (place) void go(place, event.shiftKey && props.ranges);
  else if (column && (event.key === "ContextMenu" || (event.key === "F10" && event.shiftKey)))
    head.value?.openMenu(column.key);
  else if (far && props.ranges && event.key.toLowerCase() === "d") void fillDown();
  else if (far && props.ranges && event.key.toLowerCase() === "a") {
    anchor.value = last;
    void go({ row: 0, column: 0 }, true);
  } else if (far && props.ranges && event.key === " ") {
    anchor.value = { row: last.row, column: at.value.column };
    void go({ row: 0, column: at.value.column }, true);
  } else if (far) return;
  else if (event.key === "Enter" || event.key === "F2") {
    if (!explainHere()) void start();
  } else if (event.key === "Delete" || event.key === "Backspace") void clear();
  else if (row && column && canEdit(row, column) && event.key.length === 1 && event.key !== " ")
    void start(event.key);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
const selected = toRef(props, "selected");
</script>

<template>
  <div
    ref="box"
    class="grid"
    role="grid"
    tabindex="-1"
    :aria-label="label"
    :aria-rowcount="there.length + 1"
    @keydown="onKey"
    @paste="onPaste"
    @copy="onCopy"
  >
    <GridHead
      ref="head"
      :table="table"
      :columns="laid"
      :all="columns"
      :template="template"
      :width="width"
      :orders="!ordered"
    />
    <div
      class="canvas"
      role="rowgroup"
      :style="{ height: virtual.getTotalSize() + 'px', minWidth: width + 'px' }"
    >
      <template v-for="item in virtual.getVirtualItems()" :key="there[item.index]?.id ?? item.index">
        <div
          v-if="there[item.index]"
          class="row"
          role="row"
          :aria-rowindex="item.index + 2"
          :aria-selected="there[item.index]!.id === selected"
          :class="{
            selected: there[item.index]!.id === selected,
            strong: strong?.(there[item.index]!),
            first: bandAt(item.index),
          }"
          :style="{ gridTemplateColumns: template, transform: `translateY(${item.start}px)` }"
        >
          <span v-if="bandAt(item.index)" class="band" :class="{ top: item.index === 0 }">{{
            bandAt(item.index)
          }}</span>
          <div
            v-for="(column, index) in laid"
            :key="column.key"
            class="cell"
            role="gridcell"
            :data-cell="`${item.index}/${index}`"
            :data-column="column.key"
            :tabindex="isHere(item.index, index) ? 0 : -1"
            :class="{
              num: column.quantity,
              open: canEdit(there[item.index]!, column),
              inherited: !['own', '', undefined].includes(column.origin?.(there[item.index]!)),
              bad: faults.has(cellKey(there[item.index]!, column)),
              noted: column.note?.(there[item.index]!),
              at: isHere(item.index, index),
              swept: holds(item.index, index),
              frozen: column.left,
            }"
            :style="{ left: column.left }"
            :title="titleOf(there[item.index]!, column)"
            @pointerdown="choose($event, item.index, index)"
            @pointerenter="sweep($event, item.index, index)"
            @dblclick="start()"
          >
            <GridEditor
              v-if="editing !== null && isHere(item.index, index)"
              v-model="editing"
              :column="column"
              :wide="wide"
              :begun="begun"
              @finish="finish"
              @cancel="cancel"
            />
            <GridFault
              v-else-if="faults.has(cellKey(there[item.index]!, column))"
              :column="column"
              :fault="faults.get(cellKey(there[item.index]!, column))!"
              :at="isHere(item.index, index)"
              @make="make(column, faults.get(cellKey(there[item.index]!, column))!.text, there)"
            />
            <slot v-else :name="`cell-${column.key}`" :row="there[item.index]!">
              <s v-if="before(there[item.index]!, column)" class="was">{{
                before(there[item.index]!, column)
              }}</s>
              <span :class="{ now: before(there[item.index]!, column) }">{{
                shown(there[item.index]!, column)
              }}</span>
            </slot>
          </div>
        </div>
      </template>
    </div>
    <GridPaper :columns="laid" :rows="there" />
    <p v-if="dropped" class="summary" role="alert">{{ dropped }}</p>
    <p v-else-if="summary" class="summary" role="note">
      {{ summary }}
      <TextAct v-if="table.filters.value.length" @click="table.filters.value = []">Show all rows</TextAct>
    </p>
  </div>
</template>

<style scoped src="./grid.css"></style>
