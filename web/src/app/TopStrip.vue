<script setup lang="ts">
import Segments from "@/parts/Segments.vue";
import OthersHere from "./OthersHere.vue";
import TaskTray from "./TaskTray.vue";
import { useSession } from "@/document/session";
import { useDocument } from "@/document/store";
import { useOptions } from "@/document/options";
import { useTasks } from "@/document/tasks";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { useView } from "@/view/store";
import { mdiFormatListBulleted, mdiFunctionVariant } from "@mdi/js";
import { computed, ref } from "vue";
import { useRoute } from "vue-router";
import OptionMenu from "./OptionMenu.vue";
import ProjectsMenu from "./ProjectsMenu.vue";
import { STAGES } from "./stages";

defineProps<{ projects: { id: string; name: string }[] }>();
const emit = defineEmits<{ jump: []; snags: []; keys: []; created: [id: string]; listed: [] }>();
const doc = useDocument();
const tasks = useTasks();
const options = useOptions();
const results = useResults();
const view = useView();
const route = useRoute();
const session = useSession();
const menu = ref<InstanceType<typeof ProjectsMenu> | null>(null);

const here = computed(() => STAGES.find((stage) => stage.key === route.name));
const rollThere = computed(() => here.value?.roll === true);
const workingThere = computed(() => here.value?.working === true);
const snags = computed(() => results.rows("snag").map(([, snag]) => snag));
const serious = computed(() => snags.value.filter((snag) => snag.level !== "note").length);

/** Rows that show whether work has begun on a stage. */
const filled: Record<string, () => boolean> = {
  place: () => doc.site?.name !== "Starter site",
  fabric: () => doc.rows("assembly").length > 0,
  schedules: () => doc.rows("schedule").length > 2,
  uses: () => doc.rows("use").length > 0,
  rooms: () => doc.rows("room").length > 0,
  loads: () => results.rows("room").length > 0,
  air: () => results.rows("air_system").length > 0,
  water: () => results.rows("circuit").length > 0,
  kit: () => results.rows("kit").length > 0,
  issue: () => tasks.tasks.some((task) => task.kind === "issue" && task.state === "done"),
  compare: () => options.options.length > 0,
  year: () => tasks.tasks.some((task) => task.kind === "year" && task.state === "done"),
};

const busy = computed(() => doc.waiting > 0 || !results.settled);
const state = computed(() => {
  if (doc.offline)
    return doc.waiting ? `no connection, ${counted(doc.waiting, "edit")} kept` : "no connection";
  if (results.fault) return "not all calculated";
  return busy.value ? "working" : `calculated in ${Math.round(results.milliseconds)} ms`;
});

function count(stage: string): number {
  return snags.value.filter((snag) => snag.stage === stage && snag.level !== "note").length;
}

/** The projects' dialogs are opened from the jump box too. */
defineExpose({ open: (what: "new project" | "all projects" | "history") => menu.value?.open(what) });
</script>

