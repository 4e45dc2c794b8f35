<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { format, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { addressed } from "@/view/address";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import { usualUse } from "../levels";
import { useOptions } from "@/document/options";
import { usePlanEdits } from "./edits";
import { isChange, MEASURES, shadeOf, useHeat, type Measure } from "./heat";
import { centre, distanceBeside, fitted, length, moveCorner, moveWall, type Outline, type Point, rectangle, shifted, snap, snapped, widthOf } from "./outline"; // prettier-ignore
import { marksOf } from "./marks";
import { usePaper } from "./paper";
import PlanSide from "./PlanSide.vue";
import PlanUnderlay from "./PlanUnderlay.vue";

const props = defineProps<{ nextNumber: string }>();
const edits = usePlanEdits();
const options = useOptions();
const doc = useDocument();
const view = useView();
const TOOLS = [
  { key: "choose", label: "Choose", hint: "Press a room; drag a corner or a wall of the chosen one." },
  { key: "rectangle", label: "Rectangle", hint: "Drag from corner to corner." },
  { key: "polygon", label: "Polygon", hint: "Press corner after corner; Enter or a double press closes it, Esc gives up." },
  { key: "split", label: "Split", hint: "Drag a line across the chosen room." },
] as const; // prettier-ignore
type Tool = (typeof TOOLS)[number]["key"] | "scale";

const box = ref<HTMLElement | null>(null);
const levels = computed(() => doc.rows("level").sort((a, b) => a.floor_m! - b.floor_m!));
const levelId = ref("");
/** The level chosen, else the lowest that has rooms. */
const level = computed(
  () =>
    doc.get("level", levelId.value) ??
    levels.value.find((row) => doc.rows("room").some((item) => item.level === row.id)) ??
    levels.value[0],
);
addressed("level", levelId, true, (text) => doc.get("level", text) !== undefined);
const tool = ref<Tool>("choose");
const grid = ref(0.1);
/** What the rooms are coloured by; another stage may ask for it by the address. */
const wanted = String(useRoute().query["at"] ?? "").split("/")[1];
/** Use that rooms get that are drawn, where none is chosen beside. */
const newUse = ref("");
const gridChoices = computed(() =>
  [0.01, 0.05, 0.1, 0.25, 0.5, 1].map((value) => ({
    value,
    label: `${toShown(value, "length", view.system).toFixed(2)} ${unitOf("length", view.system)}`,
  })),
);
const measure = ref<Measure>(MEASURES.find((item) => item.key === wanted)?.key ?? "");
const underlay = ref(false);
const chosen = ref<string[]>(view.selectedRoom ? [view.selectedRoom] : []);
/** Outlines while they are dragged. */
const drafts = ref(new Map<string, Outline>());
const drawn = ref<Outline>([]);
const picked = ref<Point[]>([]);
const pointer = ref<Point>([0, 0]);

const rooms = computed(() => doc.rows("room").filter((room) => room.level === level.value?.id));
const placed = computed(() => rooms.value.filter((room) => room.outline_m));
const loose = computed(() => rooms.value.filter((room) => !room.outline_m));
const outlines = computed(() => new Map(placed.value.map((room) => [room.id, room.outline_m as Outline])));
const shownOutline = (room: Room) => drafts.value.get(room.id) ?? (room.outline_m as Outline);
const corners = computed(() => [...outlines.value.values()].flat());
const below = computed(() => {
  const index = levels.value.findIndex((row) => row.id === level.value?.id);
  const lower = levels.value[index - 1];
  return lower ? doc.rows("room").filter((room) => room.level === lower.id && room.outline_m) : [];
});
const heat = useHeat(measure, placed);
const room = computed(() => doc.get("room", view.selectedRoom));

const { width, height, scale, origin, held, toX, toY, path, toPlan, fit, zoom } = usePaper(
  box,
  () => level.value?.id,
  () => (corners.value.length ? corners.value : below.value.flatMap((row) => row.outline_m as Outline)),
);
watch(
  () => view.selectedRoom,
  (id) => {
    if (id && !chosen.value.includes(id)) chosen.value = [id];
    const its = doc.get("room", id);
    if (its?.level && its.level !== level.value?.id) levelId.value = its.level;
  },
);

type Drag =
  | { what: "pan"; from: [number, number]; origin: Point }
  | { what: "corner"; from: Point }
  | { what: "wall"; a: Point; b: Point; start: Point }
  | { what: "draw"; from: Point };
const drag = ref<Drag | null>(null);
const reach = computed(() => 9 / scale.value);
const at = (event: PointerEvent, but: Point[] = []) =>
  snap(
    toPlan(event),
    corners.value.filter((p) => !but.some((q) => length(p, q) < 0.01)),
    grid.value,
    reach.value,
  );

function press(event: PointerEvent): void {
  held.value = true;
  if (event.button === 1 || (event.button === 0 && tool.value === "choose")) {
    drag.value = { what: "pan", from: [event.clientX, event.clientY], origin: [...origin.value] };
  } else if (tool.value === "scale") {
    picked.value = [...picked.value, toPlan(event)].slice(-2);
    if (picked.value.length === 2) tool.value = "choose";
  } else if (event.button === 0 && tool.value === "polygon") drawn.value = [...drawn.value, at(event)];
  else if (event.button === 0) {
    drag.value = { what: "draw", from: at(event) };
    drawn.value = [drag.value.from, drag.value.from];
  }
  box.value?.setPointerCapture(event.pointerId);
}

function pressRoom(event: PointerEvent, id: string): void {
  held.value = true;
  if (tool.value !== "choose" || event.button !== 0) return;
  if (event.shiftKey)
    chosen.value = chosen.value.includes(id)
      ? chosen.value.filter((other) => other !== id)
      : [...chosen.value, id];
  else chosen.value = [id];
  view.selectRoom(id);
}

function move(event: PointerEvent): void {
  const now = drag.value;
  pointer.value = at(event);
  if (!now) return;
  if (now.what === "pan") {
    origin.value = [
      now.origin[0] - (event.clientX - now.from[0]) / scale.value,
      now.origin[1] + (event.clientY - now.from[1]) / scale.value,
    ];
  } else if (now.what === "corner")
    drafts.value = moveCorner(outlines.value, now.from, at(event, [now.from]));
  else if (now.what === "wall") {
    const by = snapped(distanceBeside(now.a, now.b, toPlan(event)), grid.value);
    drafts.value = by ? moveWall(outlines.value, now.a, now.b, by) : new Map();
  } else drawn.value = [now.from, pointer.value];
}

async function release(): Promise<void> {
  const now = drag.value;
  drag.value = null;
  if (!now || now.what === "pan") return;
  if (now.what === "draw") {
    const [a, b] = [now.from, drawn.value[1] ?? now.from];
    drawn.value = [];
    if (tool.value === "rectangle" && Math.abs(a[0] - b[0]) > 0.05 && Math.abs(a[1] - b[1]) > 0.05)
      await add(rectangle(a, b));
    if (tool.value === "split" && view.selectedRoom && length(a, b) > 0.05)
      await edits.split(view.selectedRoom, a, b);
    return;
  }
  const label = now.what === "wall" ? "Wall moved" : "Corner moved";
  await keep(label, drafts.value);
}

async function keep(label: string, changed: Map<string, Outline>): Promise<void> {
  await edits.keep(label, changed);
  drafts.value = new Map();
}

/** A new room with an outline; a room of the level that has none yet takes it where one is chosen. */
async function add(outline: Outline): Promise<void> {
  const now = room.value;
  if (now && !now.outline_m && now.level === level.value?.id) {
    await edits.draw(now.id, now.number, outline);
    return;
  }
  const use = usualUse(now) ?? (newUse.value || null);
  const fields = { number: props.nextNumber, level: level.value?.id ?? null, use, outline_m: outline };
  const id = await edits.create(fields);
  if (!id) return;
  chosen.value = [id];
  view.selectRoom(id);
}

async function join(): Promise<void> {
  await edits.join(chosen.value);
  chosen.value = chosen.value.slice(0, 1);
}

async function onKey(event: KeyboardEvent): Promise<void> {
  const arrows: Record<string, Point> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };
  const arrow = arrows[event.key];
  if (event.key === "Escape") {
    drawn.value = [];
    drafts.value = new Map();
    drag.value = null;
    tool.value = "choose";
  } else if (event.key === "Enter" && tool.value === "polygon") await close();
  else if (arrow && room.value?.outline_m && event.altKey) {
    const by = event.shiftKey ? 1 : grid.value;
    await keep(
      "Room moved",
      new Map([[room.value.id, shifted(room.value.outline_m as Outline, arrow[0] * by, arrow[1] * by)]]),
    );
  } else return;
  event.preventDefault();
  event.stopPropagation();
}

