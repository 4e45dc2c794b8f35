<script setup lang="ts">
/** Energy by use and carrier: months stacked, and a table whose figures lead to their hours. */
import { useDocument } from "@/document/store";
import type { Bill, YearSummary } from "@/document/year";
import ChartBox from "@/parts/ChartBox.vue";
import DataGrid from "@/parts/DataGrid.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import { format, MONTHS, spaced, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { hourText } from "./hours";

import { isLoose, toneOf } from "./uses";

const props = defineProps<{ summary: YearSummary; bills: Bill[] }>();
const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const view = useView();
const by = ref<"use" | "carrier">("use");
const part = ref<"energy" | "systems" | "units" | "stores">("energy");

const metered = computed(() => props.summary.energy.filter((row) => !isLoose(row.carrier)));
const loose = computed(() => props.summary.energy.filter((row) => isLoose(row.carrier)));
const sum = (rows: { kwh: number }[]) => rows.reduce((all, row) => all + row.kwh, 0);
const delivered = computed(() => sum(metered.value));
const money = computed(() => props.bills.reduce((all, bill) => all + bill.total, 0));
const emitted = computed(() => props.bills.reduce((all, bill) => all + bill.emissions_kg, 0));
const rooms = computed(() => Object.entries(props.summary.rooms));
const warmest = computed(() => rooms.value.reduce((a, b) => (b[1].too_warm_h > a[1].too_warm_h ? b : a)));

const stacks = computed(() => {
  const found = new Map<string, number[]>();
  for (const row of metered.value) {
    const months = found.get(row[by.value]) ?? new Array<number>(12).fill(0);
    row.month_kwh.forEach((value, month) => (months[month] = (months[month] ?? 0) + value));
    found.set(row[by.value], months);
  }
  return [...found];
});
const option = computed(() => {
  const system = view.system;
  const unit = unitOf("yearly_energy", system);
  return (tone: (name: string) => string) => ({
    legend: {
      top: 0,
      right: 8,
      itemWidth: 12,
      itemHeight: 9,
      textStyle: { color: tone("ink"), fontSize: 12 },
    },
    tooltip: {
      trigger: "axis",
      axisPointer: { type: "shadow" },
      confine: true,
      backgroundColor: tone("paper"),
      borderColor: tone("line"),
      textStyle: { color: tone("ink"), fontSize: 13 },
      valueFormatter: (value: number) => `${spaced(value)} ${unit}`,
    },
    xAxis: { type: "category", data: MONTHS.slice(0, 12) },
    yAxis: { type: "value", name: unit, axisLabel: { color: tone("soft"), formatter: spaced } },
    series: stacks.value.map(([name, months]) => ({
      name,
      type: "bar",
      stack: "all",
      barWidth: "62%",
      itemStyle: { color: tone(toneOf(name)) },
      data: months.map((value) => toShown(value, "yearly_energy", system)),
    })),
  });
});

type Row = YearSummary["energy"][number] & { id: string };
const rows = computed<Row[]>(() =>
  props.summary.energy
    .map((row) => ({ ...row, id: `energy/${row.use}/${row.carrier}` }))
    .sort((a, b) => Number(isLoose(a.carrier)) - Number(isLoose(b.carrier)) || b.kwh - a.kwh),
);
const columns = computed<Column<Row>[]>(() => [
  { key: "use", title: "For", width: 140, value: (r) => r.use },
  { key: "carrier", title: "from", width: 170, value: (r) => r.carrier },
  { key: "kwh", title: "energy", quantity: "yearly_energy", width: 100, value: (r) => r.kwh },
  { key: "area", title: "by floor area", quantity: "energy_per_area", width: 100, value: (r) => r.kwh / props.summary.floor_area_m2 },
  { key: "share", title: "share", quantity: "percent", width: 70, value: (r) => (isLoose(r.carrier) ? null : r.kwh / Math.max(delivered.value, 1e-9)) },
  { key: "peak", title: "largest hour", quantity: "load", width: 100, value: (r) => r.peak_w },
  ...MONTHS.slice(0, 12).map((name, month) => ({
    key: name, title: name, quantity: "yearly_energy", width: 72, value: (r: Row) => r.month_kwh[month],
  })),
]); // prettier-ignore

