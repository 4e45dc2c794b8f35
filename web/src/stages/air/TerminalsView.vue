<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
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
const flow = (row: Room) => (row.air_system === props.id ? results.get("airflow", row.id) : undefined);

const columns: Column<Room>[] = [
  { key: "number", title: "No.", width: 56, value: (r) => r.number },
  { key: "name", title: "Room", width: 140, value: (r) => r.name },
  { key: "served", title: "Served", width: 70, value: (r) => r.air_system === props.id, editor: { type: "yesno" } },
  { key: "other", title: "by", width: 120, value: (r) => doc.get("air_system", r.air_system)?.name ?? "–" },
  { key: "cooling", title: "for cooling", quantity: "airflow", width: 108, value: (r) => flow(r)?.cooling_m3_s },
  { key: "ventilation", title: "ventilation", quantity: "airflow", width: 108, value: (r) => flow(r)?.ventilation_m3_s },
  { key: "changes", title: "air changes", quantity: "airflow", width: 112, value: (r) => flow(r)?.air_changes_m3_s },
  { key: "pinned_flow_m3_s", title: "pinned", quantity: "airflow", width: 88, value: (r) => r.pinned_flow_m3_s, editable: (r) => r.air_system === props.id, editor: { type: "number", quantity: "airflow", clearable: true } },
  { key: "design", title: "supply", quantity: "airflow", width: 104, value: (r) => flow(r)?.design_m3_s, prior: (r) => results.prior("airflow", r.id)?.design_m3_s,
    explain: (r) => (flow(r) ? { quantity: "room_airflow", subject: r.id } : null) },
  { key: "why", title: "governed by", width: 96, value: (r) => flow(r)?.governing ?? "–" },
  { key: "asked", title: "asked", quantity: "load", width: 84, value: (r) => (flow(r) ? results.get("room", r.id)?.cooling?.sensible_w : null),
    explain: (r) => (results.get("room", r.id)?.cooling ? { quantity: "room_cooling", subject: r.id } : null) },
  { key: "gets", title: "gets", quantity: "load", width: 84, value: (r) => flow(r)?.served_cooling_w },
  { key: "reheat", title: "reheat", quantity: "load", width: 84, value: (r) => flow(r)?.reheat_w, prior: (r) => results.prior("airflow", r.id)?.reheat_w },
  { key: "heat_asked", title: "heat asked", quantity: "load", width: 92, value: (r) => (flow(r) ? results.get("room", r.id)?.heating_w : null) },
  { key: "heat", title: "left to heat", quantity: "load", width: 92, value: (r) => flow(r)?.served_heating_w },
  { key: "over", title: "too warm by", quantity: "temperature_difference", width: 92, value: (r) => flow(r)?.over_k },
  { key: "under", title: "too cold by", quantity: "temperature_difference", width: 92, value: (r) => flow(r)?.under_k },
]; // prettier-ignore

function save(edits: Edit<Room>[]): Promise<void> {
  return doc.commit(
    "Terminals",
    edits.map(({ row, column, value }) => ({
      op: "set",
      kind: "room",
      id: row.id,
      fields: column.key === "served" ? { air_system: value ? props.id : null } : { [column.key]: value },
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
