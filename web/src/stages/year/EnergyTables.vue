<script setup lang="ts">
/** Energy by use and carrier, air system, plant unit and store of hot water; a row leads to its hours. */
import Segments from "@/parts/Segments.vue";
import { useDocument } from "@/document/store";
import type { YearSummary } from "@/document/year";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { MONTHS } from "@/units/units";
import { computed, ref } from "vue";
import { waterName } from "./courses";
import { isLoose } from "./uses";

const props = defineProps<{ summary: YearSummary; delivered: number }>();
const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const part = ref<"energy" | "systems" | "circuits" | "units" | "stores" | "water">("energy");
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
  { key: "share", title: "share", quantity: "percent", width: 70, value: (r) => (isLoose(r.carrier) ? null : r.kwh / Math.max(props.delivered, 1e-9)) },
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
const unitColumns = computed<Column<UnitRow>[]>(() => [
  { key: "name", title: "Unit", width: 260, value: (r) => r.name },
  { key: "output", title: "gives", quantity: "yearly_energy", width: 110, value: (r) => r.output_kwh },
  ...(units.value.some((r) => r.extracted_kwh)
    ? [{ key: "extracted", title: "from ground", quantity: "yearly_energy", width: 110, value: (r: UnitRow) => r.extracted_kwh }]
    : []),
  { key: "peak", title: "largest hour", quantity: "load", width: 110, value: (r) => r.peak_w },
  { key: "on", title: "on for", quantity: "hours", width: 90, value: (r) => r.on_h },
  { key: "full", title: "hours at its largest", quantity: "hours", width: 140, value: (r) => r.output_kwh / Math.max(r.peak_w / 1000, 1e-9) },
]); // prettier-ignore
type CircuitRow = NonNullable<YearSummary["circuits"]>[string] & { id: string; name: string };
const circuits = computed<CircuitRow[]>(() =>
  Object.entries(props.summary.circuits ?? {}).map(([id, row]) => ({
    ...row,
    id,
    name: doc.get("circuit", id)?.name ?? id,
  })),
);
const circuitColumns: Column<CircuitRow>[] = [
  { key: "name", title: "Circuit", width: 220, value: (r) => r.name },
  { key: "carried", title: "carries", quantity: "yearly_energy", width: 100, value: (r) => r.carried_kwh },
  { key: "peak", title: "largest hour", quantity: "load", width: 100, value: (r) => r.peak_w },
  { key: "on", title: "on for", quantity: "hours", width: 80, value: (r) => r.on_h },
  { key: "unmet", title: "asked, not given", quantity: "yearly_energy", width: 120, value: (r) => r.unmet_kwh },
  { key: "unmet_h", title: "for", quantity: "hours", width: 70, value: (r) => r.unmet_h },
  { key: "unmet_peak", title: "most of it", quantity: "load", width: 90, value: (r) => r.unmet_peak_w },
  { key: "pumps", title: "pumps take", quantity: "yearly_energy", width: 90, value: (r) => r.pumps_kwh },
  { key: "saved", title: "another pump saves", quantity: "yearly_energy", width: 130, value: (r) => r.pumps_saved_kwh },
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
type WaterRow = NonNullable<YearSummary["water"]>[string] & { id: string; name: string };
const water = computed<WaterRow[]>(() =>
  Object.entries(props.summary.water ?? {}).map(([id, row]) => ({ ...row, id, name: waterName(doc, id) })),
);
const waterColumns: Column<WaterRow>[] = [
  { key: "name", title: "Water of", width: 260, value: (r) => r.name },
  { key: "m3", title: "over the year", quantity: "water_volume", width: 110, value: (r) => r.m3 },
  { key: "peak", title: "largest hour", quantity: "water_flow", width: 110, value: (r) => r.peak_m3_s },
  ...MONTHS.slice(0, 12).map((name, month) => ({
    key: name, title: name, quantity: "water_volume" as const, width: 72, value: (r: WaterRow) => r.month_m3[month],
  })),
]; // prettier-ignore
const PARTS = {
  energy: "By use",
  systems: "Air systems",
  circuits: "Circuits",
  units: "Plant units",
  stores: "Hot water",
  water: "Water",
} as const;
</script>

<template>
  <div class="tables">
    <div class="tools">
      <Segments v-model="part" label="Table" :choices="PARTS" />
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
        v-else-if="part === 'circuits' && circuits.length"
        label="Circuits over the year"
        :columns="circuitColumns"
        :rows="circuits"
        @select="emit('show', `circuit/${$event.id}/${$event.unmet_h ? 'unmet_w' : 'carried_w'}`)"
      />
      <p v-else-if="part === 'circuits'" class="empty">
        No circuit carries anything. Years that were calculated by an earlier version do not tell it:
        calculate the year again.
      </p>
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
        v-else-if="part === 'water' && water.length"
        label="Water over the year"
        :columns="waterColumns"
        :rows="water"
        @select="emit('show', `water/${$event.id}`)"
      />
      <p v-else-if="part === 'water'" class="empty">
        Neither a cooling tower nor a humidifier takes water. Years that were calculated by an earlier version
        do not tell it: calculate the year again.
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
.tables {
  flex: 4;
  min-height: 150px;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 12px;
  border-top: 1px solid var(--ink);
}
.grid {
  flex: 1;
  min-height: 0;
  overflow: hidden;
  border-top: 1px solid var(--line);
}
</style>
