import { client, unwrap, type Schemas } from "@/api/client";
import { defineStore } from "pinia";
import { ref } from "vue";
import { useDocument } from "./store";
import { useTasks, type Task } from "./tasks";

/** What a room did over the year. */
export type RoomYear = Schemas["RoomYear"];

export type EnergyRow = Schemas["EnergyRow"];

export type YearSummary = Schemas["YearSummary"];

export type MonthBill = Schemas["MonthBill"];

export type Bill = Schemas["Bill"];

/** The year of the open project: what the last run found, whether it still holds, and running it again. */
export const useYear = defineStore("year", () => {
  const doc = useDocument();
  const tasks = useTasks();
  const summary = ref<YearSummary | null>(null);
  const bills = ref<Bill[]>([]);
  const stale = ref(false);
  const failure = ref("");
  const task = ref<Task | null>(null);
  /** Which run is shown: courses are asked for anew when it changes. */
  const run = ref(0);

  async function load(): Promise<void> {
    const answer = unwrap(
      await client.GET("/api/projects/{project_id}/year", {
        params: { path: { project_id: doc.projectId } },
      }),
    );
    summary.value = answer.summary;
    bills.value = answer.bills;
    stale.value = answer.stale;
    const last = answer.task ?? null;
    failure.value = last?.state === "failed" ? (last.error?.title ?? "The last run failed.") : "";
    run.value += 1;
  }

  /** Calculate the year; a run that is under way is waited for. */
  async function calculate(): Promise<void> {
    if (task.value) return;
    const path = { project_id: doc.projectId };
    failure.value = "";
    try {
      task.value = unwrap(await client.POST("/api/projects/{project_id}/year", { params: { path } }));
      await tasks.run(Promise.resolve(task.value));
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    } finally {
      task.value = null;
    }
    if (!failure.value) await load();
  }

  async function series(name: string): Promise<number[]> {
    const answer = await client.GET("/api/projects/{project_id}/year/series", {
      params: { path: { project_id: doc.projectId }, query: { name } },
    });
    return answer.response.ok ? unwrap(answer).values : [];
  }

  return { summary, bills, stale, failure, task, run, load, calculate, series };
});
