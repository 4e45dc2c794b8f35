<script setup lang="ts">
import { computed, ref, watch } from "vue";
import { find, useJumps, type Jump, type Panel } from "./jumps";

const emit = defineEmits<{ close: []; open: [panel: Panel] }>();
const text = ref("");
const index = ref(0);
const jumps = useJumps((panel) => emit("open", panel));
const all = computed(jumps);
const found = computed(() => find(all.value, text.value));

/** The box is closed first: what is gone to may open a panel of its own. */
function take(jump: Jump | undefined): void {
  emit("close");
  jump?.go();
}
/** The field takes the keys at once: whoever presses / types on. */
const field = ref<{ focus: () => void } | null>(null);
watch(field, (there) => there?.focus(), { flush: "post" });
</script>

<template>
  <v-dialog :model-value="true" max-width="560" aria-label="Jump to" @update:model-value="emit('close')">
    <v-card class="box">
      <v-text-field
        ref="field"
        v-model="text"
        label="Jump to a thing, a page, a snag or a command"
        @update:model-value="index = 0"
        @keydown.down.prevent="index = Math.min(found.length - 1, index + 1)"
        @keydown.up.prevent="index = Math.max(0, index - 1)"
        @keydown.enter.prevent="take(found[index])"
      />
      <v-list selectable aria-label="What was found">
        <v-list-item
          v-for="(jump, i) in found"
          :key="i"
          :active="i === index"
          :title="jump.name"
          @click="take(jump)"
        >
          <template #append>
            <kbd v-if="jump.key">{{ jump.key }}</kbd>
            <span class="soft what">{{ jump.what }}</span>
          </template>
        </v-list-item>
      </v-list>
      <p v-if="!found.length" class="soft">Nothing has that name.</p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 12px;
}
.what {
  margin-left: 10px;
  min-width: 64px;
  text-align: right;
}
</style>