async function close(): Promise<void> {
  const outline = drawn.value.filter((p, i) => i === 0 || length(p, drawn.value[i - 1]!) > 0.01);
  drawn.value = [];
  if (outline.length >= 3) await add(outline);
}

const handles = computed(() =>
  room.value?.outline_m && room.value.level === level.value?.id && tool.value === "choose"
    ? shownOutline(room.value)
    : [],
);
/** Windows and doors as marks along the outer walls that face their way. */
const marks = computed(() => {
  const [surfaces, openings] = [doc.rows("surface"), doc.rows("opening")];
  return placed.value.flatMap((row) =>
    surfaces
      .filter((surface) => surface.room === row.id && surface.plan_key?.startsWith("outer_wall"))
      .flatMap((surface) =>
        marksOf(
          surface,
          openings.filter((opening) => opening.surface === surface.id),
          shownOutline(row),
          doc.site?.rotation_deg ?? 0,
        ),
      ),
  );
});
const hint = computed(
  () => TOOLS.find((item) => item.key === tool.value)?.hint ?? "Press two points of the drawing.",
);
const legend = computed(() => {
  const kind = MEASURES.find((item) => item.key === measure.value)!;
  const [low, high] = heat.range.value;
  return [0, 0.25, 0.5, 0.75, 1].map((share) => ({
    share,
    colour: shadeOf(measure.value, share),
    text: format(low + (high - low) * share, kind.quantity, view.system),
  }));
});
const drawnSize = computed(() => {
  const [a, b] = [drawn.value.at(-2), drawn.value.at(-1)];
  if (!a || !b) return "";
  const shown = (value: number) => toShown(value, "length", view.system).toFixed(2);
  const unit = unitOf("length", view.system);
  return tool.value === "rectangle"
    ? `${shown(Math.abs(a[0] - b[0]))} × ${shown(Math.abs(a[1] - b[1]))} ${unit}`
    : `${shown(length(a, b))} ${unit}`;
});
</script>

