<script setup lang="ts">
/** A button that asks for a file. The input itself is not seen; the button opens it. */
import { ref } from "vue";

defineProps<{
  /** What the file is, for those who do not see the button. */
  label: string;
  text: string;
  accept: string;
}>();
const emit = defineEmits<{ file: [file: File] }>();
const input = ref<HTMLInputElement | null>(null);

function take(): void {
  const file = input.value?.files?.[0];
  // The same file may be chosen again.
  if (file) emit("file", file);
  if (input.value) input.value.value = "";
}
</script>

<template>
  <Act @click="input?.click()">{{ text }}</Act>
  <input
    ref="input"
    type="file"
    class="unseen"
    tabindex="-1"
    :accept="accept"
    :aria-label="label"
    @change="take"
  />
</template>

<style scoped>
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
  pointer-events: none;
}
</style>
