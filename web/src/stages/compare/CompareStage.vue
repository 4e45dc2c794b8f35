<script setup lang="ts">
/** Options beside the base: figures, what is entered differently, sweeps of a field, and years against each other. */
import Segments from "@/parts/Segments.vue";
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { addressed } from "@/view/address";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { compared, type Comparison } from "./compare";
import MultiChoice from "@/parts/MultiChoice.vue";
import NewOption from "@/parts/NewOption.vue";
import { choicesOf } from "@/parts/saving";
import DifferencesView from "./DifferencesView.vue";
import SideBySide from "./SideBySide.vue";
import SweepView from "./SweepView.vue";
import YearsView from "./YearsView.vue";

const TABS = { side: "Side by side", differences: "Differences", sweep: "Sweep", years: "Years" } as const;
const MOST = 5;
const AFTER_MS = 300;
const doc = useDocument();
const options = useOptions();
const results = useResults();
const view = useView();
/** Whether the name of a new option is asked for. */
const asking = ref(false);
const tab = ref<keyof typeof TABS>("side");
addressed("view", tab as typeof tab & { value: string }, true, (text) => text in TABS);
const picked = ref<string[]>([]);
const found = ref<Comparison | null>(null);
const working = ref(false);

watch(
  () => options.options.map((option) => option.id).join(),
  () => {
    const there = options.options.map((option) => option.id);
    const kept = picked.value.filter((id) => there.includes(id));
    picked.value = kept.length ? kept : there.slice(0, MOST);
  },
  { immediate: true },
);
const columns = computed({
  get: () => picked.value,
  set: (ids: string[]) => (picked.value = ids.slice(0, MOST)),
});
let latest = 0;
async function look(): Promise<void> {
  const mine = ++latest;
  working.value = true;
  const answer = picked.value.length ? await compared(doc.projectId, picked.value, view.subject) : null;
  if (mine !== latest) return;
  found.value = answer;
  working.value = false;
}
let later = 0;
watch(
  [picked, () => doc.version, () => results.version, () => options.options, () => view.subject],
  () => {
    window.clearTimeout(later);
    later = window.setTimeout(() => void look(), AFTER_MS);
  },
  { immediate: true },
);
watch(
  () => doc.version,
  () => void options.load(),
);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Compare</h1>
      <MultiChoice
        v-if="options.options.length && tab !== 'sweep' && tab !== 'years'"
        v-model="columns"
        class="pick"
        label="Options beside the base"
        :choices="choicesOf(options.options)"
      />
      <v-progress-circular v-if="working" indeterminate size="18" width="2" aria-label="Comparing" />
      <span class="grow" />
      <Segments v-model="tab" label="View" :choices="TABS" />
    </div>
    <SweepView v-if="tab === 'sweep'" />
    <YearsView v-else-if="tab === 'years'" />
    <template v-else-if="!options.options.length">
      <p class="empty">
        No option yet. An option is a layer over the base: it holds only what differs. Start one, change what
        you like in it, and come back here; the button beside the project's name leads from one to the other.
      </p>
      <p class="next"><Act @click="asking = true">New option</Act></p>
      <NewOption v-if="asking" @close="asking = false" />
    </template>
    <DifferencesView v-else-if="tab === 'differences'" @changed="look" />
    <SideBySide v-else-if="found" :found="found" @calculated="look" />
    <p v-else-if="!picked.length" class="empty">Choose at least one option above.</p>
    <v-skeleton-loader v-else type="table" />
  </div>
</template>

<style scoped>
.next {
  padding: 0 14px;
}
.pick {
  flex: 0 1 420px;
}
</style>
