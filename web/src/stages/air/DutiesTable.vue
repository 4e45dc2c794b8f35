<script setup lang="ts">
import { useDocument } from "@/document/store";
import Figure from "@/parts/Figure.vue";
import type { AirSystem } from "@/document/types";
import type { SystemResult } from "@/results/types";
import { clock, counted, MONTHS } from "@/units/units";
import { computed } from "vue";

const props = defineProps<{
  system: AirSystem;
  id: string;
  result: SystemResult;
  before: SystemResult | undefined;
}>();
const doc = useDocument();
/** Its pressure is entered; what it takes is found. */
const returnFan = computed(() =>
  props.system.return_fan_pa && props.result.return_fan_w > 0
    ? { pressure_pa: props.system.return_fan_pa, electrical_w: props.result.return_fan_w }
    : null,
);
/** The supply fan below its design flow, where its flow varies. */
const partLoads = computed(() =>
  props.system.volume === "variable" ? props.result.fan_points.filter((point) => point.share < 1) : [],
);
const when = computed(() => `${MONTHS[props.result.coil_month - 1]} ${clock(props.result.coil_step)}`);
const REHEATS: Record<string, string> = { electric: "electric", "hot water": "hot water", none: "none" };
const cooling = computed(() => props.result.coils.find((coil) => coil.kind === "cooling coil"));
const outdoorRule = computed(() => {
  const air = props.result.outdoor_air;
  const critical = doc.get("room", air.critical_room)?.number ?? "";
  const efficiency = air.efficiency.toFixed(2);
  const rules: Record<string, string> = {
    "one zone": "Outdoor air by ANSI/ASHRAE 62.1-2019, 6.2.3: one zone, what it needs.",
    "outdoor air only": "Outdoor air by ANSI/ASHRAE 62.1-2019, 6.2.4: the sum of what the zones need.",
    "62.1 full": `Outdoor air by ANSI/ASHRAE 62.1-2019, system efficiency ${efficiency}, set by room ${critical}.`,
    "62.1 simplified": `Outdoor air by ANSI/ASHRAE 62.1-2019, simplified procedure, system efficiency ${efficiency}.`,
    sum: "Outdoor air by EN 16798-1: people and floor area of all rooms added.",
  };
  return rules[air.rule] ?? "";
});
</script>

