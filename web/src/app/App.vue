<script setup lang="ts">
import { Refusal } from "@/api/client";
import { useOptions } from "@/document/options";
import { useSession } from "@/document/session";
import { useDocument } from "@/document/store";
import { useTasks } from "@/document/tasks";
import { addressed } from "@/view/address";
import { useView } from "@/view/store";
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useTheme } from "vuetify";
import ConflictDialog from "./ConflictDialog.vue";
import DayRail from "./rail/DayRail.vue";
import FirstSteps from "./FirstSteps.vue";
import { useFollowing } from "./following";
import JumpBox from "./JumpBox.vue";
import type { Panel } from "./jumps";
import KeyHelp from "./KeyHelp.vue";
import { useKeys } from "./keys";
import MessageBar from "./MessageBar.vue";
import RollPanel from "./RollPanel.vue";
import SignIn from "./SignIn.vue";
import SnagPanel from "./SnagPanel.vue";
import { STAGES } from "./stages";
import TopStrip from "./TopStrip.vue";
import WorkingPanel from "./WorkingPanel.vue";

const doc = useDocument();
const options = useOptions();
const view = useView();
const route = useRoute();
const router = useRouter();
const theme = useTheme();
const session = useSession();
const outside = ref(false);
const failure = ref("");
const listed = ref(false);
const panel = ref<"" | "jump" | "keys" | "snags">("");
const strip = ref<InstanceType<typeof TopStrip> | null>(null);
function show(what: Panel): void {
  if (what === "keys" || what === "snags") panel.value = what;
  else strip.value?.open(what);
}

const stage = computed(() => STAGES.find((item) => item.key === route.name));
const showRoll = computed(() => view.rollOpen && stage.value?.roll === true);
const showWorking = computed(
  () => view.workingOpen && (stage.value?.working === true || view.working !== null),
);
useFollowing();
const ready = computed(() => doc.projectId !== "" && doc.projectId === route.params["project"]);

/** Below this width panels lie over the stage: they are closed until they are asked for. */
const narrow = window.matchMedia("(max-width: 1099px)");
const overlaid = ref(narrow.matches);
function closePanels(): void {
  view.rollOpen = view.workingOpen = false;
}
function fit(): void {
  overlaid.value = narrow.matches;
  view.rollOpen = view.workingOpen = !narrow.matches;
}
if (narrow.matches) closePanels();
onMounted(() => narrow.addEventListener("change", fit));
onBeforeUnmount(() => narrow.removeEventListener("change", fit));

/** What is looked at, as it stands in the address. */
const of = computed({
  get: () => `${view.subject.kind}/${view.subject.id}`,
  set: (text) => {
    const [kind, id] = text.split("/");
    if ((kind === "room" || kind === "group") && id) view.subject = { kind, id };
  },
});
const hour = computed({
  get: () => `${view.month}-${view.step}`,
  set: (text) => {
    const [month, step] = text.split("-").map(Number);
    if (month! >= 0 && month! <= 13 && step! >= 0 && step! < 144) [view.month, view.step] = [month!, step!];
  },
});
addressed("of", of, true, (text) => /^(room|group)\/[\w.-]+$/.test(text));
addressed("hour", hour, false, (text) => /^\d{1,2}-\d{1,3}$/.test(text));

async function listProjects(): Promise<void> {
  await session.load();
  listed.value = true;
}

