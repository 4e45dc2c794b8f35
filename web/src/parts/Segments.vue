<script setup lang="ts" generic="K extends string | number">
/** A choice among a few that all stand in sight: a press takes one. */
defineProps<{
  /** What is chosen, for those who do not see it. */
  label: string;
  /** Keys with their words, in order; or keys, words and a hint each. */
  choices: Readonly<Record<string, string>> | readonly { value: K; label: string; hint?: string }[];
}>();
const chosen = defineModel<K>({ required: true });
type Choices = Parameters<typeof listed>[0];
/** As a list: of words by key the keys are texts. */
function listed(choices: Readonly<Record<string, string>> | readonly { value: K; label: string; hint?: string }[]) {
  return Array.isArray(choices)
    ? (choices as { value: K; label: string; hint?: string }[])
    : Object.entries(choices as Record<string, string>).map(([value, label]) => ({ value: value as K, label, hint: undefined }));
} // prettier-ignore
</script>

<template>
  <v-btn-group class="toggle" role="group" :aria-label="label">
    <v-btn
      v-for="one in listed(choices as Choices)"
      :key="one.value"
      :active="chosen === one.value"
      :aria-pressed="chosen === one.value"
      :title="one.hint"
      @click="chosen = one.value"
      >{{ one.label }}</v-btn
    >
  </v-btn-group>
</template>
