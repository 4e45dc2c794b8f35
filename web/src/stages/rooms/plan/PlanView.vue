<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import Choice from "@/parts/Choice.vue";
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { format, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { addressed } from "@/view/address";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import { useOptions } from "@/document/options";
import { isChange, MEASURES, shadeOf, useHeat, type Measure } from "./heat";
import { length, type Outline } from "./outline";
import { marksOf } from "./marks";
import { usePaper } from "./paper";
import PlanLegend from "./PlanLegend.vue";
import PlanSide from "./PlanSide.vue";
import PlanDrawing from "./PlanDrawing.vue";
import { TOOLS, usePlanTools } from "./tools";

const props = defineProps<{ nextNumber: string }>();
const options = useOptions();
const doc = useDocument();
const view = useView();

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
const levelShown = computed({ get: () => level.value?.id ?? "", set: (id) => (levelId.value = id) });
addressed("level", levelId, true, (text) => doc.get("level", text) !== undefined);
const grid = ref(0.1);
/** What the rooms are coloured by; another stage may ask for it by the address. */
const wanted = String(useRoute().query["at"] ?? "").split("/")[1];
const gridChoices = computed(() =>
  [0.01, 0.05, 0.1, 0.25, 0.5, 1].map((value) => ({
    value,
    label: `${toShown(value, "length", view.system).toFixed(2)} ${unitOf("length", view.system)}`,
  })),
);
const measure = ref<Measure>(MEASURES.find((item) => item.key === wanted)?.key ?? "");
const underlay = ref(false);
const routes = ref(false);

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

const paper = usePaper(
  box,
  () => level.value?.id,
  () => (corners.value.length ? corners.value : below.value.flatMap((row) => row.outline_m as Outline)),
);
const { fit, zoom } = paper;
const tools = usePlanTools({
  box,
  paper,
  level,
  room,
  outlines,
  corners,
  grid,
  nextNumber: () => props.nextNumber,
});
const { tool, chosen, drafts, drawn, picked, pointer, newUse, press, pressRoom, pressWall, pressCorner } =
  tools;
const { chooseRoom, move, release, keep, add, join, onKey, close } = tools;
watch(
  () => view.selectedRoom,
  (id) => {
    if (id && !chosen.value.includes(id)) chosen.value = [id];
    const its = doc.get("room", id);
    if (its?.level && its.level !== level.value?.id) levelId.value = its.level;
  },
);

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
      <Segments
        v-model="levelShown"
        label="Level"
        :choices="levels.map((row) => ({ value: row.id, label: row.name }))"
      />
      <Segments
        v-model="tool"
        label="Tool"
        :choices="TOOLS.map((item) => ({ value: item.key, label: item.label, hint: item.hint }))"
      />
      <Act :disabled="chosen.length < 2" title="Shift and press chooses several" @click="join"> Join </Act>
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
      <Act
        :aria-pressed="routes"
        title="Ducts and pipes that are laid along the plan"
        @click="routes = !routes"
        >Routes</Act
      >
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
        <PlanDrawing
          :paper="paper"
          :heat="heat"
          :tool="tool"
          :grid="grid"
          :level="level?.id"
          :below="below"
          :placed="placed"
          :routes="routes"
          :chosen="chosen"
          :outline-of="shownOutline"
          :marks="marks"
          :handles="handles"
          :picked="underlay ? picked : []"
          :drawn="drawn"
          :drawn-size="drawnSize"
          :pointer="pointer"
          :rotation="doc.site?.rotation_deg ?? 0"
          @room="pressRoom"
          @choose="chooseRoom"
          @wall="pressWall"
          @corner="pressCorner"
        />
        <PlanLegend
          v-if="measure"
          :items="legend"
          :unit="unitOf(MEASURES.find((m) => m.key === measure)!.quantity, view.system)"
        />
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
  gap: 6px;
  align-items: center;
  padding: 4px 14px;
  border-bottom: 1px solid var(--hair);
  font-family: var(--narrow);
  flex-wrap: wrap;
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
