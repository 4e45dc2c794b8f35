import { client, Refusal, unwrap } from "@/api/client";
import { defineStore } from "pinia";
import { computed, ref, shallowReactive, shallowRef } from "vue";
import type { ResultKind, ResultKinds, ShownDay } from "./types";

export interface ResultsAnswer {
  version: number;
  milliseconds: number;
  rooms_calculated: number;
  changed: Record<string, Record<string, unknown>>;
  gone: Record<string, string[]>;
  categories: string[];
  all: boolean;
}

const KIND_NAMES: ResultKind[] = [
  "room", "effective", "group", "room_air", "group_air", "air_system", "airflow", "balance", "duct_section", "circuit", "pipe_section", "emitter", "floor", "plant", "feed", "ceiling", "hot_water",
  "assembly", "glazing", "schedule", "use", "envelope", "snag", "kit",
]; // prettier-ignore

/** How long a changed figure shows what it was before [ms]. */
const SHOW_PRIOR_MS = 6000;

/**
 * Results of the open project: derived data, never edited here. The loads come with the answer to an edit; what serves
 * the rooms is fetched after them, and where edits follow each other quickly only for the last.
 */
export const useResults = defineStore("results", () => {
  const version = ref(-1);
  const plantVersion = ref(-1);
  /** Why what serves the rooms could not be fetched; the next edit tries again. */
  const fault = ref("");
  const settled = computed(() => plantVersion.value >= version.value);
  let projectId = "";
  let following = false;
  const milliseconds = ref(0);
  const categories = ref<string[]>([]);
  /** What the day rail has fetched; others that follow its hour read it here. */
  const day = shallowRef<ShownDay | null>(null);
  const tables = Object.fromEntries(
    KIND_NAMES.map((kind) => [kind, shallowReactive(new Map<string, unknown>())]),
  ) as unknown as { [K in ResultKind]: Map<string, ResultKinds[K]> };
  const priors = Object.fromEntries(
    KIND_NAMES.map((kind) => [kind, shallowReactive(new Map<string, unknown>())]),
  ) as unknown as { [K in ResultKind]: Map<string, ResultKinds[K]> };
  let fading: ReturnType<typeof setTimeout> | undefined;

  function get<K extends ResultKind>(kind: K, id: string | null | undefined): ResultKinds[K] | undefined {
    return id ? tables[kind].get(id) : undefined;
  }

  /** The record as it was before the last edit, while that is shown. */
  function prior<K extends ResultKind>(kind: K, id: string | null | undefined): ResultKinds[K] | undefined {
    return id ? priors[kind].get(id) : undefined;
  }

  function rows<K extends ResultKind>(kind: K): [string, ResultKinds[K]][] {
    return [...tables[kind].entries()];
  }

  function clearPriors(): void {
    for (const kind of KIND_NAMES) priors[kind].clear();
  }

  function put(answer: ResultsAnswer): void {
    for (const kind of KIND_NAMES) {
      if (!(kind in answer.changed) && !(kind in answer.gone)) continue;
      const table = tables[kind] as Map<string, unknown>;
      const before = priors[kind] as Map<string, unknown>;
      const changed = answer.changed[kind] ?? {};
      if (answer.all) {
        for (const id of [...table.keys()]) if (!(id in changed)) table.delete(id);
      }
      for (const [id, record] of Object.entries(changed)) {
        const old = table.get(id);
        if (old !== undefined && !answer.all) before.set(id, old);
        table.set(id, record);
      }
      for (const id of answer.gone[kind] ?? []) table.delete(id);
    }
    categories.value = answer.categories;
  }

  /** Take the loads that an edit left, and have what serves the rooms follow. */
  function take(answer: ResultsAnswer): void {
    if (answer.version < version.value) return;
    fault.value = "";
    clearTimeout(fading);
    clearPriors();
    put(answer);
    version.value = answer.version;
    milliseconds.value = answer.milliseconds;
    fading = setTimeout(clearPriors, SHOW_PRIOR_MS);
    void follow();
  }

  async function follow(): Promise<void> {
    if (following) return;
    following = true;
    fault.value = "";
    try {
      while (!settled.value) {
        const params = { path: { project_id: projectId }, query: { base_version: plantVersion.value } };
        const answer = unwrap(await client.GET("/api/projects/{project_id}/results/plant", { params }));
        // Another project may have been opened meanwhile.
        if (params.path.project_id !== projectId) continue;
        put(answer as ResultsAnswer);
        plantVersion.value = answer.version;
        milliseconds.value += answer.milliseconds;
      }
    } catch (error) {
      fault.value = error instanceof Refusal ? error.message : String(error);
    } finally {
      following = false;
    }
  }

  async function load(project: string): Promise<void> {
    const path = { project_id: project };
    const answer = unwrap(await client.GET("/api/projects/{project_id}/results", { params: { path } }));
    projectId = project;
    clearTimeout(fading);
    clearPriors();
    put(answer as ResultsAnswer);
    version.value = plantVersion.value = answer.version;
    milliseconds.value = answer.milliseconds;
  }

  return { version, milliseconds, categories, settled, fault, day, get, prior, rows, take, load };
});
