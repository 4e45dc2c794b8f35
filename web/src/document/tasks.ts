import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { useDocument } from "./store";

export type Task = Schemas["TaskOut"];

const FIRST_MS = 120;
const LATER_MS = 700;
const isOpen = (task: Task) => task.state === "waiting" || task.state === "running";

/** Long work of the project that is open: what is under way, how far it is, and stopping it. */
export const useTasks = defineStore("tasks", () => {
  const doc = useDocument();
  const tasks = ref<Task[]>([]);
  const open = computed(() => tasks.value.filter(isOpen));

  function keep(task: Task): void {
    tasks.value = [task, ...tasks.value.filter((other) => other.id !== task.id)].sort((a, b) =>
      b.created.localeCompare(a.created),
    );
  }

  /** Tasks of the project, also those that were asked for elsewhere. */
  async function load(): Promise<void> {
    const answer = await client.GET("/api/projects/{project_id}/tasks", {
      params: { path: { project_id: doc.projectId } },
    });
    if (!answer.response.ok) return;
    tasks.value = answer.data ?? [];
    for (const task of open.value) void ended(task);
  }

  /** Follow a task until it is over. */
  async function ended(task: Task): Promise<Task> {
    let now = task;
    for (let wait = FIRST_MS; isOpen(now); wait = Math.min(LATER_MS, wait * 1.3)) {
      await new Promise((later) => setTimeout(later, wait));
      const answer = await client.GET("/api/tasks/{task_id}", { params: { path: { task_id: task.id } } });
      // A connection that is gone for a while: the task goes on, and is asked for again.
      if (answer.response.ok) keep((now = unwrap(answer)));
      else if (answer.response.status === 404) break;
    }
    return now;
  }

  /** Ask for a task and wait for its result. Throws a Refusal where it failed or was cancelled. */
  async function run<T>(asked: Promise<Task>): Promise<{ task: Task; result: T }> {
    const task = await asked;
    keep(task);
    const over = await ended(task);
    if (over.state === "done") {
      const answer = await client.GET("/api/tasks/{task_id}/result", {
        params: { path: { task_id: over.id } },
      });
      return { task: over, result: unwrap(answer) as T };
    }
    const title = "Cancelled. Nothing was changed.";
    const problem = over.error ?? { code: "cancelled", title, faults: [] };
    throw new Refusal({ ...problem, status: 422, faults: problem.faults as never });
  }

  async function cancel(id: string): Promise<void> {
    keep(unwrap(await client.POST("/api/tasks/{task_id}/cancel", { params: { path: { task_id: id } } })));
  }

  return { tasks, open, load, run, cancel };
});
