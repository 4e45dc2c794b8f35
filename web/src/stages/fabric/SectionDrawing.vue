<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Layer } from "@/document/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ layers: Layer[] }>();
const doc = useDocument();
const view = useView();
const W = 560;
const GAP_M = 0.025;

/** Layers to scale; a plain resistance is drawn as a gap of 25 mm. */
const pieces = computed(() => {
  const rows = props.layers.map((layer) => {
    const material = doc.get("material", layer.material);
    return { id: layer.id, name: material?.name ?? "", thickness: layer.thickness_m ?? GAP_M, material };
  });
  const total = rows.reduce((sum, row) => sum + row.thickness, 0) || 1;
  const scale = Math.min(W / total, 1100);
  let x = (W - total * scale) / 2;
  return rows.map((row) => {
    const piece = { ...row, x, width: row.thickness * scale, hatch: hatchOf(row.material) };
    x += piece.width;
    return piece;
  });
});

function hatchOf(material: { conductivity_w_mk: number | null; density_kg_m3: number } | undefined): string {
  if (!material || material.conductivity_w_mk === null) return "gap";
  if (material.conductivity_w_mk < 0.06) return "insulation";
  return material.density_kg_m3 > 1500 ? "heavy" : "light";
}
</script>

<template>
  <svg viewBox="0 0 640 190" role="img" aria-label="Section, outside at the left" class="drawing">
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
    <g v-for="piece in pieces" :key="piece.id" :transform="`translate(${piece.x + 40},20)`">
      <rect :width="piece.width" height="132" :fill="`url(#${piece.hatch})`" stroke="var(--ink)" />
      <title>{{ piece.name }}</title>
      <text v-if="piece.width > 26" :x="piece.width / 2" y="148" text-anchor="middle">
        {{ format(piece.thickness, "thickness", view.system) }}
      </text>
    </g>
    <text x="320" y="184" text-anchor="middle">to scale, {{ unitOf("thickness", view.system) }}</text>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-height: 200px;
  border: 1px solid var(--hair);
}
text {
  font-size: 11px;
  fill: var(--soft);
}
</style>
