<script setup lang="ts">
import { isServedBy } from "@/document/served";
import { useDocument } from "@/document/store";
import type { DuctSection } from "@/document/types";
import Figure from "@/parts/Figure.vue";
import type { Column } from "@/parts/grid";
import SectionsView from "@/parts/SectionsView.vue";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{ id: string }>();
const doc = useDocument();
const results = useResults();
const rows = computed(() => doc.rows("duct_section").filter((row) => row.air_system === props.id));
const rooms = computed(() => doc.rows("room").filter((room) => isServedBy(room, props.id)));
const missing = computed(() =>
  rooms.value
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
    })),
);
const drawn = computed(() => doc.get("air_system", props.id));
const system = computed(() => results.get("air_system", props.id));
const index = computed(() => ({
  path: system.value?.index_path ?? [],
  end: system.value?.index_end ?? null,
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
const ends = computed<Column<DuctSection>[]>(() => [
  {
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
  },
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
    kind="duct_section"
    noun="branch"
    :rows="rows"
    :owner="{ air_system: id }"
    :ends="ends"
    :end-name="numberOf"
    :missing="missing"
    :main="{ length_m: 10, loss_coefficient: 0.4 }"
    :index="index"
    :quantities="{ flow: 'airflow', rate: 'friction_rate', velocity: 'velocity', loss: 'pressure' }"
    :explain="explain"
  >
    <template v-if="system && drawn" #told>
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
