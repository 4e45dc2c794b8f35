<script setup lang="ts">
/** A report: its parts chosen, seen as pages, issued as files that never change; and what was issued before. */
import Segments from "@/parts/Segments.vue";
import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { useDocument } from "@/document/store";
import { useOptions } from "@/document/options";
import { useTasks, type Task } from "@/document/tasks";
import Choice from "@/parts/Choice.vue";
import { useView } from "@/view/store";
import { computed, onMounted, ref, watch } from "vue";
import IssueList from "./IssueList.vue";
import type { Issued } from "./issues";

const KEPT = "pendrum.report";
const AFTER_MS = 350;
const doc = useDocument();
const options = useOptions();
const tasks = useTasks();
const view = useView();
const choices = ref<{ parts: { key: string; title: string }[]; pages: string[] }>({
  parts: [],
  pages: ["A4"],
});
const kept = JSON.parse(localStorage.getItem(KEPT) ?? "null") as { parts: string[]; page: string } | null;
const parts = ref<string[]>(kept?.parts ?? ["cover", "changes", "basis", "summary", "rooms", "snags"]);
const page = ref(kept?.page ?? "A4");
const purpose = ref("");
const remarks = ref("");
const html = ref("");
const fault = ref("");
const busy = ref<Task | null>(null);
const issues = ref<Issued[]>([]);
const tab = ref<"pages" | "issues">("pages");
const tabs = computed(() => ({ pages: "Pages", issues: `Issued, ${issues.value.length}` }));
const running = computed(() => tasks.open.find((task) => task.id === busy.value?.id) ?? busy.value);

async function listIssues(): Promise<void> {
  const answer = await client.GET("/api/projects/{project_id}/issues", {
    params: { path: { project_id: doc.projectId } },
  });
  if (answer.response.ok) issues.value = unwrap(answer);
}
onMounted(async () => {
  choices.value = unwrap(await client.GET("/api/report"));
  await listIssues();
});
let latest = 0;
async function preview(): Promise<void> {
  const mine = ++latest;
  if (!parts.value.length) {
    html.value = "";
    return;
  }
  const answer = await client.GET("/api/projects/{project_id}/report.html", {
    params: {
      path: { project_id: doc.projectId },
      query: { parts: parts.value, system: view.system, page: page.value },
    },
    parseAs: "text",
  });
  if (mine === latest && answer.response.ok) html.value = answer.data as unknown as string;
}
let later = 0;
watch(
  [parts, page, () => view.system, () => doc.version, () => issues.value.length],
  () => {
    localStorage.setItem(KEPT, JSON.stringify({ parts: parts.value, page: page.value }));
    window.clearTimeout(later);
    later = window.setTimeout(() => void preview(), AFTER_MS);
  },
  { immediate: true, deep: true },
);

async function issue(): Promise<void> {
  fault.value = "";
  try {
    const body: Schemas["IssueIn"] = {
      parts: parts.value,
      system: view.system,
      page: page.value,
      purpose: purpose.value.trim(),
      remarks: remarks.value.trim(),
    };
    busy.value = unwrap(
      await client.POST("/api/projects/{project_id}/issues", {
        params: { path: { project_id: doc.projectId } },
        body,
      }),
    );
    await tasks.run(Promise.resolve(busy.value));
    purpose.value = remarks.value = "";
    await listIssues();
    tab.value = "issues";
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  } finally {
    busy.value = null;
  }
}
</script>

<template>
  <div class="split">
    <section class="choose">
      <h1>Issue</h1>
      <p v-if="options.current" class="soft">of the option {{ options.current.name }}</p>
      <h2>Parts</h2>
      <v-checkbox
        v-for="part in choices.parts"
        :key="part.key"
        v-model="parts"
        class="part"
        :label="part.title"
        :value="part.key"
      />
      <h2>Page</h2>
      <Choice
        v-model="page"
        label="Page"
        :choices="choices.pages.map((value) => ({ value, label: value }))"
      />
      <p class="soft">in the units that are shown</p>
      <h2>Issue {{ (issues[0]?.number ?? 0) + 1 }}</h2>
      <v-text-field v-model="purpose" label="For" placeholder="for comment, for tender" />
      <v-textarea v-model="remarks" label="Remarks" rows="2" class="remarks" />
      <template v-if="busy">
        <v-progress-linear
          color="primary"
          :model-value="(running?.progress ?? 0) * 100"
          aria-label="Progress of the issue"
        />
        <p class="soft">
          {{ running?.doing || "waiting" }} <TextAct @click="tasks.cancel(busy.id)">Cancel</TextAct>
        </p>
      </template>
      <Act v-else class="on" :disabled="!parts.length || !purpose.trim()" @click="issue">Issue</Act>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    </section>
    <div class="page">
      <div class="head">
        <Segments v-model="tab" label="View" :choices="tabs" />
        <span class="soft">{{
          tab === "pages"
            ? "as it would be issued now; page breaks and numbers come with the PDF"
            : "files that never change, with their SHA-256"
        }}</span>
      </div>
      <iframe
        v-if="tab === 'pages' && html"
        class="sheets"
        title="Report, as pages"
        sandbox="allow-same-origin"
        :srcdoc="html"
      />
      <p v-else-if="tab === 'pages'" class="empty">Choose at least one part at the left.</p>
      <IssueList v-else :issues="issues" />
    </div>
  </div>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: 272px minmax(0, 1fr);
  height: 100%;
  min-height: 0;
}
.choose {
  border-right: 1px solid var(--line);
  padding: 10px 14px;
  overflow: auto;
}
h2 {
  margin-top: 10px;
}
.part {
  height: 27px;
}
.remarks {
  margin: 8px 0;
}
.sheets {
  flex: 1;
  min-height: 0;
  border: 0;
  background: var(--line);
}
</style>
