import { client, unwrap } from "@/api/client";
import { defineStore } from "pinia";
import { ref, shallowReactive, shallowRef } from "vue";
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
  "room", "effective", "group", "air_system", "airflow", "duct_section", "circuit", "pipe_section", "emitter",
  "assembly", "glazing", "schedule", "use", "envelope", "snag", "kit",
]; // prettier-ignore

/** How long a changed figure shows what it was before [ms]. */
const SHOW_PRIOR_MS = 6000;

/** Results of the open project: derived data, never edited here. */
export const useResults = defineStore("results", () => {
  const version = ref(-1);
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

  function take(answer: ResultsAnswer): void {
    clearTimeout(fading);
    clearPriors();
    for (const kind of KIND_NAMES) {
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
    version.value = answer.version;
    milliseconds.value = answer.milliseconds;
    categories.value = answer.categories;
    fading = setTimeout(clearPriors, SHOW_PRIOR_MS);
  }

  async function load(projectId: string): Promise<void> {
    const path = { project_id: projectId };
    const answer = unwrap(await client.GET("/api/projects/{project_id}/results", { params: { path } }));
    take({ ...(answer as ResultsAnswer), all: true });
  }

  return { version, milliseconds, categories, day, get, prior, rows, take, load };
});