type SystemRow = YearSummary["systems"][string] & { id: string; name: string };
const systems = computed<SystemRow[]>(() =>
  Object.entries(props.summary.systems).map(([id, row]) => {
    const [system = "", room = ""] = id.split("~");
    const of = doc.get("air_system", system)?.name ?? system;
    return { ...row, id, name: room ? `${of}, ${doc.get("room", room)?.number ?? ""}` : of };
  }),
);
const systemColumns: Column<SystemRow>[] = [
  { key: "name", title: "Air system", width: 190, value: (r) => r.name },
  { key: "cooling", title: "coil, cold", quantity: "yearly_energy", width: 110, value: (r) => r.cooling_kwh },
  {
    key: "heating",
    title: "heat with reheat",
    quantity: "yearly_energy",
    width: 120,
    value: (r) => r.heating_kwh,
  },
  { key: "fans", title: "fans", quantity: "yearly_energy", width: 100, value: (r) => r.fans_kwh },
  { key: "short", title: "flow too small", quantity: "hours", width: 110, value: (r) => r.short_h },
];
type UnitRow = YearSummary["units"][string] & { id: string; name: string };
const units = computed<UnitRow[]>(() =>
  Object.entries(props.summary.units).map(([id, row]) => ({
    ...row,
    id,
    name: `${doc.get("circuit", row.circuit)?.name ?? ""}: ${doc.get("plant_unit", id)?.name ?? id}`,
  })),
);
const unitColumns: Column<UnitRow>[] = [
  { key: "name", title: "Unit", width: 260, value: (r) => r.name },
  { key: "output", title: "gives", quantity: "yearly_energy", width: 110, value: (r) => r.output_kwh },
  { key: "peak", title: "largest hour", quantity: "load", width: 110, value: (r) => r.peak_w },
  { key: "on", title: "on for", quantity: "hours", width: 90, value: (r) => r.on_h },
  { key: "full", title: "hours at its largest", quantity: "hours", width: 140, value: (r) => r.output_kwh / Math.max(r.peak_w / 1000, 1e-9) },
]; // prettier-ignore
type StoreRow = NonNullable<YearSummary["stores"]>[string] & { id: string; name: string };
const stores = computed<StoreRow[]>(() =>
  Object.entries(props.summary.stores ?? {}).map(([id, row]) => ({
    ...row,
    id,
    name: doc.get("hot_water", id)?.name ?? id,
  })),
);
const storeColumns: Column<StoreRow>[] = [
  { key: "name", title: "Hot water", width: 190, value: (r) => r.name },
  { key: "drawn", title: "drawn", quantity: "yearly_energy", width: 100, value: (r) => r.drawn_kwh },
  { key: "charged", title: "charged", quantity: "yearly_energy", width: 100, value: (r) => r.charged_kwh },
  { key: "solar", title: "from the sun", quantity: "yearly_energy", width: 110, value: (r) => r.solar_kwh },
  { key: "lost", title: "lost", quantity: "yearly_energy", width: 100, value: (r) => r.lost_kwh },
  { key: "missing", title: "not hot enough", quantity: "yearly_energy", width: 120, value: (r) => r.missing_kwh },
  { key: "coolest", title: "coolest", quantity: "temperature", width: 90, value: (r) => r.coolest_c },
]; // prettier-ignore
const PARTS = {
  energy: "By use",
  systems: "Air systems",
  units: "Plant units",
  stores: "Hot water",
} as const;
const peaks = computed(() =>
  Object.entries(props.summary.carriers)
    .filter(([name]) => !isLoose(name))
    .map(([name, carrier]) => ({
      name,
      ...carrier,
      when: hourText(props.summary.year, carrier.peak_hour),
    })),
);
</script>

