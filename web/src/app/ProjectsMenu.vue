<script setup lang="ts">
import { client, unwrap } from "@/api/client";
import { useSession } from "@/document/session";
import { useDocument } from "@/document/store";
import NameDialog from "@/parts/NameDialog.vue";
import { ref } from "vue";
import { useRoute } from "vue-router";
import HistoryDialog from "./HistoryDialog.vue";
import PasswordDialog from "./PasswordDialog.vue";
import PeopleDialog from "./PeopleDialog.vue";
import ProjectsPanel from "./ProjectsPanel.vue";
import TokensDialog from "./TokensDialog.vue";

defineProps<{ projects: { id: string; name: string }[] }>();
const emit = defineEmits<{ created: [id: string]; listed: [] }>();
const doc = useDocument();
const session = useSession();
const route = useRoute();
const panel = ref<"" | "people" | "password" | "tokens" | "history">("");
const asking = ref(false);
const all = ref(false);

/** Open a dialog of the menu from elsewhere. */
function open(what: "new project" | "all projects" | "history"): void {
  if (what === "history") panel.value = "history";
  else if (what === "new project") asking.value = true;
  else all.value = true;
}
defineExpose({ open });

async function create(name: string): Promise<void> {
  const made = unwrap(await client.POST("/api/projects", { body: { name } }));
  emit("created", made.id);
}
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <v-btn variant="text" v-bind="menu" class="project" title="Projects">
        {{ doc.project?.name ?? "Projects" }} ▾
      </v-btn>
    </template>
    <v-list density="compact">
      <v-list-item
        v-for="project in projects"
        :key="project.id"
        :to="`/${project.id}/${String(route.name ?? 'loads')}`"
        :title="project.name"
      />
      <v-list-item title="New project …" @click="asking = true" />
      <v-list-item title="All projects …" @click="all = true" />
      <v-divider />
      <v-list-item v-if="doc.projectId" title="History …" @click="panel = 'history'" />
      <v-list-item
        v-if="session.role === 'owner'"
        title="People of this project …"
        @click="panel = 'people'"
      />
      <v-list-item v-if="session.staff" title="Administration" href="/admin/" />
      <v-list-item title="Password …" @click="panel = 'password'" />
      <v-list-item title="Access for programs …" @click="panel = 'tokens'" />
      <v-list-item :title="`Sign out ${session.user}`" @click="session.signOut()" />
      <v-list-item title="Sign out everywhere" @click="session.signOut('all')" />
    </v-list>
  </v-menu>
  <ProjectsPanel
    v-if="all"
    @close="all = false"
    @changed="emit('listed')"
    @opened="((all = false), emit('created', $event))"
  />
  <HistoryDialog v-if="panel === 'history'" @close="panel = ''" />
  <PeopleDialog v-if="panel === 'people'" @close="panel = ''" />
  <PasswordDialog v-if="panel === 'password'" @close="panel = ''" />
  <TokensDialog v-if="panel === 'tokens'" @close="panel = ''" />
  <NameDialog
    v-if="asking"
    title="New project"
    label="Project name"
    action="Start project"
    :make="create"
    @close="asking = false"
  />
</template>

<style scoped>
.project.v-btn {
  height: 34px;
  justify-content: start;
  line-height: 1.15;
  border-left: 1px solid var(--line);
  padding-left: 10px;
  max-width: 150px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 13px;
}
.project :deep(.v-btn__content) {
  display: block;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
}
@media (max-width: 720px) {
  .project {
    max-width: 92px;
  }
}
</style>
