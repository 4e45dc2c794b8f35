<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import Slide from "@/parts/Slide.vue";
import { MONTH_CHOICES } from "@/parts/months";
import LineChart from "@/parts/LineChart.vue";
import { toCells, type Steps } from "@/parts/pattern";
import type { UseResult } from "@/results/types";
import { clock, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";

/** A use over one design day: heat to the room, set-points, and the people of an hour. */
const props = defineProps<{ worked: UseResult | undefined }>();
const view = useView();
const hour = ref(12);
const month = computed(() => Math.min(12, view.month || 7));
const day = computed(() => props.worked?.days[props.worked.day_of[month.value - 1] ?? 0]);
const courses = computed(() =>
  (["people", "lights", "equipment", "latent"] as const).map((name) => ({
    name,
    colour: name === "latent" ? "var(--tide)" : `var(--${name})`,
    dashed: name === "latent",
    values: (day.value?.[name] ?? []).map((value) => toShown(value, "power_per_area", view.system)),
  })),
);
/** Set-points of the chosen day; where there is none the line is left out. */
const setPoints = computed(() =>
  (["heating", "cooling"] as const).flatMap((name) => {
    const steps = props.worked?.set_points[name][month.value - 1] ?? [];
    if (!steps.some(([, value]) => value !== null)) return [];
    const cells = toCells(steps.map(([until, value]) => [until, value ?? NaN]) as Steps, 10);
    const colour = name === "heating" ? "var(--ember)" : "var(--tide)";
    return [{ name: `${name} set-point`, colour, values: cells.map((c) => toShown(c, "temperature", view.system)) }];
  }),
); // prettier-ignore
const there = computed(() => {
  const share = props.worked?.presence[month.value - 1]?.[hour.value * 6] ?? 0;
  return { share, people: share * (props.worked?.people ?? 0) };
});
</script>

<template>
  <div class="plot">
    <LineChart
      :title="`Heat to the room, design day of ${MONTHS[month - 1]}, standard time`"
      :unit="unitOf('power_per_area', view.system)"
      :series="courses"
      :marker="hour + 0.5"
      zero
    />
  </div>
  <div v-if="setPoints.length" class="plot low">
    <LineChart
      title="Set-points that day"
      :unit="unitOf('temperature', view.system)"
      :series="setPoints"
      :span="12"
      :marker="hour + 0.5"
    />
  </div>
  <p class="at">
    At
    <Slide v-model="hour" :min="0" :max="23" label="Hour looked at" />
    {{ clock(hour * 6) }} on the design day of
    <Choice v-model="view.month" label="Design day" :choices="MONTH_CHOICES" />
    there are <b data-test="people-at">{{ there.people.toFixed(1) }}</b> people
    <span class="soft"
      >({{ Math.round(there.share * 100) }} % of {{ (worked?.people ?? 0).toFixed(1) }})</span
    >
  </p>
</template>

<style scoped>
.plot {
  height: 196px;
  margin-bottom: 8px;
}
.low {
  height: 138px;
}
.at {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
</style>
