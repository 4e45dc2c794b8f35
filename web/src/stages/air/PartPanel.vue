<script setup lang="ts">
/** What a part of the path is set to, and what is done with it; without one, what can be added. */
import { setField, useDocument } from "@/document/store";
import type { AirSystem } from "@/document/types";
import ActionMenu from "@/parts/ActionMenu.vue";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { CoilSize } from "@/results/air";
import { counted } from "@/units/units";
import { computed } from "vue";
import { addable, fitted, moved, PART_NAMES, withNew, type PartKind, type UnitPart } from "./parts";

const props = defineProps<{
  system: AirSystem;
  /** Coils of the set that is looked at, and its id. */ coils: CoilSize[];
  resultId: string;
}>();
/** Place of the part that is chosen; "recovery" or "mixing" for those that stand still. */
const chosen = defineModel<number | "recovery" | "mixing" | null>({ required: true });
const doc = useDocument();
const field = fieldsFor("air_system", () => props.system);
type Key = keyof AirSystem & string;

const part = computed(() =>
  typeof chosen.value === "number" ? props.system.parts[chosen.value] : undefined,
);
const name = computed(() => (part.value ? PART_NAMES[part.value.kind] : ""));
const isCoil = computed(() => name.value.endsWith("coil"));
/** The coil that is chosen, as it is sized; none where nothing feeds it. */
const coil = computed(() => {
  const place = fitted(props.system).findIndex(({ at }) => at === chosen.value);
  return isCoil.value ? props.coils.find((one) => one.place === place) : undefined;
});
const isUnit = computed(() => props.system.arrangement === "room units");
const keys = computed<Key[]>(() => {
  const s = props.system;
  if (chosen.value === "recovery") {
    const limit: Key[] = s.frost === "none" ? [] : ["frost_limit_c"];
    return ["recovery_sensible", "recovery_latent", "frost", ...limit];
  }
  if (chosen.value === "mixing")
    return ["economizer", ...(s.economizer === "dry-bulb fixed" ? (["economizer_limit_c"] as Key[]) : s.economizer === "enthalpy fixed" ? (["economizer_limit_j_kg"] as Key[]) : [])];
  if (part.value?.kind === "cooling coil") return isUnit.value ? ["bypass_factor"] : ["bypass_factor", "dry_to_c"];
  if (part.value?.kind === "fan") return ["fan_efficiency", "motor_efficiency", "motor_margin", "outlet_velocity_m_s"];
  return [];
}); // prettier-ignore
const RECOVERY = "recovery";
const more = computed(() => [
  ...addable(props.system.parts)
    .filter((kind) => !isUnit.value || kind !== "heating coil")
    .map((kind) => ({ value: kind as string, title: PART_NAMES[kind] })),
  ...(isUnit.value || props.system.recovery_sensible || props.system.recovery_latent
    ? []
    : [{ value: RECOVERY, title: "heat recovery" }]),
]);

function save(parts: UnitPart[], what: string): Promise<boolean> {
  return doc.attempt(
    `${props.system.name}: ${what}`,
    setField("air_system", props.system.id, "parts", parts),
  );
}
async function add(kind: string): Promise<void> {
  if (kind === RECOVERY) {
    const changes = setField("air_system", props.system.id, "recovery_sensible", 0.7);
    if (await doc.attempt(`${props.system.name}: heat recovery added`, changes)) chosen.value = "recovery";
    return;
  }
  const after = typeof chosen.value === "number" ? chosen.value : null;
  const { parts, at } = withNew(props.system.parts, kind as PartKind, after);
  if (await save(parts, `${PART_NAMES[kind as PartKind]} added`)) chosen.value = at;
}
async function remove(): Promise<void> {
  if (chosen.value === "recovery") {
    const fields = { recovery_sensible: 0, recovery_latent: 0 };
    await doc.attempt(`${props.system.name}: heat recovery removed`, [
      { op: "set", kind: "air_system", id: props.system.id, fields },
    ]);
  } else if (part.value && !(await save(props.system.parts.filter((_, at) => at !== chosen.value), `${name.value} removed`)))
    return;
  chosen.value = null;
} // prettier-ignore
async function move(by: -1 | 1): Promise<void> {
  const at = chosen.value;
  if (typeof at !== "number" || at + by < 0 || at + by >= props.system.parts.length) return;
  if (await save(moved(props.system.parts, at, by > 0 ? at + 2 : at - 1), `${name.value} moved`))
    chosen.value = at + by;
}
function setPart(key: "drop_pa" | "clean_pa" | "rows" | "face_velocity_m_s", value: unknown): Promise<void> {
  const parts = props.system.parts.map((old, at) =>
    at === chosen.value ? { ...old, [key]: value as number } : old,
  );
  return doc.commit(
    `${props.system.name}: ${name.value}`,
    setField("air_system", props.system.id, "parts", parts),
  );
}
defineExpose({ move, remove });
</script>