<template>
  <section class="duties">
    <h2>Duties</h2>
    <v-table class="plain">
      <thead>
        <tr>
          <th>item</th>
          <th class="num">duty</th>
          <th class="num">when</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>Cooling coil, total</td>
          <td class="num" data-test="coil-total">
            <Figure
              :value="result.coil_total_w"
              :prior="before?.coil_total_w"
              quantity="load"
              :explain="{ quantity: 'coil_total', subject: id }"
            />
          </td>
          <td class="num">{{ when }}</td>
        </tr>
        <tr>
          <td>&nbsp; sensible</td>
          <td class="num">
            <Figure :value="result.coil_sensible_w" :prior="before?.coil_sensible_w" quantity="load" />
          </td>
          <td class="num">{{ (result.coil_sensible_w / result.coil_total_w).toFixed(2) }}</td>
        </tr>
        <tr v-if="cooling">
          <td>&nbsp; {{ counted(cooling.rows, "row") }}, give</td>
          <td class="num">
            <Figure
              :value="cooling.capacity_w"
              quantity="load"
              :explain="{ quantity: 'cooling_coil_size', subject: id }"
            />
          </td>
          <td class="num"><Figure :value="cooling.face_m2" quantity="area" /></td>
        </tr>
        <tr>
          <td>&nbsp; condensate</td>
          <td class="num"><Figure :value="result.condensate_kg_s" quantity="condensate" /></td>
          <td />
        </tr>
        <tr>
          <td>Heating coil</td>
          <td class="num">
            <Figure
              :value="result.winter.duty_w"
              :explain="{ quantity: 'heating_coil', subject: id }"
              :prior="before?.winter.duty_w"
              quantity="load"
            />
          </td>
          <td class="num">largest</td>
        </tr>
        <tr v-if="result.winter.recovered_w > 1">
          <td>&nbsp; recovered</td>
          <td class="num">
            <Figure
              :value="result.winter.recovered_w"
              :explain="{ quantity: 'recovered_heat', subject: id }"
              quantity="load"
            />
          </td>
          <td class="num">winter</td>
        </tr>
        <tr v-if="result.winter.preheat_w > 1">
          <td>&nbsp; preheater</td>
          <td class="num"><Figure :value="result.winter.preheat_w" quantity="load" /></td>
          <td class="num">winter</td>
        </tr>
        <tr v-if="result.winter.water_kg_s > 1e-7">
          <td>Humidifier</td>
          <td class="num">
            <Figure
              :value="result.winter.water_kg_s"
              :explain="{ quantity: 'humidifier_water', subject: id }"
              quantity="condensate"
            />
          </td>
          <td class="num">winter</td>
        </tr>
        <tr>
          <td>
            {{ system.arrangement === "room units" ? "Heating coil" : "Reheat" }},
            {{ REHEATS[system.reheat ?? "electric"] }}
          </td>
          <td class="num">
            <Figure
              :value="result.reheat_w"
              :explain="{ quantity: 'terminals_reheat', subject: id }"
              :prior="before?.reheat_w"
              quantity="load"
            />
          </td>
          <td class="num">its peak</td>
        </tr>
        <tr v-if="result.terminal_fans_w > 0">
          <td>Fans in terminals</td>
          <td class="num">
            <Figure
              :value="result.terminal_fans_w"
              :prior="before?.terminal_fans_w"
              quantity="electric_power"
              :explain="{ quantity: 'terminal_fans', subject: id }"
            />
          </td>
          <td class="num">{{ system.terminal_fan }}</td>
        </tr>
        <tr>
          <td>Supply fan, static</td>
          <td class="num" data-test="fan-static">
            <Figure
              :value="result.fan.static_pa"
              :prior="before?.fan.static_pa"
              quantity="pressure"
              :explain="{ quantity: 'fan_static', subject: id }"
            />
          </td>
          <td class="num"><Figure :value="result.fan.total_pa" quantity="pressure" bare /> tot.</td>
        </tr>
        <tr>
          <td>&nbsp; flow off the coil</td>
          <td class="num">
            <Figure :value="result.fan.flow_m3_s" :prior="before?.fan.flow_m3_s" quantity="airflow" />
          </td>
          <td />
        </tr>
        <tr>
          <td>&nbsp; electrical power</td>
          <td class="num">
            <Figure
              :value="result.fan.electrical_w"
              quantity="electric_power"
              :explain="{ quantity: 'fan_power', subject: id }"
            />
          </td>
          <td class="num">+<Figure :value="result.fan.rise_k" quantity="temperature_difference" /></td>
        </tr>
        <tr v-for="point in partLoads" :key="point.share">
          <td>&nbsp; at <Figure :value="point.share" quantity="percent" /> of its flow</td>
          <td class="num">
            <Figure
              :value="point.electrical_w"
              quantity="electric_power"
              :explain="{ quantity: `fan_power_${Math.round(point.share * 100)}`, subject: id }"
            />
          </td>
          <td class="num"><Figure :value="point.total_pa" quantity="pressure" bare /> tot.</td>
        </tr>
        <tr>
          <td>&nbsp; specific fan power</td>
          <td class="num">
            <Figure :value="result.fan.specific_fan_power_w_m3_s" quantity="specific_fan_power" />
          </td>
          <td />
        </tr>
        <tr>
          <td>&nbsp; motor, next size</td>
          <td class="num"><Figure :value="result.fan.motor_w" quantity="electric_power" /></td>
          <td />
        </tr>
        <tr v-if="returnFan">
          <td>Return fan, total</td>
          <td class="num">
            <Figure
              :value="returnFan.pressure_pa"
              quantity="pressure"
              :explain="result.networks.return ? { quantity: 'return_pressure', subject: id } : undefined"
            />
          </td>
          <td class="num"><Figure :value="returnFan.electrical_w" quantity="electric_power" /></td>
        </tr>
        <tr>
          <td>Outdoor air needed</td>
          <td class="num">
            <Figure
              :value="result.outdoor_air.intake_m3_s"
              :explain="{ quantity: 'system_outdoor_air', subject: id }"
              :prior="before?.outdoor_air.intake_m3_s"
              quantity="airflow"
            />
          </td>
          <td class="num">{{ Math.round(result.outdoor_share * 100) }} %</td>
        </tr>
      </tbody>
    </v-table>
    <p class="soft">
      {{ outdoorRule }} The coil's peak is searched over all months and steps, apart from the rooms' peaks.
      Heat balances of unit and rooms close within {{ Math.max(result.balance, 1e-15).toExponential(0) }}.
    </p>
  </section>
</template>

<style scoped>
.duties {
  border-left: 1px solid var(--line);
  padding: 8px 10px;
  overflow: auto;
}
.plain :deep(td),
.plain :deep(th) {
  height: 24px;
  padding: 1px 4px;
  white-space: nowrap;
}
.soft {
  font-size: 12px;
  margin-top: 6px;
  font-family: var(--narrow);
}
</style>
