<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { isServedBy } from "@/document/served";
import { useDocument } from "@/document/store";
import type { DuctSection } from "@/document/types";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import SectionsView from "@/parts/SectionsView.vue";
import { useResults } from "@/results/store";
import type { DuctNetwork } from "@/results/air";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";

const props = defineProps<{
  id: string;
  /** Of the set of equipment that is looked at. */ resultId: string;
}>();
const doc = useDocument();
const results = useResults();
const view = useView();
const NETWORKS: Record<DuctNetwork, string> = {
  supply: "Supply",
  return: "Return",
  outdoor: "Outdoor air",
  exhaust: "Exhaust air",
};
const network = ref<DuctNetwork>("supply");
/** Of the rooms, and not from outdoors or to there. */
const ofRooms = computed(() => network.value === "supply" || network.value === "return");
const routedAs = computed(() => (network.value === "return" ? "return" : "supply"));
// Where a section is wanted, its network is shown.
watch(
  () => view.wanted,
  (wanted) => {
    const row = wanted?.kind === "duct_section" ? doc.get("duct_section", wanted.id) : undefined;
    if (row) network.value = row.network ?? "supply";
  },
  { immediate: true },
);
const rows = computed(() =>
  doc.rows("duct_section").filter((row) => row.air_system === props.id && row.network === network.value),
);
const rooms = computed(() => doc.rows("room").filter((room) => isServedBy(room, props.id)));
const missing = computed(() => {
  if (!ofRooms.value) {
    const name = network.value === "outdoor" ? "Outdoor air louvre" : "Exhaust air louvre";
    return rows.value.length > 1
      ? []
      : [{ name, fields: { name, length_m: 2, loss_coefficient: 1.5, end_drop_pa: 30 } }];
  }
  return rooms.value
    .filter((room) => !rows.value.some((row) => row.room === room.id))
    .map((room) => ({
      name: room.number,
      fields: {
        name: `Branch ${room.number}`,
        room: room.id,
        length_m: 5,
        loss_coefficient: 1,
        end_drop_pa: 30,
      },
    }));
});
const drawn = computed(() => doc.get("air_system", props.id));
const system = computed(() => results.get("air_system", props.resultId));
const found = computed(() => system.value?.networks[network.value]);
const index = computed(() => ({
  path: found.value?.index_path ?? [],
  end: found.value?.index_end ?? null,
}));
const numberOf = (row: DuctSection) => doc.get("room", row.room)?.number ?? "";
/** A side of ducts that are not round. */
const side = (
  key: "height_limit_m" | "pinned_width_m" | "pinned_height_m",
  title: string,
): Column<DuctSection> => ({
  key,
  title,
  quantity: "diameter",
  width: 74,
  value: (row) => row[key],
  editable: (row) => row.shape !== "round",
  editor: { type: "number", quantity: "diameter", clearable: true },
});
const roomColumn = computed<Column<DuctSection>>(() => ({
  key: "room",
  title: "room",
  width: 46,
  value: (row) => row.room,
  text: (row) => numberOf(row) || "–",
  editor: {
    type: "choice",
    clearable: true,
    choices: rooms.value.map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })),
  },
}));
const ends = computed<Column<DuctSection>[]>(() => [
  ...(ofRooms.value ? [roomColumn.value] : []),
  {
    key: "shape",
    title: "shape",
    width: 84,
    value: (row) => row.shape,
    editor: {
      type: "choice",
      choices: ["round", "rectangular", "flat oval"].map((value) => ({ value, label: value })),
    },
  },
  side("height_limit_m", "max. height"),
  side("pinned_width_m", "pin width"),
  side("pinned_height_m", "pin height"),
]);
const explain = (row: DuctSection) =>
  results.get("duct_section", row.id) ? { quantity: "duct_section", subject: row.id } : null;
</script>

<template>
  <SectionsView
    :key="network"
    kind="duct_section"
    :noun="ofRooms ? 'branch' : 'louvre duct'"
    :routed="ofRooms"
    :network="routedAs"
    :rows="rows"
    :owner="{ air_system: id, network }"
    :ends="ends"
    :end-name="numberOf"
    :missing="missing"
    :main="{ length_m: 10, loss_coefficient: 0.4 }"
    :index="index"
    :quantities="{ flow: 'airflow', rate: 'friction_rate', velocity: 'velocity', loss: 'pressure' }"
    :explain="explain"
  >
    <template #lead>
      <Segments v-model="network" label="Network" :choices="NETWORKS" />
    </template>
    <template v-if="found && network !== 'supply'" #told>
      index run
      <Figure
        :value="found.loss_pa"
        quantity="pressure"
        :explain="{ quantity: network === 'outdoor' ? 'fan_static' : 'return_pressure', subject: resultId }"
      /><template v-if="network !== 'outdoor' && drawn">
        of the return fan's
        <Figure :value="drawn.return_fan_pa ?? 0" quantity="pressure" /></template
      ><template v-else>, drawn through by the supply fan</template
      ><template v-if="drawn?.duct_leak_class"
        >; class {{ drawn.duct_leak_class }}: <Figure :value="found.leak_share" quantity="percent" />
        {{ network === "exhaust" ? "leaks out" : "leaks in" }}</template
      ><template v-if="network !== 'exhaust' && drawn?.duct_insulation_m !== null && system"
        >; the ducts warm the air by
        <Figure
          :value="network === 'return' ? system.return_gain_k : system.outdoor_gain_k"
          quantity="temperature_difference"
      /></template>
    </template>
    <template v-else-if="system && drawn" #told>
      {{ drawn.duct_method
      }}<template v-if="drawn.duct_leak_class"
        >, class {{ drawn.duct_leak_class }}: <Figure :value="system.duct_leak_share" quantity="percent" /> of
        the fan's flow leaks</template
      ><template v-if="drawn.duct_insulation_m !== null"
        >, the ducts warm the air by <Figure :value="system.duct_gain_k" quantity="temperature_difference"
      /></template>
    </template>
  </SectionsView>
</template>
