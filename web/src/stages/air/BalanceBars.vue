<script setup lang="ts">
/** Air of every room: what comes in to the left of nought, what goes out to the right, offset and free flow beside it. */
import type { BalanceResult } from "@/results/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

export interface BalanceRow {
  id: string;
  name: string;
  balance: BalanceResult;
}
const props = defineProps<{ rows: BalanceRow[]; selected: string }>();
const emit = defineEmits<{ choose: [id: string] }>();
const view = useView();

interface Part {
  name: string;
  look: string;
  value: (b: BalanceResult) => number;
}
const IN: Part[] = [
  { name: "supply", look: "supply", value: (b) => b.supply_m3_s - b.make_up_m3_s },
  { name: "make-up", look: "make-up", value: (b) => b.make_up_m3_s },
  { name: "from rooms", look: "transfer", value: (b) => b.transfer_in_m3_s },
  { name: "through leaks", look: "leak", value: (b) => b.leak_in_m3_s },
];
const OUT: Part[] = [
  { name: "return", look: "supply", value: (b) => b.returned_m3_s },
  { name: "extracts", look: "make-up", value: (b) => b.extract_m3_s + b.by_unit_m3_s },
  { name: "to rooms", look: "transfer", value: (b) => b.transfer_out_m3_s },
  { name: "through leaks", look: "leak", value: (b) => b.leak_out_m3_s },
];
const told = (value: number) => `${format(value, "airflow", view.system)} ${unitOf("airflow", view.system)}`;
const NAME = 150;
const SIDE = 250;
const ROW = 19;
const total = (parts: Part[], b: BalanceResult) => parts.reduce((sum, part) => sum + part.value(b), 0);
const most = computed(() =>
  Math.max(0.001, ...props.rows.map((row) => Math.max(total(IN, row.balance), total(OUT, row.balance)))),
);
const nought = NAME + SIDE;
function bars(parts: Part[], b: BalanceResult, direction: -1 | 1) {
  let at = 0;
  return parts.flatMap((part) => {
    const width = (Math.max(0, part.value(b)) / most.value) * SIDE;
    const x = direction > 0 ? nought + at : nought - at - width;
    at += width;
    return width > 0.3 ? [{ key: `${direction}${part.name}`, x, width, look: part.look, title: `${part.name} ${told(part.value(b))}` }] : [];
  });
} // prettier-ignore
</script>

<template>
  <figure class="bars" tabindex="0" aria-label="Air balance, drawn">
    <figcaption>
      <span v-for="part in IN" :key="part.name" class="key"
        ><i :class="['swatch', part.look]" />{{ part.name }}</span
      ><span class="soft"> come in · go out as return, extracts, to rooms, through leaks</span>
    </figcaption>
    <svg
      :width="nought + SIDE + 130"
      :height="rows.length * ROW + 6"
      role="img"
      aria-label="Air in and out of every room"
    >
      <g
        v-for="(row, index) in rows"
        :key="row.id"
        :transform="`translate(0 ${index * ROW})`"
        :class="['line', { on: row.id === selected }]"
        @click="emit('choose', row.id)"
      >
        <rect class="back" x="0" y="0" :width="nought + SIDE + 130" :height="ROW" />
        <text :x="NAME - 6" y="13" text-anchor="end">{{ row.name }}</text>
        <rect
          v-for="bar in [...bars(IN, row.balance, -1), ...bars(OUT, row.balance, 1)]"
          :key="bar.key"
          :x="bar.x"
          y="4"
          :width="bar.width"
          :height="ROW - 8"
          :class="['bar', bar.look]"
        >
          <title>{{ bar.title }}</title>
        </rect>
        <text :x="nought + SIDE + 8" y="13" class="beside">
          {{ row.balance.offset_m3_s ? `offset ${told(row.balance.offset_m3_s)}` : "" }}
        </text>
      </g>
      <line :x1="nought" :x2="nought" y1="0" :y2="rows.length * ROW" class="nought" />
    </svg>
  </figure>
</template>

<style scoped>
.bars {
  margin: 0;
  overflow: auto;
  min-height: 0;
}
figcaption {
  position: sticky;
  top: 0;
  background: var(--paper);
  padding: 4px 12px;
  font: 12px var(--narrow);
  display: flex;
  gap: 12px;
}
.swatch {
  display: inline-block;
  width: 18px;
  height: 9px;
  margin-right: 4px;
}
text {
  font: 12px var(--narrow);
  fill: var(--ink);
}
.beside {
  fill: var(--soft);
}
.back {
  fill: transparent;
}
.line.on .back {
  fill: var(--wash);
}
.line {
  cursor: pointer;
}
.nought {
  stroke: var(--ink);
}
.bar {
  stroke: var(--paper);
  stroke-width: 1;
}
.supply {
  fill: var(--tide);
  background: var(--tide);
}
.make-up {
  fill: var(--outdoor-air);
  background: var(--outdoor-air);
}
.transfer {
  fill: var(--neighbours);
  background: var(--neighbours);
}
.leak {
  fill: var(--infiltration);
  background: var(--infiltration);
}
</style>
