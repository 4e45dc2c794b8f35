<script setup lang="ts">
/** A store of hot water: who draws from it, what it holds, what charges it, and the sun before it. */
import { useDocument } from "@/document/store";
import type { HotWater } from "@/document/types";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import Figure from "@/parts/Figure.vue";
import LineChart from "@/parts/LineChart.vue";
import { choicesOf } from "@/parts/saving";
import { useResults } from "@/results/store";
import { counted, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{ store: HotWater }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const field = fieldsFor("hot_water", () => props.store);
const found = computed(() => results.get("hot_water", props.store.id));
const before = computed(() => results.prior("hot_water", props.store.id));
const heating = computed(() => choicesOf(doc.rows("circuit").filter((row) => row.kind === "heating")));
const shares = computed(() => choicesOf(doc.rows("schedule").filter((row) => row.kind === "fraction" || row.kind === "on_off"))); // prettier-ignore
/** Rooms that draw from it: those that name it, or all of them where it is the only one. */
const rooms = computed(() => {
  const only = doc.rows("hot_water").length === 1;
  return doc.rows("room").filter((room) => {
    const use = doc.get("use", room.use);
    const draws = use && (use.hot_water_l_person_day || use.hot_water_l_m2_day || use.hot_water_l_room_day);
    return draws && (room.hot_water === props.store.id || (only && !room.hot_water));
  });
});
type Key = keyof HotWater & string;
const groups = computed<[title: string, keys: Key[]][]>(() => [
  [
    "Store",
    [
      "store_c",
      "around_c",
      "usable_share",
      "reheat_h",
      "volume_l",
      "charge_w",
      ...(props.store.circuit ? (["priority"] as Key[]) : []),
    ],
  ],
  ["Circulation", ["loop_m", "loop_w_m", "loop_pump_w"]],
  ["Sun", ["collector_m2", ...(props.store.collector_m2 ? SUN : [])]],
]);
const SUN: Key[] = [
  "collector_tilt_deg", "collector_azimuth_deg", "collector_eta0", "collector_a1_w_m2k", "collector_a2_w_m2k2", "collector_excess_k",
  "tank_l", "tank_most_c",
]; // prettier-ignore
const shown = (values: number[]) => values.map((value) => toShown(value, "load", view.system));
const power = computed(() =>
  found.value
    ? [
        { name: "drawn", colour: "var(--tide)", values: shown(found.value.draw_w) },
        { name: "charged", colour: "var(--ember)", values: shown(found.value.charge_course_w) },
      ]
    : [],
);
const content = computed(() =>
  found.value
    ? [
        {
          name: "hot water left",
          colour: "var(--ink)",
          values: found.value.content_share.map((v) => v * 100),
        },
      ]
    : [],
);
const hour = computed(() => ((view.step + 0.5) * 24) / 144);

async function remove(): Promise<void> {
  const { id, name } = props.store;
  if (await doc.attempt(`Deleted ${name}`, [{ op: "delete", kind: "hot_water", id }])) view.circuit = "";
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ store.name }}</h1>
      <span class="soft"
        >hot water, {{ counted(rooms.length, "room") }} {{ rooms.length === 1 ? "draws" : "draw" }} from
        it</span
      >
      <span class="grow" />
      <Act @click="remove">Delete</Act>
    </div>
    <dl v-if="found" class="figures">
      <div>
        <dt>Busiest day</dt>
        <dd>
          <Figure
            :value="found.heat_j_day"
            :prior="before?.heat_j_day"
            quantity="energy"
            :explain="{ quantity: 'hot_water_day', subject: store.id }"
          />
          <span class="soft"><Figure :value="found.litres_day" quantity="litres" /></span>
        </dd>
      </div>
      <div>
        <dt>Store</dt>
        <dd>
          <Figure
            :value="found.volume_l"
            :prior="before?.volume_l"
            quantity="litres"
            :explain="{ quantity: 'hot_water_volume', subject: store.id }"
          />
          <span class="soft">needed <Figure :value="found.needed_l" quantity="litres" /></span>
        </dd>
      </div>
      <div>
        <dt>Charging power</dt>
        <dd>
          <Figure
            :value="found.charge_w"
            :prior="before?.charge_w"
            quantity="load"
            :explain="{ quantity: 'hot_water_charge', subject: store.id }"
          />
        </dd>
      </div>
      <div>
        <dt>Lost, all day</dt>
        <dd><Figure :value="found.losses_w" :prior="before?.losses_w" quantity="power" /></dd>
      </div>
      <div v-if="found.short_j > 1">
        <dt>Missing that day</dt>
        <dd class="fault"><Figure :value="found.short_j" quantity="energy" /></dd>
      </div>
    </dl>
    <p v-else class="empty">
      Nothing is drawn yet. Say under Uses how much hot water a person, an area or a room takes a day.
    </p>
    <div class="body two">
      <section class="fields">
        <Field v-bind="field('name')" />
        <Field v-bind="field('circuit', { choices: heating, empty: 'an electric element' })" />
        <Field v-bind="field('profile', { choices: shares, empty: 'even, all day' })" />
        <template v-for="[title, keys] in groups" :key="title">
          <h2>{{ title }}</h2>
          <Field v-for="key in keys" :key="key" v-bind="field(key)" />
        </template>
      </section>
      <section v-if="found" class="charts">
        <div class="chart">
          <LineChart
            title="Heat on the busiest day"
            :unit="unitOf('load', view.system)"
            :series="power"
            :marker="hour"
            zero
          />
        </div>
        <div class="chart">
          <LineChart title="Usable heat in the store" unit="%" :series="content" :marker="hour" zero />
        </div>
        <p class="soft">
          The store is as large as draws ever run ahead of its charging power, which fills it again in the
          time given (curves of need and supply, EN 12831-3). While it is charged, heating
          {{
            store.priority ? "waits: the plant gives the larger of the two" : "goes on: the plant gives both"
          }}. Over the year both tanks are fully mixed.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  margin: 0;
  padding: 6px 14px;
  border-bottom: 1px solid var(--hair);
}
.figures dt {
  font-size: 12px;
  color: var(--soft);
}
.figures dd {
  margin: 0;
  font-size: 15px;
}
.figures dd .soft {
  margin-left: 6px;
  font-size: 12px;
}
.two {
  display: grid;
  grid-template-columns: 372px minmax(0, 1fr);
  gap: 22px;
  overflow: hidden;
}
.fields,
.charts {
  overflow: auto;
  min-height: 0;
}
.chart {
  height: 220px;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
}
</style>
