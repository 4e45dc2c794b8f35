<script setup lang="ts">
import DialogBox from "@/parts/DialogBox.vue";
import FileButton from "@/parts/FileButton.vue";
import { client, Refusal, unwrap } from "@/api/client";
import { sendFile } from "@/api/files";
import { useDocument } from "@/document/store";
import { computed, onMounted, ref } from "vue";

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
const HEADS = { open: "Open", archived: "Archived", deleted: "Deleted" } as const;
const by = computed(() => (state: string) => projects.value.filter((project) => project.state === state));

onMounted(async () => {
  await list();
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

function upload(file: File): Promise<void> {
  return attempt(`reading ${file.name} …`, async () => {
    await sendFile("/api/projects/file", file);
  });
}
</script>

<template>
  <DialogBox title="All projects" :width="680" @close="emit('close')">
    <template v-for="(head, state) in HEADS" :key="state">
      <v-list v-if="by(state).length" :aria-label="`${head} projects`">
        <v-list-subheader>{{ head }}</v-list-subheader>
        <v-list-item v-for="project in by(state)" :key="project.id" class="project">
          <v-list-item-title
            >{{ project.name
            }}<span v-if="project.id === doc.projectId" class="soft"> open now</span></v-list-item-title
          >
          <template #append>
            <template v-if="state === 'open'">
              <TextAct @click="emit('opened', project.id)">Open</TextAct>
              <TextAct @click="copy(project)">Copy</TextAct>
              <a class="link" :href="`/api/projects/${project.id}/project.json`">Download</a>
              <TextAct :disabled="project.id === doc.projectId" @click="setState(project, 'archived')">
                Archive
              </TextAct>
              <TextAct :disabled="project.id === doc.projectId" @click="setState(project, 'deleted')">
                Delete
              </TextAct>
            </template>
            <TextAct v-else @click="setState(project, 'open')">Bring back</TextAct>
          </template>
        </v-list-item>
      </v-list>
    </template>
    <v-progress-linear v-if="busy" indeterminate :aria-label="busy" />
    <p v-if="busy" class="soft" role="status">{{ busy }}</p>
    <v-alert v-if="fault" type="error" :text="fault" />
    <p class="soft small">
      A project's file is JSON by the published schema, with its weather year and the drawings below its
      plans. Deleted projects stay here and can be brought back.
    </p>
    <template #actions>
      <FileButton label="Project file" text="From a file …" accept=".json" @file="upload" />
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.project :deep(.v-list-item__append) {
  display: flex;
  gap: 12px;
}
.small {
  font-size: 12px;
  margin-top: 10px;
}
</style>
