<script setup lang="ts">
import { csrfToken, type Problem } from "@/api/client";
import { useDocument } from "@/document/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref } from "vue";

interface Line {
  title: string;
  quantity: string;
  old: unknown;
  new: unknown;
}
interface Row {
  key: string;
  state: "added" | "changed" | "unchanged" | "missing" | "refused";
  number: string;
  name: string;
  reason: string;
  changes: Line[];
}

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const view = useView();
const file = ref<File | null>(null);
const rows = ref<Row[]>([]);
const taken = ref(new Set<string>());
const fault = ref("");
const busy = ref("");
/** Share of the file that has been sent, and the way to stop it. */
const sent = ref(0);
const running = ref<XMLHttpRequest | null>(null);
const notes = ref<string[]>([]);
const shows = ref("");
const STATES = {
  added: "added",
  changed: "changed",
  unchanged: "unchanged",
  missing: "not in the file",
  refused: "refused",
};

const counts = computed(() => {
  const found: Record<string, number> = {};
  for (const row of rows.value) found[row.state] = (found[row.state] ?? 0) + 1;
  return found;
});
const listed = computed(() =>
  rows.value.filter((row) => (shows.value ? row.state === shows.value : row.state !== "unchanged")),
);
const free = (row: Row) => row.state === "added" || row.state === "changed" || row.state === "missing";

/** Rooms without a number get the next free ones. */
const numbered = ref(false);
const unnumbered = computed(() => rows.value.some((row) => row.state === "refused" && !row.number));

async function choose(event: Event): Promise<void> {
  file.value = (event.target as HTMLInputElement).files?.[0] ?? null;
  numbered.value = false;
  await read();
}

async function read(): Promise<void> {
  rows.value = [];
  notes.value = [];
  if (!file.value) return;
  busy.value = `reading ${file.value.name} …`;
  const answer = await send<{ rows: Row[]; notes: string[] }>("read");
  busy.value = "";
  if (!answer) return;
  rows.value = answer.rows;
  notes.value = answer.notes;
  // What is missing in the file is only taken away where that is asked for.
  taken.value = new Set(
    rows.value.filter((row) => row.state === "added" || row.state === "changed").map((row) => row.key),
  );
}

/** Send the file; null where it was refused or stopped. A request of this kind, because it tells how far it is. */
function send<T>(what: "read" | "take"): Promise<T | null> {
  const form = new FormData();
  form.append("file", file.value!);
  form.append("numbered", String(numbered.value));
  if (what === "take") {
    form.append("taken", JSON.stringify([...taken.value]));
    form.append("base_version", String(doc.version));
  }
  fault.value = "";
  sent.value = 0;
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    running.value = request;
    const end = (sentence: string, answer: T | null = null) => {
      running.value = null;
      fault.value = sentence;
      resolve(answer);
    };
    request.upload.onprogress = (event) => (sent.value = event.loaded / Math.max(event.total, 1));
    request.onabort = () => end("Stopped. Nothing was changed.");
    request.onerror = () => end("The server does not answer. Nothing was changed.");
    request.onload = () => {
      if (request.status < 300) return end("", request.response as T);
      const problem = request.response as Problem | null;
      end(problem?.title ?? `The server answered ${request.status}. Nothing was changed.`);
    };
    request.open("POST", `/api/projects/${doc.projectId}/rooms/${what}`);
    request.responseType = "json";
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.send(form);
  });
}

