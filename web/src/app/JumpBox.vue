<script setup lang="ts">
import { useDocument } from "@/document/store";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import { STAGES } from "./stages";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const view = useView();
const router = useRouter();
const text = ref("");
const index = ref(0);

interface Target {
  name: string;
  what: string;
  go: () => void;
}

function toStage(key: string, at = ""): void {
  void router.push({ path: `/${doc.projectId}/${key}`, query: at ? { at } : {} });
}

const targets = computed<Target[]>(() => [
  ...STAGES.map((stage) => ({ name: stage.name, what: "stage", go: () => toStage(stage.key) })),
  ...doc.rows("room").map((room) => ({
    name: `${room.number} ${room.name}`,
    what: "room",
    go: () => view.selectRoom(room.id),
  })),
  ...doc.rows("air_system").map((row) => ({
    name: row.name,
    what: "air system",
    go: () => {
      view.airSystem = row.id;
      toStage("air");
    },
  })),
  ...doc.rows("schedule").map((row) => ({
    name: row.name,
    what: "schedule",
    go: () => toStage("schedules", `schedule/${row.id}`),
  })),
  ...doc
    .rows("use")
    .map((row) => ({ name: row.name, what: "use", go: () => toStage("uses", `use/${row.id}`) })),
  ...doc
    .rows("assembly")
    .map((row) => ({ name: row.name, what: "assembly", go: () => toStage("fabric", `assembly/${row.id}`) })),
  { name: "Proof book", what: "how the program is checked", go: () => toStage("proof") },
  { name: "Undo", what: "command", go: () => void doc.undo() },
  { name: "Redo", what: "command", go: () => void doc.redo() },
]);
const found = computed(() => {
  const wanted = text.value.trim().toLowerCase();
  return targets.value.filter((target) => target.name.toLowerCase().includes(wanted)).slice(0, 14);
});

function take(target: Target | undefined): void {
  target?.go();
  emit("close");
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
        label="Jump to room, system, schedule or command"
        @update:model-value="index = 0"
        @keydown.down.prevent="index = Math.min(found.length - 1, index + 1)"
        @keydown.up.prevent="index = Math.max(0, index - 1)"
        @keydown.enter.prevent="take(found[index])"
      />
      <v-list selectable aria-label="What was found">
        <v-list-item
          v-for="(target, i) in found"
          :key="target.what + target.name"
          :active="i === index"
          :title="target.name"
          @click="take(target)"
        >
          <template #append>
            <span class="soft">{{ target.what }}</span>
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
</style>
