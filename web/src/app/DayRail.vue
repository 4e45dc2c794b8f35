<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import { useElementSize } from "@/parts/size";
import { source } from "@/parts/sources";
import { useResults } from "@/results/store";
import type { DayCourses } from "@/results/types";
import { clock, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { computed, ref, watch } from "vue";
import { jumpToPeak } from "./keys";
import { stack, temperatures } from "./rail";

const doc = useDocument();
const results = useResults();
const view = useView();
const courses = computed(() => results.day?.courses ?? null);
const box = ref<HTMLElement | null>(null);
const shows = ref<"heat" | "air">("heat");
const { width, height } = useElementSize(box);

const record = computed(() =>
  view.subject.kind === "room" ? results.get("room", view.subject.id) : results.get("group", view.subject.id),
);
const name = computed(() => {
  if (view.subject.kind === "group") return results.get("group", view.subject.id)?.name ?? "";
  const room = doc.get("room", view.subject.id);
  return room ? `${room.number} ${room.name}` : "";
});

/** Twelve months, and the dehumidification day where the site has one. */
const days = computed(() => MONTHS.slice(0, doc.site?.dehumidification_month ? 13 : 12));

watch(
  [() => view.subject, () => view.month, () => results.version],
  async (_now, _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    if (!record.value) {
      results.day = null;
      return;
    }
    const query = { kind: view.subject.kind, subject: view.subject.id, month: view.month };
    const answer = await client.GET("/api/projects/{project_id}/day", {
      params: { path: { project_id: doc.projectId }, query },
    });
    if (stale) return;
    const { subject, month } = query;
    results.day = answer.response.ok
      ? { subject, month, courses: unwrap(answer) as unknown as DayCourses }
      : null;
  },
  { immediate: true },
);

const pile = computed(() => stack(courses.value?.parts ?? {}));
const quantity = computed(() => (courses.value?.unit === "K" ? "temperature_difference" : "load"));
const x = computed(() => scaleLinear([0, 144], [4, Math.max(10, width.value - 6)]));
const lines = computed(() => (courses.value ? temperatures(courses.value, pile.value.total) : []));
const warmth = computed(() => {
  const all = lines.value.flatMap((item) => item.values).filter((value) => !Number.isNaN(value));
  return scaleLinear([Math.min(...all), Math.max(...all)], [height.value - 20, 20]).nice(3);
});
const drawn = computed(() =>
  lines.value.map((item) => ({
    ...item,
    d:
      line<number>(
        (_, i) => x.value(i + 0.5),
        (value) => warmth.value(value),
      ).defined((value) => !Number.isNaN(value))(item.values) ?? "",
  })),
);
/** What the plant can give at most, where that was entered. */
const capacity = computed(() => courses.value?.control?.capacity_w ?? null);
const y = computed(() => {
  const all = pile.value.bands.flatMap((band) => [...band.low, ...band.high]);
  if (capacity.value) all.push(capacity.value);
  return scaleLinear([Math.min(0, ...all), Math.max(1, ...all)], [height.value - 17, 18]);
});
const bands = computed(() =>
  pile.value.bands.map((band) => ({
    ...source(band.name),
    fill: band.name === "storage" ? "url(#kept)" : source(band.name).colour,
    d:
      area<number>(
        (_, i) => x.value(i + 0.5),
        (_, i) => y.value(band.low[i] ?? 0),
        (value) => y.value(value),
      )(band.high) ?? "",
  })),
);
const total = computed(
  () =>
    line<number>(
      (_, i) => x.value(i + 0.5),
      (value) => y.value(value),
    )(pile.value.total) ?? "",
);
const ownPeak = computed(() =>
  record.value?.cooling?.month === view.month ? record.value.cooling.step : null,
);
const buildingPeak = computed(() => {
  const peak = results.get("group", "building")?.cooling;
  return peak?.month === view.month &&
    view.subject.id !== "building" &&
    Math.abs(peak.step - (ownPeak.value ?? -99)) > 8
    ? peak.step
    : null;
});
const ranked = computed(() =>
  Object.entries(courses.value?.parts ?? {})
    .map(([key, values]) => ({ ...source(key), value: values[view.step] ?? 0 }))
    .sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
    .slice(0, 3),
);
const air = computed(() => {
  const c = courses.value;
  if (c?.control) return c.control.air_c[view.step] ?? null;
  if (!c || c.reference_c === null) return null;
  return c.unit === "K" ? c.reference_c + (pile.value.total[view.step] ?? 0) : c.reference_c;
});

function place(event: PointerEvent): void {
  if (event.buttons !== 1 || !box.value) return;
  const at = x.value.invert(event.clientX - box.value.getBoundingClientRect().left);
  view.step = Math.max(0, Math.min(143, Math.floor(at)));
}

function onKey(event: KeyboardEvent): void {
  const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
  if (!by) return;
  view.moveStep(event.shiftKey ? by * 6 : by);
  event.preventDefault();
}
</script>

<template>
  <section class="rail" aria-label="Day rail">
    <div class="days">
      <span class="soft">Day shown</span>
      <div class="months" role="group" aria-label="Day">
        <v-btn
          variant="text"
          :aria-pressed="view.month === 0"
          class="winter"
          :class="{ on: view.month === 0, short: days.length > 12 }"
          title="Winter day"
          @click="view.month = 0"
        >
          W
        </v-btn>
        <v-btn
          variant="text"
          v-for="(month, index) in days"
          :key="month"
          :aria-pressed="view.month === index + 1"
          :class="{
            on: view.month === index + 1,
            peak: record?.cooling?.month === index + 1,
            dew: index === 12,
          }"
          :title="index === 12 ? 'Dehumidification day' : undefined"
          @click="view.month = index + 1"
        >
          {{ month.split(" ")[0] }}
        </v-btn>
      </div>
    </div>
    <div
      ref="box"
      class="plot"
      role="slider"
      tabindex="0"
      aria-label="Hour of the day"
      :aria-valuemin="0"
      :aria-valuemax="143"
      :aria-valuenow="view.step"
      :aria-valuetext="clock(view.step)"
      @pointerdown="place"
      @pointermove="place"
      @keydown="onKey"
    >
      <svg :width="width" :height="height" aria-hidden="true">
        <defs>
          <pattern id="kept" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="5" height="5" fill="var(--paper)" />
            <line y2="5" stroke="var(--storage)" stroke-width="5" />
          </pattern>
        </defs>
        <template v-if="shows === 'heat'">
          <path v-for="band in bands" :key="band.name" :d="band.d" :fill="band.fill" opacity="0.85" />
          <path :d="total" fill="none" stroke="var(--ink)" stroke-width="1.4" />
          <line :x1="0" :x2="width" :y1="y(0)" :y2="y(0)" stroke="var(--ink)" />
          <g v-if="capacity">
            <line
              :x1="0"
              :x2="width"
              :y1="y(capacity)"
              :y2="y(capacity)"
              stroke="var(--ink)"
              stroke-dasharray="7 3"
            />
            <text :x="width - 6" :y="y(capacity) - 3" text-anchor="end">capacity</text>
          </g>
        </template>
        <template v-else>
          <g v-for="tick in warmth.ticks(3)" :key="tick">
            <line x1="0" :x2="width" :y1="warmth(tick)" :y2="warmth(tick)" stroke="var(--hair)" />
            <text :x="width - 4" :y="warmth(tick) - 2" text-anchor="end">
              {{ toShown(tick, "temperature", view.system).toFixed(0) }}
            </text>
          </g>
          <path
            v-for="item in drawn"
            :key="item.name"
            :d="item.d"
            fill="none"
            :stroke="item.colour"
            stroke-width="1.6"
            :stroke-dasharray="item.dash"
          />
        </template>
        <text
          v-for="hour in [0, 3, 6, 9, 12, 15, 18, 21, 24]"
          :key="hour"
          :x="x(hour * 6)"
          :y="height - 4"
          text-anchor="middle"
        >
          {{ hour }}
        </text>
        <g v-if="buildingPeak !== null">
          <line
            :x1="x(buildingPeak + 0.5)"
            :x2="x(buildingPeak + 0.5)"
            y1="16"
            :y2="height - 17"
            stroke="var(--ink)"
            stroke-dasharray="2 3"
          />
          <text :x="x(buildingPeak + 0.5) + 4" y="30">building {{ clock(buildingPeak) }}</text>
        </g>
        <text v-if="ownPeak !== null" :x="x(ownPeak + 0.5) - 5" y="28" text-anchor="start" class="own">
          ▼ own peak
        </text>
        <line
          :x1="x(view.step + 0.5)"
          :x2="x(view.step + 0.5)"
          y1="0"
          :y2="height - 17"
          stroke="var(--accent)"
          stroke-width="2"
        />
        <rect :x="x(view.step + 0.5) - 20" y="0" width="40" height="16" fill="var(--accent)" />
        <text :x="x(view.step + 0.5)" y="12" text-anchor="middle" class="at">{{ clock(view.step) }}</text>
        <text v-if="shows === 'air'" x="4" y="12">
          {{ unitOf("temperature", view.system) }}
          <tspan v-for="item in drawn" :key="item.name" :fill="item.colour" dx="8">━ {{ item.name }}</tspan>
        </text>
        <text v-else x="4" y="12">
          {{
            courses?.unit === "K"
              ? `${unitOf(quantity, view.system)} above ${toShown(courses.reference_c ?? 0, "temperature", view.system).toFixed(0)} in ${name}, not cooled`
              : `${unitOf(quantity, view.system)} ${view.month ? "into" : "lost from"} the air of ${name}`
          }}
        </text>
      </svg>
      <p v-if="!courses" class="soft none">Nothing calculated for this selection.</p>
    </div>
    <div class="read">
      <p>
        <b>{{ clock(view.step) }} {{ view.month ? MONTHS[view.month - 1] : "winter" }}</b> outdoors
        <b><Figure :value="courses?.outdoor_c[view.step] ?? null" quantity="temperature" /></b>
        <template v-if="air !== null">
          air <b><Figure :value="air" quantity="temperature" /></b
        ></template>
      </p>
      <p>
        <template v-if="courses"
          >sum <b data-test="rail-sum"><Figure :value="pile.total[view.step] ?? 0" :quantity="quantity" /></b
        ></template>
        <span v-for="part in ranked" :key="part.name" class="part"
          ><i :style="{ background: part.colour }" />{{ part.name }}
          <Figure :value="part.value" :quantity="quantity" bare
        /></span>
      </p>
      <p class="soft">
        <v-btn-group class="toggle" role="group" aria-label="Rail shows">
          <v-btn :active="shows === 'heat'" :aria-pressed="shows === 'heat'" @click="shows = 'heat'"
            >Heat</v-btn
          >
          <v-btn :active="shows === 'air'" :aria-pressed="shows === 'air'" @click="shows = 'air'"
            >Temperatures</v-btn
          >
        </v-btn-group>
        <kbd>[</kbd> <kbd>]</kbd> 10 min <TextAct @click="jumpToPeak"><kbd>P</kbd> peak</TextAct>
      </p>
    </div>
  </section>
