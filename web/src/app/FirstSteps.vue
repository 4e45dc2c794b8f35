<script setup lang="ts">
import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { computed } from "vue";

/** The way from an empty project to its first load: what is done, and where the next step is. */
const doc = useDocument();
const results = useResults();
const view = useView();
const kit = computed(() => doc.get("kit", doc.project?.kit) ?? doc.rows("kit")[0]);
const rooms = computed(() => doc.rows("room"));
const steps = computed(() => [
  { to: "place", name: "Place", what: "site and design days", done: doc.site?.name !== "Starter site" },
  {
    to: "fabric", name: "Fabric", what: "assemblies, and a kit of them",
    done: Boolean(kit.value && (kit.value.outer_wall || kit.value.roof)),
  },
  { to: "uses", name: "Uses", what: "people, lights, set-points", done: doc.rows("use").length > 0 },
  { to: "rooms", name: "Rooms", what: "typed, drawn, or read from a file", done: rooms.value.length > 0 },
  { to: "loads", name: "Loads", what: "the first peak", done: results.get("group", "building") !== undefined },
]); // prettier-ignore
const next = computed(() => steps.value.findIndex((step) => !step.done));
const shown = computed(() => view.stepsTold && !rooms.value.some((room) => results.get("room", room.id)));
</script>

<template>
  <nav v-if="shown" class="steps" aria-label="First steps">
    <ol>
      <li v-for="(step, i) in steps" :key="step.to" :class="{ done: step.done, next: i === next }">
        <router-link :to="`/${doc.projectId}/${step.to}`" :aria-current="i === next ? 'step' : undefined">
          <span class="mark" aria-hidden="true">{{ step.done ? "✓" : i + 1 }}</span>
          <b>{{ step.name }}</b> <span class="soft">{{ step.what }}</span>
        </router-link>
      </li>
    </ol>
    <TextAct @click="view.stepsTold = false">Hide these steps</TextAct>
  </nav>
</template>

<style scoped>
.steps {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 14px;
  border-bottom: 1px solid var(--line);
  background: var(--panel);
  font-family: var(--narrow);
}
ol {
  display: flex;
  flex-wrap: wrap;
  flex: 1;
  gap: 2px 18px;
  margin: 0;
  padding: 0;
  list-style: none;
}
a {
  color: inherit;
  text-decoration: none;
}
a:hover b {
  color: var(--accent);
}
.mark {
  display: inline-block;
  min-width: 18px;
  margin-right: 6px;
  text-align: center;
  border: 1px solid var(--line);
}
.done .mark {
  color: var(--accent);
}
.next .mark {
  background: var(--accent);
  color: var(--paper);
  border-color: var(--accent);
}
</style>
