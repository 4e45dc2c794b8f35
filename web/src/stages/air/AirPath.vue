<script setup lang="ts">
/** The air's way through the unit: supply lane above extract lane, with the state under every joint at the rail's hour. */
import type { AirSystem } from "@/document/types";
import Figure from "@/parts/Figure.vue";
import { computed } from "vue";
import type { AirDay, StateName } from "./types";

const props = defineProps<{ system: AirSystem; day: AirDay | null; step: number }>();

interface Part {
  name: string;
  icon: "exchanger" | "mixing" | "coils" | "steam" | "fan" | "rooms";
  /** State behind it, and the dry-air flow there. */
  state: StateName | null;
  title: string;
  flow: number | undefined;
  note: string;
}
const at = (values: number[] | undefined) => values?.[props.step];
const kw = (values: number[] | undefined) => at(values) ?? 0;
const parts = computed<Part[]>(() => {
  const { system, day } = props;
  const [flow, outdoor] = [at(day?.flow_kg_s), at(day?.outdoor_kg_s)];
  const found: Part[] = [];
  if (day?.points.recovered)
    found.push({ name: "recovery", icon: "exchanger", state: "recovered", title: "off recovery", flow: outdoor, note: "" });
  if (system.arrangement === "central" && !system.outdoor_only)
    found.push({ name: "mixing", icon: "mixing", state: "mixed", title: "mixed", flow, note: day?.economizing[props.step] ? "economizer on" : "" });
  found.push({ name: "filter, coils", icon: "coils", state: null, title: "", flow, note: kw(day?.heating_w) > 1 ? "heating" : kw(day?.coil_total_w) > 1 ? "cooling" : "idle" });
  if (system.humidifier !== "none")
    found.push({ name: "humidifier", icon: "steam", state: day?.points.humidified ? "humidified" : "off_coil", title: "humidified", flow, note: kw(day?.water_kg_s) > 1e-7 ? "on" : "off" });
  found.push({ name: "fan", icon: "fan", state: "supply", title: "supply", flow, note: kw(day?.unit_reheat_w) > 1 ? "and reheat" : "" });
  found.push({ name: "rooms", icon: "rooms", state: "return", title: "return", flow: at(day?.return_kg_s), note: "" });
  return found;
}); // prettier-ignore
/** Whether it moves the air of a room and no other. */
const ofRoom = computed(() => props.system.arrangement === "room units");
/** Room of a part on the drawing: less where there are many. */
const W = computed(() => (parts.value.length > 5 ? 118 : 152));
const width = computed(() => parts.value.length * W.value + 120);
const stateOf = (name: StateName) => {
  const point = props.day?.points[name];
  return { t: point?.temperature_c[props.step] ?? null, w: point?.humidity_ratio[props.step] ?? null };
};
/** Joints between the parts, left to right: outdoors, then what leaves each part. */
const joints = computed(() => [
  ofRoom.value
    ? { title: "room", ...stateOf("rooms"), flow: at(props.day?.flow_kg_s) }
    : { title: "outdoors", ...stateOf("outdoors"), flow: at(props.day?.outdoor_kg_s) },
  ...parts.value.map((part) =>
    part.state
      ? { title: part.title, ...stateOf(part.state), flow: part.flow }
      : { title: "off coils", ...stateOf("off_coil"), flow: part.flow },
  ),
]);
const hasReturn = computed(() => props.system.arrangement === "central" && !props.system.outdoor_only);
</script>

<template>
  <div class="path">
    <svg :viewBox="`0 0 ${width} 100`" role="img" aria-label="Air path from outdoors to the rooms and back">
      <rect x="10" y="24" :width="width - 20" height="12" fill="var(--outdoor-air)" opacity="0.55" />
      <g v-if="hasReturn || day?.points.recovered">
        <rect x="10" y="72" :width="width - 60" height="8" fill="var(--storage)" opacity="0.4" />
        <rect :x="width - 58" y="36" width="8" height="44" fill="var(--storage)" opacity="0.4" />
        <text x="14" y="69">
          {{ hasReturn ? "relief" : "exhaust" }}
        </text>
      </g>
      <g v-for="(part, i) in parts" :key="part.name" :transform="`translate(${60 + W / 2 + i * W - 22},8)`">
        <rect
          v-if="part.icon === 'exchanger'"
          x="0"
          y="0"
          width="44"
          height="80"
          fill="var(--field)"
          stroke="var(--ink)"
        />
        <path v-if="part.icon === 'mixing' && hasReturn" d="M22 44V68" class="return" />
        <rect
          v-if="part.icon !== 'exchanger'"
          width="44"
          height="44"
          fill="var(--field)"
          stroke="var(--ink)"
        />
        <path v-if="part.icon === 'exchanger'" d="M4 18L40 62M4 62L40 18" class="accent" />
        <path v-else-if="part.icon === 'mixing'" d="M4 22H42M22 40V24" class="accent" />
        <g v-else-if="part.icon === 'coils'">
          <path d="M7 4V40M11 4V40" stroke="var(--soft)" stroke-dasharray="2 2" />
          <path d="M19 6v32" stroke="var(--ember)" stroke-width="2.4" />
          <path d="M26 34l4-24 4 24 4-24" stroke="var(--tide)" stroke-width="2.4" fill="none" />
        </g>
        <path
          v-else-if="part.icon === 'steam'"
          d="M12 36q6-8 0-14t0-14M22 36q6-8 0-14t0-14M32 36q6-8 0-14t0-14"
          class="thin"
        />
        <g v-else-if="part.icon === 'fan'">
          <circle cx="22" cy="22" r="15" class="thin" />
          <path d="M22 22V8M22 22l12 7M22 22l-12 7" class="thin" />
        </g>
        <path v-else d="M8 36V18L22 8l14 10v18z" class="thin" />
        <text x="22" :y="part.icon === 'exchanger' ? 97 : 56" text-anchor="middle">
          {{ part.name }}
          <tspan v-if="part.note" class="note" dx="4">{{ part.note }}</tspan>
        </text>
      </g>
      <circle v-for="(_, i) in joints" :key="i" :cx="60 + i * W" cy="30" r="4.5" fill="var(--accent)" />
    </svg>
    <div class="states" :style="{ gridTemplateColumns: `repeat(${joints.length}, 1fr)` }">
      <div v-for="(joint, i) in joints" :key="i">
        <span class="soft">{{ joint.title }}</span>
        <b><Figure :value="joint.t" quantity="temperature" /></b>
        <Figure :value="joint.w" quantity="humidity_ratio" />
        <Figure :value="joint.flow" quantity="mass_flow" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.path {
  padding: 6px 0;
}
svg {
  width: 100%;
  max-height: 126px;
  display: block;
}
text {
  font-size: 10.5px;
  fill: var(--soft);
}
.note {
  fill: var(--accent);
}
.thin {
  fill: none;
  stroke: var(--ink);
}
.accent {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.return {
  stroke: var(--storage);
  stroke-width: 8;
  opacity: 0.4;
}
.states {
  display: grid;
  font-family: var(--narrow);
  line-height: 1.25;
}
.states > div {
  display: flex;
  flex-direction: column;
  align-items: center;
}
</style>