async function take(): Promise<void> {
  busy.value = `taking ${taken.value.size} rooms …`;
  try {
    await doc.applied(async () => {
      const answer = await send("take");
      if (!answer) throw new Error("refused");
      return answer as never;
    });
    emit("close");
  } catch (error) {
    if (!fault.value) fault.value = error instanceof Error ? error.message : String(error);
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

function shown(line: Line, value: unknown): string {
  if (value === null || value === undefined) return "none of its own";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number" && line.quantity)
    return `${format(value, line.quantity, view.system)} ${unitOf(line.quantity, view.system)}`;
  return String(value);
}
</script>

<template>
  <div class="veil" @click.self="emit('close')" @keydown.esc="emit('close')">
    <div class="box" role="dialog" aria-label="Rooms from a file">
      <h2>Rooms from a file</h2>
      <p class="soft">
        XLSX or CSV tables, gbXML and IFC models. Rooms are known by their number; nothing changes before you
        take it.
      </p>
      <input
        type="file"
        accept=".xlsx,.csv,.txt,.xml,.gbxml,.ifc"
        aria-label="File with rooms"
        @change="choose"
      />
      <p v-if="busy" class="soft" role="status">
        {{ busy }}
        <progress v-if="running" :value="sent < 1 ? sent : undefined" max="1" aria-label="Sent so far" />
        <button v-if="running" class="link" @click="running?.abort()">stop</button>
      </p>
      <p v-for="note in notes" :key="note" class="soft">{{ note }}</p>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <v-checkbox
        v-if="unnumbered || numbered"
        v-model="numbered"
        label="Give the next free numbers to rooms without one"
        density="compact"
        color="primary"
        hide-details
        @update:model-value="read"
      />
      <template v-if="rows.length">
        <div class="tabs">
          <button
            v-for="(label, state) in STATES"
            v-show="counts[state]"
            :key="state"
            class="act"
            :aria-pressed="shows === state"
            :class="{ on: shows === state }"
            @click="shows = shows === state ? '' : state"
          >
            {{ counts[state] }} {{ label }}
          </button>
          <span class="grow" />
          <template v-if="shows && shows !== 'refused' && shows !== 'unchanged'">
            <button class="link" @click="all(shows, true)">choose all</button>
            <button class="link" @click="all(shows, false)">choose none</button>
          </template>
        </div>
        <div class="list">
          <table class="plain">
            <thead>
              <tr>
                <th>Take</th>
                <th>No.</th>
                <th>Room</th>
                <th>State</th>
                <th>What changes</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in listed" :key="row.key" :class="row.state">
                <td>
                  <input
                    v-if="free(row)"
                    type="checkbox"
                    :checked="taken.has(row.key)"
                    :aria-label="`Take ${row.number} ${row.name}`"
                    @change="toggle(row)"
                  />
                </td>
                <td>{{ row.number }}</td>
                <td>{{ row.name }}</td>
                <td>{{ row.state === "missing" ? "not in the file: delete" : row.state }}</td>
                <td>
                  <span v-if="row.state === 'refused'">{{ row.reason }}</span>
                  <span v-for="line in row.changes" v-else :key="line.title" class="line"
                    >{{ line.title }}
                    <template v-if="row.state === 'changed' && line.title !== 'Surfaces'"
                      ><s>{{ shown(line, line.old) }}</s> →
                    </template>
                    <b>{{ shown(line, line.new) }}</b></span
                  >
                </td>
              </tr>
            </tbody>
          </table>
          <p v-if="!listed.length" class="soft">Every room of the file is as it is here.</p>
        </div>
      </template>
      <div class="foot">
        <button class="act" @click="emit('close')">Close</button>
        <button v-if="rows.length" class="act on" :disabled="!taken.size || !!busy" @click="take">
          Take {{ taken.size }} {{ taken.size === 1 ? "room" : "rooms" }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.box {
  width: min(980px, 96vw);
  max-height: 88vh;
  display: flex;
  flex-direction: column;
}
.tabs {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
}
.grow {
  flex: 1;
}
.list {
  overflow: auto;
  min-height: 80px;
  border-top: 1px solid var(--ink);
  font-family: var(--narrow);
}
.list td {
  vertical-align: top;
  padding: 3px 8px;
}
.line {
  margin-right: 14px;
  white-space: nowrap;
}
.refused td {
  color: var(--ember);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  margin-top: 10px;
}
.fault {
  color: var(--ember);
}
</style>