async function open(id: string): Promise<void> {
  failure.value = "";
  try {
    // Before the stage is shown: it may choose something of its own.
    const asked = typeof route.query["of"] === "string" && doc.projectId === "";
    // Between a base and its options what is looked at stays.
    if (!asked && !options.isRelated(id)) view.subject = { kind: "group", id: "building" };
    view.working = null;
    await doc.load(id);
    void useTasks().load();
    const { kind, id: subject } = view.subject;
    if (kind === "room" && !doc.get("room", subject)) view.subject = { kind: "group", id: "building" };
    view.openIn(doc.project?.units);
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}

/** Pages that somebody comes to by a mail's link: they stand alone, whoever is signed in. */
const DOORS = ["invited", "new password"];
const atDoor = computed(() => DOORS.includes(String(route.name)));

async function enter(): Promise<void> {
  outside.value = false;
  await router.isReady();
  if (atDoor.value) return;
  try {
    await listProjects();
  } catch (error) {
    if (error instanceof Refusal && error.problem.status === 401) outside.value = true;
    else failure.value = error instanceof Error ? error.message : String(error);
    return;
  }
  const first = session.projects[0];
  const asked = route.params["project"];
  if (route.name === "start" && first) await router.replace(`/${first.id}/loads`);
  else if (typeof asked === "string" && asked !== doc.projectId) await open(asked);
}
onMounted(enter);

watch(
  () => route.params["project"],
  (id) => {
    if (listed.value && typeof id === "string" && id !== doc.projectId) void open(id);
  },
);
watch(
  () => route.name,
  () => {
    view.working = null;
  },
);
watch(
  () => view.dark,
  (dark) => {
    theme.change(dark ? "night" : "day");
    document.documentElement.classList.toggle("night", dark);
  },
  { immediate: true },
);
watch(
  () => [stage.value?.name, doc.project?.name],
  () => {
    document.title = [stage.value?.name, doc.project?.name, "Pendrum"].filter(Boolean).join(" · ");
  },
);

async function created(id: string): Promise<void> {
  await listProjects();
  await router.push(`/${id}/place`);
}

useKeys({
  openPanel: (name) => {
    panel.value = panel.value === name ? "" : name;
  },
  goTo: (key) => router.push(`/${doc.projectId}/${key}`),
});
</script>

<template>
  <v-app>
    <router-view v-if="atDoor" />
    <SignIn v-else-if="outside" @done="enter" />
    <div
      v-else
      class="frame"
      :class="{ rail: stage?.rail && ready, noroll: !showRoll, noworking: !showWorking }"
    >
      <TopStrip
        ref="strip"
        :projects="session.projects"
        @jump="panel = 'jump'"
        @snags="panel = panel === 'snags' ? '' : 'snags'"
        @keys="panel = 'keys'"
        @created="created"
        @listed="listProjects"
      />
      <div v-if="overlaid && ready && (showRoll || showWorking)" class="over" @click="closePanels" />
      <RollPanel v-if="showRoll && ready" class="roll" />
      <main class="middle" tabindex="-1">
        <p v-if="failure" class="empty fault" role="alert">{{ failure }}</p>
        <p v-else-if="listed && !session.projects.length" class="empty">
          No project yet. Open “Projects” at the top left and choose “New project …”.
        </p>
        <p v-else-if="!ready" class="empty">Opening the project …</p>
        <template v-else>
          <FirstSteps />
          <router-view :key="doc.projectId" />
        </template>
      </main>
      <WorkingPanel v-if="showWorking && ready" class="working" />
      <DayRail v-if="stage?.rail && ready" class="dayrail" />
    </div>
    <SnagPanel v-if="panel === 'snags'" @close="panel = ''" />
    <JumpBox v-if="panel === 'jump'" @close="panel = ''" @open="show" />
    <KeyHelp v-if="panel === 'keys'" @close="panel = ''" />
    <ConflictDialog />
    <MessageBar />
  </v-app>
</template>

<style scoped>
.over {
  position: fixed;
  inset: var(--strip) 0 0;
  z-index: 19;
  background: rgb(0 0 0 / 25%);
}
.frame {
  display: grid;
  height: 100vh;
  min-height: 0;
  grid-template: "top top top" var(--strip) "roll middle working" minmax(0, 1fr) / 248px minmax(0, 1fr) 316px;
}
.frame.rail {
  grid-template:
    "top top top" var(--strip) "roll middle working" minmax(0, 1fr)
    "rail rail rail" 116px / 248px minmax(0, 1fr) 316px;
}
.frame.noroll {
  grid-template-columns: 0 minmax(0, 1fr) 316px;
}
.frame.noworking {
  grid-template-columns: 248px minmax(0, 1fr) 0;
}
.frame.noroll.noworking {
  grid-template-columns: 0 minmax(0, 1fr) 0;
}
.roll {
  grid-area: roll;
  border-right: 1px solid var(--line);
  min-height: 0;
}
.middle {
  display: flex;
  flex-direction: column;
  grid-area: middle;
  min-height: 0;
  min-width: 0;
  outline: none;
}
.working {
  grid-area: working;
  border-left: 1px solid var(--line);
  background: var(--panel);
  min-height: 0;
}
.dayrail {
  grid-area: rail;
  border-top: 1px solid var(--ink);
}
/* Low windows and large zoom: the stage keeps the height that it needs and is moved, the strips stay. */
@media (max-height: 620px) {
  .middle {
    overflow: auto;
  }
  .middle > :deep(:last-child) {
    flex: none;
    height: max(100%, 600px);
  }
}
@media (max-width: 1099px) {
  .frame,
  .frame.rail,
  .frame.noroll,
  .frame.noworking {
    grid-template-columns: 0 minmax(0, 1fr) 0;
  }
  .roll {
    position: fixed;
    left: 0;
    top: var(--strip);
    bottom: 0;
    width: min(280px, 80vw);
    z-index: 20;
    background: var(--paper);
    box-shadow: 4px 0 0 var(--hair);
  }
  .working {
    position: fixed;
    right: 0;
    top: var(--strip);
    bottom: 0;
    width: min(316px, 86vw);
    z-index: 20;
  }
}
</style>
