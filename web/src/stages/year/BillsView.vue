<script setup lang="ts">
/** What carriers cost: tariffs, and each bill month by month with its arithmetic. */
import { newId, useDocument } from "@/document/store";
import type { Tariff } from "@/document/types";
import { useYear, type MonthBill } from "@/document/year";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { format, MONTHS, unitOf } from "@/units/units";
import { computed, ref } from "vue";

const emit = defineEmits<{ show: [course: string] }>();
const doc = useDocument();
const year = useYear();
const chosen = ref("");
const month = ref(0);
const tariffs = computed(() => doc.rows("tariff").sort((a, b) => a.name.localeCompare(b.name)));
const selected = computed(() => tariffs.value.find((row) => row.id === chosen.value) ?? tariffs.value[0]);
const bill = computed(() => year.bills.find((one) => one.tariff === selected.value?.id));
const MADE_UP = [
  { name: "Electricity (made up)", carrier: "electricity", price_kwh: 0.21, peak_price_kwh: 0.29, demand_price_kw_month: 6.5, ratchet_share: 0.5, standing_day: 1.2, levy_kwh: 0.02, tax_share: 0.19, emission_kg_kwh: 0.32 },
  { name: "Natural gas (made up)", carrier: "natural gas", price_kwh: 0.082, standing_day: 0.6, levy_kwh: 0.011, tax_share: 0.19, emission_kg_kwh: 0.201 },
]; // prettier-ignore

const columns: Column<Tariff>[] = [
  column("tariff", "name", 190),
  column("tariff", "carrier", 110, { title: "of" }),
  column("tariff", "price_kwh", 76, { title: "energy" }),
  column("tariff", "peak_price_kwh", 96, { title: "in peak hours" }),
  column("tariff", "peak_from_h", 76, { title: "peak from" }),
  column("tariff", "peak_to_h", 60, { title: "to" }),
  column("tariff", "demand_price_kw_month", 106, { title: "demand, month" }),
  column("tariff", "demand_in_peak", 88, { title: "in peak only" }),
  column("tariff", "ratchet_share", 102, { title: "at least of year" }),
  column("tariff", "standing_day", 96, { title: "standing, day" }),
  column("tariff", "levy_kwh", 76, { title: "levy" }),
  column("tariff", "tax_share", 60, { title: "tax" }),
  column("tariff", "emission_kg_kwh", 76, { title: "CO₂" }),
]; // prettier-ignore
const save = gridSaver<Tariff>("tariff", "Tariff");

async function add(rows: { name: string; carrier: string }[]): Promise<void> {
  const changes = rows.map((fields) => ({
    op: "create" as const,
    kind: "tariff" as const,
    id: newId(),
    fields,
  }));
  if (await doc.attempt("New tariff", changes)) chosen.value = changes[0]?.id ?? "";
}
async function remove(): Promise<void> {
  if (selected.value)
    await doc.attempt("Tariff removed", [{ op: "delete", kind: "tariff", id: selected.value.id }]);
}

type Row = MonthBill & { id: string; used: number; peak: number };
const rows = computed<Row[]>(() =>
  (bill.value?.months ?? []).map((one) => ({
    ...one,
    id: String(one.month),
    used: Object.values(one.kwh).reduce((sum, value) => sum + value, 0),
    peak: one.kwh["peak hours"] ?? 0,
  })),
);
const monthColumns: Column<Row>[] = [
  { key: "month", title: "Month", width: 58, value: (r) => MONTHS[r.month - 1] },
  { key: "used", title: "used", quantity: "metered_energy", width: 72, value: (r) => r.used },
  { key: "peak", title: "in peak hours", quantity: "metered_energy", width: 98, value: (r) => r.peak },
  { key: "peak_kw", title: "highest", quantity: "demand", width: 64, value: (r) => r.peak_kw },
  { key: "billed_kw", title: "billed", quantity: "demand", width: 62, value: (r) => r.billed_kw },
  { key: "energy", title: "energy", quantity: "money", width: 78, value: (r) => r.energy },
  { key: "demand", title: "demand", quantity: "money", width: 66, value: (r) => r.demand },
  { key: "standing", title: "standing", quantity: "money", width: 66, value: (r) => r.standing },
  { key: "levy", title: "levy", quantity: "money", width: 62, value: (r) => r.levy },
  { key: "tax", title: "tax", quantity: "money", width: 68, value: (r) => r.tax },
  { key: "total", title: "total", quantity: "money", width: 80, value: (r) => r.total },
];
const one = computed(() => rows.value[month.value]);
const told = (value: number, quantity: string) => {
  const unit = unitOf(quantity, "SI");
  return `${format(value, quantity, "SI")}${unit ? `\u2009${unit}` : ""}`;
};
/** How the chosen month's bill comes about, a line each. */
const arithmetic = computed(() => {
  const [tariff, of] = [selected.value, one.value];
  if (!tariff || !of) return [];
  const days = new Date(Date.UTC(year.summary?.year ?? 2025, of.month, 0)).getUTCDate();
  const price = (value: number | null | undefined) => format(value ?? 0, "price_per_kwh", "SI");
  const lines = Object.entries(of.kwh)
    .filter(([, used]) => used > 0)
    .map(([band, used]) => {
      const at = (band === "peak hours" ? tariff.peak_price_kwh : tariff.price_kwh) ?? 0;
      const name = band === "peak hours" ? `Energy, Mon to Fri ${tariff.peak_from_h} to ${tariff.peak_to_h} h` : "Energy, other hours";
      return { name, how: `${told(used, "metered_energy")} × ${price(at)}`, value: used * at };
    }); // prettier-ignore
  if (of.demand > 0)
    lines.push({
      name: of.billed_kw > of.peak_kw ? `Demand, at least ${told(tariff.ratchet_share ?? 0, "percent")} of the other months' highest` : "Demand, highest hour",
      how: `${told(of.billed_kw, "demand")} × ${format(tariff.demand_price_kw_month ?? 0, "money", "SI")}`,
      value: of.demand,
    }); // prettier-ignore
  if (of.standing > 0)
    lines.push({ name: "Standing charge", how: `${days} days × ${format(tariff.standing_day ?? 0, "money", "SI")}`, value: of.standing }); // prettier-ignore
  if (of.levy > 0)
    lines.push({ name: "Levy", how: `${told(of.used, "metered_energy")} × ${price(tariff.levy_kwh)}`, value: of.levy }); // prettier-ignore
  if (of.tax > 0)
    lines.push({ name: "Tax", how: `${told(tariff.tax_share ?? 0, "percent")} of ${told(of.total - of.tax, "money")}`, value: of.tax }); // prettier-ignore
  return [...lines, { name: "Total", how: "", value: of.total }];
});
const uses = computed(() =>
  (year.summary?.energy ?? []).filter((row) => row.carrier === selected.value?.carrier).map((row) => row.use),
);
</script>

