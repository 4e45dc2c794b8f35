<script setup lang="ts">
import type { Usage } from "@/document/usage";
import Choice from "./Choice.vue";
import { choicesOf } from "./saving";
import type { Shared } from "./shared";

const props = defineProps<{
  shared: Shared;
  name: string;
}>();
const emit = defineEmits<{
  /** Another thing to show instead: the copy that was made, or what took its place. */
  open: [id: string];
}>();
const { changed, asking, usages, others, reach } = props.shared;

const placeOf = (usage: Usage) => [usage.name, usage.what].filter(Boolean).join(", ");

async function only(key: string): Promise<void> {
  const usage = usages.value.find((item) => item.key === key);
  const made = usage ? await props.shared.onlyFor(usage) : "";
  if (made) emit("open", made);
}
async function replace(other: string): Promise<void> {
  if (await props.shared.replace(other)) emit("open", other);
}
</script>

<template>
  <div v-if="asking && usages.length" class="question" role="alert">
    <span
      ><b>{{ name }}</b> is used in {{ reach }}. It can go once they have another:</span
    >
    <Choice
      label="Replace everywhere by"
      labelled
      model-value=""
      :choices="choicesOf(others)"
      @update:model-value="replace"
    />
    <Act @click="asking = false">Keep it</Act>
    <span v-if="!others.length" class="soft">There is no other yet: add one first.</span>
  </div>
  <div v-else-if="changed" class="question" role="status">
    <span
      ><b>{{ name }}</b
      >: changed for all of <b>{{ reach }}</b>.</span
    >
    <Act @click="shared.keep()">Meant for all</Act>
    <span>or only for</span>
    <Choice
      label="Change only for"
      labelled
      model-value=""
      :choices="usages.map((usage) => ({ value: usage.key, label: placeOf(usage) }))"
      @update:model-value="only"
    />
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
.question :deep(.choice) {
  min-width: 240px;
  max-width: 300px;
}
</style>
