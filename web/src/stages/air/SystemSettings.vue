<script setup lang="ts">
import type { AirSystem } from "@/document/types";
import Field from "@/parts/Field.vue";
import { fieldSaver } from "@/parts/saving";
import { useDocument } from "@/document/store";

const props = defineProps<{ system: AirSystem }>();
const doc = useDocument();
type Key = keyof AirSystem & string;
const MARGINS = { heating_margin: "on heating", cooling_margin: "on cooling" } as const;
const GROUPS: { title: string; fields: [Key, string, string][] }[] = [
  { title: "Air", fields: [["supply_c", "Coldest supply air", "temperature"], ["winter_supply_c", "Supply air in winter", "temperature"], ["bypass_factor", "Coil bypass factor", "ratio"]] },
  { title: "Pressure drops in the unit", fields: [["filter_drop_pa", "Filter", "pressure"], ["coil_drop_pa", "Coils", "pressure"], ["other_drop_pa", "Everything else", "pressure"]] },
  { title: "Fan", fields: [["fan_efficiency", "Total efficiency", "percent"], ["motor_efficiency", "Motor and drive", "percent"], ["motor_margin", "Margin before the next motor", "percent"], ["outlet_velocity_m_s", "Outlet velocity", "velocity"]] },
  { title: "Duct sizing, equal friction", fields: [["friction_limit_pa_m", "Friction at most", "friction_rate"], ["velocity_limit_m_s", "Velocity at most", "velocity"]] },
]; // prettier-ignore
</script>

<template>
  <div class="body sets">
    <section>
      <Field
        label="Name"
        :value="system.name"
        :editor="{ type: 'text' }"
        :save="fieldSaver('air_system', () => props.system.id, 'name', 'System name')"
      />
      <template v-for="group in GROUPS" :key="group.title">
        <h2>{{ group.title }}</h2>
        <Field
          v-for="[key, label, quantity] in group.fields"
          :key="key"
          :label="label"
          :value="system[key]"
          :editor="{ type: 'number', quantity }"
          :save="fieldSaver('air_system', () => props.system.id, key, label)"
        />
      </template>
      <h2>Margins of its rooms and coils</h2>
      <Field
        v-for="(label, key) in MARGINS"
        :key="key"
        :label="label"
        :value="system[key]"
        :inherited="doc.project?.[key]"
        :editor="{ type: 'number', quantity: 'percent' }"
        :save="fieldSaver('air_system', () => props.system.id, key, `${system.name}: margin ${label}`)"
      />
    </section>
    <p class="soft">
      Constant volume: every room's airflow is fixed at its design value. The supply temperature follows the
      room that asks for the coldest air, never below the value here; the other rooms reheat electrically.
      Fan, motor and drive stand in the air stream and warm it.
    </p>
  </div>
</template>

<style scoped>
.sets {
  display: grid;
  grid-template-columns: 360px minmax(0, 46ch);
  gap: 32px;
}
h2 {
  margin-top: 14px;
}
</style>
