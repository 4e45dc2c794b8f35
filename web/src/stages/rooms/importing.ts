import { client, unwrap } from "@/api/client";
import { sendFile } from "@/api/files";
import { useDocument } from "@/document/store";
import { useTasks, type Task } from "@/document/tasks";
import { counted } from "@/units/units";
import { computed, ref } from "vue";

export interface Line {
  title: string;
  quantity: string;
  old: unknown;
  new: unknown;
}
/** A room of the file, compared with the one here. */
export interface Row {
  key: string;
  state: "added" | "changed" | "unchanged" | "missing" | "refused";
  number: string;
  name: string;
  reason: string;
  changes: Line[];
}

/** Rooms from a file: sent, read and compared as a task, then taken as far as they are chosen. */
export function useRoomImport(done: () => void) {
  const doc = useDocument();
  const file = ref<File | null>(null);
  const rows = ref<Row[]>([]);
  const taken = ref(new Set<string>());
  const fault = ref("");
  const busy = ref("");
  /** Share of the file that has been sent. */
  const sent = ref(0);
  const tasks = useTasks();
  /** How far reading is, in percent: sending it, then what the server tells. */
  const progress = computed(() => {
    const open = tasks.open.find((item) => item.kind === "rooms");
    return open ? 20 + 80 * open.progress : 20 * sent.value;
  });
  const notes = ref<string[]>([]);
  /** Rooms without a number get the next free ones. */
  const numbered = ref(false);
  const unnumbered = computed(() => rows.value.some((row) => row.state === "refused" && !row.number));
  /** How a CSV marks its columns and decimals; empty: as it seems. */
  const separator = ref("");
  const decimal = ref("");
  async function choose(chosen: File | File[] | null): Promise<void> {
    file.value = Array.isArray(chosen) ? (chosen[0] ?? null) : chosen;
    numbered.value = false;
    separator.value = decimal.value = "";
    await read();
  }

  /** The task that read the file, and the way to stop the sending. */
  const task = ref("");
  let sending = new AbortController();

  async function read(): Promise<void> {
    rows.value = [];
    notes.value = [];
    fault.value = "";
    if (!file.value) return;
    busy.value = `reading ${file.value.name} …`;
    sent.value = 0;
    sending = new AbortController();
    const how = { numbered: String(numbered.value), separator: separator.value, decimal: decimal.value };
    const asked = sendFile<Task>(`/api/projects/${doc.projectId}/rooms/read`, file.value, how, {
      progress: (share) => (sent.value = share),
      signal: sending.signal,
    });
    try {
      const found = await tasks.run<{ rows: Row[]; notes: string[] }>(asked);
      task.value = found.task.id;
      rows.value = found.result.rows;
      notes.value = found.result.notes;
      // What is missing in the file is only taken away where that is asked for.
      taken.value = new Set(
        rows.value.filter((row) => row.state === "added" || row.state === "changed").map((row) => row.key),
      );
    } catch (error) {
      fault.value = error instanceof Error ? error.message : String(error);
    }
    busy.value = "";
  }

  function stop(): void {
    sending.abort();
    for (const open of tasks.open) if (open.kind === "rooms") void tasks.cancel(open.id);
  }

  async function take(): Promise<void> {
    busy.value = `taking ${counted(taken.value.size, "room")} …`;
    const body = { task: task.value, rows: [...taken.value], base_version: doc.version };
    try {
      await doc.applied(
        async () =>
          unwrap(
            await client.POST("/api/projects/{project_id}/rooms/take", {
              params: { path: { project_id: doc.projectId } },
              body,
            }),
          ) as never,
      );
      done();
    } catch (error) {
      fault.value = error instanceof Error ? error.message : String(error);
    }
    busy.value = "";
  }

  function toggle(row: Row): void {
    const next = new Set(taken.value);
    if (!next.delete(row.key)) next.add(row.key);
    taken.value = next;
  }

  function all(state: string, on: boolean): void {
    const keys = rows.value.filter((row) => row.state === state).map((row) => row.key);
    const others = [...taken.value].filter((key) => !keys.includes(key));
    taken.value = new Set(on ? [...others, ...keys] : others);
  }

  return {
    file, rows, taken, fault, busy, progress, notes, numbered, unnumbered, separator, decimal,
    choose, read, stop, take, toggle, all,
  }; // prettier-ignore
}
