<script setup lang="ts">
/**
 * The air's way through the unit: supply lane above extract lane, with the state under every joint at the rail's hour.
 * Parts are chosen, dragged along the lane, or moved by Alt and the arrow keys.
 */
import { setField, useDocument } from "@/document/store";
import type { AirSystem } from "@/document/types";
import Figure from "@/parts/Figure.vue";
import { useElementSize } from "@/parts/size";
import { computed, nextTick, ref, watch } from "vue";
import PartIcon from "./PartIcon.vue";
import type { CoilSize } from "@/results/air";
import PartPanel from "./PartPanel.vue";
import { fitted, moved, PART_NAMES, STILL, type PartKind } from "./parts";
import type { AirDay, StateName } from "./types";

const props = defineProps<{
  system: AirSystem;
  day: AirDay | null;
  step: number;
  /** Of the set that is looked at: its id and its coils. */ resultId: string;
  coils: CoilSize[];
}>();
const doc = useDocument();
type Chosen = number | "recovery" | "mixing" | null;
const chosen = ref<Chosen>(null);
const panel = ref<InstanceType<typeof PartPanel> | null>(null);
watch(
  () => props.system.id,
  () => (chosen.value = null),
);

interface State {
  title: string;
  t: number | null;
  w: number | null;
  flow: number | undefined;
}
interface Cell {
  key: Chosen;
  kind: PartKind | "recovery" | "mixing" | "rooms";
  name: string;
  note: string;
  /** State behind it, where it changes the air. */
  state: State | null;
}
const at = (values: number[] | undefined) => values?.[props.step];
const kw = (values: number[] | undefined) => at(values) ?? 0;
function stateOf(title: string, name: StateName, flow: number | undefined): State {
  const point = props.day?.points[name];
  return { title, flow, t: at(point?.temperature_c) ?? null, w: at(point?.humidity_ratio) ?? null };
}
const hasReturn = computed(() => props.system.arrangement === "central" && !props.system.outdoor_only);
const recovers = computed(
  () =>
    props.system.arrangement !== "room units" &&
    !!(props.system.recovery_sensible || props.system.recovery_latent),
);
/** What a part does at the hour. */
function note(kind: PartKind, first: boolean): string {
  const { day } = props;
  if (kind === "heating coil") return kw(first ? day?.heating_w : day?.unit_reheat_w) > 1 ? "heats" : "idle";
  if (kind === "cooling coil") return kw(day?.coil_total_w) > 1 ? "cools" : "idle";
  if (kind.endsWith("humidifier")) return kw(day?.water_kg_s) > 1e-7 ? "on" : "off";
  return "";
}
const OFF: Partial<Record<PartKind, string>> = { "heating coil": "off heating", "cooling coil": "off cooling", fan: "off fan" }; // prettier-ignore
const cells = computed<Cell[]>(() => {
  const { system, day } = props;
  const [flow, outdoor] = [at(day?.flow_kg_s), at(day?.outdoor_kg_s)];
  const found: Cell[] = [];
  if (recovers.value) found.push({ key: "recovery", kind: "recovery", name: "recovery", note: "", state: stateOf("off recovery", "recovered", outdoor) });
  if (hasReturn.value)
    found.push({ key: "mixing", kind: "mixing", name: "mixing", note: day?.economizing[props.step] ? "economizer on" : "", state: stateOf("mixed", "mixed", flow) });
  const parts = fitted(system);
  const heater = parts.find(({ part }) => part.kind === "heating coil")?.at;
  parts.forEach(({ part, at: place }, index) => {
    const off = day?.parts[index];
    const state = STILL.includes(part.kind)
      ? null
      : { title: OFF[part.kind] ?? "humidified", flow, t: at(off?.temperature_c) ?? null, w: at(off?.humidity_ratio) ?? null };
    found.push({ key: place, kind: part.kind, name: PART_NAMES[part.kind], note: note(part.kind, place === heater), state });
  });
  found.push({ key: null, kind: "rooms", name: "rooms", note: "", state: stateOf("return", "return", at(day?.return_kg_s)) });
  return found;
}); // prettier-ignore
const box = ref<HTMLElement | null>(null);
const { width } = useElementSize(box);
/** Room of a cell on the drawing. */
const W = computed(() => width.value / (cells.value.length + 1));
const joints = computed<(State | null)[]>(() => [
  props.system.arrangement === "room units"
    ? stateOf("room", "rooms", at(props.day?.flow_kg_s))
    : stateOf("outdoors", "outdoors", at(props.day?.outdoor_kg_s)),
  // The air that the rooms get stands before them, in place of what leaves the last part.
  ...cells.value.map((cell, i) =>
    cells.value[i + 1]?.kind === "rooms" ? stateOf("supply", "supply", at(props.day?.flow_kg_s)) : cell.state,
  ),
]);

