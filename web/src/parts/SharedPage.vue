<script setup lang="ts">
import BuildingPeaks from "./BuildingPeaks.vue";
import type { Shared } from "./shared";
import SharedQuestion from "./SharedQuestion.vue";

/** Page of a thing that several places may use: its name, what the building needs, copy, deletion and the question of sharing. */
const props = defineProps<{ shared: Shared; name: string }>();
const emit = defineEmits<{
  /** What to show instead: a copy, what took its place, or "" where it is gone. */
  open: [id: string];
}>();

async function copy(): Promise<void> {
  const made = await props.shared.copy();
  if (made) emit("open", made);
}
async function remove(): Promise<void> {
  if (await props.shared.remove()) emit("open", "");
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ name }}</h1>
      <slot name="head" />
      <BuildingPeaks />
      <span class="grow" />
      <Act @click="copy">Copy</Act>
      <Act @click="remove">Delete</Act>
    </div>
    <slot />
    <SharedQuestion :shared="shared" :name="name" @open="emit('open', $event)" />
  </div>
</template>