<template>
  <div class="plan" @keydown="onKey">
    <div class="bar">
      <v-btn-group class="toggle" role="group" aria-label="Level">
        <v-btn
          v-for="row in levels"
          :key="row.id"
          :active="row.id === level?.id"
          :aria-pressed="row.id === level?.id"
          @click="levelId = row.id"
        >
          {{ row.name }}
        </v-btn>
      </v-btn-group>
      <v-btn-group class="toggle" role="group" aria-label="Tool">
        <v-btn
          v-for="item in TOOLS"
          :key="item.key"
          :active="tool === item.key"
          :aria-pressed="tool === item.key"
          :title="item.hint"
          @click="tool = item.key"
        >
          {{ item.label }}
        </v-btn>
      </v-btn-group>
      <Act :disabled="chosen.length < 2" title="Shift and press chooses several" @click="join"> Join </Act>
      <span class="soft">grid</span>
      <Choice v-model="grid" label="Grid" :choices="gridChoices" />
      <span class="soft">colour by</span>
      <Choice
        v-model="measure"
        label="Colour by"
        :choices="
          MEASURES.filter((item) => options.current || !isChange(item.key)).map((item) => ({
            value: item.key,
            label: item.label,
          }))
        "
      />
      <Act @click="fit">Fit</Act>
      <Act :aria-pressed="underlay" @click="underlay = !underlay">Underlay</Act>
    </div>
    <div class="body">
      <div
        ref="box"
        class="paper"
        :class="tool"
        tabindex="0"
        aria-label="Plan"
        @wheel.prevent="zoom"
        @pointerdown="press"
        @pointermove="move"
        @pointerup="release"
        @dblclick="tool === 'polygon' && close()"
      >
        <svg :width="width" :height="height">
          <PlanUnderlay v-if="level" :level="level.id" :to-x="toX" :to-y="toY" :scale="scale" />
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
          <polygon
            v-for="row in below"
            :key="row.id"
            :points="path(row.outline_m as Outline)"
            class="below"
          />
          <polygon
            v-for="row in placed"
            :key="row.id"
            :points="path(shownOutline(row))"
            class="room"
            :class="{ on: chosen.includes(row.id) }"
            :fill="heat.fill(row.id)"
            role="button"
            tabindex="0"
            :aria-label="`Room ${row.number} ${row.name}`"
            @pointerdown="pressRoom($event, row.id)"
            @keydown.enter="((chosen = [row.id]), view.selectRoom(row.id))"
          />
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
              @pointerdown.stop="
                ((drag = {
                  what: 'wall',
                  a: corner,
                  b: handles[(i + 1) % handles.length]!,
                  start: toPlan($event),
                }),
                box?.setPointerCapture($event.pointerId))
              "
            />
            <rect
              v-for="(corner, i) in handles"
              :key="'c' + i"
              class="corner"
              :x="toX(corner[0]) - 4"
              :y="toY(corner[1]) - 4"
              width="8"
              height="8"
              @pointerdown.stop="
                ((drag = { what: 'corner', from: corner }), box?.setPointerCapture($event.pointerId))
              "
            />
          </g>
          <circle
            v-for="(place, i) in underlay ? picked : []"
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
          <g
            :transform="`translate(${width - 34} 34) rotate(${-(doc.site?.rotation_deg ?? 0)})`"
            class="north"
            aria-hidden="true"
          >
            <path d="M0 -20 L6 8 L0 3 L-6 8 Z" />
            <text y="-23" text-anchor="middle">N</text>
          </g>
        </svg>
        <div v-if="measure" class="legend">
          <span v-for="item in legend" :key="item.share"
            ><i :style="{ background: item.colour }" />{{ item.text }}</span
          >
          <span class="unit">{{
            unitOf(MEASURES.find((m) => m.key === measure)!.quantity, view.system)
          }}</span>
        </div>
        <p class="hint soft">{{ hint }}</p>
      </div>
      <PlanSide
        v-model:new-use="newUse"
        :level="level"
        :room="room"
        :loose="loose"
        :underlay="underlay"
        :picked="picked"
        @pick="((picked = []), (tool = 'scale'))"
        @add="add"
        @outline="(id, outline) => keep('Outline typed', new Map([[id, outline]]))"
      />
    </div>
  </div>
</template>

<style scoped>
.plan {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.bar {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 14px;
  border-bottom: 1px solid var(--hair);
  font-family: var(--narrow);
  flex-wrap: wrap;
}
.bar .act {
  padding: 2px 8px;
}
.body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 230px;
  min-height: 0;
}
.paper {
  position: relative;
  overflow: hidden;
  touch-action: none;
  user-select: none;
}
.paper.rectangle,
.paper.polygon,
.paper.scale,
.paper.split {
  cursor: crosshair;
}
.paper.rectangle .room,
.paper.polygon .room,
.paper.scale .room,
.paper.split .room {
  pointer-events: none;
}
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
.legend {
  position: absolute;
  left: 12px;
  bottom: 24px;
  display: flex;
  gap: 8px;
  background: color-mix(in srgb, var(--paper) 85%, transparent);
  padding: 2px 6px;
  font-family: var(--narrow);
  font-size: 12px;
}
.legend i {
  display: inline-block;
  width: 16px;
  height: 10px;
  margin-right: 3px;
  border: 1px solid var(--line);
}
.hint {
  position: absolute;
  left: 12px;
  bottom: 4px;
  margin: 0;
  font-size: 12px;
}
@media (max-width: 1099px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
