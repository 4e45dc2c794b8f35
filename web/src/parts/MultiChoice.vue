<script setup lang="ts">
/** Several of a list, told in one line. */
import { computed } from "vue";

const chosen = defineModel<string[]>({ required: true });
const props = defineProps<{ label: string; choices: { value: string; label: string }[]; empty?: string }>();
const told = computed(() =>
  props.choices
    .filter((one) => chosen.value.includes(one.value))
    .map((one) => one.label)
    .join(", "),
);
</script>

<template>
  <v-select
    v-model="chosen"
    class="slim choice"
    multiple
    :items="choices"
    item-title="label"
    item-value="value"
    :placeholder="empty"
    :aria-label="label"
  >
    <template #selection="{ index }">
      <span v-if="index === 0">{{ told }}</span>
    </template>
  </v-select>
</template>
