<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import TextBox from "@/parts/TextBox.vue";
import Slide from "@/parts/Slide.vue";
import { MONTH_CHOICES } from "@/parts/months";
import { client, unwrap, type Schemas } from "@/api/client";
import { useDocument } from "@/document/store";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { useShared } from "@/parts/shared";
import SharedPage from "@/parts/SharedPage.vue";
import UsedIn from "@/parts/UsedIn.vue";
import { clock, compass } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";

type ShadingDay = Schemas["ShadingDay"];

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ open: [id: string] }>();
const doc = useDocument();
const view = useView();
const shading = computed(() => doc.get("shading", props.id)!);
const shared = useShared("shading", () => props.id);
const width = ref(1.5);
const height = ref(1.4);
const azimuth = ref(180);
const day = ref<ShadingDay | null>(null);
const month = computed(() => Math.min(12, view.month || 7));
const field = fieldsFor("shading", () => shading.value);
const FIELDS = ["overhang_m", "overhang_gap_m", "overhang_beyond_m", "left_fin_m", "right_fin_m", "fin_gap_m", "fin_beyond_m", "reveal_m"] as const; // prettier-ignore

watch(
  [() => doc.version, month, width, height, azimuth, () => props.id],
  async (_now, _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    const answer = await client.GET("/api/projects/{project_id}/shading/{shading}", {
      params: {
        path: { project_id: doc.projectId, shading: props.id },
        query: { month: month.value, width: width.value, height: height.value, azimuth: azimuth.value },
      },
    });
    if (!stale && answer.response.ok) day.value = unwrap(answer) as ShadingDay;
  },
  { immediate: true },
);

/** Elevation of the opening in metres, y upwards, with room around for the plates. */
const margin = computed(() => 0.35 + Math.max(shading.value.overhang_gap_m! + 0.2, shading.value.fin_gap_m! + 0.2, shading.value.overhang_beyond_m!)); // prettier-ignore
const box = computed(() => {
  const m = margin.value;
  return `${-m} ${-m} ${width.value + 2 * m} ${height.value + 2 * m}`;
});
const shadows = computed(() =>
  (day.value?.shadows[view.step] ?? []).map((corners) =>
    corners.map(([x, y]) => `${x},${(height.value - y).toFixed(3)}`).join(" "),
  ),
);
const lit = computed(() => day.value?.lit_share[view.step] ?? 0);
const series = computed(() => [
  {
    name: "sunlit",
    colour: "var(--sun)",
    values: (day.value?.lit_share ?? []).map((value) => value * 100),
  },
]);
</script>

<template>
  <SharedPage :shared="shared" :name="shading.name" @open="emit('open', $event)">
    <div class="body two">
      <section>
        <Field v-bind="field('name')" />
        <Field v-for="key in FIELDS" :key="key" v-bind="field(key)" />
        <UsedIn :shared="shared" @open="emit('open', $event)" />
        <p v-if="!shared.usages.value.length" class="soft">Choose it for an opening in Rooms.</p>
      </section>
      <section>
        <p class="row">
          Tried on a window of
          <TextBox
            v-model="width"
            class="short"
            type="number"
            :min="0.1"
            :max="50"
            :step="0.1"
            label="Width tried, m"
          />
          ×
          <TextBox
            v-model="height"
            class="short"
            type="number"
            :min="0.1"
            :max="50"
            :step="0.1"
            label="Height tried, m"
          />
          m facing
          <TextBox
            v-model="azimuth"
            class="short"
            type="number"
            :min="0"
            :max="359"
            :step="15"
            label="Azimuth tried, degrees"
          />° {{ compass(azimuth) }} on 21
          <Choice v-model="view.month" label="Month" :choices="MONTH_CHOICES" />
        </p>
        <svg :viewBox="box" class="front" role="img" aria-label="Opening with shadows">
          <clipPath id="pane"><rect :width="width" :height="height" /></clipPath>
          <rect
            :width="width"
            :height="height"
            :fill="lit > 0 ? '#f2d78a' : 'var(--panel)'"
            stroke="var(--ink)"
            stroke-width="0.02"
          />
          <g clip-path="url(#pane)">
            <polygon v-for="(points, i) in shadows" :key="i" :points="points" fill="#4a5560" />
          </g>
          <rect
            v-if="shading.overhang_m"
            :x="-shading.overhang_beyond_m!"
            :y="-shading.overhang_gap_m! - 0.06"
            :width="width + 2 * shading.overhang_beyond_m!"
            height="0.06"
            fill="var(--walls)"
          />
          <rect
            v-if="shading.left_fin_m"
            :x="-shading.fin_gap_m! - 0.05"
            :y="-shading.fin_beyond_m!"
            width="0.05"
            :height="height + 2 * shading.fin_beyond_m!"
            fill="var(--walls)"
          />
          <rect
            v-if="shading.right_fin_m"
            :x="width + shading.fin_gap_m!"
            :y="-shading.fin_beyond_m!"
            width="0.05"
            :height="height + 2 * shading.fin_beyond_m!"
            fill="var(--walls)"
          />
        </svg>
        <p class="row">
          <Slide v-model="view.step" :min="0" :max="143" label="Time of day" />
          <b>{{ clock(view.step) }}</b> sunlit <b data-test="lit">{{ (lit * 100).toFixed(1) }} %</b>
        </p>
        <div class="chart">
          <LineChart title="Sunlit part" unit="%" :series="series" :marker="(view.step + 0.5) / 6" zero />
        </div>
        <p v-if="day" class="soft">
          Of even sky light {{ (day.sky_share * 100).toFixed(0) }} % passes, of ground light
          {{ (day.ground_share * 100).toFixed(0) }} %. Shadows are calculated exactly for every ten minutes.
        </p>
      </section>
    </div>
  </SharedPage>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 28px;
}
.front {
  width: 100%;
  height: 250px;
  border: 1px solid var(--hair);
}
.chart {
  height: 150px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
</style>
