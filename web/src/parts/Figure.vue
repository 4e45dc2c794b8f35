<script setup lang="ts">
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

const props = defineProps<{
  /** SI value; null shows a dash. */
  value: number | null | undefined;
  /** Key of the unit registry. */
  quantity: string;
  /** SI value before the last edit. */
  prior?: number | null | undefined;
  /** Leave the unit to a table head. */
  bare?: boolean;
  /** What to explain when the figure is chosen. */
  explain?: { quantity: string; subject: string } | null;
}>();
const view = useView();
const text = computed(() => format(props.value, props.quantity, view.system));
const before = computed(() =>
  props.prior === undefined || props.prior === null ? "" : format(props.prior, props.quantity, view.system),
);
const changed = computed(() => before.value !== "" && before.value !== text.value);

function show(): void {
  if (props.explain) view.explain(props.explain.quantity, props.explain.subject);
}
</script>

<template>
  <component
    :is="explain ? 'button' : 'span'"
    class="figure"
    :class="{ can: explain }"
    :title="explain ? 'Show how this came about (W)' : undefined"
    @click="show"
  >
    <s v-if="changed" class="was">{{ before }}</s><span :class="{ now: changed }">{{ text }}</span
    ><span v-if="!bare && value !== null && value !== undefined" class="unit">{{
      unitOf(quantity, view.system)
    }}</span>
  </component>
</template>

<style scoped>
.figure {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.can:hover {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
</style>
