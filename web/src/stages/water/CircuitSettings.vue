<script setup lang="ts">
import type { Circuit } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit }>();
const results = useResults();
type Key = keyof Circuit & string;
const field = fieldsFor("circuit", () => props.circuit);
const GLYCOL: Key[] = ["glycol_share"];
const RESET: Key[] = ["reset_cold_c", "flow_mild_c", "reset_mild_c"];
const SHARE: Key[] = ["loss_share"];
const AROUND: Key[] = ["pipe_insulation_w_mk", "pipe_around_c"];
const insulated = computed(() => props.circuit.pipe_insulation_m !== null);
const doc = useDocument();
/** Whether water takes the heat of any of its chillers. */
const byWater = computed(() =>
  doc
    .rows("plant_unit")
    .some((row) => row.circuit === props.circuit.id && row.kind === "water-cooled chiller"),
);
const REJECTION: Key[] = ["rejection", "rejection_approach_k", "rejection_range_k", "rejection_least_c", "rejection_fan_w_w", "rejection_drop_pa", "rejection_pump_efficiency"]; // prettier-ignore
const FLOOR: Key[] = ["floor_spacing_m", "floor_pipe_m", "floor_cover_m", "floor_covering_m2k_w", "floor_area_share"]; // prettier-ignore
const found = computed(() => results.get("circuit", props.circuit.id));
const before = computed(() => results.prior("circuit", props.circuit.id));
const groups = computed<[title: string, keys: Key[]][]>(() => [
  ["Water", ["flow_c", "return_c", "glycol", ...(props.circuit.glycol === "none" ? [] : GLYCOL), "flow_rule", ...(props.circuit.flow_rule === "outdoors" ? RESET : []), ...(insulated.value ? [] : SHARE)]],
  ["Pipes", ["piping", "pipe", "friction_limit_pa_m", "velocity_limit_m_s", "pipe_insulation_m", ...(insulated.value ? AROUND : [])]],
  ...(props.circuit.kind === "heating" ? [["Rooms", ["emitters", ...(props.circuit.emitters === "underfloor" ? FLOOR : [])]] as [string, Key[]]] : []),
  ...(byWater.value ? [["Heat of its chillers", REJECTION] as [string, Key[]]] : []),
  ["Expansion vessel", ["static_height_m", "safety_valve_pa", "source_content_m3"]],
]); // prettier-ignore
</script>

<template>
  <div class="body" style="max-width: 400px; overflow: auto">
    <Field v-bind="field('name')" />
    <template v-for="[title, keys] in groups" :key="title">
      <h2>{{ title }}</h2>
      <Field v-for="key in keys" :key="key" v-bind="field(key)" />
      <p v-if="title === 'Pipes' && found?.pipes_lose_w != null">
        {{ circuit.kind === "heating" ? "Its pipes lose" : "Its pipes take in" }}
        <Figure
          :value="found.pipes_lose_w"
          :prior="before?.pipes_lose_w"
          quantity="load"
          :explain="{ quantity: 'pipes_lose', subject: circuit.id }"
        />
        at the design temperatures.
      </p>
    </template>
    <p class="soft">
      The pumps stand under Pumps: their head is calculated from the index run; a section stands for flow and
      return together. Pipes and pump are sized for the largest duties of their ends; units under Plant for
      what all ends ask together at one time.
    </p>
  </div>
</template>
