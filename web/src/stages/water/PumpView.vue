<script setup lang="ts">
/** The pumps of a circuit: what they are, their curve against the network's, and what they take at part load. */
import type { Circuit } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import LineChart from "@/parts/LineChart.vue";
import type { CircuitResult } from "@/results/types";
import { format, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit; result: CircuitResult | undefined }>();
const view = useView();
const field = fieldsFor("circuit", () => props.circuit);
const pump = computed(() => props.result?.pump);
const groups = computed<[title: string, keys: (keyof Circuit & string)[]][]>(() => [
  ["Head", ["source_drop_pa", "pump_margin", "pinned_head_pa"]],
  ["Pumps", ["pump_count", "pump_standby", "pump_control", "water_flow", "diversity", "pump_efficiency"]],
  ["Motors", ["motor_class", ...(props.circuit.motor_class === "own" ? (["motor_efficiency"] as const) : []), "motor_margin"]],
  ["Another pump of the same duty", ["other_pump_efficiency", "other_motor_efficiency", "other_pump_control"]],
]); // prettier-ignore
const head = (values: number[]) => values.map((value) => toShown(value, "head", view.system));
const xs = computed(() =>
  (pump.value?.curve.flow_m3_s ?? []).map((value) => toShown(value, "water_flow", view.system)),
);
const design = computed(() => toShown(pump.value?.flow_m3_s ?? 0, "water_flow", view.system));
const controlled = computed(() => props.circuit.pump_control !== "constant speed");
const series = computed(() => {
  const curve = pump.value?.curve;
  if (!curve) return [];
  return [
    { name: "pump", colour: "var(--accent)", values: head(curve.pump_pa) },
    ...(controlled.value
      ? [{ name: "held by the control", colour: "var(--accent)", values: head(curve.held_pa), dashed: true }]
      : []),
    { name: "network", colour: "var(--ink)", values: head(curve.network_pa) },
  ];
});
/** Ticks from no flow past the design's. */
const ticks = computed(() => [0, 0.25, 0.5, 0.75, 1, 4 / 3].map((share) => share * design.value));
const names = computed(() =>
  ticks.value.map((value) =>
    format(value / (toShown(1, "water_flow", view.system) || 1), "water_flow", view.system),
  ),
);
</script>

<template>
  <div class="pumps">
    <div class="fields">
      <template v-for="[title, keys] in groups" :key="title">
        <h2>{{ title }}</h2>
        <Field v-for="key in keys" :key="key" v-bind="field(key)" />
      </template>
    </div>
    <div v-if="pump && pump.flow_m3_s" class="told">
      <LineChart
        class="chart"
        zero
        :title="`Head over flow in ${unitOf('water_flow', view.system)}`"
        :unit="unitOf('head', view.system)"
        :x="xs"
        :x-ticks="ticks"
        :x-names="names"
        :marker="design"
        :series="series"
      />
      <p class="soft">
        At design <Figure :value="pump.flow_m3_s" quantity="water_flow" /> and
        <Figure
          :value="pump.head_pa"
          quantity="head"
          :explain="{ quantity: 'pump_head', subject: circuit.id }"
        />; calculated <Figure :value="pump.calculated_head_pa" quantity="head" />, of it the network
        <Figure :value="pump.network_head_pa" quantity="head" />. With nothing throttled
        <Figure
          :value="pump.open_share * pump.flow_m3_s"
          quantity="water_flow"
          :explain="{ quantity: 'pump_open_flow', subject: circuit.id }"
        />
        flow.
        <template v-if="pump.diversity < 1">
          All ends at their own largest would take
          <Figure :value="pump.flow_m3_s / pump.diversity" quantity="water_flow" />; at one time it is
          <Figure :value="pump.diversity" quantity="percent" /> of that.
        </template>
      </p>
      <v-table class="plain" density="compact" aria-label="Part load">
        <thead>
          <tr>
            <th scope="col">Flow</th>
            <th scope="col" class="num">Head</th>
            <th scope="col" class="num">Efficiency</th>
            <th scope="col" class="num">Hydraulic</th>
            <th scope="col" class="num">Shaft</th>
            <th scope="col" class="num">Electric</th>
            <template v-if="pump.other_w">
              <th scope="col" class="num">Another</th>
              <th scope="col" class="num">saves</th>
            </template>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(point, at) in pump.part_loads" :key="point.share">
            <td><Figure :value="point.share" quantity="percent" /></td>
            <td class="num"><Figure :value="point.head_pa" quantity="head" /></td>
            <td class="num"><Figure :value="point.efficiency" quantity="percent" /></td>
            <td class="num"><Figure :value="point.hydraulic_w" quantity="machine_power" /></td>
            <td class="num"><Figure :value="point.shaft_w" quantity="machine_power" /></td>
            <td class="num">
              <Figure
                :value="point.electrical_w"
                quantity="machine_power"
                :explain="{
                  quantity: point.share === 1 ? 'pump_power' : `pump_power_${Math.round(point.share * 100)}`,
                  subject: circuit.id,
                }"
              />
            </td>
            <template v-if="pump.other_w">
              <td class="num"><Figure :value="pump.other_w[at]" quantity="machine_power" /></td>
              <td class="num">
                <Figure
                  :value="point.electrical_w - pump.other_w[at]!"
                  quantity="machine_power"
                  :explain="point.share === 1 ? { quantity: 'pump_saving', subject: circuit.id } : undefined"
                />
              </td>
            </template>
          </tr>
        </tbody>
      </v-table>
      <p class="soft">
        {{ pump.count === 1 ? "One pump" : `${pump.count} pumps together` }} on duty{{
          pump.standby ? `, ${pump.standby} on standby` : ""
        }}; motor and drive at <Figure :value="pump.motor_efficiency" quantity="percent" />. Without a maker’s
        curve: a quarter more head at no flow, falling with the square of the flow.
      </p>
    </div>
    <p v-else class="empty">No flow yet: draw pipes to ends that ask for heat or cold.</p>
  </div>
</template>

<style scoped>
.pumps {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
  min-height: 0;
  overflow: auto;
  padding: 6px 14px 14px;
}
.fields {
  flex: 0 0 320px;
}
.told {
  flex: 1 1 340px;
  min-width: 0;
}
.chart {
  height: 240px;
}
.told :deep(:is(th, td)) {
  padding: 0 5px;
}
</style>
