<script setup lang="ts">
import { computed, reactive, ref } from "vue";
import { cellsOf, type Layout, type WeatherLook } from "./weather";

const props = defineProps<{
  look: WeatherLook;
  year: number;
  /** The mapping of the file before, to go on from where this one is laid out alike. */
  before: { layout: Layout; name: string } | null;
}>();
const emit = defineEmits<{ use: [layout: Layout, name: string] }>();
const TITLES: Record<string, string> = {
  dry_bulb: "dry-bulb", dew_point: "dew point", relative_humidity: "relative humidity", pressure: "pressure",
  wind: "wind", global: "global irradiance", beam: "beam, normal", diffuse: "diffuse, horizontal",
}; // prettier-ignore
const name = ref("");
const layout = reactive<Layout>({
  delimiter: props.look.delimiter,
  decimal: props.look.decimal,
  header_rows: props.look.header_rows,
  columns: {},
  convention: "hour beginning",
  year: props.year,
  missing: "",
  time: null,
  date: null,
});
const { before, look } = props;
if (before && before.layout.delimiter === look.delimiter && before.layout.header_rows === look.header_rows) {
  Object.assign(layout, JSON.parse(JSON.stringify(before.layout)));
  name.value = before.name;
}
const cells = computed(() => props.look.lines.map((line) => cellsOf(line, layout.delimiter)));
const width = computed(() => Math.max(...cells.value.map((row) => row.length)));
const heads = computed(() =>
  Array.from({ length: width.value }, (_, i) => cells.value[layout.header_rows - 1]?.[i] ?? ""),
);

/** What a column is chosen for. */
function roleOf(index: number): string {
  if (layout.time === index) return "time";
  if (layout.date === index) return "date";
  return Object.entries(layout.columns).find(([, column]) => column.index === index)?.[0] ?? "";
}
function choose(index: number, role: string): void {
  const before = roleOf(index);
  if (before === "time") layout.time = null;
  if (before === "date") layout.date = null;
  else if (before) delete layout.columns[before];
  if (role === "time") layout.time = index;
  else if (role === "date") layout.date = index;
  else if (role) layout.columns[role] = { index, unit: props.look.units[role]?.[0] ?? "" };
}
function recall(event: Event): void {
  const found = props.look.remembered.find((item) => item.name === (event.target as HTMLSelectElement).value);
  if (!found) return;
  Object.assign(layout, JSON.parse(JSON.stringify(found.mapping)));
  name.value = found.name;
}
</script>

<template>
  <section>
    <p class="row">
      <label v-if="look.remembered.length"
        >remembered
        <select aria-label="Remembered mapping" @change="recall">
          <option value="">–</option>
          <option v-for="item in look.remembered" :key="item.name">{{ item.name }}</option>
        </select></label
      >
      <label
        >separated by
        <select v-model="layout.delimiter" aria-label="Delimiter">
          <option value=",">comma</option>
          <option value=";">semicolon</option>
          <option :value="'\t'">tab</option>
          <option value="|">bar</option>
          <option value="space">blanks</option>
        </select></label
      >
      <label
        >decimal
        <select v-model="layout.decimal" aria-label="Decimal sign">
          <option value=".">point</option>
          <option value=",">comma</option>
        </select></label
      >
      <label
        >header lines
        <input v-model.number="layout.header_rows" type="number" min="0" aria-label="Header lines"
      /></label>
      <label
        >a line holds
        <select v-model="layout.convention" aria-label="Time convention">
          <option v-for="item in look.conventions" :key="item" :value="item">{{ item }}</option>
        </select></label
      >
      <label>year <input v-model.number="layout.year" type="number" aria-label="Year of the hours" /></label>
      <label>no value is <input v-model="layout.missing" size="5" aria-label="Text for no value" /></label>
    </p>
    <div class="scroll">
      <table class="plain" aria-label="Columns of the file">
        <thead>
          <tr>
            <th v-for="(head, i) in heads" :key="i">
              <select
                :value="roleOf(i)"
                :aria-label="`Column ${i + 1}`"
                @change="choose(i, ($event.target as HTMLSelectElement).value)"
              >
                <option value="">not used</option>
                <option value="time">time of day</option>
                <option value="date">date</option>
                <option v-for="(title, key) in TITLES" :key="key" :value="key">{{ title }}</option>
              </select>
              <select
                v-if="layout.columns[roleOf(i)]"
                v-model="layout.columns[roleOf(i)]!.unit"
                :aria-label="`Unit of column ${i + 1}`"
              >
                <option v-for="unit in look.units[roleOf(i)]" :key="unit">{{ unit }}</option>
              </select>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, r) in cells.slice(0, 8)" :key="r" :class="{ head: r < layout.header_rows }">
            <td v-for="(_, i) in heads" :key="i">{{ row[i] }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="row">
      <label>remember this layout as <input v-model="name" aria-label="Name of the mapping" /></label>
      <button class="act" @click="emit('use', { ...layout }, name)">Read the year</button>
    </p>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  color: var(--soft);
}
.row input,
select {
  border: 1px solid var(--line);
  background: var(--field);
  height: 25px;
  padding: 0 4px;
  color: var(--ink);
}
.row input[type="number"] {
  width: 66px;
}
.scroll {
  overflow-x: auto;
  margin-bottom: 8px;
}
td {
  white-space: nowrap;
}
.head td {
  color: var(--soft);
  font-style: italic;
}
</style>
