<script setup lang="ts">
/** Energy of the year: its figures, and months stacked by use or carrier; tables below. */
import Segments from "@/parts/Segments.vue";
import { useDocument } from "@/document/store";
import type { Bill, YearSummary } from "@/document/year";
import ChartBox from "@/parts/ChartBox.vue";
import Figure from "@/parts/Figure.vue";
import { format, MONTHS, spaced, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import EnergyTables from "./EnergyTables.vue";
import { hourText } from "./hours";
import { isLoose, toneOf } from "./uses";

const props = defineProps<{ summary: YearSummary; bills: Bill[] }>();
const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const view = useView();
const BY = { use: "by use", carrier: "by carrier" };
const by = ref<"use" | "carrier">("use");

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
      <Segments v-model="by" class="by" label="Stacked by" :choices="BY" />
      <ChartBox class="drawn" label="Energy by month" :option="option" />
    </div>
    <EnergyTables :summary="summary" :delivered="delivered" @show="emit('show', $event)" />
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
</style>
