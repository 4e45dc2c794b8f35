<script setup lang="ts" generic="T extends string | number">
/** One of several, in a line of controls; a long list is found in by typing. */
import { computed } from "vue";
import { VAutocomplete } from "vuetify/components/VAutocomplete";
import { VSelect } from "vuetify/components/VSelect";

interface Option {
  value: T;
  label: string;
}
const props = defineProps<{
  label: string;
  choices: Option[];
  modelValue: T | null | undefined;
  disabled?: boolean;
  /** The label stands in the field's border; otherwise it stays for readers. */
  labelled?: boolean;
  /** As wide as what is chosen, within a sentence. */
  fit?: boolean;
}>();
const emit = defineEmits<{ "update:modelValue": [value: T] }>();
/** From how many on a list is found in by typing. */
const LONG = 12;
const long = computed(() => props.choices.length > LONG);
/** Width of what is chosen, in characters, with the arrow. */
const width = computed(() => {
  const chosen = props.choices.find((choice) => choice.value === (props.modelValue ?? ""));
  return props.fit ? { width: `${Math.min(34, (chosen?.label.length ?? 6) + 5)}ch` } : undefined;
});
const value = computed({
  get: () => (props.modelValue === "" && props.labelled ? undefined : (props.modelValue ?? undefined)),
  set: (chosen) => {
    if (chosen !== null && chosen !== undefined) emit("update:modelValue", chosen as T);
  },
});
</script>

<template>
  <component
    :is="long ? VAutocomplete : VSelect"
    v-model="value"
    :style="width"
    class="choice"
    :class="{ slim: !labelled }"
    :items="choices"
    item-title="label"
    item-value="value"
    :label="labelled ? label : undefined"
    :aria-label="label"
    :disabled="disabled"
    :menu-props="{ maxHeight: 360 }"
  />
</template>
