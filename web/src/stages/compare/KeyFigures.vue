<script setup lang="ts">
/** The figures by which options are chosen: peaks, air, energy, money, comfort; and what a saving pays back. */
import { useOptions } from "@/document/options";
import Figure from "@/parts/Figure.vue";
import TextBox from "@/parts/TextBox.vue";
import { format } from "@/units/units";
import { client, Refusal, unwrap } from "@/api/client";
import { useTasks } from "@/document/tasks";
import { computed, ref } from "vue";
import { change, type Comparison, type Totals, type YearFigures } from "./compare";

const props = defineProps<{ found: Comparison }>();
const emit = defineEmits<{ calculated: [] }>();
const options = useOptions();
const tasks = useTasks();

interface Line {
  name: string;
  quantity: string;
  values: (number | null)[];
}
const lines = computed<Line[]>(() => {
  const { columns, totals, years } = props.found;
  const total = (key: keyof Totals) => columns.map((column) => totals[column.id]?.[key] ?? null);
  const year = (read: (of: YearFigures) => number | null) =>
    columns.map((column) => (years[column.id] ? read(years[column.id]!) : null));
  const all: [string, string, (number | null)[]][] = [
    ["Cooling peak", "load", total("cooling_w")],
    ["Heating peak", "load", total("heating_w")],
    ["Supply air", "airflow", total("supply_m3_s")],
    ["Cooling coils", "load", total("coils_w")],
    ["Plant", "load", total("plant_w")],
    ["Fans", "electric_power", total("fans_w")],
    ["Pumps", "electric_power", total("pumps_w")],
    ["Kit by prices", "money", total("kit_cost")],
    ["Delivered energy", "yearly_energy", year((of) => of.delivered_kwh)],
    ["Bills with tax", "money", year((of) => (of.billed ? of.cost : null))],
    ["CO₂", "emission_mass", year((of) => (of.billed ? of.emissions_kg : null))],
    ["Too warm, all rooms", "hours", year((of) => of.too_warm_h)],
  ];
  return all
    .filter(([, , values]) => values.some((value) => value !== null && value !== 0))
    .map(([name, quantity, values]) => ({ name, quantity, values }));
});
/** Columns without a year, and those whose year is older than what was entered. */
const missing = computed(() => props.found.columns.filter((column) => !props.found.years[column.id]));
const old = computed(() => props.found.columns.filter((column) => props.found.years[column.id]?.stale));
const named = (columns: { name: string }[]) => columns.map((column) => column.name).join(", ");
const running = ref(false);
const failures = ref<string[]>([]);
/** Calculate the years that are missing or old, each as a task; workers share them. */
async function calculateYears(): Promise<void> {
  running.value = true;
  failures.value = [];
  await Promise.all(
    [...missing.value, ...old.value].map(async ({ id, name }) => {
      try {
        const asked = client.POST("/api/projects/{project_id}/year", {
          params: { path: { project_id: id } },
        });
        await tasks.run(asked.then(unwrap));
        emit("calculated");
      } catch (error) {
        failures.value.push(`${name}: ${error instanceof Refusal ? error.message : String(error)}`);
      }
    }),
  );
  running.value = false;
}
/** What it costs more, by kit and typed, by the yearly saving [years]; none where bills are missing. */
function payback(at: number): { years: number; saving: number; cost: number; how: string } | null {
  const { columns, years, totals } = props.found;
  const [base, mine] = [years[columns[0]!.id], years[columns[at]!.id]];
  if (!base?.billed || !mine?.billed) return null;
  const kit = (totals[columns[at]!.id]?.kit_cost ?? 0) - (totals[columns[0]!.id]?.kit_cost ?? 0);
  const cost = kit + columns[at]!.capital;
  const saving = base.cost - mine.cost;
  const money = (value: number) => format(value, "money", "SI");
  const how = `(kit ${money(kit)} + other ${money(columns[at]!.capital)}) / ${money(saving)} a year`;
  return { years: cost / saving, saving, cost, how };
}
async function setCapital(id: string, value: number): Promise<void> {
  if (Number.isFinite(value)) await options.set(id, { capital: value });
}
</script>

<template>
  <div class="key">
    <v-table class="plain" density="compact" aria-label="Key figures">
      <thead>
        <tr>
          <th>Building</th>
          <th v-for="column in found.columns" :key="column.id" class="num">{{ column.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.name">
          <td>{{ line.name }}</td>
          <td v-for="(value, at) in line.values" :key="at" class="num">
            <Figure :value="value" :quantity="line.quantity" />
            <span v-if="at" class="soft change">{{ change(line.values[0], value) }}</span>
          </td>
        </tr>
        <tr>
          <td>Snags</td>
          <td v-for="column in found.columns" :key="column.id" class="num">{{ found.snags[column.id] }}</td>
        </tr>
        <tr>
          <td>Other cost above the base</td>
          <td v-for="(column, at) in found.columns" :key="column.id" class="num">
            <TextBox
              v-if="at"
              class="short"
              type="number"
              :label="`Extra cost of ${column.name}`"
              :model-value="column.capital"
              @update:model-value="setCapital(column.id, Number($event))"
            />
          </td>
        </tr>
        <tr>
          <td>Pays back in</td>
          <td v-for="(column, at) in found.columns" :key="column.id" class="num">
            <template v-if="at && payback(at)">
              <span v-if="payback(at)!.saving > 0" :title="payback(at)!.how">{{
                payback(at)!.cost <= 0 ? "at once" : `${payback(at)!.years.toFixed(1)} years`
              }}</span>
              <span v-else class="soft">saves nothing</span>
            </template>
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-if="missing.length" class="soft told">No year yet of {{ named(missing) }}.</p>
    <p v-if="old.length" class="fault told">The year is older than the inputs: {{ named(old) }}.</p>
    <p v-if="missing.length || old.length" class="told">
      <Act :disabled="running" @click="calculateYears">
        {{
          running
            ? "Calculating …"
            : missing.length + old.length > 1
              ? "Calculate these years"
              : "Calculate this year"
        }}
      </Act>
    </p>
    <p v-for="line in failures" :key="line" class="fault told" role="alert">{{ line }}</p>
  </div>
</template>

<style scoped>
.key {
  overflow: auto;
  min-height: 0;
}
.change {
  display: inline-block;
  min-width: 52px;
  font-size: 12px;
}
.told {
  margin: 0;
  padding: 3px 10px;
  font-size: 12px;
}
.short {
  display: inline-flex;
  width: 110px;
}
</style>