const drawing = ref<SVGSVGElement | null>(null);
/** What is dragged, and the place between parts where it would stand. */
const drag = ref<{ from: number; to: number; begun: number } | null>(null);
const first = computed(() => cells.value.findIndex((cell) => typeof cell.key === "number"));
function placeAt(event: PointerEvent): number {
  const x = event.clientX - drawing.value!.getBoundingClientRect().left;
  const parts = cells.value.filter((cell) => typeof cell.key === "number");
  const index = Math.min(parts.length, Math.max(0, Math.round(x / W.value - 0.5) - first.value));
  const behind = parts[index];
  return behind ? (behind.key as number) : props.system.parts.length;
}
function press(event: PointerEvent, key: Chosen): void {
  chosen.value = key;
  if (typeof key !== "number" || event.button !== 0) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  drag.value = { from: key, to: key, begun: event.clientX };
}
function pull(event: PointerEvent): void {
  if (drag.value && Math.abs(event.clientX - drag.value.begun) > 6) drag.value.to = placeAt(event);
}
async function drop(): Promise<void> {
  const { from, to } = drag.value ?? { from: 0, to: 0 };
  drag.value = null;
  if (to === from || to === from + 1) return;
  const name = PART_NAMES[props.system.parts[from]!.kind];
  const parts = moved(props.system.parts, from, to);
  if (
    await doc.attempt(
      `${props.system.name}: ${name} moved`,
      setField("air_system", props.system.id, "parts", parts),
    )
  )
    chosen.value = to > from ? to - 1 : to;
}
/** Where the dragged part would stand, on the drawing. */
const mark = computed(() => {
  if (!drag.value || drag.value.to === drag.value.from) return null;
  const index = cells.value.findIndex((cell) => typeof cell.key === "number" && cell.key >= drag.value!.to);
  return ((index < 0 ? cells.value.length - 1 : index) + 0.5) * W.value;
});
async function onKey(event: KeyboardEvent, key: Chosen): Promise<void> {
  if (key === null) return;
  if (event.key === "Enter" || event.key === " ") chosen.value = key;
  else if (event.altKey && (event.key === "ArrowLeft" || event.key === "ArrowRight")) {
    chosen.value = key;
    await nextTick();
    await panel.value?.move(event.key === "ArrowLeft" ? -1 : 1);
    // The cursor goes with the part.
    const cell = chosen.value;
    requestAnimationFrame(() => drawing.value?.querySelector<SVGGElement>(`[data-part="${cell}"]`)?.focus());
  } else if (event.key === "Delete" && key !== "mixing") {
    chosen.value = key;
    await nextTick();
    await panel.value?.remove();
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div ref="box" class="path">
    <svg
      ref="drawing"
      :width="width"
      height="104"
      role="group"
      aria-label="Air path from outdoors to the rooms and back"
    >
      <rect x="10" y="24" :width="width - 20" height="12" fill="var(--outdoor-air)" opacity="0.55" />
      <g v-if="hasReturn || recovers">
        <rect x="10" y="84" :width="width - W / 2 - 4" height="8" fill="var(--storage)" opacity="0.4" />
        <rect :x="width - W / 2 - 2" y="36" width="8" height="56" fill="var(--storage)" opacity="0.4" />
        <text x="14" y="80">
          {{ hasReturn ? "relief" : "exhaust" }}
        </text>
      </g>
      <g
        v-for="(cell, i) in cells"
        :key="`${cell.kind}${i}`"
        :transform="`translate(${(i + 1) * W - 22},8)`"
        :role="cell.key === null ? undefined : 'button'"
        :tabindex="cell.key === null ? undefined : 0"
        :aria-label="cell.key === null ? undefined : `${cell.name}, ${i + 1} of ${cells.length - 1}`"
        :aria-pressed="cell.key === null ? undefined : chosen === cell.key"
        :data-part="cell.key"
        :class="{ part: cell.key !== null, on: cell.key !== null && chosen === cell.key }"
        @pointerdown="cell.key !== null && press($event, cell.key)"
        @pointermove="pull"
        @pointerup="drop"
        @keydown="onKey($event, cell.key)"
      >
        <PartIcon :kind="cell.kind" :joined="hasReturn" />
        <text x="22" :y="cell.kind === 'recovery' ? 0 : 56" text-anchor="middle">{{ cell.name }}</text>
        <text v-if="cell.note" x="22" y="68" text-anchor="middle" class="note">{{ cell.note }}</text>
      </g>
      <circle
        v-for="(joint, i) in joints"
        :key="i"
        :cx="(i + 0.5) * W"
        cy="30"
        :r="joint ? 4.5 : 0"
        fill="var(--accent)"
      />
      <path v-if="mark !== null" :d="`M${mark} 4V60`" class="mark" />
    </svg>
    <div class="states" :style="{ gridTemplateColumns: `repeat(${joints.length}, 1fr)` }">
      <div v-for="(joint, i) in joints" :key="i">
        <template v-if="joint">
          <span class="soft">{{ joint.title }}</span>
          <b><Figure :value="joint.t" quantity="temperature" /></b>
          <Figure :value="joint.w" quantity="humidity_ratio" />
          <Figure :value="joint.flow" quantity="mass_flow" />
        </template>
      </div>
    </div>
    <PartPanel ref="panel" v-model="chosen" :system="system" :result-id="resultId" :coils="coils" />
  </div>
</template>

<style scoped>
.path {
  padding: 6px 0 0;
}
svg {
  display: block;
}
text {
  font-size: 10.5px;
  fill: var(--soft);
  user-select: none;
}
.note {
  fill: var(--accent);
}
.part {
  cursor: grab;
  outline: none;
  touch-action: none;
}
.part:focus-visible :deep(.box),
.part.on :deep(.box) {
  stroke: var(--accent);
  stroke-width: 2.4;
}
.part.on text {
  fill: var(--ink);
}
.mark {
  stroke: var(--accent);
  stroke-width: 3;
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