<template>
  <header class="top">
    <svg viewBox="0 0 24 24" width="26" height="26" aria-hidden="true">
      <path d="M5 3h14M12 3v9" stroke="currentColor" stroke-width="2" fill="none" />
      <circle cx="12" cy="17" r="4.5" fill="none" stroke="var(--accent)" stroke-width="2.4" />
    </svg>
    <strong class="word">Pendrum</strong>
    <ProjectsMenu
      ref="menu"
      :projects="projects"
      @created="emit('created', $event)"
      @listed="emit('listed')"
    />
    <OptionMenu v-if="doc.projectId" />
    <span v-if="session.role === 'reader'" class="tag">read only</span>
    <nav aria-label="Stages">
      <router-link
        v-for="stage in STAGES"
        :key="stage.key"
        :to="`/${doc.projectId}/${stage.key}`"
        :class="{ on: route.name === stage.key }"
        :title="`G then ${stage.letter.toUpperCase()}`"
      >
        {{ stage.name }}
        <span v-if="count(stage.key)" class="mark snag" :aria-label="`${count(stage.key)} snags`">{{
          count(stage.key)
        }}</span>
        <i v-else class="bar" :class="{ full: filled[stage.key]?.() }" />
      </router-link>
    </nav>
    <v-btn
      v-if="rollThere"
      class="panel"
      :icon="mdiFormatListBulleted"
      :aria-pressed="view.rollOpen"
      aria-label="List of rooms"
      title="List of rooms (L)"
      @click="view.rollOpen = !view.rollOpen"
    />
    <v-btn
      v-if="workingThere"
      class="panel"
      :icon="mdiFunctionVariant"
      :aria-pressed="view.workingOpen"
      aria-label="Working"
      title="Working (W)"
      @click="view.workingOpen = !view.workingOpen"
    />
    <v-btn variant="text" class="jump" title="Jump to (Ctrl+K or /)" @click="emit('jump')">/ jump</v-btn>
    <Segments v-model="view.system" label="Units" :choices="{ SI: 'SI', IP: 'IP' }" />
    <v-btn
      variant="text"
      class="icon"
      :title="view.dark ? 'Day drawing' : 'Night drawing'"
      @click="view.dark = !view.dark"
    >
      {{ view.dark ? "☀" : "☾" }}
    </v-btn>
    <v-btn variant="text" class="snags" title="Snags (S)" @click="emit('snags')">{{
      counted(serious, "snag")
    }}</v-btn>
    <v-btn variant="text" class="icon" title="Keys (?)" aria-label="Keys" @click="emit('keys')">?</v-btn>
    <OthersHere />
    <TaskTray />
    <span
      class="state"
      :class="{ lost: doc.offline }"
      role="status"
      :title="results.fault || `Version ${doc.version}`"
    >
      <i :class="{ busy }" />{{ state }}
    </span>
  </header>
</template>

<style scoped>
.panel {
  width: 28px;
  height: 28px;
  border-radius: 0;
  background: none;
  box-shadow: none;
  color: var(--faint);
}
.panel[aria-pressed="true"] {
  color: var(--accent);
}
.state.lost {
  font-weight: 700;
  color: var(--ember);
}
.top {
  grid-area: top;
  display: flex;
  align-items: center;
  gap: 9px;
  padding: 0 10px;
  border-bottom: 1px solid var(--ink);
  min-width: 0;
}
.word {
  font-size: 16px;
}
nav {
  display: flex;
  align-self: stretch;
  flex: 1;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
nav a {
  color: inherit;
  text-decoration: none;
  padding: 9px 6px 0;
  text-align: center;
  border-bottom: 3px solid transparent;
  font-size: 13px;
}
nav a.on {
  border-color: var(--accent);
  font-weight: 600;
}
.bar {
  display: block;
  height: 4px;
  width: 16px;
  border: 1px solid var(--soft);
  margin: 4px auto 0;
}
.bar.full {
  background: var(--soft);
}
.mark {
  display: block;
  font-size: 10px;
  line-height: 12px;
}
.mark.snag {
  color: var(--ember);
  font-weight: 600;
}
.jump.v-btn {
  height: 25px;
  border: 1px solid var(--line);
  background: var(--field);
  color: var(--soft);
  padding: 3px 8px;
  font-size: 12px;
  white-space: nowrap;
}
.icon.v-btn {
  width: 24px;
  height: 26px;
  padding: 0;
  font-size: 15px;
}
.snags.v-btn {
  padding: 0 4px;
  font-size: 12px;
  white-space: nowrap;
}
.snags:hover {
  text-decoration: underline;
}
.state {
  font-size: 11px;
  color: var(--soft);
  line-height: 1.2;
  flex: 0 0 84px;
}
.state i {
  display: inline-block;
  width: 8px;
  height: 8px;
  background: var(--accent);
  margin-right: 5px;
}
.state i.busy {
  background: var(--sun);
}
/* The name makes room for the last stages before anything else does. */
@media (max-width: 1339px) {
  .word {
    display: none;
  }
}
/* On a page as narrow as a phone's the stages have a row of their own, which moves sideways. */
@media (max-width: 720px) {
  .top {
    flex-wrap: wrap;
    align-content: stretch;
    gap: 0 7px;
  }
  .top > svg {
    display: none;
  }
  nav {
    order: 1;
    flex: 1 0 100%;
  }
}
/* At 200 % zoom the strip keeps what the work needs; the rest is on keys. */
@media (max-width: 1099px) {
  .word,
  .jump,
  .icon,
  .state {
    display: none;
  }
}
</style>
