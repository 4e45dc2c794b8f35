<script setup lang="ts">
import { client, csrfToken, Refusal, unwrap, type Problem } from "@/api/client";
import { useDocument } from "@/document/store";
import { computed, nextTick, onMounted, ref } from "vue";

interface Listed {
  id: string;
  name: string;
  version: number;
  state: string;
}
const emit = defineEmits<{ close: []; opened: [id: string]; changed: [] }>();
const doc = useDocument();
const projects = ref<Listed[]>([]);
const fault = ref("");
const busy = ref("");
const box = ref<HTMLElement | null>(null);
const HEADS = { open: "Open", archived: "Archived", deleted: "Deleted" } as const;
const by = computed(() => (state: string) => projects.value.filter((project) => project.state === state));

onMounted(async () => {
  await list();
  await nextTick();
  box.value?.querySelector("button")?.focus();
});

async function list(): Promise<void> {
  projects.value = unwrap(await client.GET("/api/projects"));
}

async function attempt(what: string, work: () => Promise<void>): Promise<void> {
  fault.value = "";
  busy.value = what;
  try {
    await work();
    await list();
    emit("changed");
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
  busy.value = "";
}

function setState(project: Listed, state: "open" | "archived" | "deleted"): Promise<void> {
  return attempt("", async () => {
    unwrap(
      await client.PUT("/api/projects/{project_id}/state", {
        params: { path: { project_id: project.id } },
        body: { state },
      }),
    );
  });
}

function copy(project: Listed): Promise<void> {
  return attempt(`copying ${project.name} …`, async () => {
    const body = { name: `${project.name}, copy`.slice(0, 120) };
    unwrap(
      await client.POST("/api/projects/{project_id}/copy", {
        params: { path: { project_id: project.id } },
        body,
      }),
    );
  });
}

function upload(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (!file) return Promise.resolve();
  return attempt(`reading ${file.name} …`, async () => {
    const form = new FormData();
    form.append("file", file);
    const answer = await fetch("/api/projects/file", {
      method: "POST",
      body: form,
      headers: { "X-CSRFToken": csrfToken() },
    });
    const body = (await answer.json()) as Listed & Problem;
    if (!answer.ok) throw new Refusal(body);
  });
}
</script>

<template>
  <div class="veil" @click.self="emit('close')" @keydown.esc="emit('close')">
    <div ref="box" class="box" role="dialog" aria-label="All projects">
      <h2>All projects</h2>
      <template v-for="(head, state) in HEADS" :key="state">
        <template v-if="by(state).length">
          <h3>{{ head }}</h3>
          <ul>
            <li v-for="project in by(state)" :key="project.id">
              <b>{{ project.name }}</b>
              <span class="soft">{{ project.id === doc.projectId ? "here" : "" }}</span>
              <span class="grow" />
              <template v-if="state === 'open'">
                <button class="link" @click="emit('opened', project.id)">Open</button>
                <button class="link" @click="copy(project)">Copy</button>
                <a class="link" :href="`/api/projects/${project.id}/project.json`">Download</a>
                <button
                  class="link"
                  :disabled="project.id === doc.projectId"
                  @click="setState(project, 'archived')"
                >
                  Archive
                </button>
                <button
                  class="link"
                  :disabled="project.id === doc.projectId"
                  @click="setState(project, 'deleted')"
                >
                  Delete
                </button>
              </template>
              <button v-else class="link" @click="setState(project, 'open')">Bring back</button>
            </li>
          </ul>
        </template>
      </template>
      <p v-if="busy" class="soft" role="status">{{ busy }}</p>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div class="foot">
        <label class="soft"
          >From a file <input type="file" accept=".json" aria-label="Project file" @change="upload"
        /></label>
        <span class="grow" />
        <button class="act" @click="emit('close')">Close</button>
      </div>
      <p class="soft small">
        A project's file is JSON by the published schema; weather files and drawings below plans are not in
        it. What is deleted stays here and can be brought back.
      </p>
    </div>
  </div>
</template>

<style scoped>
.box {
  width: min(680px, 94vw);
}
h3 {
  margin: 10px 0 2px;
  font-size: 13px;
  color: var(--soft);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
}
.grow {
  flex: 1;
}
.foot {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 12px;
}
.fault {
  color: var(--ember);
}
.small {
  font-size: 12px;
}
</style>
