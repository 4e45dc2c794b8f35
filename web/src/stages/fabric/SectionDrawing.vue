<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Layer } from "@/document/types";
import type { AssemblyResult } from "@/results/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";

const props = defineProps<{ layers: Layer[]; chosen: string; line?: AssemblyResult["line"] }>();
const emit = defineEmits<{
  /** A layer dragged to stand before another (or at the end). */
  move: [id: string, before: string | null];
  choose: [id: string];
}>();
const doc = useDocument();
const view = useView();
const W = 560;
const HIGH = 132;
const GAP_M = 0.025;
const dragged = ref("");
const target = ref(-1);

/** Layers to scale; a plain resistance is drawn as a gap of 25 mm. */
const pieces = computed(() => {
  const rows = props.layers.map((layer) => {
    const material = doc.get("material", layer.material);
    return { id: layer.id, name: material?.name ?? "", thickness: layer.thickness_m ?? GAP_M, material, bridge: layer.bridge_material ? (layer.bridge_share ?? 0) : 0 };
  });
  const total = rows.reduce((sum, row) => sum + row.thickness, 0) || 1;
  const scale = Math.min(W / total, 1100);
  let x = (W - total * scale) / 2;
  return rows.map((row) => {
    const piece = { ...row, x, width: row.thickness * scale, hatch: hatchOf(row.material) };
    x += piece.width;
    return piece;
  });
}); // prettier-ignore

type Kind = { conductivity_w_mk?: number | null; density_kg_m3?: number } | undefined;
function hatchOf(material: Kind): string {
  if (!material?.conductivity_w_mk) return "gap";
  if (material.conductivity_w_mk < 0.06) return "insulation";
  return (material.density_kg_m3 ?? 0) > 1500 ? "heavy" : "light";
}

/** Interfaces from outside to inside [drawing units]. */
const xs = computed(() => [pieces.value[0]?.x ?? 0, ...pieces.value.map((piece) => piece.x + piece.width)]);
const span = computed(() => {
  const all = props.line ? [...props.line.temperature_c, ...props.line.dew_point_c] : [0, 1];
  return [Math.min(...all) - 1, Math.max(...all) + 1] as const;
});
function path(values: number[] | undefined): string {
  if (values?.length !== xs.value.length) return "";
  const y = (v: number) => HIGH - ((v - span.value[0]) / (span.value[1] - span.value[0])) * HIGH;
  return values.map((v, i) => `${i ? "L" : "M"}${xs.value[i]},${y(v).toFixed(1)}`).join("");
}

function place(event: PointerEvent): number {
  const svg = (event.currentTarget as SVGGraphicsElement).ownerSVGElement!;
  const box = svg.getBoundingClientRect();
  const x = ((event.clientX - box.left) / box.width) * 640 - 40;
  return pieces.value.filter((piece) => piece.x + piece.width / 2 < x).length;
}
function down(event: PointerEvent, id: string): void {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  dragged.value = id;
  target.value = -1;
  emit("choose", id);
}
function move(event: PointerEvent): void {
  if (dragged.value) target.value = place(event);
}
function up(): void {
  const from = props.layers.findIndex((row) => row.id === dragged.value);
  if (target.value >= 0 && target.value !== from && target.value !== from + 1)
    emit("move", dragged.value, props.layers[target.value]?.id ?? null);
  dragged.value = "";
  target.value = -1;
}
</script>

<template>
  <svg viewBox="0 0 640 192" role="img" aria-label="Section, outside at the left" class="drawing">
    <defs>
      <pattern id="heavy" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line y2="6" stroke="var(--walls)" stroke-width="2" />
      </pattern>
      <pattern id="light" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <line y2="9" stroke="var(--floors)" stroke-width="1.2" />
      </pattern>
      <pattern id="insulation" width="10" height="10" patternUnits="userSpaceOnUse">
        <path d="M0 5q2.5-7 5 0t5 0" fill="none" stroke="var(--sun)" />
      </pattern>
      <pattern id="gap" width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r=".7" fill="var(--soft)" />
      </pattern>
    </defs>
    <text x="4" y="12">outside</text>
    <text x="636" y="12" text-anchor="end">inside</text>
    <g
      v-for="piece in pieces"
      :key="piece.id"
      :transform="`translate(${piece.x + 40},20)`"
      class="layer"
      @pointerdown="down($event, piece.id)"
      @pointermove="move"
      @pointerup="up"
    >
      <rect
        :width="piece.width"
        :height="HIGH"
        :fill="`url(#${piece.hatch})`"
        :stroke="piece.id === chosen ? 'var(--accent)' : 'var(--ink)'"
        :stroke-width="piece.id === chosen ? 2.5 : 1"
      />
      <rect :width="piece.width" :height="HIGH" fill="transparent" />
      <rect
        v-if="piece.bridge"
        :width="piece.width"
        :y="HIGH * (1 - piece.bridge)"
        :height="HIGH * piece.bridge"
        fill="url(#light)"
        stroke="var(--ink)"
        stroke-dasharray="3 2"
      />
      <title>{{ piece.name }}</title>
      <text v-if="piece.width > 26" :x="piece.width / 2" y="146" text-anchor="middle">
        {{ format(piece.thickness, "thickness", view.system) }}
      </text>
    </g>
    <g v-if="line" transform="translate(40,20)" class="lines">
      <path :d="path(line.temperature_c)" stroke="var(--ember)" />
      <path :d="path(line.dew_point_c)" stroke="var(--tide)" stroke-dasharray="5 3" />
      <circle v-for="i in line.wet" :key="i" :cx="xs[i]" :cy="HIGH / 2" r="5" fill="var(--tide)" />
    </g>
    <line
      v-if="target >= 0"
      :x1="(xs[target] ?? 0) + 40"
      :x2="(xs[target] ?? 0) + 40"
      y1="16"
      y2="156"
      stroke="var(--accent)"
      stroke-width="3"
    />
    <text x="320" y="184" text-anchor="middle">
      to scale, {{ unitOf("thickness", view.system) }}; drag a layer to move it
      <template v-if="line">
        · temperature
        <tspan fill="var(--ember)">—</tspan>
        and dew point
        <tspan fill="var(--tide)">- -</tspan>
        on the winter day
      </template>
    </text>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-height: 206px;
  border: 1px solid var(--hair);
}
.layer {
  cursor: grab;
  touch-action: none;
}
.lines {
  pointer-events: none;
}
.lines path {
  fill: none;
  stroke-width: 2;
}
text {
  font-size: 11px;
  fill: var(--soft);
  user-select: none;
}
</style>
