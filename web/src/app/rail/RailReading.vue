<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import Figure from "@/parts/Figure.vue";
import { source } from "@/parts/sources";
import type { DayCourses } from "@/results/types";
import { clock, MONTHS } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";
import { jumpToPeak } from "../keys";

const props = defineProps<{ courses: DayCourses | null; total: number[]; quantity: string }>();
const SHOWN = { heat: "Heat", air: "Temperatures" };
const shows = defineModel<"heat" | "air">("shows", { required: true });
const view = useView();
/** The largest three sources of the hour. */
const ranked = computed(() =>
  Object.entries(props.courses?.parts ?? {})
    .map(([key, values]) => ({ ...source(key), value: values[view.step] ?? 0 }))
    .sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
    .slice(0, 3),
);
const air = computed(() => {
  const c = props.courses;
  if (c?.control) return c.control.air_c[view.step] ?? null;
  if (!c || c.reference_c === null) return null;
  return c.unit === "K" ? c.reference_c + (props.total[view.step] ?? 0) : c.reference_c;
});
</script>

<template>
  <div class="read">
    <p>
      <b>{{ clock(view.step) }} {{ view.month ? MONTHS[view.month - 1] : "winter" }}</b> outdoors
      <b><Figure :value="courses?.outdoor_c[view.step] ?? null" quantity="temperature" /></b>
      <template v-if="air !== null">
        air <b><Figure :value="air" quantity="temperature" /></b
      ></template>
    </p>
    <p>
      <template v-if="courses"
        >sum <b data-test="rail-sum"><Figure :value="total[view.step] ?? 0" :quantity="quantity" /></b
      ></template>
      <span v-for="part in ranked" :key="part.name" class="part"
        ><i :style="{ background: part.colour }" />{{ part.name }}
        <Figure :value="part.value" :quantity="quantity" bare
      /></span>
    </p>
    <p class="soft">
      <Segments v-model="shows" label="Rail shows" :choices="SHOWN" />
      <kbd>[</kbd> <kbd>]</kbd> 10 min <TextAct @click="jumpToPeak"><kbd>P</kbd> peak</TextAct>
    </p>
  </div>
</template>

<style scoped>
.read {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: hidden;
}
.read p {
  margin: 0 0 4px;
}
.part {
  margin-left: 8px;
  white-space: nowrap;
}
.part i {
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 3px;
}
kbd {
  font-family: var(--mono);
  font-size: 11px;
  border: 1px solid var(--line);
  padding: 0 4px;
}
@media (max-width: 1099px) {
  .read {
    display: none;
  }
}
</style>
