<script setup lang="ts">
import { useDocument } from "@/document/store";
import { computed, onMounted, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { STAGES } from "./stages";
import { VIEW_KEYS } from "./viewKeys";

const emit = defineEmits<{ close: [] }>();
const box = ref<HTMLElement | null>(null);
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
onMounted(() => box.value?.focus());
</script>

<template>
  <div class="veil" @click.self="emit('close')">
    <div ref="box" class="box" role="dialog" aria-label="Keys" tabindex="-1" @keydown.esc="emit('close')">
      <h1>Keys</h1>
      <div class="parts">
        <section v-for="part in parts" :key="part.title">
          <h2>{{ part.title }}</h2>
          <table class="plain" :aria-label="`Keys ${part.title.toLowerCase()}`">
            <tbody>
              <tr v-for="[key, what] in part.keys" :key="key">
                <td>
                  <kbd>{{ key }}</kbd>
                </td>
                <td>{{ what }}</td>
              </tr>
            </tbody>
          </table>
        </section>
      </div>
      <p><button class="link" @click="toProof">Proof book: how this program is checked</button></p>
      <button class="act" @click="emit('close')">Close</button>
    </div>
  </div>
</template>

<style scoped>
.box {
  width: min(860px, 94vw);
  max-height: calc(100vh - 128px);
  overflow: auto;
}
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 0 24px;
}
h2 {
  margin: 10px 0 2px;
}
td {
  padding: 1px 8px !important;
  height: 24px !important;
}
.act {
  margin-top: 8px;
}
</style>