<template>
  <div class="panel" role="group" aria-label="Part of the path">
    <template v-if="part || typeof chosen === 'string'">
      <strong>{{ part ? name : chosen === "recovery" ? "heat recovery" : "mixing with return air" }}</strong>
      <span v-if="part && part.kind !== 'fan'" class="soft">drop</span>
      <Field
        v-if="part && part.kind !== 'fan'"
        inline
        label="Pressure drop"
        :value="part.drop_pa"
        help="At design flow; of a filter when it is dirty."
        :editor="{ type: 'number', quantity: 'pressure' }"
        :save="(value) => setPart('drop_pa', value)"
      />
      <template v-if="part?.kind === 'filter'">
        <span class="soft">when new</span>
        <Field
          inline
          label="Drop when new"
          :value="part.clean_pa"
          help="The fan is sized for dirty filters; the year counts the mean of new and dirty ones."
          :editor="{ type: 'number', quantity: 'pressure', clearable: true }"
          :save="(value) => setPart('clean_pa', value)"
        />
      </template>
      <template v-if="part && isCoil">
        <span class="soft">rows</span>
        <Field
          inline
          label="Rows"
          :value="part.rows ?? null"
          :inherited="coil?.rows"
          help="Empty: as many as its duty and its bypass factor ask."
          :editor="{ type: 'number', quantity: 'count', clearable: true }"
          :save="(value) => setPart('rows', value)"
        />
        <span class="soft">face velocity</span>
        <Field
          inline
          label="Face velocity"
          :value="part.face_velocity_m_s ?? null"
          :inherited="coil?.face_velocity_m_s"
          help="Of the largest flow in its face. Empty: 2.5 m/s."
          :editor="{ type: 'number', quantity: 'velocity', clearable: true }"
          :save="(value) => setPart('face_velocity_m_s', value)"
        />
      </template>
      <label v-for="key in keys" :key="key"
        ><span class="soft">{{ field(key).label.toLowerCase() }}</span> <Field inline v-bind="field(key)"
      /></label>
      <span class="grow" />
      <template v-if="part">
        <TextAct :disabled="chosen === 0" title="Alt+←" @click="move(-1)">Earlier</TextAct>
        <TextAct :disabled="chosen === system.parts.length - 1" title="Alt+→" @click="move(1)">Later</TextAct>
      </template>
      <TextAct
        v-if="chosen !== 'mixing' && part?.kind !== 'fan'"
        :aria-label="`Remove ${name || 'heat recovery'}`"
        @click="remove"
        >Remove</TextAct
      >
    </template>
    <template v-else>
      <span class="soft">Choose a part to set, drag it to move it.</span>
      <span class="grow" />
    </template>
    <ActionMenu label="Add a part" text="+ part" :items="more" @choose="add" />
    <p v-if="coil" class="told soft" data-test="coil-size">
      {{ counted(coil.rows, "row") }} {{ coil.pinned ? "pinned" : "sized" }}, face
      <Figure :value="coil.face_m2" quantity="area" />, give
      <Figure
        :value="coil.capacity_w"
        quantity="load"
        :explain="{ quantity: `${coil.kind.replace(' ', '_')}_size`, subject: resultId }"
      />
      of <Figure :value="coil.duty_w" quantity="load" />{{
        coil.refrigerant ? " with refrigerant at " : " with water of "
      }}<Figure :value="coil.flow_c" quantity="temperature" /><template v-if="!coil.refrigerant">
        / <Figure :value="coil.return_c" quantity="temperature" /></template
      ><template v-if="coil.rows_for_bypass !== null"
        >; they let <Figure :value="coil.bypass_factor" quantity="percent" /> of the air pass</template
      >.
    </p>
    <p v-else-if="isCoil" class="told soft">
      Nothing feeds it yet, or it has no duty: a pipe section of a circuit that ends at this unit says with
      what its rows are sized.
    </p>
  </div>
</template>

<style scoped>
.panel {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  padding: 4px 14px;
  min-height: 34px;
  border-top: 1px solid var(--hair);
}
.told {
  flex-basis: 100%;
  margin: 0 0 2px;
}
</style>
