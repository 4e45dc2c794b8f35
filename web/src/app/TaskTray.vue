<script setup lang="ts">
/** Long work that is under way, with its progress and the way to stop it; there only while there is any. */
import { useTasks, type Task } from "@/document/tasks";
import { counted } from "@/units/units";

const tasks = useTasks();
const STATES: Record<Task["state"], string> = {
  waiting: "waiting",
  running: "at work",
  done: "done",
  failed: "failed",
  cancelled: "cancelled",
};
</script>

<template>
  <v-menu v-if="tasks.open.length" :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <v-btn variant="text" v-bind="menu" class="tray" :aria-label="counted(tasks.open.length, 'task')">
        <v-progress-circular
          size="18"
          width="3"
          color="primary"
          :indeterminate="tasks.open[0]!.progress === 0"
          :model-value="tasks.open[0]!.progress * 100"
          aria-label="Progress"
        />
      </v-btn>
    </template>
    <v-list aria-label="Long work" min-width="320">
      <v-list-item v-for="task in tasks.tasks.slice(0, 6)" :key="task.id" :title="task.title">
        <template #subtitle>{{ task.doing || task.error?.title || STATES[task.state] }}</template>
        <v-progress-linear
          v-if="tasks.open.includes(task)"
          :model-value="task.progress * 100"
          color="primary"
          :aria-label="`Progress of ${task.title}`"
        />
        <template v-if="tasks.open.includes(task)" #append>
          <Act @click="tasks.cancel(task.id)">Cancel</Act>
        </template>
      </v-list-item>
    </v-list>
  </v-menu>
</template>
