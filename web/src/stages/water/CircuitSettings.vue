<script setup lang="ts">
import type { Circuit } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import { choicesOf } from "@/parts/saving";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { computed } from "vue";

const props = defineProps<{ circuit: Circuit }>();
const results = useResults();
const doc = useDocument();
type Key = keyof Circuit & string;
const field = fieldsFor("circuit", () => props.circuit);
const schedules = (kind: string) => choicesOf(doc.rows("schedule").filter((row) => row.kind === kind));
/** What fields choose from, where it is not all of a kind. */
const lists = computed<Partial<Record<Key, { choices: ReturnType<typeof choicesOf>; empty: string }>>>(
  () => ({
    running: { choices: schedules("on_off"), empty: "at any hour" },
    flow_schedule: { choices: schedules("temperature"), empty: "as designed" },
  }),
);
const byRefrigerant = computed(() => props.circuit.medium === "refrigerant");
const WATER: Key[] = ["return_c", "glycol"];
const GLYCOL: Key[] = ["glycol_share"];
const RULES: Record<string, Key[]> = {
  outdoors: ["reset_cold_c", "flow_mild_c", "reset_mild_c"],
  schedule: ["flow_schedule"],
};
const PIPES: Key[] = ["piping", "pipe", "friction_limit_pa_m", "velocity_limit_m_s"];
const BUFFER: Key[] = ["buffer_k", "pinned_buffer_m3"];
const VESSEL: Key[] = ["static_height_m", "safety_valve_pa", "source_content_m3"];
const RUNS: Key[] = ["running", "starts_c", "stops_c"];
const LOST = computed<Key[]>(() => [
  "pipe_insulation_m",
  ...(insulated.value
    ? AROUND
    : [...(props.circuit.loss_w_m2 === null ? (["loss_share"] as Key[]) : []), "loss_w_m2" as Key]),
  "loss_to",
]);
const AROUND: Key[] = ["pipe_insulation_w_mk", "pipe_around_c"];
const insulated = computed(() => props.circuit.pipe_insulation_m !== null);
/** Whether water takes the heat of any of its chillers. */
const byWater = computed(() =>
  doc
    .rows("plant_unit")
    .some((row) => row.circuit === props.circuit.id && row.kind === "water-cooled chiller"),
);
const REJECTION: Key[] = [
  "rejection",
  "rejection_approach_k",
  "rejection_range_k",
  "rejection_least_c",
  "rejection_fan_w_w",
  "rejection_drop_pa",
  "rejection_pump_efficiency",
];
const TOWER: Key[] = ["rejection_cycles", "rejection_above_pump_m", "rejection_suction_pa", "rejection_npsh_m"]; // prettier-ignore
const CEILING: Record<string, Key[]> = {
  ceilings: ["ceiling_kind", "ceiling_rating_w_m2", "ceiling_exponent", "ceiling_area_share"],
  beams: ["ceiling_kind", "ceiling_rating_w_m", "ceiling_exponent"],
};
const RATED: Key[] = ["rated_exponent", "rated_flow_c", "rated_return_c", "rated_room_c"];
const PANEL: Key[] = ["panel_w_m", ...RATED];
const FLOOR: Key[] = ["floor_spacing_m", "floor_pipe_m", "floor_cover_m", "floor_covering_m2k_w", "floor_area_share"]; // prettier-ignore
const feed = computed(() => results.get("feed", props.circuit.id));
const feedBefore = computed(() => results.prior("feed", props.circuit.id));
const found = computed(() => results.get("circuit", props.circuit.id));
const before = computed(() => results.prior("circuit", props.circuit.id));
/** A group of fields; without any it is left out. */
const group = (title: string, ...keys: (Key | Key[] | false)[]): [string, Key[]] => [
  title,
  keys.flatMap((key) => key || []),
];
const emitters = (c: Circuit) =>
  c.kind === "chilled"
    ? CEILING[c.ceiling_kind ?? "ceilings"]!
    : [
        "emitters" as Key,
        ...(c.emitters === "underfloor" ? FLOOR : c.emitters === "radiant panels" ? PANEL : RATED),
      ];
const groups = computed(() => {
  const c = props.circuit;
  const water = !byRefrigerant.value;
  return [
    group("Source", water && "source", water && !!c.source && "connection", water && !!c.source && c.connection === "exchanger" && "approach_k"),
    group("Flow", "medium", "flow_c", water && WATER, water && c.glycol !== "none" && GLYCOL, "flow_rule", RULES[c.flow_rule ?? ""] ?? []),
    group("When it runs", RUNS),
    group("Pipes", water && PIPES),
    group("Lost on the way", water && LOST.value, !water && "loss_share"),
    group("Rooms", water && emitters(c)),
    group("Heat of its chillers", byWater.value && REJECTION, byWater.value && c.rejection === "tower" && TOWER),
    group("Buffer store", water && !c.source && "buffer_h", water && !c.source && c.buffer_h !== null && BUFFER),
    group("Expansion vessel", water && VESSEL),
  ].filter(([, keys]) => keys.length > 0);
}); // prettier-ignore
</script>

<template>
  <div class="body" style="max-width: 400px; overflow: auto">
    <Field v-bind="field('name')" />
    <template v-for="[title, keys] in groups" :key="title">
      <h2>{{ title }}</h2>
      <Field v-for="key in keys" :key="key" v-bind="field(key, lists[key])" />
      <p v-if="title === 'When it runs' && found && found.stopped_w > 0">
        Up to
        <Figure
          :value="found.stopped_w"
          :prior="before?.stopped_w"
          quantity="load"
          :explain="{ quantity: 'circuit_stopped', subject: circuit.id }"
        />
        are asked of it while it does not run. Stores of hot water are charged all the same.
      </p>
      <p v-if="title === 'Source' && feed" data-test="feed">
        It takes
        <Figure
          :value="feed.source_flow_m3_s"
          :prior="feedBefore?.source_flow_m3_s"
          quantity="water_flow"
          :explain="{ quantity: 'circuit_feed', subject: circuit.id }"
        />
        of {{ doc.get("circuit", feed.source)?.name }} at
        <Figure :value="feed.flow_c" quantity="temperature" /> and sends it back at
        <Figure :value="feed.return_c" quantity="temperature" /><template v-if="feed.connection === 'mixed'"
          >: <Figure :value="feed.share" quantity="percent" /> of its own flow, the rest is its
          return</template
        ><template v-else-if="feed.connection === 'exchanger'"
          >, through an exchanger of <Figure :value="feed.duty_w" quantity="load" /> and
          <Figure :value="feed.ua_w_k" quantity="heat_loss" /></template
        >.
      </p>
      <p v-if="title === 'Lost on the way' && found?.pipes_lose_w != null">
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
    <p v-if="byRefrigerant" class="soft">
      Refrigerant goes from its machines straight into the coils of the units that its sections end at. Its
      machines stand under Plant, told for the temperature where it boils or condenses; its pipes and its oil
      are their maker's affair and are not sized here.
    </p>
    <p v-else class="soft">
      The pumps stand under Pumps: their head is calculated from the index run; a section stands for flow and
      return together. Pipes and pump are sized for the largest duties of their ends; units under Plant for
      what all ends ask together at one time.
    </p>
  </div>
</template>
