import { client, unwrap } from "@/api/client";
import { defineStore } from "pinia";
import { ref } from "vue";
import { useDocument } from "./store";
import { useTasks, type Task } from "./tasks";

/** What a room did over the year. */
export interface RoomYear {
  heating_kwh: number;
  cooling_kwh: number;
  heating_month_kwh: number[];
  cooling_month_kwh: number[];
  heating_peak_w: number;
  heating_peak_hour: number;
  cooling_peak_w: number;
  cooling_peak_hour: number;
  served_heating_kwh: number;
  coldest_c: number;
  warmest_c: number;
  warmest_hour: number;
  too_warm_h: number;
  occupied_h: number;
  unmet_heating_h: number;
  unmet_cooling_h: number;
  missed_heating_kh: number;
  missed_cooling_kh: number;
  balance_kwh: Record<string, number>;
  sources_month_kwh: Record<string, number[]>;
  fit_error: number;
}

export interface EnergyRow {
  use: string;
  carrier: string;
  kwh: number;
  month_kwh: number[];
  peak_w: number;
}

export interface YearSummary {
  version: number;
  weather: string;
  hours: number;
  year: number;
  floor_area_m2: number;
  energy: EnergyRow[];
  carriers: Record<string, { kwh: number; peak_w: number; peak_hour: number; month_kwh: number[] }>;
  rooms: Record<string, RoomYear>;
  systems: Record<
    string,
    { cooling_kwh: number; heating_kwh: number; fans_kwh: number; short_h: number; balance: number }
  >;
  /** Stores of hot water; none in years that were worked out before there were any. */
  stores?: Record<
    string,
    {
      drawn_kwh: number;
      charged_kwh: number;
      solar_kwh: number;
      lost_kwh: number;
      missing_kwh: number;
      coolest_c: number;
    }
  >;
  units: Record<string, { circuit: string; output_kwh: number; peak_w: number; on_h: number }>;
  unmet_kwh: Record<string, number>;
  faults: string[];
}

export interface MonthBill {
  month: number;
  kwh: Record<string, number>;
  peak_kw: number;
  billed_kw: number;
  energy: number;
  demand: number;
  standing: number;
  levy: number;
  tax: number;
  total: number;
}

export interface Bill {
  tariff: string;
  name: string;
  carrier: string;
  kwh: number;
  total: number;
  emissions_kg: number;
  months: MonthBill[];
}

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
    summary.value = answer.summary as unknown as YearSummary | null;
    bills.value = answer.bills as unknown as Bill[];
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
    return answer.response.ok ? (unwrap(answer) as unknown as { values: number[] }).values : [];
  }

  return { summary, bills, stale, failure, task, run, load, calculate, series };
});
