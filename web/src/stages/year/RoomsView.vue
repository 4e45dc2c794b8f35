<script setup lang="ts">
/** Rooms over the year: what they ask, how warm they get, and the chosen room's heat by source and month. */
import { useDocument } from "@/document/store";
import type { RoomYear, YearSummary } from "@/document/year";
import ChartBox from "@/parts/ChartBox.vue";
import DataGrid from "@/parts/DataGrid.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import Segments from "@/parts/Segments.vue";
import { source } from "@/parts/sources";
import { MONTHS, spaced, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { hourText } from "./hours";

const props = defineProps<{ summary: YearSummary }>();
const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const view = useView();

type Row = RoomYear & { id: string; number: string; name: string; area: number };
const rows = computed<Row[]>(() =>
  Object.entries(props.summary.rooms)
    .flatMap(([id, year]) => {
      const room = doc.get("room", id);
      return room
        ? [{ ...year, id, number: room.number, name: room.name, area: room.floor_area_m2 ?? 1 }]
        : [];
    })
    .sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true })),
);
const when = (hour: number) => hourText(props.summary.year, hour);
/** Which limits of comfort hours are counted against: the use's own, or the adaptive ones of a category. */
const LIMITS = { own: "Limit of the use", I: "Adaptive I", II: "Adaptive II", III: "Adaptive III" };
const limits = ref<keyof typeof LIMITS>("own");
const adaptive = (row: Row, side: 0 | 1) =>
  limits.value === "own" ? null : row.adaptive_h?.[limits.value]?.[side];
const comfort = computed<Column<Row>[]>(() =>
  limits.value === "own"
    ? [{ key: "warm_h", title: "too warm", quantity: "hours", width: 78, value: (r) => r.too_warm_h }]
    : [
        { key: "above", title: "above", quantity: "hours", width: 78, value: (r) => adaptive(r, 0) },
        { key: "below", title: "below", quantity: "hours", width: 78, value: (r) => adaptive(r, 1) },
      ],
);
const columns = computed<Column<Row>[]>(() => [
  { key: "number", title: "No.", width: 56, value: (r) => r.number },
  { key: "name", title: "Room", width: 140, value: (r) => r.name },
  { key: "heating", title: "heating", quantity: "yearly_energy", width: 84, value: (r) => r.heating_kwh },
  { key: "heating_area", title: "heating", quantity: "energy_per_area", width: 84, value: (r) => r.heating_kwh / r.area },
  { key: "cooling", title: "cooling", quantity: "yearly_energy", width: 84, value: (r) => r.cooling_kwh },
  { key: "cooling_area", title: "cooling", quantity: "energy_per_area", width: 84, value: (r) => r.cooling_kwh / r.area },
  { key: "heat_peak", title: "most heat", quantity: "load", width: 84, value: (r) => r.heating_peak_w },
  { key: "heat_when", title: "when", width: 104, value: (r) => (r.heating_peak_w > 0 ? when(r.heating_peak_hour) : "–") },
  { key: "cool_peak", title: "most cold", quantity: "load", width: 84, value: (r) => r.cooling_peak_w },
  { key: "cool_when", title: "when", width: 104, value: (r) => (r.cooling_peak_w > 0 ? when(r.cooling_peak_hour) : "–") },
  { key: "coldest", title: "coldest", quantity: "temperature", width: 74, value: (r) => r.coldest_c },
  { key: "warmest", title: "warmest", quantity: "temperature", width: 74, value: (r) => r.warmest_c },
  { key: "warm_when", title: "when", width: 104, value: (r) => when(r.warmest_hour) },
  ...comfort.value,
  { key: "occupied", title: "occupied", quantity: "hours", width: 78, value: (r) => r.occupied_h },
  { key: "unmet_h", title: "too cold", quantity: "hours", width: 78, value: (r) => r.unmet_heating_h },
  { key: "unmet_c", title: "not cooled", quantity: "hours", width: 82, value: (r) => r.unmet_cooling_h },
  { key: "missed_h", title: "too cold", quantity: "degree_hours", width: 82, value: (r) => r.missed_heating_kh },
  { key: "missed_c", title: "not cooled", quantity: "degree_hours", width: 82, value: (r) => r.missed_cooling_kh },
]); // prettier-ignore
const chosen = computed(() => rows.value.find((row) => row.id === view.selectedRoom) ?? rows.value[0]);
const COLOURS: Record<string, string> = {
  heating: "ember",
  cooling: "tide",
  "outdoor air": "infiltration",
  "drawn air": "drawn-air",
  "walls, windows and stored heat": "walls",
};
const NAMES: Record<string, string> = {
  heating: "Heating",
  cooling: "Cooling",
  "outdoor air": "Outdoor air",
  "walls, windows and stored heat": "Walls, windows, stored heat",
};
const sources = computed(() =>
  Object.entries(chosen.value?.sources_month_kwh ?? {}).filter(([, months]) =>
    months.some((value) => Math.abs(value) > 0.5),
  ),
);
const option = computed(() => {
  const system = view.system;
  const unit = unitOf("yearly_energy", system);
  const bars = sources.value;
  return (tone: (name: string) => string) => ({
    legend: {
      type: "scroll",
      top: 0,
      itemWidth: 12,
      itemHeight: 9,
      textStyle: { color: tone("ink"), fontSize: 12 },
    },
    grid: { left: 58, right: 14, top: 44, bottom: 24 },
    xAxis: { type: "category", data: MONTHS.slice(0, 12) },
    yAxis: { type: "value", name: unit, axisLabel: { color: tone("soft"), formatter: spaced } },
    series: bars.map(([name, months]) => ({
      name: NAMES[name] ?? source(name).name,
      type: "bar",
      stack: "all",
      barWidth: "62%",
      itemStyle: { color: tone(COLOURS[name] ?? name) },
      data: months.map((value) => Math.round(toShown(value, "yearly_energy", system))),
    })),
  });
});
</script>

