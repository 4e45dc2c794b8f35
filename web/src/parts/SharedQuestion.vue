<script setup lang="ts">
import type { Shared } from "./shared";

const props = defineProps<{
  shared: Shared;
  name: string;
}>();
const emit = defineEmits<{
  /** Another thing to show instead: the copy that was made, or what took its place. */
  open: [id: string];
}>();
/** Places offered in the list; a place further on is found in the list of uses beside. */
const MOST = 300;
const { changed, asking, usages, others, reach } = props.shared;

async function only(event: Event): Promise<void> {
  const usage = usages.value.find((item) => item.key === (event.target as HTMLSelectElement).value);
  const made = usage ? await props.shared.onlyFor(usage) : "";
  if (made) emit("open", made);
}
async function replace(event: Event): Promise<void> {
  const other = (event.target as HTMLSelectElement).value;
  if (other && (await props.shared.replace(other))) emit("open", other);
}
</script>

<template>
  <div v-if="asking && usages.length" class="question" role="alert">
    <span
      ><b>{{ name }}</b> is used in {{ reach }}. It can go once they have another:</span
    >
    <select aria-label="Replace everywhere by" @change="replace">
      <option value="">choose what takes its place …</option>
      <option v-for="row in others" :key="row.id" :value="row.id">{{ row.name }}</option>
    </select>
    <button class="act" @click="asking = false">Keep it</button>
    <span v-if="!others.length" class="soft">There is no other yet: add one first.</span>
  </div>
  <div v-else-if="changed" class="question" role="status">
    <span
      ><b>{{ name }}</b
      >: changed for all of <b>{{ reach }}</b>.</span
    >
    <button class="act" @click="shared.keep()">Meant for all</button>
    <span>or only for</span>
    <select aria-label="Change only for" @change="only">
      <option value="">choose a place …</option>
      <option v-for="usage in usages.slice(0, MOST)" :key="usage.key" :value="usage.key">
        {{ [usage.name, usage.what].filter(Boolean).join(", ") }}
      </option>
      <option v-if="usages.length > MOST" disabled>and {{ usages.length - MOST }} more</option>
    </select>
    <span class="soft">which gets a copy. Ctrl+Z takes it back.</span>
  </div>
</template>

<style scoped>
.question {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 5px 14px;
  border-top: 1px solid var(--line);
  border-left: 3px solid var(--accent);
  background: var(--wash);
}
select {
  border: 1px solid var(--line);
  background: var(--field);
  height: 26px;
  max-width: 240px;
}
</style>
