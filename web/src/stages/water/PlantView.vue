<script setup lang="ts">
/** The units that feed a circuit: how they share its load over the day, their capacities and efficiencies. */
import { client, unwrap } from "@/api/client";
import { newId, setField, useDocument } from "@/document/store";
import type { Circuit, PlantUnit } from "@/document/types";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import ActionMenu from "@/parts/ActionMenu.vue";
import Choice from "@/parts/Choice.vue";
import type { Column } from "@/parts/grid";
import { gridSaver } from "@/parts/saving";
import { useResults } from "@/results/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { FROM_GROUND, KINDS_OF, NEW_UNIT, TEMPERATURES, type PlantDay, type UnitKind } from "./plant";
import PlantChart from "./PlantChart.vue";
import PlantFigures from "./PlantFigures.vue";

const props = defineProps<{ circuit: Circuit }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const chosen = ref("");
const day = ref<PlantDay | null>(null);
const rows = computed(() =>
  doc
    .rows("plant_unit")
    .filter((row) => row.circuit === props.circuit.id)
    .sort((a, b) => (a.position ?? 0) - (b.position ?? 0)),
);
/** Another circuit that feeds this one. */
const source = computed(() => doc.get("circuit", props.circuit.source));
const plant = computed(() => results.get("plant", props.circuit.id));
const before = computed(() => results.prior("plant", props.circuit.id));

watch(
  () => props.circuit.id,
  () => {
    const p = plant.value;
    if (p) [view.month, view.step] = [p.month, p.step];
    if (p) view.working = { quantity: "plant_load", subject: props.circuit.id };
  },
  { immediate: true },
);
watch(
  [() => props.circuit.id, () => view.month, () => results.version, plant],
  async ([id, of], _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    if (!plant.value) {
      day.value = null;
      return;
    }
    const answer = await client.GET("/api/projects/{project_id}/plant/{circuit}", {
      params: { path: { project_id: doc.projectId, circuit: id }, query: { month: of } },
    });
    if (!stale) day.value = answer.response.ok ? unwrap(answer) : null;
  },
  { immediate: true },
);

const kinds = computed(() => KINDS_OF[props.circuit.kind]);
const of = (row: PlantUnit) => plant.value?.units[row.id];
/** The temperatures at which efficiencies are told, where all units of the circuit share them. */
const at = computed(() => {
  const found = TEMPERATURES[rows.value[0]?.kind ?? kinds.value[0] ?? "boiler"];
  const told = (t: number) =>
    `${format(t, "temperature", view.system)} ${unitOf("temperature", view.system)}`;
  return { where: found[0], cool: told(found[1]), warm: told(found[2]), told };
});
/** Where units of other kinds stand beside: what their efficiencies are told at. */
const others = computed(() => {
  const kindsHere = [...new Set(rows.value.map((row) => row.kind!))];
  return kindsHere.filter((kind) => TEMPERATURES[kind][0] !== at.value.where).map((kind) => {
    const [where, cool, warm] = TEMPERATURES[kind];
    return `${kind}: ${where} of ${at.value.told(cool)} and ${at.value.told(warm)}`;
  });
}); // prettier-ignore
const season: Column<PlantUnit> = {
  key: "season",
  title: props.circuit.kind === "heating" ? "SCOP on" : "SEER on",
  quantity: "ratio",
  width: 76,
  value: (r) => of(r)?.seasonal,
  explain: (r) => (of(r)?.seasonal ? { quantity: "unit_seasonal", subject: r.id } : null),
};
/** Whether any of them is a machine, whose output and efficiency follow outdoors and water. */
const machines = computed(() =>
  rows.value.some((row) => TEMPERATURES[row.kind!][0] !== "return temperature"),
);
/** Heat pumps that a chiller of this circuit may be the other side of. */
const heatPumps = computed(() =>
  props.circuit.kind === "chilled"
    ? doc
        .rows("plant_unit")
        .filter((row) => row.kind === "heat pump")
        .map((row) => ({
          value: row.id,
          label: `${doc.get("circuit", row.circuit)?.name ?? ""}: ${row.name}`,
        }))
    : [],
);
const columns = computed<Column<PlantUnit>[]>(() => [
  column("plant_unit", "name", 110),
  column("plant_unit", "kind", 84, { title: "kind", choices: kinds.value.map((value) => ({ value, label: value })) }),
  column("plant_unit", "share", 60, { title: "share" }),
  column("plant_unit", "capacity_w", 74, { title: "pinned" }),
  { key: "capacity", title: "capacity", quantity: "load", width: 86, value: (r) => of(r)?.capacity_w, prior: (r) => before.value?.units[r.id]?.capacity_w },
  { key: "output", title: "gives then", quantity: "load", width: 88, value: (r) => of(r)?.output_w },
  { key: "taken", title: "takes, net", quantity: "load", width: 88, value: (r) => of(r)?.taken_w, prior: (r) => before.value?.units[r.id]?.taken_w,
    explain: (r) => (of(r)?.taken_w ? { quantity: "plant_input", subject: r.id } : null) },
  { key: "gross_taken", title: "gross", quantity: "load", width: 74, value: (r) => of(r)?.taken_gross_w },
  ...(rows.value.some((r) => of(r)?.seasonal) ? [season] : []),
  column("plant_unit", "standby", 70, { title: "standby" }),
  column("plant_unit", "fuel", 96, { title: "from" }),
  column("plant_unit", "gross", 66, { title: "η gross" }),
  column("plant_unit", "full_cool", 96, { title: `full, ${at.value.cool}` }),
  column("plant_unit", "full_warm", 96, { title: `full, ${at.value.warm}` }),
  column("plant_unit", "part_cool", 96, { title: `30 %, ${at.value.cool}` }),
  column("plant_unit", "part_warm", 96, { title: `30 %, ${at.value.warm}` }),
  ...(machines.value
    ? [
        column("plant_unit", "other_share", 96, { title: "other output" }),
        column("plant_unit", "told_flow_c", 82, { title: "told at" }),
        column("plant_unit", "flow_share_k", 76, { title: "lost a K" }),
      ]
    : []),
  ...(rows.value.some((row) => FROM_GROUND.has(row.kind!))
    ? [
        column("plant_unit", "source_cold_c", 96, { title: "source, cold" }),
        column("plant_unit", "source_warm_c", 96, { title: "source, warm" }),
      ]
    : []),
  ...(heatPumps.value.length
    ? [column("plant_unit", "reverses", 130, { title: "other side of", choices: heatPumps.value })]
    : []),
  column("plant_unit", "least_part", 82, { title: "least load" }),
  column("plant_unit", "idle_share", 82, { title: "standstill" }),
  column("plant_unit", "running_w", 78, { title: "aux. on" }),
  column("plant_unit", "resting_w", 78, { title: "aux. off" }),
]); // prettier-ignore
const save = gridSaver<PlantUnit>("plant_unit", "Unit");
const STAGING = [
  { value: "in turn", label: "one after the other" },
  { value: "equal", label: "all together" },
  { value: "fewest", label: "as few as cover it" },
  { value: "best", label: "what takes least" },
];

