import { client, Refusal, unwrap } from "@/api/client";
import { defineStore } from "pinia";
import { computed, ref, shallowReactive, shallowRef } from "vue";
import { isLost, sentAgain } from "./sending";
import { useResults, type ResultsAnswer } from "@/results/store";
import { KINDS } from "./fields";
import type { Change, Kind, Kinds } from "./types";

export interface Applied {
  version: number;
  objects: { changed: Record<string, { id: string }[]>; gone: Record<string, string[]> };
  /** None while others keep the calculation busy, and where it failed: then `calculation_fault` is its number. */
  results: ResultsAnswer | null;
  calculation_fault: string | null;
  steps: { undo: string | null; redo: string | null };
}

/** An edit that was refused because somebody else changed the same meanwhile. */
export interface Conflict {
  label: string;
  changes: Change[];
  faults: { path: string; field: string; value: unknown; now: unknown; message: string }[];
}

/** How soon results are asked for that were not ready with the edit [ms]. */
const RESULTS_AFTER_MS = 400;

/** A short random id, made here so that one change set can create things that point at each other. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(6));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}

/** The document of the open project: rows by kind, and the one door for edits. */
export const useDocument = defineStore("document", () => {
  const projectId = ref("");
  const version = ref(0);
  const steps = ref<{ undo: string | null; redo: string | null }>({ undo: null, redo: null });
  const waiting = ref(0);
  const message = ref("");
  /** What was done last that is easily regretted, to be told with a way back; and the version that it made. */
  const done = ref<{ label: string; version: number } | null>(null);
  /** Whether the server cannot be reached; what waits is sent again. */
  const offline = ref(false);
  const conflict = shallowRef<Conflict | null>(null);
  let asking = false;
  const tables = Object.fromEntries(
    KINDS.map((kind) => [kind, shallowReactive(new Map<string, unknown>())]),
  ) as unknown as { [K in Kind]: Map<string, Kinds[K]> };
  // Edits go to the server one after the other: each is made on the version that the one before it left.
  let queue: Promise<unknown> = Promise.resolve();

  function rows<K extends Kind>(kind: K): Kinds[K][] {
    return [...tables[kind].values()];
  }

  function get<K extends Kind>(kind: K, id: string | null | undefined): Kinds[K] | undefined {
    return id ? tables[kind].get(id) : undefined;
  }

  async function load(id: string): Promise<void> {
    const answer = unwrap(
      await client.GET("/api/projects/{project_id}/document", { params: { path: { project_id: id } } }),
    );
    for (const kind of KINDS) {
      const table = tables[kind] as Map<string, unknown>;
      table.clear();
      for (const row of (answer.objects[kind] ?? []) as { id: string }[]) table.set(row.id, row);
    }
    version.value = answer.version;
    steps.value = answer.steps;
    await useResults().load(id);
    // Last: stages are shown from here on, and find everything in place.
    projectId.value = id;
  }

  function take(applied: Applied): void {
    // An answer that was overtaken by another one says nothing new.
    if (applied.version < version.value) return;
    for (const [kind, changed] of Object.entries(applied.objects.changed)) {
      const table = tables[kind as Kind] as Map<string, unknown>;
      for (const row of changed) table.set(row.id, row);
    }
    for (const [kind, ids] of Object.entries(applied.objects.gone)) {
      for (const id of ids) tables[kind as Kind].delete(id);
    }
    version.value = applied.version;
    steps.value = applied.steps;
    const results = useResults();
    if (applied.results) results.take(applied.results);
    else if (applied.calculation_fault) {
      results.fault = `Saved, but the calculation failed: a fault of the program, number ${applied.calculation_fault}.`;
    } else if (results.version < version.value) setTimeout(() => void refresh(), RESULTS_AFTER_MS);
  }

  /** Ask what changed since this window's version, whoever changed it, and take it. */
  async function refresh(): Promise<void> {
    const id = projectId.value;
    if (!id || asking) return;
    asking = true;
    try {
      const query = { version: version.value, results_version: useResults().version };
      const params = { path: { project_id: id }, query };
      const answer = unwrap(await client.GET("/api/projects/{project_id}/since", { params })) as Applied;
      if (id === projectId.value && (answer.version > version.value || answer.results)) take(answer);
      if (!waiting.value) offline.value = false;
    } catch (error) {
      if (isLost(error)) offline.value = true;
    } finally {
      asking = false;
    }
  }

  /**
   * Take what a call of the server changed, after every edit before it.
   *
   * @param again whether the call may be sent again where the connection is lost
   */
  function enqueue(work: () => Promise<Applied>, again = false): Promise<void> {
    const run = queue.then(async () => {
      waiting.value += 1;
      try {
        take(await (again ? sentAgain(work, (is) => (offline.value = is)) : work()));
        message.value = "";
      } finally {
        waiting.value -= 1;
      }
    });
    queue = run.catch(() => undefined);
    return run;
  }

  /** Apply a change set. Throws a Refusal; nothing is changed then. A conflict is shown beside it, to choose. */
  async function commit(label: string, changes: Change[]): Promise<void> {
    const key = newId();
    const body = () => ({
      base_version: version.value,
      results_version: useResults().version,
      key,
      label,
      changes: changes.map((change) => ({ ...change, fields: change.fields ?? {} })),
    });
    // The base stays that of the first try: what others did meanwhile must be seen as such.
    let sent: ReturnType<typeof body> | undefined;
    try {
      await enqueue(async () => {
        sent ??= body();
        const params = { path: { project_id: projectId.value } };
        return unwrap(
          await client.POST("/api/projects/{project_id}/changes", { params, body: sent }),
        ) as Applied;
      }, true);
      done.value = isRegretted(changes) ? { label, version: version.value } : null;
    } catch (error) {
      if (error instanceof Refusal && error.problem.code === "conflict" && error.problem.faults.length) {
        await refresh();
        conflict.value = { label, changes, faults: error.problem.faults };
      }
      throw error;
    }
  }

  /** Commit and put a refusal on the message line; for buttons, where there is no field to show it at. */
  async function attempt(label: string, changes: Change[]): Promise<boolean> {
    try {
      await commit(label, changes);
      return true;
    } catch (error) {
      message.value = error instanceof Refusal ? error.message : String(error);
      return false;
    }
  }

  async function step(way: "undo" | "redo"): Promise<void> {
    const key = newId();
    try {
      await enqueue(async () => {
        const query = { base_version: version.value, key };
        const params = { path: { project_id: projectId.value }, query };
        return unwrap(await client.POST(`/api/projects/{project_id}/${way}`, { params })) as Applied;
      }, true);
    } catch (error) {
      message.value = error instanceof Refusal ? error.message : String(error);
    }
  }

  const project = computed(() => rows("project")[0]);
  const site = computed(() => rows("site")[0]);

  return {
    projectId, version, steps, waiting, message, done, offline, conflict, project, site,
    rows, get, load, commit, attempt, refresh, applied: (work: () => Promise<Applied>) => enqueue(work), undo: () => step("undo"), redo: () => step("redo"),
  }; // prettier-ignore
});

/** From how many fields on a change is told with a way back. */
const MANY = 5;
/** Whether a change takes something away, or changes much at a stroke. */
function isRegretted(changes: Change[]): boolean {
  const things = new Set(changes.filter((change) => change.op === "set").map((change) => change.id));
  return changes.some((change) => change.op === "delete") || things.size >= MANY;
}

/** One field of one row, set. */
export function setField(kind: Kind, id: string, field: string, value: unknown): Change[] {
  return [{ op: "set", kind, id, fields: { [field]: value } }];
}