<template>
  <div class="bills">
    <div class="tools">
      <b>Tariffs</b>
      <Act @click="add([{ name: 'Tariff', carrier: 'electricity' }])">Add</Act>
      <Act v-if="!tariffs.length" @click="add(MADE_UP)">Add made-up examples</Act>
      <Act :disabled="!selected" @click="remove">Remove</Act>
      <span class="soft">prices are yours: one currency for all of them; edits count at once</span>
    </div>
    <div class="grid tariffs">
      <DataGrid
        v-if="tariffs.length"
        label="Tariffs"
        :columns="columns"
        :rows="tariffs"
        :selected="selected?.id"
        :save="save"
        @select="chosen = $event.id"
      />
      <p v-else class="empty">
        No tariff yet: a price for each carrier that the plant takes makes bills and emissions of its hours.
      </p>
    </div>
    <template v-if="bill && selected">
      <div class="tools line">
        <h2>{{ bill.name }}</h2>
        <span data-test="bill-total"
          ><Figure :value="bill.total" quantity="money" /> for
          <Figure :value="bill.kwh" quantity="metered_energy" /></span
        ><span class="soft"><Figure :value="bill.emissions_kg" quantity="emission_mass" /> of CO₂</span>
        <TextAct v-for="use in uses" :key="use" @click="emit('show', `energy/${use}/${bill.carrier}`)"
          >hours of {{ use }}</TextAct
        >
      </div>
      <div class="two">
        <div class="grid">
          <DataGrid
            label="Bill by month"
            ordered
            :columns="monthColumns"
            :rows="rows"
            :selected="String(month + 1)"
            @select="month = Number($event.id) - 1"
          />
        </div>
        <section v-if="one" class="sum">
          <h2>{{ MONTHS[one.month - 1] }}, how it comes about</h2>
          <v-table class="plain" density="compact" aria-label="Arithmetic of the bill">
            <tbody>
              <tr v-for="line in arithmetic" :key="line.name" :class="{ total: line.name === 'Total' }">
                <td>{{ line.name }}</td>
                <td class="num soft">{{ line.how }}</td>
                <td class="num">{{ format(line.value, "money", "SI") }}</td>
              </tr>
            </tbody>
          </v-table>
        </section>
      </div>
    </template>
    <p v-else-if="selected && year.summary" class="empty">
      Nothing takes {{ selected.carrier }} in the year that was calculated.
    </p>
    <p v-else-if="selected" class="empty">Bills come with the year: “Calculate the year” or Ctrl+Enter.</p>
  </div>
</template>

<style scoped>
.bills {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 5px 12px;
  flex-wrap: wrap;
}
.tools h2 {
  margin: 0;
}
.line {
  border-top: 1px solid var(--ink);
}
.grid {
  min-height: 0;
  overflow: hidden;
}
.tariffs {
  flex: 0 0 160px;
  border-top: 1px solid var(--line);
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 3fr);
  border-top: 1px solid var(--line);
}
.sum {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: auto;
}
.total td {
  font-weight: 600;
  border-top: 1px solid var(--ink);
}
</style>
