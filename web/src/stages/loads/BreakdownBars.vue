<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import { source } from "@/parts/sources";
import { useBaseLoads } from "@/document/baseLoads";
import { useResults } from "@/results/store";
import { clock, MONTHS } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import RoomComfort from "./RoomComfort.vue";
import WarmthBars from "./WarmthBars.vue";
import type { LoadRow } from "./rows";

const props = defineProps<{ row: LoadRow; mode: "cooling" | "heating" }>();
const results = useResults();
const view = useView();
const base = useBaseLoads();
/** The parts in the base, where an option is worked in. */
const before = computed(() => {
  const loads = base.of(props.row.id);
  return props.mode === "cooling" ? loads?.parts_w : loads?.heating_parts_w;
});
const baseTotal = computed(() => {
  const loads = base.of(props.row.id);
  return props.mode === "cooling" ? loads?.cooling_w : loads?.heating_w;
});
const withMargin = computed(() =>
  props.mode === "cooling" ? props.row.with_margin.cooling_w : props.row.with_margin.heating_w,
);
/** Working of one of its figures, of a room or of rooms together. */
const explained = (what: string) => ({
  quantity: `${props.row.isRoom ? "room" : "group"}_${what}`,
  subject: props.row.id,
});
/** Whether the breakdown follows the hour on the rail instead of the peak. */
const atHour = ref(false);
/** Parts at the rail's hour, in the order of the categories; null where the rail shows something else. */
const hour = computed(() => {
  const day = results.day;
  const shown = day?.subject === props.row.id && day.month === view.month && day.courses.unit === "W";
  return shown ? results.categories.map((category) => day.courses.parts[category]?.[view.step] ?? 0) : null;
});
const follows = computed(() => atHour.value && hour.value !== null);
const parts = computed(() => {
  if (follows.value) return ordered(hour.value!, undefined);
  const values = props.mode === "cooling" ? (props.row.peak?.parts_w ?? []) : props.row.heating_parts_w;
  return ordered(values, before.value);
});

function ordered(values: number[], old: number[] | undefined) {
  return values
    .map((value, i) => ({ ...source(results.categories[i] ?? ""), value, there: old?.[i] ?? null }))
    .filter((part) => Math.abs(part.value) > 0.5 || Math.abs(part.there ?? 0) > 0.5)
    .sort((a, b) => Math.abs(b.value) - Math.abs(a.value));
}
const total = computed(() => parts.value.reduce((sum, part) => sum + part.value, 0));
const most = computed(() =>
  Math.max(1, ...parts.value.flatMap((part) => [Math.abs(part.value), Math.abs(part.there ?? 0)])),
);
const low = computed(
  () => Math.max(0, ...parts.value.flatMap((part) => [-part.value, -(part.there ?? 0)])) / most.value,
);
const title = computed(() => {
  if (follows.value)
    return `${view.month ? (MONTHS[view.month - 1] ?? "") : "winter day"} ${clock(view.step)}`;
  if (props.mode === "heating") return "winter day";
  return props.row.peak
    ? `own peak, ${MONTHS[props.row.peak.month - 1]} ${clock(props.row.peak.step)}`
    : "not cooled";
});
/** Share of the bar column left of zero. */
const zero = computed(() => (low.value / (1 + low.value)) * 100);
const scale = computed(() => 100 / (1 + low.value));
</script>

