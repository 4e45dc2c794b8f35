<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Circuit, PipeSection } from "@/document/types";
import type { Column } from "@/parts/grid";
import { choicesOf } from "@/parts/saving";
import SectionsView from "@/parts/SectionsView.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit }>();
const doc = useDocument();
const results = useResults();
const rows = computed(() => doc.rows("pipe_section").filter((row) => row.circuit === props.circuit.id));

/** Circuits that this one feeds. */
const fed = computed(() => doc.rows("circuit").filter((row) => row.source === props.circuit.id));
/** Coils, and in a heating circuit rooms that need heat, that no pipe reaches yet. */
const missing = computed(() => {
  const reached = new Set(rows.value.flatMap((row) => [row.room, row.air_system]));
  const section = (name: string, end: Record<string, string>, end_drop_pa: number) => ({
    name,
    fields: { name: `To ${name}`, ...end, length_m: 10, loss_coefficient: 4, end_drop_pa },
  });
  const coils = doc
    .rows("air_system")
    .filter((row) => !reached.has(row.id))
    .map((row) => section(row.name, { air_system: row.id }, 12_000));
  const joints = fed.value
    .filter((row) => rows.value.every((one) => one.fed_circuit !== row.id))
    .map((row) => section(row.name, { fed_circuit: row.id }, 8_000));
  // What hangs on a fed circuit is no end of this one.
  if (fed.value.length) return joints;
  if (props.circuit.kind === "chilled") return coils;
  const rooms = doc
    .rows("room")
    .filter((room) => !reached.has(room.id) && (results.get("room_air", room.id)?.heating_duty_w ?? 0) > 0)
    .map((room) => section(room.number, { room: room.id }, 3_000));
  return [...coils, ...rooms];
});
const result = computed(() => results.get("circuit", props.circuit.id));
const index = computed(() => ({
  path: result.value?.index_path ?? [],
  end: result.value?.index_end ?? null,
}));
const roomName = (row: PipeSection) => doc.get("room", row.room)?.number ?? "";
const coilName = (row: PipeSection) => doc.get("air_system", row.air_system)?.name ?? "";
const circuitName = (row: PipeSection) => doc.get("circuit", row.fed_circuit)?.name ?? "";
const roomChoices = computed(() =>
  doc.rows("room").map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })),
);
const ends = computed<Column<PipeSection>[]>(() => [
  {
    key: "room",
    title: "room",
    width: 48,
    value: (row) => row.room,
    text: (row) => roomName(row) || "–",
    editor: {
      type: "choice",
      clearable: true,
      choices: roomChoices.value,
    },
  },
  {
    key: "air_system",
    title: "coil of",
    width: 62,
    value: (row) => row.air_system,
    text: (row) => coilName(row) || "–",
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows("air_system")) },
  },
  ...(fed.value.length || rows.value.some((row) => row.fed_circuit)
    ? [
        {
          key: "fed_circuit",
          title: "circuit",
          width: 72,
          value: (row: PipeSection) => row.fed_circuit,
          text: (row: PipeSection) => circuitName(row) || "–",
          editor: { type: "choice" as const, clearable: true, choices: choicesOf(fed.value) },
        },
      ]
    : []),
  ...(props.circuit.piping === "reverse return"
    ? [
        {
          key: "return_size",
          title: "return",
          width: 86,
          value: (row: PipeSection) => results.get("pipe_section", row.id)?.return_size ?? "–",
        },
      ]
    : []),
  ...(props.circuit.loss_to === "run"
    ? [
        {
          key: "through",
          title: "through",
          width: 62,
          value: (row: PipeSection) => row.through,
          text: (row: PipeSection) => doc.get("room", row.through)?.number ?? "–",
          editor: { type: "choice" as const, clearable: true, choices: roomChoices.value },
        },
      ]
    : []),
  {
    key: "valve_kv_m3_h",
    title: "Kv",
    width: 44,
    quantity: "ratio",
    value: (row) => row.valve_kv_m3_h,
    editor: { type: "number", quantity: "ratio", clearable: true },
  },
  ...(rows.value.some((row) => row.valve_kv_m3_h !== null)
    ? [
        {
          key: "authority",
          title: "authority",
          width: 76,
          quantity: "ratio" as const,
          value: (row: PipeSection) => results.get("pipe_section", row.id)?.authority,
        },
      ]
    : []),
]);
const explain = (row: PipeSection) =>
  results.get("pipe_section", row.id) ? { quantity: "pipe_section", subject: row.id } : null;
</script>

<template>
  <SectionsView
    routed
    kind="pipe_section"
    noun="pipe"
    :rows="rows"
    :owner="{ circuit: circuit.id }"
    :ends="ends"
    :end-name="(row) => roomName(row) || coilName(row) || circuitName(row)"
    :missing="missing"
    :main="{ length_m: 10, loss_coefficient: 4 }"
    :index="index"
    :explain="explain"
    :quantities="{ flow: 'water_flow', rate: 'pipe_friction_rate', velocity: 'water_velocity', loss: 'head' }"
  />
</template>
