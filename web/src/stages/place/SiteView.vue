<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import Slide from "@/parts/Slide.vue";
import { MONTH_CHOICES } from "@/parts/months";
import { setField, useDocument } from "@/document/store";
import { fieldsFor } from "@/parts/declared";
import Field from "@/parts/Field.vue";
import LineChart from "@/parts/LineChart.vue";
import { clock, compass, MONTHS, toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { usePlaceDay } from "./day";
import SunPath from "./SunPath.vue";
import TiltSection from "./TiltSection.vue";

const doc = useDocument();
const view = useView();
const site = computed(() => doc.site!);
const tilt = ref(90);
const azimuth = ref(180);
const { day, month } = usePlaceDay(tilt, azimuth);
const field = fieldsFor("site", () => site.value);
const FIELDS = ["latitude", "longitude", "utc_offset_h", "elevation_m", "ground_reflectance", "cold_water_c", "winter_wind_m_s", "summer_wind_m_s"] as const; // prettier-ignore
const skyline = computed(() => site.value.skyline ?? []);

function saveSky(index: number, key: string) {
  return (value: unknown): Promise<void> => {
    const rows = skyline.value.map((row, i) => (i === index ? { ...row, [key]: value } : row));
    return doc.commit("Skyline", setField("site", site.value.id, "skyline", rows));
  };
}
async function addSky(): Promise<void> {
  const last = skyline.value.at(-1);
  const start = last ? last.to_deg : 135;
  const row = { from_deg: start, to_deg: (start + 45) % 360, height_m: 12, distance_m: 25 };
  await doc.attempt("Skyline", setField("site", site.value.id, "skyline", [...skyline.value, row]));
}
async function dropSky(index: number): Promise<void> {
  const rows = skyline.value.filter((_, i) => i !== index);
  await doc.attempt("Skyline", setField("site", site.value.id, "skyline", rows));
}
const series = computed(() => {
  const found = day.value?.surface;
  const shown = (values: number[] | undefined) => (values ?? []).map((v) => toShown(v, "irradiance", view.system));
  return [
    { name: "beam", colour: "var(--sun)", values: shown(found?.beam_w_m2) },
    { name: "sky", colour: "var(--tide)", values: shown(found?.sky_w_m2) },
    { name: "from the ground", colour: "var(--floors)", values: shown(found?.ground_w_m2) },
  ];
}); // prettier-ignore
</script>

<template>
  <div class="cols">
    <section>
      <h2>Site</h2>
      <Field v-bind="field('name')" />
      <Field v-for="key in FIELDS" :key="key" v-bind="field(key)" />
      <Field v-bind="field('terrain')" />
      <Field v-bind="field('shelter_class')" />
      <p v-if="day" class="soft small">
        Pressure of the standard atmosphere at this elevation:
        {{ toShown(day.pressure_pa, "air_pressure", view.system).toFixed(2) }}
        {{ unitOf("air_pressure", view.system) }}. Wind, terrain and shelter act where a use's leaks are
        entered as a leakage area.
      </p>
      <p v-if="site.name === 'Starter site'" class="fault">
        These are starter values. Enter your own site and conditions.
      </p>
    </section>
    <section>
      <h2>Sun and a surface</h2>
      <SunPath
        v-if="day"
        :elevation="day.sun_elevation_deg"
        :azimuth="day.sun_azimuth_deg"
        :step="view.step"
        :month="MONTHS[month - 1] ?? ''"
        :surface="{ tilt, azimuth, incidence: day.surface.incidence_deg }"
        :horizon="day.horizon_deg"
        @turn="azimuth = $event"
      />
      <TiltSection
        v-if="day"
        :tilt="tilt"
        :azimuth="azimuth"
        :sun-elevation="day.sun_elevation_deg[view.step] ?? -90"
        :sun-azimuth="day.sun_azimuth_deg[view.step] ?? 0"
        @tilt="tilt = $event"
      />
      <p class="row">
        <span class="what">azimuth</span>
        <Slide v-model="azimuth" :min="0" :max="359" label="Azimuth of the surface" />
        <b data-test="azimuth">{{ azimuth }}° {{ compass(azimuth) }}</b>
      </p>
      <p class="row">
        <span class="what">tilt</span>
        <Slide v-model="tilt" :min="0" :max="180" label="Tilt of the surface" />
        <b>{{ tilt }}° {{ tilt < 5 ? "roof" : tilt > 175 ? "faces down" : tilt === 90 ? "wall" : "" }}</b>
      </p>
      <p class="row">
        <span class="what">time</span>
        <Slide v-model="view.step" :min="0" :max="143" label="Time of day" />
        <b>{{ clock(view.step) }}</b>
        <Choice v-model="view.month" label="Month" :choices="MONTH_CHOICES" />
      </p>
    </section>
    <section>
      <div class="chart">
        <LineChart
          :title="`On the surface, ${MONTHS[month - 1]}`"
          :unit="unitOf('irradiance', view.system)"
          :series="series"
          :marker="(view.step + 0.5) / 6"
          zero
        />
      </div>
      <h2>Skyline</h2>
      <p class="soft small">
        What stands around, clockwise between two directions. It hides the sun and part of the sky.
      </p>
      <v-table v-if="skyline.length" class="plain" aria-label="Skyline">
        <thead>
          <tr>
            <th>from °</th>
            <th>to °</th>
            <th>height {{ unitOf("length", view.system) }}</th>
            <th>distance {{ unitOf("length", view.system) }}</th>
            <td />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(part, i) in skyline" :key="i">
            <td>
              <Field
                bare
                :label="`Part ${i + 1} from`"
                :value="part.from_deg"
                :editor="{ type: 'number', quantity: 'angle' }"
                :save="saveSky(i, 'from_deg')"
              />
            </td>
            <td>
              <Field
                bare
                :label="`Part ${i + 1} to`"
                :value="part.to_deg"
                :editor="{ type: 'number', quantity: 'angle' }"
                :save="saveSky(i, 'to_deg')"
              />
            </td>
            <td>
              <Field
                bare
                :label="`Part ${i + 1} height`"
                :value="part.height_m"
                :editor="{ type: 'number', quantity: 'length' }"
                :save="saveSky(i, 'height_m')"
              />
            </td>
            <td>
              <Field
                bare
                :label="`Part ${i + 1} distance`"
                :value="part.distance_m"
                :editor="{ type: 'number', quantity: 'length' }"
                :save="saveSky(i, 'distance_m')"
              />
            </td>
            <td>
              <TextAct :aria-label="`Remove part ${i + 1}`" @click="dropSky(i)">remove</TextAct>
            </td>
          </tr>
        </tbody>
      </v-table>
      <TextAct :disabled="doc.waiting > 0" @click="addSky">+ part of the skyline</TextAct>
    </section>
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: 318px minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 12px 26px;
}
.chart {
  height: 210px;
  margin-bottom: 10px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.row label {
  display: flex;
  gap: 8px;
  flex: 1;
}
.row b {
  min-width: 74px;
}
.small {
  font-size: 12px;
}
@media (max-width: 1099px) {
  .cols {
    display: block;
  }
}
</style>
