<script setup lang="ts">
import type { Assembly } from "@/document/types";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { fieldSaver } from "@/parts/saving";
import type { AssemblyResult } from "@/results/types";
import { format } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ assembly: Assembly; values: AssemblyResult | undefined }>();
const view = useView();
const WAYS = [
  { value: "declared", label: "U-value entered" },
  { value: "slab", label: "slab, ISO 13370" },
  { value: "basement_floor", label: "basement floor, ISO 13370" },
  { value: "basement_wall", label: "basement wall, ISO 13370" },
  { value: "perimeter", label: "perimeter factor" },
];
const ways = computed(() =>
  props.assembly.element === "wall"
    ? [
        { value: "declared", label: "no" },
        { value: "basement_wall", label: "basement wall, ISO 13370" },
      ]
    : WAYS,
);
function save(key: keyof Assembly & string, label: string) {
  return fieldSaver("assembly", () => props.assembly.id, key, label);
}
const iso = () => ["slab", "basement_floor", "basement_wall"].includes(props.assembly.ground_procedure ?? "");
</script>

<template>
  <div class="ground">
    <h2 v-if="assembly.element !== 'wall'">On the ground</h2>
    <Field
      :label="assembly.element === 'wall' ? 'Below ground' : 'Worked out by'"
      :value="assembly.ground_procedure"
      :editor="{ type: 'choice', choices: ways }"
      :save="save('ground_procedure', 'Ground')"
    />
    <Field
      v-if="assembly.element !== 'wall' && assembly.ground_procedure === 'declared'"
      label="U to the ground, soil included"
      :value="assembly.ground_u_value"
      :editor="{ type: 'number', quantity: 'u_value', clearable: true }"
      :save="save('ground_u_value', 'U to the ground')"
    />
    <Field
      v-if="assembly.ground_procedure === 'perimeter'"
      label="Loss per length of outer edge"
      :value="assembly.perimeter_factor_w_mk"
      :editor="{ type: 'number', quantity: 'linear_transmittance', clearable: true }"
      :save="save('perimeter_factor_w_mk', 'Perimeter factor')"
    />
    <template v-if="iso()">
      <Field
        label="Whole ground floor"
        :value="assembly.ground_area_m2"
        :editor="{ type: 'number', quantity: 'area', clearable: true }"
        :save="save('ground_area_m2', 'Ground floor area')"
      />
      <Field
        label="its outer edge"
        :value="assembly.ground_perimeter_m"
        :editor="{ type: 'number', quantity: 'length', clearable: true }"
        :save="save('ground_perimeter_m', 'Exposed perimeter')"
      />
      <Field
        label="walls above, thickness"
        :value="assembly.ground_wall_m"
        :editor="{ type: 'number', quantity: 'thickness' }"
        :save="save('ground_wall_m', 'Wall thickness')"
      />
      <Field
        v-if="assembly.ground_procedure !== 'slab'"
        label="basement floor below ground"
        :value="assembly.ground_depth_m"
        :editor="{ type: 'number', quantity: 'length' }"
        :save="save('ground_depth_m', 'Basement depth')"
      />
      <template v-if="assembly.ground_procedure === 'slab'">
        <Field
          label="edge insulation, R"
          :value="assembly.edge_resistance_m2k_w"
          :editor="{ type: 'number', quantity: 'resistance' }"
          :save="save('edge_resistance_m2k_w', 'Edge insulation')"
        />
        <Field
          label="reaching"
          :value="assembly.edge_width_m"
          :editor="{ type: 'number', quantity: 'length' }"
          :save="save('edge_width_m', 'Width of edge insulation')"
        />
        <Field
          label="downwards"
          :value="assembly.edge_vertical"
          :editor="{ type: 'yesno' }"
          :save="save('edge_vertical', 'Edge insulation downwards')"
        />
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
