<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { toShown, unitOf, format } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import WorkingNode from "./WorkingNode.vue";
import { asText, type WorkingTree } from "./working";

const doc = useDocument();
const results = useResults();
const view = useView();
const tree = ref<WorkingTree | null>(null);
const copied = ref(false);

/** Without a chosen figure: the selected room's peak, of the season that is looked at. */
const target = computed(() => {
  if (view.working) return view.working;
  const id = view.selectedRoom;
  const room = results.get("room", id);
  if (!room) return null;
  const summer = room.cooling ? "room_cooling" : "room_temperature";
  return { quantity: view.season === "heating" ? "room_heating" : summer, subject: id };
});

watch(
  () => view.subject,
  () => {
    const shown = view.working;
    if (shown?.quantity.startsWith("room_") && shown.subject !== view.selectedRoom) view.working = null;
  },
);

watch(
  [target, () => results.version],
  async ([wanted], _old, onCleanup) => {
    let stale = false;
    onCleanup(() => (stale = true));
    if (!wanted) {
      tree.value = null;
      return;
    }
    const answer = await client.GET("/api/projects/{project_id}/working", {
      params: { path: { project_id: doc.projectId }, query: wanted },
    });
    if (stale) return;
    tree.value = answer.response.ok ? unwrap(answer) : null;
  },
  { immediate: true },
);

async function copy(): Promise<void> {
  if (!tree.value) return;
  await navigator.clipboard.writeText(asText(tree.value));
  copied.value = true;
  setTimeout(() => (copied.value = false), 2000);
}

const other = computed(() => (view.system === "SI" ? "IP" : "SI"));
</script>

<template>
  <aside class="panel" aria-label="Working">
    <div class="bar">
      <h2>Working</h2>
      <TextAct v-if="tree" @click="copy">{{ copied ? "Copied" : "Copy as text" }}</TextAct>
      <v-btn
        variant="text"
        class="close"
        title="Hide (W)"
        aria-label="Hide Working"
        @click="view.workingOpen = false"
      >
        ×
      </v-btn>
    </div>
    <div v-if="tree" class="scroll" tabindex="0" role="region" aria-label="Steps of the working">
      <p class="soft name">{{ tree.name }}</p>
      <p v-if="tree.value !== null" class="big">
        <b data-test="working-value">{{ format(tree.value, tree.quantity, view.system) }}</b>
        <span class="unit">{{ unitOf(tree.quantity, view.system) }}</span>
        <span class="soft">
          {{ Number(toShown(tree.value, tree.quantity, other).toPrecision(4)) }}
          {{ unitOf(tree.quantity, other) }}</span
        >
        <i class="soft"> {{ tree.symbol }}</i>
      </p>
      <div class="formula">
        {{ tree.formula }}<b v-if="tree.numbers">{{ tree.numbers }}</b>
      </div>
      <WorkingNode
        v-for="(node, index) in tree.inputs"
        :key="tree.name + node.name + index"
        :node="node"
        :depth="0"
      />
      <p class="soft small">{{ tree.source }}<br />{{ tree.note }}</p>
    </div>
    <p v-else class="empty">
      Choose a room, or any figure that is underlined when you point at it, to see how it came about.
    </p>
  </aside>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  font-family: var(--narrow);
}
.bar {
  display: flex;
  align-items: baseline;
  gap: 12px;
  padding: 9px 14px 3px;
}
.bar h2 {
  flex: 1;
  font-family: var(--sans);
}
.close {
  font-size: 18px;
  width: 20px;
}
.scroll {
  overflow: auto;
  padding: 0 14px 14px;
  flex: 1;
}
.name {
  margin-bottom: 2px;
}
.big b {
  font-size: 22px;
  font-family: var(--sans);
  font-variant-numeric: tabular-nums;
}
.big > * {
  margin-right: 7px;
}
.formula {
  background: var(--paper);
  border-left: 3px solid var(--accent);
  padding: 6px 9px;
  margin-bottom: 6px;
}
.formula b {
  display: block;
  font-weight: 600;
}
.small {
  font-size: 12px;
  margin-top: 10px;
}
</style>
