<script setup lang="ts">
/** A figure that is tried by sliding; arrow keys move it by a step. */
withDefaults(defineProps<{ label: string; modelValue: number; min: number; max: number; step?: number }>(), {
  step: 1,
});
const emit = defineEmits<{ "update:modelValue": [value: number] }>();
</script>

<template>
  <v-slider
    :model-value="modelValue"
    :min="min"
    :max="max"
    :step="step"
    :aria-label="label"
    @update:model-value="emit('update:modelValue', $event)"
  />
</template>
