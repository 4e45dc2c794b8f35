<script setup lang="ts">
import type { AirSystem } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import { choicesOf } from "@/parts/saving";
import { useDocument } from "@/document/store";
import { computed } from "vue";

const props = defineProps<{ system: AirSystem }>();
const doc = useDocument();
type Key = keyof AirSystem & string;
/** Fields of a group, each with when it is there. */
type Entry = Key | [key: Key, shown: (system: AirSystem) => boolean];
const field = fieldsFor("air_system", () => props.system);
const isCentral = (system: AirSystem) => system.arrangement === "central";
const isVariable = (system: AirSystem) => system.volume === "variable" && isCentral(system);
const isUnit = (system: AirSystem) => system.arrangement === "room units";
const withRooms = (system: AirSystem) => !isUnit(system);
const recovers = (system: AirSystem) => system.recovery_sensible! > 0 || system.recovery_latent! > 0;
const resets = (system: AirSystem) => system.supply_rule === "outdoors";
const mixes = (system: AirSystem) => !system.outdoor_only && isCentral(system);
const fanned = (system: AirSystem) => isCentral(system) && system.terminal_fan !== "none";
const cools = (system: AirSystem) => system.parts.some((part) => part.kind === "cooling coil");
const GROUPS: [title: string, fields: Entry[]][] = [
  ["Arrangement", ["arrangement", ["sets", withRooms]]],
  ["Supply air", [
    ["volume", isCentral], ["sizing", isCentral], ["least_share", isVariable], "supply_c", ["winter_supply_c", withRooms], ["supply_rule", withRooms],
    ["reset_cold_c", resets], ["reset_warm_c", resets], "reheat",
    ["terminal_fan", isCentral], ["terminal_fan_w_m3_s", fanned], ["terminal_fan_share", (s) => fanned(s) && s.terminal_fan === "parallel"]]],
  ["Outdoor air", [
    ["outdoor_only", isCentral], ["people_share", mixes], ["outdoor_by_people", mixes], ["economizer", mixes], ["economizer_limit_c", (s) => s.economizer === "dry-bulb fixed"],
    ["economizer_limit_j_kg", (s) => s.economizer === "enthalpy fixed"]]],
  ["Heat recovery", [
    ["recovery_sensible", withRooms], ["recovery_latent", withRooms], ["frost", recovers],
    ["frost_limit_c", (s) => recovers(s) && s.frost !== "none"]]],
  ["Cooling coil", [["bypass_factor", cools], ["dry_to_c", (s) => cools(s) && withRooms(s)]]],
  ["Fans", [
    "fan_efficiency", "motor_efficiency", "motor_margin", "outlet_velocity_m_s", ["held_pa", isVariable], "return_fan_pa"]],
  ["Ducts", [
    "duct_method", ["friction_limit_pa_m", (s) => s.duct_method === "equal friction"], "velocity_limit_m_s", "branch_velocity_m_s", "runout_velocity_m_s", "duct_leak_class",
    ["duct_leak_share", (s) => !s.duct_leak_class], "duct_insulation_m", ["duct_around_c", (s) => s.duct_insulation_m !== null]]],
]; // prettier-ignore
const hours = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "on_off")));
const groups = computed(() =>
  GROUPS.map(([title, entries]) => ({
    title,
    keys: entries.flatMap((it) => (typeof it === "string" ? [it] : it[1](props.system) ? [it[0]] : [])),
  })).filter((group) => group.keys.length > 0),
);
</script>

<template>
  <div class="body sets">
    <section>
      <Field v-bind="field('name')" />
      <Field v-bind="field('running', { choices: hours, empty: 'always' })" />
      <template v-for="group in groups" :key="group.title">
        <h2>{{ group.title }}</h2>
        <Field v-for="key in group.keys" :key="key" v-bind="field(key)" />
      </template>
      <h2>Margins of its rooms and coils</h2>
      <Field v-bind="field('heating_margin', { label: 'on heating' })" />
      <Field v-bind="field('cooling_margin', { label: 'on cooling' })" />
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
        is cooled to it. A heating coil behind it, added on the path, brings it back to the supply
        temperature.
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
        What the unit has behind recovery and mixing, in which order and with which pressure drops, stands on
        the path: its parts are added, moved and removed there. A humidifier keeps the lower limits of
        humidity of the rooms' uses on the winter day. Air that leaks from ducts goes to the return plenum.
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
