<script setup lang="ts">
import DialogBox from "@/parts/DialogBox.vue";
import { useDocument } from "@/document/store";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { STAGES } from "./stages";
import { VIEW_KEYS } from "./viewKeys";

const emit = defineEmits<{ close: [] }>();
const keys: [string, string][] = [
  ["Arrows, Enter, typing", "move and edit in grids"],
  ["Delete", "in a grid: step back to the inherited value"],
  ["Ctrl+C, Ctrl+V", "copy a cell, paste a block"],
  ["[ and ], with Shift", "10 minutes, an hour earlier and later"],
  ["P", "to the selection's peak"],
  ["W", "Working on and off"],
  ["S", "snags"],
  ["/ or Ctrl+K", "jump to …"],
  ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
  ...STAGES.map((stage): [string, string] => [`G ${stage.letter.toUpperCase()}`, stage.name]),
];
const doc = useDocument();
const router = useRouter();
const route = useRoute();
const stage = computed(() => STAGES.find((item) => item.key === route.name));
/** Keys of the stage first, where it has any of its own. */
const parts = computed(() => {
  const here = VIEW_KEYS[stage.value?.key ?? ""] ?? [];
  return [{ title: `On ${stage.value?.name}`, keys: here }, { title: "Everywhere", keys }].filter((part) => part.keys.length);
}); // prettier-ignore
function toProof(): void {
  void router.push(`/${doc.projectId}/proof`);
  emit("close");
}
</script>

<template>
  <DialogBox title="Keys" :width="860" @close="emit('close')">
    <div class="parts">
      <section v-for="part in parts" :key="part.title">
        <h3>{{ part.title }}</h3>
        <v-table class="plain" :aria-label="`Keys ${part.title.toLowerCase()}`">
          <tbody>
            <tr v-for="[key, what] in part.keys" :key="key">
              <td>
                <kbd>{{ key }}</kbd>
              </td>
              <td>{{ what }}</td>
            </tr>
          </tbody>
        </v-table>
      </section>
    </div>
    <template #actions>
      <TextAct @click="toProof">Proof book: how this program is checked</TextAct>
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 0 24px;
}
h3 {
  margin: 10px 0 2px;
  font-size: 14px;
}
.plain :deep(td) {
  padding: 1px 8px;
  height: 24px;
}
</style>