<template>
  <div class="rooms">
    <div class="tools">
      <Segments v-model="limits" label="Comfort counted by" :choices="LIMITS" />
      <span v-if="limits !== 'own'" class="soft">
        occupied hours above and below EN 16798-1's limits for rooms that are not cooled
      </span>
      <span v-else class="soft">occupied hours above the limit of the room's use</span>
    </div>
    <div class="grid">
      <DataGrid
        label="Rooms over the year"
        :columns="columns"
        :rows="rows"
        :selected="chosen?.id"
        @select="view.selectRoom($event.id)"
      />
    </div>
    <section v-if="chosen" class="one">
      <div class="tools">
        <h2>{{ chosen.number }} {{ chosen.name }}</h2>
        <Act @click="emit('show', `room/${chosen.id}/air_c`)">Temperature</Act>
        <Act @click="emit('show', `room/${chosen.id}/heating_w`)">Heating</Act>
        <Act @click="emit('show', `room/${chosen.id}/cooling_w`)">Cooling</Act>
        <span class="soft">
          warmest <Figure :value="chosen.warmest_c" quantity="temperature" />,
          {{ when(chosen.warmest_hour) }}; heating left beside supply air
          <Figure :value="chosen.served_heating_kwh" quantity="yearly_energy" />
        </span>
      </div>
      <ChartBox class="drawn" :label="`Heat of ${chosen.number} by source and month`" :option="option" />
      <p class="soft told">
        Asked with ideal heating and cooling; above nought what warms the room. Temperatures and hours are
        those under the supply air of its systems.
      </p>
    </section>
  </div>
</template>

<style scoped>
.rooms {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.grid {
  flex: 5;
  min-height: 160px;
  overflow: hidden;
}
.one {
  flex: 4;
  min-height: 200px;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--ink);
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 5px 12px;
}
.tools h2 {
  margin: 0;
}
.drawn {
  flex: 1;
}
.told {
  margin: 0;
  padding: 2px 12px 4px;
  font-size: 12px;
}
</style>
