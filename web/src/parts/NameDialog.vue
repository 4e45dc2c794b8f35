<script setup lang="ts">
/** Asks for the name of something new; what is refused stays to be mended. */
import { Refusal } from "@/api/client";
import { ref } from "vue";
import DialogBox from "./DialogBox.vue";

const props = defineProps<{
  title: string;
  label: string;
  /** What the button that makes it says. */
  action: string;
  make: (name: string) => Promise<void>;
}>();
const emit = defineEmits<{ close: [] }>();
defineSlots<{ default?: () => unknown }>();
const name = ref("");
const fault = ref("");

async function submit(): Promise<void> {
  try {
    await props.make(name.value.trim());
    emit("close");
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <DialogBox :title="title" :width="420" @close="emit('close')">
    <v-form id="new-name" @submit.prevent="submit">
      <slot />
      <v-text-field v-model="name" :label="label" autofocus />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    </v-form>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Cancel</Act>
      <Act class="on" type="submit" form="new-name">{{ action }}</Act>
    </template>
  </DialogBox>
</template>
