<script setup lang="ts">
import type { Assembly } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import type { AssemblyResult } from "@/results/types";
import { format } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ assembly: Assembly; values: AssemblyResult | undefined }>();
const view = useView();
const field = fieldsFor("assembly", () => props.assembly);
const isWall = computed(() => props.assembly.element === "wall");
const ways = computed(() =>
  isWall.value
    ? { label: "Below ground", choices: [{ value: "declared", label: "no" }, { value: "basement_wall", label: "basement wall, ISO 13370" }] }
    : {},
); // prettier-ignore
const iso = () => ["slab", "basement_floor", "basement_wall"].includes(props.assembly.ground_procedure ?? "");
</script>

<template>
  <div class="ground">
    <h2 v-if="assembly.element !== 'wall'">On the ground</h2>
    <Field v-bind="field('ground_procedure', ways)" />
    <Field
      v-if="assembly.element !== 'wall' && assembly.ground_procedure === 'declared'"
      v-bind="field('ground_u_value')"
    />
    <Field v-if="assembly.ground_procedure === 'perimeter'" v-bind="field('perimeter_factor_w_mk')" />
    <template v-if="iso()">
      <Field v-bind="field('ground_area_m2')" />
      <Field v-bind="field('ground_perimeter_m')" />
      <Field v-bind="field('ground_wall_m')" />
      <Field v-if="assembly.ground_procedure !== 'slab'" v-bind="field('ground_depth_m')" />
      <template v-if="assembly.ground_procedure === 'slab'">
        <Field v-bind="field('edge_resistance_m2k_w')" />
        <Field v-bind="field('edge_width_m')" />
        <Field v-bind="field('edge_vertical')" />
      </template>
      <p v-if="values?.ground?.problem" class="fault">{{ values.ground.problem }}</p>
      <p v-else-if="values?.ground">
        U with the ground <b><Figure :value="values.ground.u_value" quantity="u_value" /></b>, B′
        <Figure :value="values.ground.characteristic_m" quantity="length" />
        <span class="soft small">
          ; beyond it January {{ format(values.ground.by_month_c[0], "temperature", view.system) }}, July
          <Figure :value="values.ground.by_month_c[6]" quantity="temperature" />. Soil and year's swing:
          Place.
        </span>
      </p>
    </template>
  </div>
</template>

<style scoped>
.ground {
  border-top: 1px solid var(--hair);
  margin-top: 8px;
  padding-top: 6px;
}
.small {
  font-size: 12px;
}
</style>
