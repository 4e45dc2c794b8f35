<script setup lang="ts" generic="T extends string | number">
/** A text or a figure in a line of controls; its label stays for readers. */
const props = defineProps<{
  label: string;
  modelValue: T;
  placeholder?: string;
  type?: string;
  min?: number;
  max?: number;
  step?: number;
}>();
const emit = defineEmits<{ "update:modelValue": [value: T] }>();

function tell(text: string): void {
  const value = typeof props.modelValue === "number" ? Number(text) : text;
  emit("update:modelValue", value as T);
}
</script>

<template>
  <v-text-field
    class="slim"
    :model-value="modelValue"
    :aria-label="label"
    :placeholder="placeholder"
    :type="type ?? 'text'"
    :min="min"
    :max="max"
    :step="step"
    @update:model-value="tell"
  />
</template>
