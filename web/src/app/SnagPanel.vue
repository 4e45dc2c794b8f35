<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import { useResults } from "@/results/store";
import type { Snag } from "@/results/types";
import { useView } from "@/view/store";
import { computed, onMounted, ref } from "vue";
import { useRouter } from "vue-router";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const results = useResults();
const view = useView();
const router = useRouter();
const box = ref<HTMLElement | null>(null);
const LEVELS = { stops: "stops the calculation", doubtful: "doubtful", note: "note" };
const snags = computed(() => {
  const all = results.rows("snag").map(([, snag]) => snag);
  return all.sort((a, b) => Object.keys(LEVELS).indexOf(a.level) - Object.keys(LEVELS).indexOf(b.level));
});

/** Snags that are mended where the air balance of rooms stands. */
const BALANCE_CODES = new Set([
  "extract_without_make_up",
  "return_below_nought",
  "room_off_balance",
  "nothing_to_make_up",
]);

function goThere(snag: Snag): void {
  if (snag.kind === "room") view.selectRoom(snag.id);
  if (snag.kind === "surface") view.selectRoom(doc.get("surface", snag.id)?.room ?? "");
  else if (snag.kind === "opening") {
    view.selectRoom(doc.get("surface", doc.get("opening", snag.id)?.surface)?.room ?? "");
  } else if (snag.kind === "transfer" || BALANCE_CODES.has(snag.code)) view.airSystem = "balance";
  else if (snag.kind === "air_system") view.airSystem = snag.id;
  else if (snag.kind === "duct_section") view.airSystem = doc.get("duct_section", snag.id)?.air_system ?? "";
  else if (snag.kind === "circuit" || snag.kind === "hot_water") view.circuit = snag.id;
  else if (snag.kind === "pipe_section") view.circuit = doc.get("pipe_section", snag.id)?.circuit ?? "";
  view.wanted = snag.field ? { kind: snag.kind, id: snag.id, field: snag.field } : null;
  void router.push({ path: `/${doc.projectId}/${snag.stage}`, query: { at: `${snag.kind}/${snag.id}` } });
  emit("close");
}

onMounted(() => box.value?.focus());
</script>

<template>
  <section ref="box" class="panel" tabindex="-1" aria-label="Snags" @keydown.esc="emit('close')">
    <div class="head">
      <h1>Snags</h1>
      <span class="grow" /><Act @click="emit('close')">Close</Act>
    </div>
    <div class="list">
      <p v-if="!snags.length" class="empty">The checks found nothing.</p>
      <div v-for="snag in snags" :key="snag.code + snag.id" class="snag" :class="snag.level">
        <span class="tag">{{ LEVELS[snag.level] }}</span>
        <p>{{ snag.sentence }}</p>
        <TextAct @click="goThere(snag)">Go there: {{ snag.way_out }}</TextAct>
        <Act
          v-if="snag.mend"
          class="mend"
          title="One step that can be undone"
          @click="doc.attempt(snag.mend.label, snag.mend.changes as Change[])"
        >
          {{ snag.mend.label }}
        </Act>
      </div>
    </div>
  </section>
</template>

<style scoped>
.panel {
  position: fixed;
  right: 0;
  top: 48px;
  bottom: 0;
  width: min(430px, 92vw);
  background: var(--paper);
  border-left: 1px solid var(--ink);
  z-index: 25;
  display: flex;
  flex-direction: column;
}
.list {
  overflow: auto;
  flex: 1;
}
.snag {
  padding: 9px 14px;
  border-bottom: 1px solid var(--line);
  border-left: 4px solid var(--line);
}
.snag.stops {
  border-left-color: var(--ember);
}
.snag.doubtful {
  border-left-color: var(--sun);
}
.snag p {
  margin: 4px 0;
}
.link {
  text-align: left;
}
.mend {
  display: block;
  margin-top: 6px;
}
</style>
