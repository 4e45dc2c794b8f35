<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Circuit, Room } from "@/document/types";
import DataGrid from "@/parts/DataGrid.vue";
import type { Column } from "@/parts/grid";
import { useResults } from "@/results/store";
import type { EmitterResult } from "@/results/types";
import { useView } from "@/view/store";
import { format } from "@/units/units";
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
/** Rating by the mean that does not decide. */
const other = (e: EmitterResult | undefined) =>
  e && (e.rule === "logarithmic" ? e.arithmetic_w : e.logarithmic_w);
/** What rooms get of the circuit's pipes, where that is told. */
const ofPipes = computed<Column<Room>[]>(() => {
  const back = results.get("circuit", props.circuit.id)?.given_back_w ?? {};
  if (props.circuit.loss_to === "nowhere") return [];
  return [
    { key: "pipes", title: "of pipes", quantity: "load", width: 84, value: (r) => back[r.id] ?? 0, explain: (r) => (back[r.id] ? { quantity: "pipes_give", subject: `${props.circuit.id}/${r.id}` } : null) },
  ]; // prettier-ignore
});
const leftOver = (e: EmitterResult | undefined) => (e?.chosen_w ? e.chosen_w - e.rating_w : null);
const panels = computed(() => props.circuit.emitters === "radiant panels");
const floors = computed(() => props.circuit.emitters === "underfloor");
const rooms: Column<Room>[] = [
  { key: "number", title: "No.", width: 60, value: (r) => r.number },
  { key: "name", title: "Room", width: 160, value: (r) => r.name },
  { key: "load", title: "heating load", quantity: "load", width: 112, value: (r) => results.get("room", r.id)?.heating_w, explain: (r) => ({ quantity: "room_heating", subject: r.id }) },
]; // prettier-ignore
const ceiling = (r: Room) => results.get("ceiling", r.id);
const beams = computed(() => props.circuit.ceiling_kind === "beams");
const chilled = computed<Column<Room>[]>(() => [
  ...rooms.slice(0, 2),
  { key: "load", title: "cooling load", quantity: "load", width: 112, value: (r) => results.get("room", r.id)?.cooling?.sensible_w, explain: (r) => (results.get("room", r.id)?.cooling ? { quantity: "room_cooling", subject: r.id } : null) },
  { key: "duty", title: "duty", quantity: "load", width: 92, value: (r) => ceiling(r)?.duty_w, prior: (r) => results.prior("ceiling", r.id)?.duty_w },
  { key: "difference", title: "difference", quantity: "temperature_difference", width: 84, value: (r) => ceiling(r)?.difference_k },
  { key: "capacity", title: "gives", quantity: beams.value ? "heat_per_length" : "power_per_area", width: 92, value: (r) => ceiling(r)?.capacity },
  { key: "needed", title: "needs", quantity: beams.value ? "length" : "area", width: 84, value: (r) => ceiling(r)?.needed, prior: (r) => results.prior("ceiling", r.id)?.needed,
    explain: (r) => (ceiling(r) ? { quantity: "chilled_ceiling", subject: r.id } : null) },
  ...(beams.value ? [] : [{ key: "most", title: "place for", quantity: "area", width: 84, value: (r: Room) => ceiling(r)?.most }]),
]); // prettier-ignore
const floor = (r: Room) => results.get("floor", r.id);
const heated: Column<Room>[] = [
  ...rooms,
  { key: "duty", title: "duty", quantity: "load", width: 92, value: (r) => floor(r)?.duty_w, prior: (r) => results.prior("floor", r.id)?.duty_w },
  { key: "gives", title: "gives", quantity: "load", width: 92, value: (r) => floor(r)?.gives_w, prior: (r) => results.prior("floor", r.id)?.gives_w,
    explain: (r) => (floor(r) ? { quantity: "heated_floor", subject: r.id } : null) },
  { key: "area", title: "heated", quantity: "area", width: 80, value: (r) => floor(r)?.area_m2 },
  { key: "flux", title: "by area", quantity: "power_per_area", width: 90, value: (r) => floor(r)?.flux_w_m2 },
  { key: "surface", title: "surface", quantity: "temperature", width: 84, value: (r) => floor(r)?.surface_c },
  { key: "flow", title: "needs flow of", quantity: "temperature", width: 108, value: (r) => floor(r)?.needed_flow_c },
  { key: "pipe", title: "pipe", quantity: "length", width: 76, value: (r) => floor(r)?.pipe_m },
  { key: "loops", title: "loops", quantity: "count", width: 60, value: (r) => floor(r)?.loops },
]; // prettier-ignore
const ratedAt = computed(() => {
  const c = props.circuit;
  return `at ${[c.rated_flow_c, c.rated_return_c, c.rated_room_c].map((t) => format(t ?? 0, "temperature", view.system).replace(/\.0$/, "")).join("/")}`;
});
const radiators = computed<Column<Room>[]>(() => [
  ...rooms,
  { key: "duty", title: "duty", quantity: "load", width: 92, value: (r) => results.get("emitter", r.id)?.duty_w, prior: (r) => results.prior("emitter", r.id)?.duty_w },
  { key: "rating", title: ratedAt.value, quantity: "load", width: 104, value: (r) => results.get("emitter", r.id)?.rating_w, prior: (r) => results.prior("emitter", r.id)?.rating_w,
    explain: (r) => (results.get("emitter", r.id) ? { quantity: "emitter_rating", subject: r.id } : null) },
  { key: "rule", title: "by the mean", width: 104, value: (r) => results.get("emitter", r.id)?.rule ?? "–" },
  { key: "other", title: "by the other", quantity: "load", width: 108, value: (r) => other(results.get("emitter", r.id)) },
  { key: "chosen", title: "chosen", quantity: "load", width: 88, value: (r) => results.get("emitter", r.id)?.chosen_w },
  ...(panels.value ? [{ key: "length", title: "length", quantity: "length" as const, width: 80, value: (r: Room) => results.get("emitter", r.id)?.length_m }] : []),
  { key: "left", title: "left over", quantity: "load", width: 92, value: (r) => leftOver(results.get("emitter", r.id)) },
  { key: "back", title: "its return", quantity: "temperature", width: 88, value: (r) => results.get("emitter", r.id)?.chosen_return_c },
]); // prettier-ignore
const columns = computed(() => {
  const all = props.circuit.kind === "chilled" ? chilled.value : floors.value ? heated : radiators.value;
  const after = all.findIndex((column) => column.key === "duty") + 1;
  return [...all.slice(0, after), ...ofPipes.value, ...all.slice(after)];
});
</script>

