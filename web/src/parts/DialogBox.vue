<script setup lang="ts">
/** A dialog that is there while it is mounted: its title, what it holds, and its buttons. */
withDefaults(defineProps<{ title: string; width?: number }>(), { width: 620 });
const emit = defineEmits<{ close: [] }>();
defineSlots<{ default: () => unknown; actions: () => unknown }>();
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="width"
    scrollable
    :aria-label="title"
    @update:model-value="emit('close')"
  >
    <v-card>
      <v-card-title tag="h2">{{ title }}</v-card-title>
      <v-card-text><slot /></v-card-text>
      <v-card-actions><slot name="actions" /></v-card-actions>
    </v-card>
  </v-dialog>
</template>
