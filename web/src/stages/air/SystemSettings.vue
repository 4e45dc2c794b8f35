<script setup lang="ts">
import type { AirSystem } from "@/document/types";
import type { Editor } from "@/parts/edit";
import Field from "@/parts/Field.vue";
import { choicesOf, fieldSaver } from "@/parts/saving";
import { useDocument } from "@/document/store";
import { computed } from "vue";

const props = defineProps<{ system: AirSystem }>();
const doc = useDocument();
type Key = keyof AirSystem & string;
interface Entry {
  key: Key;
  label: string;
  editor: Editor;
  shown?: (system: AirSystem) => boolean;
}
const MARGINS = { heating_margin: "on heating", cooling_margin: "on cooling" } as const;
const number = (key: Key, label: string, quantity: string, shown?: Entry["shown"]): Entry => ({
  key,
  label,
  editor: { type: "number", quantity },
  shown,
});
const choice = (key: Key, label: string, choices: Record<string, string>, shown?: Entry["shown"]): Entry => ({
  key,
  label,
  editor: {
    type: "choice",
    choices: Object.entries(choices).map(([value, text]) => ({ value, label: text })),
  },
  shown,
});
const yesno = (key: Key, label: string, shown?: Entry["shown"]): Entry => ({
  key,
  label,
  editor: { type: "yesno" },
  shown,
});
const isCentral = (system: AirSystem) => system.arrangement === "central";
const isVariable = (system: AirSystem) => system.volume === "variable" && isCentral(system);
const isUnit = (system: AirSystem) => system.arrangement === "room units";
const withRooms = (system: AirSystem) => !isUnit(system);
const recovers = (system: AirSystem) => system.recovery_sensible! > 0 || system.recovery_latent! > 0;
const GROUPS: { title: string; fields: Entry[] }[] = [
  { title: "Arrangement", fields: [
    choice("arrangement", "Serves", { central: "all its rooms, with return air", "make-up": "what extracts take, outdoor air", "room units": "each room by a unit of its own" }),
    yesno("cools", "Cooling coil")] },
  { title: "Supply air", fields: [
    choice("volume", "Air volume", { constant: "constant", variable: "variable" }, isCentral),
    number("least_share", "Least flow of a terminal", "percent", isVariable),
    number("supply_c", "Coldest supply air", "temperature"), number("winter_supply_c", "Supply air in winter", "temperature", withRooms),
    choice("supply_rule", "Supply temperature", { rooms: "as the rooms ask", fixed: "fixed", outdoors: "by the outdoor air" }, withRooms),
    number("reset_cold_c", "winter value at, outdoors", "temperature", (s) => s.supply_rule === "outdoors"),
    number("reset_warm_c", "coldest value at, outdoors", "temperature", (s) => s.supply_rule === "outdoors"),
    choice("reheat", "Reheat at terminals", { electric: "electric", none: "none" })] },
  { title: "Outdoor air", fields: [
    yesno("outdoor_only", "Outdoor air only", isCentral),
    choice("economizer", "Economizer", { none: "none", "dry-bulb differential": "colder than return", "dry-bulb fixed": "below a temperature", "enthalpy differential": "less enthalpy than return", "enthalpy fixed": "below an enthalpy" }, (s) => !s.outdoor_only && isCentral(s)),
    number("economizer_limit_c", "runs below", "temperature", (s) => s.economizer === "dry-bulb fixed"),
    number("economizer_limit_j_kg", "runs below", "enthalpy", (s) => s.economizer === "enthalpy fixed")] },
  { title: "Heat recovery", fields: [
    number("recovery_sensible", "Heat recovered", "percent", withRooms), number("recovery_latent", "Moisture recovered", "percent", withRooms),
    choice("frost", "Against frost", { none: "nothing", "turned down": "turned down", preheat: "preheater" }, recovers),
    number("frost_limit_c", "Exhaust air not below", "temperature", (s) => recovers(s) && s.frost !== "none")] },
  { title: "Coil and humidifier", fields: [
    number("bypass_factor", "Coil bypass factor", "ratio", (s) => s.cools !== false),
    { key: "dry_to_c", label: "Dried to, off the coil", editor: { type: "number", quantity: "temperature", clearable: true }, shown: (s) => s.cools !== false && withRooms(s) },
    choice("humidifier", "Humidifier", { none: "none", steam: "steam", adiabatic: "water, adiabatic" }, withRooms)] },
  { title: "Pressure drops in the unit", fields: [number("filter_drop_pa", "Filter", "pressure"), number("coil_drop_pa", "Coils", "pressure"), number("other_drop_pa", "Everything else", "pressure")] },
  { title: "Fans", fields: [
    number("fan_efficiency", "Total efficiency", "percent"), number("motor_efficiency", "Motor and drive", "percent"),
    number("motor_margin", "Margin before the next motor", "percent"), number("outlet_velocity_m_s", "Outlet velocity", "velocity"),
    yesno("blow_through", "Fan before the cooling coil"), number("held_pa", "Pressure held at part flow", "pressure", isVariable),
    number("return_fan_pa", "Return fan, total pressure", "pressure")] },
  { title: "Ducts, equal friction", fields: [
    number("friction_limit_pa_m", "Friction at most", "friction_rate"), number("velocity_limit_m_s", "Velocity at most", "velocity"),
    number("duct_leak_share", "Leakage, of the fan's flow", "percent")] },
]; // prettier-ignore
const hours = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "on_off")));
const groups = computed(() =>
  GROUPS.map((group) => ({
    ...group,
    fields: group.fields.filter((field) => field.shown?.(props.system) ?? true),
  })).filter((group) => group.fields.length > 0),
);
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
      <Field
        label="Runs"
        :value="system.running"
        :editor="{ type: 'choice', clearable: true, empty: 'always', choices: hours }"
        :save="fieldSaver('air_system', () => props.system.id, 'running', `${system.name}: hours of running`)"
      />
      <template v-for="group in groups" :key="group.title">
        <h2>{{ group.title }}</h2>
        <Field
          v-for="entry in group.fields"
          :key="entry.key"
          :label="entry.label"
          :value="system[entry.key]"
          :editor="entry.editor"
          :save="fieldSaver('air_system', () => props.system.id, entry.key, `${system.name}: ${entry.label}`)"
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
    <section class="soft told">
      <p v-if="isUnit(system)">
        Room units: every room has a unit of its own that moves the room's air, with its own coil and fan.
        Where another system serves the room first, the unit cools or heats what that leaves. Fan and coil
        figures here are of each unit.
      </p>
      <p v-else-if="system.arrangement === 'make-up'">
        Make-up: every room gets what its extracts take and its pressure offset leaves, of outdoor air, at the
        hours at which they run. Where the room is on another system too, that one cools what is left.
      </p>
      <p v-else-if="isVariable(system)">
        Variable volume: terminals follow the rooms' cooling between their design flow and the least flow,
        which is never below 1.5 times the room's ventilation (ANSI/ASHRAE 62.1, 6.2.5.3). The fan is sized
        for the largest flow at one time.
      </p>
      <p v-else>
        Constant volume: every room's airflow stays at its design value. The supply temperature follows the
        room that asks for the coldest air, never below the value here.
      </p>
      <p>
        Rooms float between their set-points under the supply air. A terminal reheats up to the heating
        set-point only; where a room has an emitter, the terminal makes up for supply air that is too cold and
        the emitter for the rest.
      </p>
      <p v-if="system.dry_to_c !== null && system.dry_to_c !== undefined">
        While the air at the cooling coil holds more moisture than is saturated at the drying temperature, it
        is cooled to it, and a coil behind the fan brings it back to the supply temperature.
      </p>
      <p>
        Outside its hours the unit moves no air: rooms float with their leaks, emitters heat on, and the first
        hours of the day carry what the night left.
      </p>
      <p>
        In winter the supply air comes at its own value, without sun and people: what it brings into a room is
        taken off its emitter, what it lacks is added.
      </p>
      <p>
        Order of the unit: outdoor air, recovery, mixing, heating coil, cooling coil, humidifier, fan. The
        humidifier keeps the lower limits of humidity of the rooms' uses on the winter day. Air that leaks
        from ducts goes to the return plenum.
      </p>
    </section>
  </div>
</template>

<style scoped>
.sets {
  display: grid;
  grid-template-columns: 360px minmax(0, 46ch);
  overflow: auto;
  gap: 32px;
}
h2 {
  margin-top: 14px;
}
</style>