<template>
  <div class="energy">
    <dl class="figures">
      <div>
        <dt>delivered energy</dt>
        <dd data-test="delivered"><Figure :value="delivered" quantity="yearly_energy" /></dd>
      </div>
      <div>
        <dt>by floor area</dt>
        <dd><Figure :value="delivered / summary.floor_area_m2" quantity="energy_per_area" /></dd>
      </div>
      <div v-for="carrier in peaks" :key="carrier.name">
        <dt>{{ carrier.name }}</dt>
        <dd>
          <Figure :value="carrier.kwh" quantity="yearly_energy" />
          <span class="soft"
            >at most <Figure :value="carrier.peak_w" quantity="load" />, {{ carrier.when }}</span
          >
        </dd>
      </div>
      <div v-if="bills.length">
        <dt>bills with tax</dt>
        <dd><Figure :value="money" quantity="money" /></dd>
      </div>
      <div v-if="bills.length">
        <dt>CO₂</dt>
        <dd><Figure :value="emitted" quantity="emission_mass" /></dd>
      </div>
      <div>
        <dt>longest too warm</dt>
        <dd>
          <Figure :value="warmest[1].too_warm_h" quantity="hours" />
          <span class="soft">{{ doc.get("room", warmest[0])?.name }}</span>
        </dd>
      </div>
    </dl>
    <v-alert v-if="loose.length" type="warning" class="alert">
      {{
        loose
          .map(
            (row) =>
              `${format(row.kwh, "yearly_energy", view.system)} ${unitOf("yearly_energy", view.system)} for ${row.use}`,
          )
          .join(", ")
      }}
      are on no circuit with a plant: they are not in the delivered energy. Draw pipes to these rooms and
      coils, and add units under Water, Plant.
    </v-alert>
    <v-alert v-for="fault in summary.faults" :key="fault" type="warning" class="alert">{{ fault }}</v-alert>
    <div class="chart">
      <v-btn-group class="toggle by" role="group" aria-label="Stacked by">
        <v-btn :active="by === 'use'" :aria-pressed="by === 'use'" @click="by = 'use'">by use</v-btn>
        <v-btn :active="by === 'carrier'" :aria-pressed="by === 'carrier'" @click="by = 'carrier'"
          >by carrier</v-btn
        >
      </v-btn-group>
      <ChartBox class="drawn" label="Energy by month" :option="option" />
    </div>
    <div class="tools">
      <v-btn-group class="toggle" role="group" aria-label="Table">
        <v-btn
          v-for="(name, key) in PARTS"
          :key="key"
          :active="part === key"
          :aria-pressed="part === key"
          @click="part = key"
          >{{ name }}</v-btn
        >
      </v-btn-group>
      <span class="soft">a row leads to its hours</span>
    </div>
    <div class="grid">
      <DataGrid
        v-if="part === 'energy'"
        label="Energy by use and carrier"
        :columns="columns"
        :rows="rows"
        @select="emit('show', $event.id)"
      />
      <DataGrid
        v-else-if="part === 'systems'"
        label="Air systems over the year"
        :columns="systemColumns"
        :rows="systems"
        @select="emit('show', `air_system/${$event.id}/cooling_w`)"
      />
      <DataGrid
        v-else-if="part === 'stores' && stores.length"
        label="Hot water over the year"
        :columns="storeColumns"
        :rows="stores"
        @select="emit('show', `hot_water/${$event.id}/charged_w`)"
      />
      <p v-else-if="part === 'stores'" class="empty">
        No store of hot water is drawn from; add one under Water.
      </p>
      <DataGrid
        v-else
        label="Plant units over the year"
        :columns="unitColumns"
        :rows="units"
        @select="emit('show', `unit/${$event.circuit}/${$event.id}`)"
      />
    </div>
  </div>
</template>

<style scoped>
.energy {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  margin: 0;
  padding: 6px 14px;
  font-family: var(--narrow);
}
dt {
  color: var(--soft);
  font-size: 12px;
}
dd {
  margin: 0;
  font-size: 17px;
}
dd .soft {
  display: block;
  font-size: 13px;
}
.alert {
  margin: 0 14px 4px;
  flex: none;
}
.chart {
  flex: 5;
  min-height: 180px;
  padding: 4px 8px 0;
  position: relative;
}
.by {
  position: absolute;
  left: 104px;
  top: 2px;
  z-index: 1;
  height: 23px;
}
.drawn {
  height: 100%;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 12px;
  border-top: 1px solid var(--ink);
}
.grid {
  flex: 4;
  min-height: 120px;
  overflow: hidden;
  border-top: 1px solid var(--line);
}
</style>
