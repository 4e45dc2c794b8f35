<script setup lang="ts">
import { useDocument } from "@/document/store";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { fieldSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ gone: [] }>();
const doc = useDocument();
const curve = computed(() => useResults().get("glazing", props.id));
const glazing = computed(() => doc.get("glazing", props.id)!);
const series = computed(() => [
  {
    name: "g by angle",
    colour: "var(--sun)",
    values: (curve.value?.factors ?? []).map((factor) => factor * glazing.value.g_value),
  },
]);
const users = computed(() => doc.rows("opening").filter((row) => row.glazing === props.id).length);
const inKit = computed(() => doc.rows("kit").some((kit) => kit.window === props.id));

async function remove(): Promise<void> {
  if (await doc.attempt("Glazing deleted", [{ op: "delete", kind: "glazing", id: props.id }])) emit("gone");
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ glazing.name }}</h1>
      <span class="soft"
        >{{ inKit ? "the kit's window" : "" }} {{ users ? `${users} openings of their own` : "" }}</span
      >
      <span class="grow" /><button class="act" @click="remove">Delete</button>
    </div>
    <div class="body two">
      <section>
        <Field
          label="Name"
          :value="glazing.name"
          :editor="{ type: 'text' }"
          :save="fieldSaver('glazing', () => id, 'name', 'Glazing name')"
        />
        <Field
          label="U-value of the window, films included"
          :value="glazing.u_value"
          :editor="{ type: 'number', quantity: 'u_value' }"
          :save="fieldSaver('glazing', () => id, 'u_value', 'Window U-value')"
        />
        <Field
          label="g-value of the glass"
          :value="glazing.g_value"
          :editor="{ type: 'number', quantity: 'ratio' }"
          :save="fieldSaver('glazing', () => id, 'g_value', 'g-value')"
        />
        <Field
          label="Frame share"
          :value="glazing.frame_share"
          :editor="{ type: 'number', quantity: 'percent' }"
          :save="fieldSaver('glazing', () => id, 'frame_share', 'Frame share')"
        />
        <Field
          label="Panes"
          :value="glazing.panes"
          :editor="{ type: 'number', quantity: 'count' }"
          :save="fieldSaver('glazing', () => id, 'panes', 'Panes')"
        />
        <p class="soft">
          Surface to surface R = 1/U − 0.17 m²K/W. The angular course follows the pane count: ASHRAE Handbook
          Fundamentals 2017, ch. 15, clear panes.
        </p>
      </section>
      <section class="chart">
        <LineChart
          title="Solar factor by angle of incidence"
          unit="–"
          :series="series"
          :x="curve?.angles_deg ?? []"
          :x-ticks="[0, 15, 30, 45, 60, 75, 90]"
          x-unit="°"
          zero
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 28px;
}
.chart {
  height: 320px;
}
</style>
