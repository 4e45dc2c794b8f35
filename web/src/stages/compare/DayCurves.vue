<script setup lang="ts">
/** The cooling load of a room or group over a design day, base and options on one scale. */
import { client, unwrap } from "@/api/client";
import { useResults } from "@/results/store";
import LineChart, { type Series } from "@/parts/LineChart.vue";
import { MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { ref, watch } from "vue";

const props = defineProps<{
  columns: { id: string; name: string }[];
  month: number;
  of: { kind: string; id: string; name: string };
}>();
const view = useView();
const results = useResults();
const curves = ref<Series[]>([]);
const TONES = ["var(--ink)", "var(--accent)", "var(--ember)", "var(--tide)", "var(--sun)", "var(--people)"];

watch(
  [() => props.columns, () => props.month, () => props.of, () => view.system, () => results.version],
  async (_now, _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    const found = await Promise.all(
      props.columns.map(async (column, at) => {
        const answer = await client.GET("/api/projects/{project_id}/day", {
          params: {
            path: { project_id: column.id },
            query: { kind: props.of.kind, subject: props.of.id, month: props.month },
          },
        });
        const parts = answer.response.ok ? unwrap(answer).parts : {};
        const all = Object.values(parts);
        const total = (all[0] ?? []).map((_, step) => all.reduce((sum, row) => sum + (row[step] ?? 0), 0));
        return {
          name: column.name,
          colour: TONES[at % TONES.length]!,
          values: total.map((value) => toShown(Math.max(0, value), "load", view.system)),
          dashed: at === 0,
        };
      }),
    );
    if (!stale) curves.value = found.filter((curve) => curve.values.length);
  },
  { immediate: true },
);
</script>

<template>
  <LineChart
    v-if="curves.length"
    :title="`Cooling load of ${of.name}, ${MONTHS[month - 1]}`"
    :unit="unitOf('load', view.system)"
    :series="curves"
    zero
  />
</template>
