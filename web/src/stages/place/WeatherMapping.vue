<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
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
/** How many columns the hours have. */
const columns = computed(() =>
  Math.max(1, ...cells.value.slice(layout.header_rows).map((row) => row.length)),
);
const heads = computed(() =>
  Array.from({ length: columns.value }, (_, i) => {
    const row = cells.value[layout.header_rows - 1];
    return row?.length === columns.value ? (row[i] ?? "") : "";
  }),
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
const DELIMITERS = [
  { value: ",", label: "comma" },
  { value: ";", label: "semicolon" },
  { value: "\t", label: "tab" },
  { value: "|", label: "bar" },
  { value: "space", label: "blanks" },
];
const DECIMALS = [
  { value: ".", label: "point" },
  { value: ",", label: "comma" },
];
const ROLES = [
  { value: "", label: "not used" },
  { value: "time", label: "time of day" },
  { value: "date", label: "date" },
  ...Object.entries(TITLES).map(([value, label]) => ({ value, label })),
];
function recall(wanted: string): void {
  const found = props.look.remembered.find((item) => item.name === wanted);
  if (!found) return;
  Object.assign(layout, JSON.parse(JSON.stringify(found.mapping)));
  name.value = found.name;
}
</script>

<template>
  <section>
    <div class="row">
      <Choice
        v-if="look.remembered.length"
        label="Remembered mapping"
        labelled
        model-value=""
        :choices="look.remembered.map((item) => ({ value: item.name, label: item.name }))"
        @update:model-value="recall"
      />
      <Choice v-model="layout.delimiter" label="Delimiter" labelled :choices="DELIMITERS" />
      <Choice v-model="layout.decimal" label="Decimal sign" labelled :choices="DECIMALS" />
      <v-number-input v-model="layout.header_rows" label="Header lines" :min="0" :max="100" />
      <Choice
        v-model="layout.convention"
        label="Time convention"
        labelled
        :choices="look.conventions.map((item) => ({ value: item, label: item }))"
      />
      <v-number-input v-model="layout.year" label="Year of the hours" :min="1900" :max="2150" />
      <v-text-field v-model="layout.missing" label="Text for no value" />
    </div>
    <div class="scroll">
      <v-table class="plain" aria-label="Columns of the file">
        <thead>
          <tr>
            <th v-for="(head, i) in heads" :key="i" :title="head">
              <Choice
                :model-value="roleOf(i)"
                :label="`Column ${i + 1}`"
                :choices="ROLES"
                @update:model-value="choose(i, $event)"
              />
              <Choice
                v-if="layout.columns[roleOf(i)]"
                v-model="layout.columns[roleOf(i)]!.unit"
                :label="`Unit of column ${i + 1}`"
                :choices="(look.units[roleOf(i)] ?? []).map((unit) => ({ value: unit, label: unit }))"
              />
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, r) in cells.slice(0, 8)" :key="r" :class="{ title: r < layout.header_rows }">
            <!-- A line that is split otherwise than the hours, as a title or a head with other signs, stays whole. -->
            <td v-if="r < layout.header_rows && row.length !== columns" :colspan="heads.length">
              {{ look.lines[r] }}
            </td>
            <template v-else>
              <td v-for="(_, i) in heads" :key="i">{{ row[i] }}</td>
            </template>
          </tr>
        </tbody>
      </v-table>
    </div>
    <div class="row">
      <v-text-field
        v-model="name"
        class="name"
        label="Name of the mapping"
        hint="so that files laid out alike are read at once"
      />
      <Act @click="emit('use', { ...layout }, name)">Read the year</Act>
    </div>
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
.row > :deep(.v-input) {
  flex: 0 1 172px;
}
.row > :deep(.name) {
  flex-basis: 320px;
}
th :deep(.choice) {
  min-width: 96px;
}
.scroll {
  overflow-x: auto;
  margin-bottom: 8px;
}
td {
  white-space: nowrap;
}
.title td {
  color: var(--soft);
  font-style: italic;
}
</style>
