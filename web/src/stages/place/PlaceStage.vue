<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import { useDocument } from "@/document/store";
import BuildingPeaks from "@/parts/BuildingPeaks.vue";
import { addressed } from "@/view/address";
import { ref, type Ref } from "vue";
import ChoicesView from "./ChoicesView.vue";
import DesignDaysView from "./DesignDaysView.vue";
import GroundView from "./GroundView.vue";
import SiteView from "./SiteView.vue";
import WeatherView from "./WeatherView.vue";

const doc = useDocument();
const VIEWS = {
  days: ["Design days", DesignDaysView],
  site: ["Site and sun", SiteView],
  ground: ["Ground", GroundView],
  weather: ["Weather file", WeatherView],
  choices: ["Choices", ChoicesView],
} as const;
const TITLES = Object.fromEntries(Object.entries(VIEWS).map(([key, [title]]) => [key, title]));
// A project that still has the starter site begins with it.
const view = ref<keyof typeof VIEWS>(doc.site?.name === "Starter site" ? "site" : "days");
addressed("page", view as Ref<string>, true, (text) => text in VIEWS);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Place</h1>
      <Segments v-model="view" label="Part of the place" :choices="TITLES" />
      <span class="soft">{{ doc.site?.name }}</span>
      <BuildingPeaks />
    </div>
    <div v-if="doc.site && doc.project" class="body">
      <component :is="VIEWS[view][1]" />
    </div>
  </div>
</template>
