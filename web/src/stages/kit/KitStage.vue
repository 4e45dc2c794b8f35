<script setup lang="ts">
import { useDocument } from "@/document/store";
import Segments from "@/parts/Segments.vue";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { counted } from "@/units/units";
import { computed, ref } from "vue";
import CatalogueView from "./CatalogueView.vue";
import KitList from "./KitList.vue";
import PricesView from "./PricesView.vue";

const doc = useDocument();
const results = useResults();
const view = useView();
const TABS = { list: "List", prices: "Prices", catalogue: "Catalogue" };
const tab = ref<"list" | "prices" | "catalogue">("list");
const lines = computed(() => results.rows("kit").length);
const FILES = { csv: "Export CSV", xlsx: "Export XLSX" };
const link = (kind: keyof typeof FILES) => `/api/projects/${doc.projectId}/kit.${kind}?system=${view.system}`;
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Kit</h1>
      <span class="soft">{{ counted(lines, "line") }}; everything sized or pinned, for procurement</span
      ><span class="grow" />
      <Segments v-model="tab" label="View" :choices="TABS" />
      <template v-if="tab !== 'catalogue'">
        <a
          v-for="(words, kind) in FILES"
          :key="kind"
          class="act"
          :href="link(kind)"
          :download="`kit.${kind}`"
          style="text-decoration: none; color: inherit"
          >{{ words }}</a
        >
      </template>
    </div>
    <PricesView v-if="tab === 'prices'" />
    <CatalogueView v-else-if="tab === 'catalogue'" />
    <KitList v-else />
  </div>
</template>