<template>
  <div style="flex: 1; min-height: 0; display: flex; flex-direction: column">
    <p v-if="circuit.kind === 'chilled'" class="soft" style="padding: 8px 14px; margin: 0">
      Duty: what the room's supply air leaves of its cooling load; that air is sized for ventilation alone.
      Ceilings by EN 14240, beams by EN 14518; their ratings stand under Settings. A room comes here by a pipe
      section that ends at it.
    </p>
    <p v-else-if="floors" class="soft" style="padding: 8px 14px; margin: 0">
      Duty: what the room's supply air leaves of its heating load. Heated floors by EN 1264-2, pipes in the
      screed; the surface is at most 9 K warmer than the room. How they are built stands under Settings.
    </p>
    <p v-else-if="panels" class="soft" style="padding: 8px 14px; margin: 0">
      Duty: what the room's supply air leaves of its heating load. Radiant panels by EN 14037-2, K ΔT^n, with
      the exponent and rating under Settings; chosen by length, in half metres.
    </p>
    <p v-else class="soft" style="padding: 8px 14px; margin: 0">
      Duty: what the room's supply air leaves of its heating load. Rating by EN 442-2:2014; the logarithmic
      mean decides where (return − room)/(flow − room) is below 0.7. Chosen: the next of the series 300 to 16
      000 W.
    </p>
    <div style="flex: 1; min-height: 0">
      <DataGrid
        label="Emitters"
        :columns="columns"
        :key="`${circuit.emitters} ${circuit.ceiling_kind}`"
        :rows="rows"
        :selected="view.selectedRoom"
        @select="view.selectRoom($event.id)"
      />
    </div>
  </div>
</template>
