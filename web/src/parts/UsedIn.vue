<script setup lang="ts">
import type { Usage } from "@/document/usage";
import { counted } from "@/units/units";
import { computed } from "vue";
import type { Shared } from "./shared";

const props = defineProps<{
  shared: Shared;
  /** What the thing amounts to in a place, where that can be said. */
  meaning?: (usage: Usage) => string;
}>();
const emit = defineEmits<{
  /** The copy that one place was given. */
  open: [id: string];
}>();
const MOST = 40;
const { usages, reach } = props.shared;
const shown = computed(() => usages.value.slice(0, MOST));

/** How many rooms a place stands for, and what the thing amounts to there. */
function told(usage: Usage): string {
  const rooms = usage.kind !== "room" && usage.rooms.length > 1 ? counted(usage.rooms.length, "room") : "";
  return [rooms, props.meaning?.(usage)].filter(Boolean).join(" · ");
}

async function copy(usage: Usage): Promise<void> {
  const made = await props.shared.copyFor(usage);
  if (made) emit("open", made);
}
</script>

<template>
  <section class="used">
    <h2>Used in</h2>
    <p v-if="!usages.length" class="soft">Nothing refers to it yet.</p>
    <p v-else class="soft">{{ reach }}</p>
    <ul>
      <li v-for="usage in shown" :key="usage.key">
        <span
          ><b>{{ usage.name }}</b> <span class="soft">{{ usage.what }}</span><small v-if="told(usage)">{{
            told(usage)
          }}</small></span
        >
        <TextAct v-if="usages.length > 1" @click="copy(usage)">a copy for here</TextAct>
      </li>
      <li v-if="usages.length > MOST" class="soft">and {{ usages.length - MOST }} more</li>
    </ul>
  </section>
</template>

<style scoped>
.used {
  margin-top: 12px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 6px;
  max-height: 250px;
  overflow: auto;
  font-family: var(--narrow);
}
li {
  display: flex;
  gap: 8px;
  border-bottom: 1px solid var(--hair);
  padding: 2px 0;
}
li > :first-child {
  flex: 1;
  min-width: 0;
}
small {
  display: block;
  color: var(--soft);
}
.link {
  white-space: nowrap;
}
</style>
