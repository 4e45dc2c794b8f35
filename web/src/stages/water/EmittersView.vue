<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Circuit, Room } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const rows = computed(() => {
  const ends = new Set(
    doc
      .rows("pipe_section")
      .filter((row) => row.circuit === props.circuit.id)
      .map((row) => row.room),
  );
  return doc
    .rows("room")
    .filter((room) => ends.has(room.id))
    .sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true }));
});
const columns: Column<Room>[] = [
  { key: "number", title: "No.", width: 60, value: (r) => r.number },
  { key: "name", title: "Room", width: 160, value: (r) => r.name },
  { key: "load", title: "heating load", quantity: "load", width: 130, value: (r) => results.get("room", r.id)?.heating_w, explain: (r) => ({ quantity: "room_heating", subject: r.id }) },
  { key: "duty", title: "radiator's duty", quantity: "load", width: 140, value: (r) => results.get("emitter", r.id)?.duty_w, prior: (r) => results.prior("emitter", r.id)?.duty_w },
  { key: "factor", title: "output / rating", quantity: "ratio", width: 120, value: (r) => results.get("emitter", r.id)?.factor },
  { key: "rating", title: "rating at 75/65/20", quantity: "load", width: 160, value: (r) => results.get("emitter", r.id)?.rating_w, prior: (r) => results.prior("emitter", r.id)?.rating_w },
]; // prettier-ignore
</script>

<template>
  <div style="flex: 1; min-height: 0; display: flex; flex-direction: column">
    <p class="soft" style="padding: 8px 14px; margin: 0">
      Duty: the room's heating load, and warming supply air that comes below the set-point. Rating by EN
      442-2:2014, n 1.30, logarithmic mean for rating and operation alike.
    </p>
    <div style="flex: 1; min-height: 0">
      <DataGrid
        label="Emitters"
        :columns="columns"
        :rows="rows"
        :selected="view.selectedRoom"
        @select="view.selectRoom($event.id)"
      />
    </div>
  </div>
</template>