</template>

<style scoped>
.rail {
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr) 316px;
  font-family: var(--narrow);
  min-height: 0;
  background: var(--paper);
}
.days {
  padding: 8px 10px;
  border-right: 1px solid var(--line);
}
.months {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 4px;
  margin-top: 5px;
}
.months button {
  border: 1px solid var(--line);
  padding: 2px 0;
  font-size: 12px;
}
.months .peak {
  border-color: var(--tide);
}
.months .on {
  background: var(--tide);
  color: #fff;
}
.months .winter {
  border-color: var(--ember);
  grid-row: span 2;
}
.months .winter.short {
  grid-row: 1;
}
.months .dew {
  grid-row: 2;
  grid-column: 1;
}
.months .winter.on {
  background: var(--ember);
}
.plot {
  position: relative;
  cursor: ew-resize;
  touch-action: none;
  min-width: 0;
  overflow: hidden;
  user-select: none;
}
.plot svg {
  display: block;
}
text {
  font-size: 11px;
  fill: var(--soft);
}
text.at {
  fill: #fff;
  font-weight: 600;
}
text.own {
  fill: var(--ink);
}
.none {
  position: absolute;
  inset: 34px 20px;
}
.read {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: hidden;
}
.read p {
  margin: 0 0 4px;
}
.part {
  margin-left: 8px;
  white-space: nowrap;
}
.part i {
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 3px;
}
kbd {
  font-family: var(--mono);
  font-size: 11px;
  border: 1px solid var(--line);
  padding: 0 4px;
}
@media (max-width: 1099px) {
  .rail {
    grid-template-columns: 170px minmax(0, 1fr);
  }
  .read {
    display: none;
  }
}
</style>
