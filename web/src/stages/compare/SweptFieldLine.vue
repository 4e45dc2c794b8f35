<script setup lang="ts">
/** What is swept, of which thing, from where to where. */
import Choice from "@/parts/Choice.vue";
import TextBox from "@/parts/TextBox.vue";
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { FIELDS, type SweptField } from "./sweptField";

const props = defineProps<{ swept: SweptField; second?: boolean }>();
const { at, thing, things, from, to, field } = props.swept;
const view = useView();
const named = (label: string) => (props.second ? `Second ${label.toLowerCase()}` : label);
</script>

<template>
  <Choice v-model="at" class="wide" :label="named('Swept')" :choices="FIELDS" />
  <Choice v-model="thing" class="wide" :label="named('Of')" :choices="things" />
  <span class="soft">from</span>
  <TextBox v-model="from" class="short" type="number" :label="named('From')" />
  <span class="soft">to</span>
  <TextBox v-model="to" class="short" type="number" :label="named('To')" />
  <span class="soft">{{ unitOf(field.quantity, view.system) }}</span>
</template>

<style scoped>
.wide {
  flex: 0 0 220px;
}
</style>
