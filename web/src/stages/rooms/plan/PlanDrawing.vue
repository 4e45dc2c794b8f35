<script setup lang="ts">
/** What lies on the plan's paper: underlay, grid, rooms with names and openings, handles of the chosen one, what is being drawn. */
import type { Room } from "@/document/types";
import { computed } from "vue";
import type { useHeat } from "./heat";
import type { Mark } from "./marks";
import { centre, fitted, rectangle, widthOf, type Outline, type Point } from "./outline";
import type { usePaper } from "./paper";
import PlanRoutes from "./PlanRoutes.vue";
import PlanUnderlay from "./PlanUnderlay.vue";

const props = defineProps<{
  paper: ReturnType<typeof usePaper>;
  heat: ReturnType<typeof useHeat>;
  tool: string;
  grid: number;
  level: string | undefined;
  below: Room[];
  placed: Room[];
  /** Whether ducts and pipes are drawn. */
  routes: boolean;
  chosen: string[];
  outlineOf: (room: Room) => Outline;
  marks: Mark[];
  /** Corners of the chosen room, where they may be dragged. */
  handles: Outline;
  /** Points that were pressed to scale the underlay. */
  picked: Point[];
  drawn: Outline;
  drawnSize: string;
  pointer: Point;
  /** How plan north is turned [°]. */
  rotation: number;
}>();
const emit = defineEmits<{
  room: [event: PointerEvent, id: string];
  choose: [id: string];
  wall: [event: PointerEvent, a: Point, b: Point];
  corner: [event: PointerEvent, at: Point];
}>();
const { toX, toY, path } = props.paper;
const scale = computed(() => props.paper.scale.value);
const width = computed(() => props.paper.width.value);
const height = computed(() => props.paper.height.value);
const shownOutline = (room: Room) => props.outlineOf(room);
const { fill: shade } = props.heat;
</script>

<template>
  <svg :class="tool" :width="paper.width.value" :height="paper.height.value">
    <PlanUnderlay v-if="level" :level="level" :to-x="toX" :to-y="toY" :scale="scale" />
    <g v-if="scale * grid > 7" class="dots">
      <pattern
        id="grid"
        :width="scale * grid"
        :height="scale * grid"
        patternUnits="userSpaceOnUse"
        :x="toX(0)"
        :y="toY(0)"
      >
        <circle cx="0.6" cy="0.6" r="0.6" fill="var(--line)" />
      </pattern>
      <rect :width="width" :height="height" fill="url(#grid)" />
    </g>
    <polygon v-for="row in below" :key="row.id" :points="path(row.outline_m as Outline)" class="below" />
    <polygon
      v-for="row in placed"
      :key="row.id"
      :points="path(shownOutline(row))"
      class="room"
      :class="{ on: chosen.includes(row.id) }"
      :fill="shade(row.id)"
      role="button"
      tabindex="0"
      :aria-label="`Room ${row.number} ${row.name}`"
      @pointerdown="emit('room', $event, row.id)"
      @keydown.enter="emit('choose', row.id)"
    />
    <PlanRoutes v-if="routes && level" :level="level" :to-x="toX" :to-y="toY" :scale="scale" />
    <template v-for="row in placed" :key="row.id">
      <text
        v-if="scale > 3"
        :x="toX(centre(shownOutline(row))[0])"
        :y="toY(centre(shownOutline(row))[1])"
        class="name"
      >
        <tspan class="number">{{ row.number }}</tspan>
        <tspan v-if="scale > 9" :x="toX(centre(shownOutline(row))[0])" dy="13">
          {{ fitted(row.name, widthOf(shownOutline(row)) * scale) }}
        </tspan>
        <tspan v-if="heat.text(row.id)" :x="toX(centre(shownOutline(row))[0])" dy="13">
          {{ heat.text(row.id) }}
        </tspan>
      </text>
    </template>
    <line
      v-for="(mark, i) in marks"
      :key="i"
      :x1="toX(mark.ends[0][0])"
      :y1="toY(mark.ends[0][1])"
      :x2="toX(mark.ends[1][0])"
      :y2="toY(mark.ends[1][1])"
      class="mark"
      :class="{ door: mark.door }"
    />
    <g v-if="handles.length">
      <line
        v-for="(corner, i) in handles"
        :key="'w' + i"
        class="side"
        :x1="toX(corner[0])"
        :y1="toY(corner[1])"
        :x2="toX(handles[(i + 1) % handles.length]![0])"
        :y2="toY(handles[(i + 1) % handles.length]![1])"
        @pointerdown.stop="emit('wall', $event, corner, handles[(i + 1) % handles.length]!)"
      />
      <rect
        v-for="(corner, i) in handles"
        :key="'c' + i"
        class="corner"
        :x="toX(corner[0]) - 4"
        :y="toY(corner[1]) - 4"
        width="8"
        height="8"
        @pointerdown.stop="emit('corner', $event, corner)"
      />
    </g>
    <circle
      v-for="(place, i) in picked"
      :key="'p' + i"
      :cx="toX(place[0])"
      :cy="toY(place[1])"
      r="4"
      class="draft"
    />
    <polygon
      v-if="tool === 'rectangle' && drawn.length > 1"
      :points="path(rectangle(drawn[0]!, drawn[1]!))"
      class="draft"
    />
    <polyline v-else-if="drawn.length" :points="path([...drawn, pointer])" class="draft" />
    <text v-if="drawnSize" :x="toX(pointer[0]) + 10" :y="toY(pointer[1]) - 8" class="size">
      {{ drawnSize }}
    </text>
    <g :transform="`translate(${width - 34} 34) rotate(${-rotation})`" class="north" aria-hidden="true">
      <path d="M0 -20 L6 8 L0 3 L-6 8 Z" />
      <text y="-23" text-anchor="middle">N</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.room {
  stroke: var(--ink);
  stroke-width: 1.4;
  fill-opacity: 0.85;
  cursor: pointer;
}
.room:focus {
  outline: none;
}
.room:focus-visible {
  outline: none;
  stroke: var(--accent);
  stroke-width: 3.5;
}
.room.on {
  stroke: var(--accent);
  stroke-width: 2.6;
}
.below {
  fill: none;
  stroke: var(--line);
  stroke-dasharray: 3 3;
}
.name {
  font-size: 11px;
  text-anchor: middle;
  fill: var(--ink);
  pointer-events: none;
  font-family: var(--narrow);
}
.number {
  font-weight: 600;
}
.mark {
  stroke: var(--windows);
  stroke-width: 4;
  pointer-events: none;
}
.mark.door {
  stroke: var(--doors);
}
.side {
  stroke: var(--accent);
  stroke-opacity: 0.01;
  stroke-width: 11;
  cursor: move;
}
.side:hover {
  stroke-opacity: 0.35;
}
.corner {
  fill: var(--paper);
  stroke: var(--accent);
  stroke-width: 1.5;
  cursor: crosshair;
}
.draft {
  fill: color-mix(in srgb, var(--accent) 15%, transparent);
  stroke: var(--accent);
  stroke-width: 1.5;
}
.size {
  font-size: 12px;
  fill: var(--accent);
  font-weight: 600;
}
.north path {
  fill: var(--ink);
}
.north text {
  font-size: 11px;
  fill: var(--ink);
}
.rectangle .room,
.polygon .room,
.scale .room,
.split .room {
  pointer-events: none;
}
</style>
