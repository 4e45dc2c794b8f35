<script setup lang="ts">
import { format, fromShown, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import type { ScheduleKind } from "./kinds";

/** A day pattern as cells in a row, edited by keys and by paste. */
const props = defineProps<{
  /** Value of each cell, stored. */
  cells: number[];
  kind: ScheduleKind;
  /** First and last selected cell as they were chosen: the second may come before the first. */
  from: number;
  to: number;
}>();
const emit = defineEmits<{
  select: [from: number, to: number];
  /** Another value for the selection, stored. */
  set: [value: number];
  /** The selection a cell earlier (-1) or later (1). */
  later: [sign: number];
  mirror: [];
  /** A whole day as a row of figures. */
  paste: [text: string];
  fault: [why: string];
}>();
const view = useView();
const typed = ref("");
const first = computed(() => Math.min(props.from, props.to));
const last = computed(() => Math.max(props.from, props.to));
const unit = computed(() => unitOf(props.kind.quantity, view.system));
const shown = (value: number) => Number(toShown(value, props.kind.quantity, view.system).toFixed(1));

function extend(to: number, both: boolean): void {
  const held = Math.max(0, Math.min(props.cells.length - 1, to));
  typed.value = "";
  emit("select", both ? held : props.from, held);
}

/** The typed figure as stored; nothing is set where a value may not be so. */
function setTyped(): void {
  const figure = Number(typed.value);
  const value = fromShown(figure, props.kind.quantity, view.system);
  if (value >= props.kind.low && value <= props.kind.high) emit("set", value);
  else emit("fault", `${typed.value} ${unit.value} is outside what a value may be.`);
  typed.value = "";
}

function onKey(event: KeyboardEvent): void {
  const { low, high, step } = props.kind;
  const key = event.key;
  if (event.ctrlKey || event.metaKey) return;
  if (event.altKey && (key === "ArrowLeft" || key === "ArrowRight")) emit("later", key === "ArrowLeft" ? -1 : 1);
  else if (key === "ArrowLeft" || key === "ArrowRight")
    extend(props.to + (key === "ArrowLeft" ? -1 : 1), !event.shiftKey);
  else if (key === "Home" || key === "End") extend(key === "Home" ? 0 : props.cells.length - 1, !event.shiftKey);
  else if (key === "ArrowUp" || key === "ArrowDown") {
    const moved = (props.cells[first.value] ?? 0) + (key === "ArrowUp" ? step : -step);
    emit("set", Number(Math.max(low, Math.min(high, moved)).toPrecision(10)));
  } else if (key.toLowerCase() === "m") emit("mirror");
  else if (/^[-\d.,]$/.test(key)) typed.value += key.replace(",", ".");
  else if (key === "Backspace") typed.value = typed.value.slice(0, -1);
  else if (key === "Escape") typed.value = "";
  else if (key === "Enter" && typed.value) setTyped();
  else return;
  event.preventDefault();
  event.stopPropagation();
} // prettier-ignore
</script>

<template>
  <div>
    <div
      class="ribbon"
      role="application"
      tabindex="0"
      aria-label="Ribbon of hours"
      @keydown="onKey"
      @paste.prevent="emit('paste', $event.clipboardData?.getData('text/plain') ?? '')"
    >
      <template v-if="cells.length <= 96">
        <span
          v-for="(value, i) in cells"
          :key="i"
          :class="{ on: i >= first && i <= last }"
          @click="emit('select', $event.shiftKey ? from : i, i)"
          >{{ cells.length > 48 ? "" : shown(value) }}</span
        >
      </template>
      <span v-else class="on">
        {{ String(Math.floor(first / 60)).padStart(2, "0") }}:{{ String(first % 60).padStart(2, "0") }}
        {{ format(cells[first], kind.quantity, view.system) }} {{ unit }}
      </span>
    </div>
    <div class="hours">
      <span v-for="hour in [0, 3, 6, 9, 12, 15, 18, 21, 24]" :key="hour">{{ hour }}</span>
      <b v-if="typed" class="typed" role="status">{{ typed }} {{ unit }}, Enter sets it</b>
    </div>
  </div>
</template>

<style scoped>
.ribbon {
  display: flex;
  margin-top: 4px;
  user-select: none;
}
.ribbon span {
  font-family: var(--narrow);
  flex: 1;
  border: 1px solid var(--line);
  height: 24px;
  font-size: 11px;
  text-align: center;
  line-height: 22px;
  min-width: 0;
  background: var(--field);
  overflow: hidden;
}
.ribbon .on {
  background: var(--wash);
  border-color: var(--accent);
  font-weight: 600;
}
.hours {
  display: flex;
  justify-content: space-between;
  font-size: 11px;
  color: var(--soft);
  margin: 0 0 3px;
  position: relative;
}
.typed {
  position: absolute;
  right: 24px;
  background: var(--paper);
  color: var(--ink);
  padding: 0 6px;
}
</style>
