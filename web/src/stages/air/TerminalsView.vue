<script setup lang="ts">
import { airflowKey, rankIn } from "@/document/served";
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { column } from "@/parts/declared";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column, Edit } from "@/parts/grid";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ id: string }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const rows = computed(() =>
  doc.rows("room").sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true })),
);
const rank = (row: Room) => rankIn(row, props.id);
const flow = (row: Room) => (rank(row) ? results.get("airflow", airflowKey(row, props.id)) : undefined);
const priorFlow = (row: Room) => results.prior("airflow", airflowKey(row, props.id));
const pin = (row: Room) => (row.air_system === props.id ? "pinned_flow_m3_s" : "second_pinned_flow_m3_s");
const others = (row: Room) =>
  [row.air_system, row.second_system]
    .filter((id) => id && id !== props.id)
    .map((id) => doc.get("air_system", id)?.name)
    .join(", ");

/** A field of the room's terminal on its first system. */
const own = (
  key: "terminal_flow" | "terminal_least" | "terminal_reheats" | "outlets",
  title: string,
  width: number,
): Column<Room> => ({
  ...column("room", key, width),
  title,
  editable: (r) => r.air_system === props.id,
});
const columns: Column<Room>[] = [
  { key: "number", title: "No.", width: 56, value: (r) => r.number },
  { key: "name", title: "Room", width: 140, value: (r) => r.name },
  { key: "served", title: "Served", width: 70, value: (r) => r.air_system === props.id, editor: { type: "yesno" } },
  { key: "second", title: "second", width: 70, value: (r) => r.second_system === props.id, editor: { type: "yesno" } },
  { key: "other", title: "also by", width: 120, value: (r) => others(r) || "–" },
  { key: "cooling", title: "for cooling", quantity: "airflow", width: 108, value: (r) => flow(r)?.cooling_m3_s },
  { key: "ventilation", title: "ventilation", quantity: "airflow", width: 108, value: (r) => flow(r)?.ventilation_m3_s },
  { key: "changes", title: "air changes", quantity: "airflow", width: 112, value: (r) => flow(r)?.air_changes_m3_s },
  { key: "pinned_flow_m3_s", title: "pinned", quantity: "airflow", width: 88, value: (r) => r[pin(r)], editable: (r) => rank(r) > 0, editor: { type: "number", quantity: "airflow", clearable: true } },
  { key: "design", title: "supply", quantity: "airflow", width: 104, value: (r) => flow(r)?.design_m3_s, prior: (r) => priorFlow(r)?.design_m3_s,
    explain: (r) => (flow(r) ? { quantity: "room_airflow", subject: r.id } : null) },
  { key: "why", title: "governed by", width: 96, value: (r) => flow(r)?.governing ?? "–" },
  own("terminal_flow", "flow", 92),
  own("terminal_least", "least", 72),
  own("terminal_reheats", "reheats", 72),
  own("outlets", "outlets", 72),
  { key: "supply_c", title: "supply air", quantity: "temperature", width: 88, value: (r) => flow(r)?.supply_c },
  { key: "asked", title: "asked", quantity: "load", width: 84, value: (r) => (flow(r) ? results.get("room", r.id)?.cooling?.sensible_w : null),
    explain: (r) => (results.get("room", r.id)?.cooling ? { quantity: "room_cooling", subject: r.id } : null) },
  { key: "gets", title: "gets", quantity: "load", width: 84, value: (r) => flow(r)?.served_cooling_w },
  { key: "reheat", title: "reheat", quantity: "load", width: 84, value: (r) => flow(r)?.reheat_w, explain: (r) => (rank(r) === 1 ? { quantity: "room_reheat", subject: r.id } : null), prior: (r) => priorFlow(r)?.reheat_w },
  { key: "heat_asked", title: "heat asked", quantity: "load", width: 92, value: (r) => (flow(r) ? results.get("room", r.id)?.heating_w : null) },
  { key: "heat", title: "left to heat", quantity: "load", width: 92, value: (r) => flow(r)?.served_heating_w },
  { key: "over", title: "too warm by", quantity: "temperature_difference", width: 92, value: (r) => flow(r)?.over_k },
  { key: "under", title: "too cold by", quantity: "temperature_difference", width: 92, value: (r) => flow(r)?.under_k },
]; // prettier-ignore

/** Fields that put a room on this system in a place, and off it in the other. */
function placed(row: Room, place: "served" | "second" | "none"): Record<string, string | null> {
  const [first, second] = [row.air_system ?? null, row.second_system ?? null];
  const mine = (id: string | null) => (id === props.id ? null : id);
  if (place === "served") return { air_system: props.id, second_system: mine(second) };
  if (place === "second") return { air_system: mine(first), second_system: props.id };
  return { air_system: mine(first), second_system: mine(second) };
}

function save(edits: Edit<Room>[]): Promise<void> {
  return doc.commit(
    "Terminals",
    edits.map(({ row, column, value }) => ({
      op: "set",
      kind: "room",
      id: row.id,
      fields:
        column.key === "served" || column.key === "second"
          ? placed(row, value ? column.key : "none")
          : { [column.key === "pinned_flow_m3_s" ? pin(row) : column.key]: value },
    })),
  );
}
</script>

<template>
  <div style="flex: 1; min-height: 0">
    <DataGrid
      label="Terminals"
      :columns="columns"
      :rows="rows"
      :selected="view.selectedRoom"
      :save="save"
      @select="view.selectRoom($event.id)"
    />
  </div>
</template>
