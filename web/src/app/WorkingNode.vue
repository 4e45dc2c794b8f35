<script setup lang="ts">
import Figure from "@/parts/Figure.vue";
import { ref } from "vue";
import { usePlaces } from "./places";
import type { WorkingTree } from "./working";

const props = defineProps<{ node: WorkingTree; depth: number }>();
const open = ref(false);
const { toThing } = usePlaces();

/** To the input, with the cursor in its field. */
function goThere(): void {
  const [kind = "", id = ""] = props.node.place.split("/");
  toThing(kind, id, props.node.stage, props.node.field);
}
</script>

<template>
  <div class="node" :style="{ paddingLeft: depth * 10 + 'px' }">
    <div class="line">
      <v-btn
        variant="text"
        v-if="node.inputs.length || node.formula || node.source"
        class="name"
        :aria-expanded="open"
        @click="open = !open"
      >
        <span class="turn">{{ open ? "▾" : "▸" }}</span> {{ node.name }}
      </v-btn>
      <span v-else class="name">{{ node.name }}</span>
      <Figure v-if="node.value !== null" :value="node.value" :quantity="node.quantity" />
    </div>
    <p v-if="node.note || node.origin" class="soft note">
      {{ node.note }}
      <v-btn variant="text" v-if="node.origin" class="tag" title="Go there" @click="goThere">{{
        node.origin
      }}</v-btn>
    </p>
    <template v-if="open">
      <p v-if="node.formula" class="soft note">
        {{ node.symbol ? node.symbol + " = " : "" }}{{ node.formula }}
      </p>
      <p v-if="node.numbers" class="note">{{ node.numbers }}</p>
      <p v-if="node.source" class="soft note">{{ node.source }}</p>
      <WorkingNode v-for="(child, index) in node.inputs" :key="index" :node="child" :depth="depth + 1" />
    </template>
  </div>
</template>

<style scoped>
.name.v-btn,
.tag.v-btn {
  height: auto;
  padding: 0;
  font: inherit;
  justify-content: start;
  text-align: left;
}
.name :deep(.v-btn__content) {
  white-space: normal;
}
.tag.v-btn {
  padding: 0 4px;
  font-size: 11px;
}
.node {
  border-bottom: 1px solid var(--line);
  padding: 3px 0;
}
.node .node {
  border-bottom: 0;
}
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.name {
  flex: 1;
  text-align: left;
}
.turn {
  color: var(--soft);
}
.note {
  font-size: 12px;
  margin: 0;
  line-height: 1.3;
}
</style>
