<script setup lang="ts">
import { useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import { useResults } from "@/results/store";
import type { Snag } from "@/results/types";
import { computed, onMounted, ref } from "vue";
import { usePlaces } from "./places";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const results = useResults();
const { toSnag } = usePlaces();
const box = ref<HTMLElement | null>(null);
const LEVELS = { stops: "stops the calculation", doubtful: "doubtful", note: "note" };
const snags = computed(() => {
  const all = results.rows("snag").map(([, snag]) => snag);
  return all.sort((a, b) => Object.keys(LEVELS).indexOf(a.level) - Object.keys(LEVELS).indexOf(b.level));
});

/** Snags of one kind under one heading where there are more than two; the first says what it is about. */
const groups = computed(() => {
  const byCode = new Map<string, Snag[]>();
  for (const snag of snags.value)
    byCode.set(`${snag.level} ${snag.code}`, [...(byCode.get(`${snag.level} ${snag.code}`) ?? []), snag]);
  return [...byCode].map(([key, all]) => ({ key, all }));
});
const FEW = 2;
const open = ref(new Set<string>());
function shown(key: string, all: Snag[]): Snag[] {
  return all.length <= FEW || open.value.has(key) ? all : all.slice(0, 1);
}
function toggle(key: string): void {
  if (!open.value.delete(key)) open.value.add(key);
}

function goThere(snag: Snag): void {
  toSnag(snag);
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
      <template v-for="{ key, all } in groups" :key="key">
        <div v-for="snag in shown(key, all)" :key="snag.id" class="snag" :class="snag.level">
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
        <TextAct v-if="all.length > FEW" class="more" :aria-expanded="open.has(key)" @click="toggle(key)">
          {{ open.has(key) ? `Only the first of these ${all.length}` : `${all.length - 1} more like this` }}
        </TextAct>
      </template>
    </div>
  </section>
</template>

<style scoped>
.panel {
  position: fixed;
  right: 0;
  top: var(--strip);
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
.more {
  margin: 2px 14px 8px;
}
.mend {
  display: block;
  margin-top: 6px;
}
</style>