<template>
  <section class="box" aria-label="Breakdown" tabindex="0">
    <h2>
      Breakdown of {{ row.number }} {{ row.name }} <span class="soft">{{ title }}</span>
      <TextAct
        v-if="hour"
        class="at"
        :aria-pressed="atHour"
        title="Follow the hour on the rail, or stay at the peak"
        @click="atHour = !atHour"
      >
        {{ atHour ? "at the peak" : "at the hour" }}
      </TextAct>
    </h2>
    <div v-for="part in parts" :key="part.name" class="line">
      <span>{{ part.name }}</span>
      <span class="track"
        ><i
          :style="{
            background: part.colour,
            left: (part.value >= 0 ? zero : zero - (-part.value / most) * scale) + '%',
            width: (Math.abs(part.value) / most) * scale + '%',
          }" /><i
          v-if="part.there !== null"
          class="there"
          :style="{
            left: (part.there >= 0 ? zero : zero - (-part.there / most) * scale) + '%',
            width: (Math.abs(part.there) / most) * scale + '%',
          }"
      /></span>
      <span class="num"
        ><Figure :value="part.value" quantity="load" />
        <small v-if="part.there === null" class="soft"
          >{{ total ? Math.round((part.value / total) * 100) : 0 }} %</small
        ><small v-else-if="Math.abs(part.value - part.there) < 0.5" class="soft">same</small
        ><small v-else :title="`${part.there > part.value ? 'less' : 'more'} in the base`"
          >{{ part.value > part.there ? "+" : "−"
          }}<Figure bare :value="Math.abs(part.value - part.there)" quantity="load" /></small
      ></span>
    </div>
    <div v-if="parts.length" class="line sum">
      <span>Sum</span><span /><span class="num"><Figure :value="total" quantity="load" /></span>
    </div>
    <div
      v-if="parts.length && !follows && withMargin !== null && Math.abs(withMargin - total) > 0.5"
      class="line"
    >
      <span>With the margin</span><span /><span class="num"
        ><Figure :value="withMargin" quantity="load" :explain="explained(`${mode}_with_margin`)"
      /></span>
    </div>
    <template v-if="mode === 'cooling' && !follows && row.peak">
      <div v-if="row.peak.latent_w > 0.5" class="line" data-test="latent">
        <span>Latent</span
        ><span class="hint" title="Moisture of people and equipment at that time">moisture</span
        ><span class="num"
          ><Figure :value="row.peak.latent_w" quantity="load" :explain="explained('latent')"
        /></span>
      </div>
      <div v-if="row.outdoor_air_w !== null" class="line" data-test="outdoor-air">
        <span>Outdoor air</span
        ><span class="hint" title="A load of the air system's coil, not of the room">on the coil</span
        ><span class="num"
          ><Figure :value="row.outdoor_air_w" quantity="load" :explain="explained('outdoor_air')"
        /></span>
      </div>
    </template>
    <div v-if="parts.length && !follows && baseTotal != null" class="line" data-test="base">
      <span>Base</span><span /><span class="num"><Figure :value="baseTotal" quantity="load" /></span>
    </div>
    <div
      v-if="mode === 'heating' && !follows && row.heating_simple_w > 0"
      class="line soft"
      data-test="simple"
    >
      <span>Losses by U-values</span
      ><span class="hint" title="For comparison, without heating-up">EN 12831-1, simple</span
      ><span class="num"
        ><Figure :value="row.heating_simple_w" quantity="load" :explain="explained('heating_simple')"
      /></span>
    </div>
    <WarmthBars v-if="row.isRoom && mode === 'cooling' && row.floating" :id="row.id" />
    <RoomComfort v-if="row.isRoom" :id="row.id" :mode="mode" />
    <p v-if="!parts.length" class="soft">
      {{ mode === "cooling" && row.floating ? "This room is not cooled." : "No load." }}
    </p>
  </section>
</template>

<style scoped>
.box {
  padding: 8px 14px;
  overflow: auto;
  font-family: var(--narrow);
}
h2 {
  display: flow-root;
  font-family: var(--sans);
}
h2 .soft {
  font-weight: 400;
  font-size: 12px;
  margin-left: 6px;
}
.at {
  float: right;
  font-weight: 400;
  font-size: 12px;
}
.line {
  display: grid;
  grid-template-columns: 150px minmax(60px, 1fr) 128px;
  height: 21px;
  align-items: center;
  gap: 8px;
}
.track {
  position: relative;
  height: 11px;
}
.track i {
  position: absolute;
  height: 11px;
}
.track .there {
  top: -2px;
  height: 15px;
  border: 1px dashed var(--ink);
  border-left: 0;
}
.hint {
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.sum {
  border-top: 1px solid var(--ink);
  font-weight: 600;
}
small {
  display: inline-block;
  min-width: 34px;
  text-align: right;
}
</style>
