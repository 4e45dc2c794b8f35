<script setup lang="ts">
import type { Schemas } from "@/api/client";
import { toShown, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, onMounted, ref } from "vue";

type Entry = Schemas["ProofEntry"];

const view = useView();
const entries = ref<Entry[] | null>(null);
const fault = ref("");
const chapters = computed(() => {
  const found = new Map<string, Entry[]>();
  for (const entry of entries.value ?? [])
    found.set(entry.chapter, [...(found.get(entry.chapter) ?? []), entry]);
  return [...found];
});
const holding = computed(() => (entries.value ?? []).filter((entry) => entry.holds).length);
/** A difference of temperatures is not a temperature. */
const apart = (quantity: string) => (quantity === "temperature" ? "temperature_difference" : quantity);
/** More digits than elsewhere: they are what is compared. */
function shown(value: number, quantity: string, digits: number): string {
  const figure = Number(toShown(value, quantity, view.system).toPrecision(digits));
  return `${figure} ${unitOf(quantity, view.system)}`.trim().replace("-", "−");
}
const share = (value: number) => (value < 0.005 ? "under 1 %" : `${Math.round(value * 100)} %`);

onMounted(async () => {
  try {
    const answer = await fetch("/api/proof");
    if (!answer.ok) throw new Error(`The server answered ${answer.status}.`);
    entries.value = (await answer.json()) as Entry[];
  } catch (error) {
    fault.value = error instanceof Error ? error.message : String(error);
  }
});
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Proof book</h1>
      <span v-if="entries" class="soft" role="note"
        >{{ holding }} of {{ entries.length }} hold, run on this installation</span
      >
      <span v-else-if="!fault" class="soft">running the cases …</span>
    </div>
    <p v-if="fault" class="empty" role="alert">{{ fault }}</p>
    <div class="body" tabindex="0" role="region" aria-label="Cases">
      <p class="soft intro">
        Figures that were calculated apart from this program, by other means, beside what the program finds
        for the same inputs; and what must hold of every room. “Of it” is how much of the bound the difference
        takes up.
        <code>python -m pendrum_core.proof</code> prints the same.
      </p>
      <section v-for="[chapter, list] in chapters" :key="chapter">
        <h2>{{ chapter }}</h2>
        <v-table class="plain">
          <thead>
            <tr>
              <th>figure</th>
              <th class="num">expected</th>
              <th class="num">found</th>
              <th class="num">bound</th>
              <th class="num">of it</th>
              <td></td>
              <th>expected by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="entry in list" :key="entry.name" :class="{ fails: !entry.holds }">
              <td>{{ entry.name }}</td>
              <td class="num">{{ shown(entry.expected, entry.quantity, 5) }}</td>
              <td class="num">{{ shown(entry.found, entry.quantity, 5) }}</td>
              <td class="num">± {{ shown(entry.within, apart(entry.quantity), 2) }}</td>
              <td class="num">{{ share(entry.share_of_bound) }}</td>
              <td>{{ entry.holds ? "holds" : "fails" }}</td>
              <td class="soft" :title="entry.source">{{ entry.source }}</td>
            </tr>
          </tbody>
        </v-table>
      </section>
    </div>
  </div>
</template>

<style scoped>
.body {
  overflow: auto;
  padding: 6px 18px 30px;
  font-family: var(--narrow);
}
.intro {
  max-width: 92ch;
}
h2 {
  margin: 14px 0 4px;
}
.plain.v-table {
  width: 100%;
}
td:first-child {
  width: 27%;
}
.num {
  white-space: nowrap;
}
td:last-child {
  max-width: 380px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.fails td {
  color: var(--ember);
  font-weight: 600;
}
</style>