/** A field of the circuit that is saved when it is chosen. */
const saved = <K extends "staging" | "kept_warm">(key: K, label: string) =>
  computed({
    get: () => props.circuit[key],
    set: (value) => void doc.attempt(label, setField("circuit", props.circuit.id, key, value)),
  });
const staging = saved("staging", "Staging");
const warm = saved("kept_warm", "Kept warm");

async function add(kind: UnitKind): Promise<void> {
  const id = newId();
  const position = (rows.value.at(-1)?.position ?? 0) + 1;
  const name = `${kind[0]?.toUpperCase()}${kind.slice(1)} ${rows.value.length + 1}`;
  const share = rows.value.length ? 0.5 : 1;
  const fields = { circuit: props.circuit.id, position, name, kind, share, ...NEW_UNIT[kind] };
  if (await doc.attempt("New unit", [{ op: "create", kind: "plant_unit", id, fields }])) chosen.value = id;
}
async function remove(): Promise<void> {
  await doc.attempt("Unit removed", [{ op: "delete", kind: "plant_unit", id: chosen.value }]);
}
</script>

<template>
  <div class="plant">
    <div class="bar">
      <ActionMenu
        label="Add a unit"
        text="Add unit …"
        :items="kinds.map((kind) => ({ value: kind, title: kind }))"
        @choose="add($event as UnitKind)"
      />
      <Act :disabled="!doc.get('plant_unit', chosen)" @click="remove">Remove</Act>
      <span class="soft">run</span>
      <Choice v-model="staging" class="staging" label="Units run" :choices="STAGING" />
      <v-checkbox v-model="warm" class="warm" label="kept warm while off" />
    </div>
    <template v-if="rows.length">
      <PlantFigures
        v-if="plant"
        :id="circuit.id"
        :plant="plant"
        :before="before"
        :day="day"
        :step="view.step"
      />
      <PlantChart
        v-if="day && plant"
        :day="day"
        :units="rows"
        :without-largest="plant.without_largest_w"
        :capacity="plant.working_w"
        :step="view.step"
      />
      <p v-else class="empty">
        Nothing asks for anything yet: draw pipes to rooms and coils. Snags (S) say what stops it.
      </p>
      <div class="grid">
        <DataGrid
          label="Units"
          ordered
          :columns="columns"
          :rows="rows"
          :selected="chosen"
          :save="save"
          @select="chosen = $event.id"
        />
      </div>
      <p class="soft told">
        Efficiencies at full and at 30 % load, by the {{ at.where
        }}<template v-if="others.length"> ({{ others.join("; ") }})</template>; between them straight lines,
        outside them held. Boilers on net value unless “η gross” says otherwise.<template v-if="machines">
          The capacity of a machine is what it gives at the warmer of its two temperatures; “other output” is
          its share at the other one.</template
        >
      </p>
    </template>
    <p v-else-if="source" class="empty">
      {{ source.name }} feeds this circuit: its load counts there, and its units stand there. Under Settings
      another source is chosen, or none.
    </p>
    <p v-else class="empty">
      No unit feeds this circuit yet. Add one: it is sized by its share of the largest coincident load.
    </p>
  </div>
</template>

<style scoped>
.plant {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.bar {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 12px;
  flex-wrap: wrap;
}
.warm {
  flex: none;
}
.staging {
  flex: 0 0 200px;
}
.grid {
  flex: 0 0 150px;
  border-top: 1px solid var(--ink);
  overflow: hidden;
}
.told {
  margin: 0;
  padding: 3px 12px;
  font-size: 12px;
}
</style>
