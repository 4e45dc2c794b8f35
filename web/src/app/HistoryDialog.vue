<script setup lang="ts">
/** What was done in the project: by whom, what it changed, and the ways back. */
import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { useDocument } from "@/document/store";
import Choice from "@/parts/Choice.vue";
import DialogBox from "@/parts/DialogBox.vue";
import { counted } from "@/units/units";
import { computed, ref, watch } from "vue";

type Entry = Schemas["EntryOut"];
type Line = Schemas["LineOut"];
type Applied = Parameters<ReturnType<typeof useDocument>["applied"]>[0];

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const entries = ref<Entry[]>([]);
const more = ref(false);
const author = ref("");
const kind = ref("");
const chosen = ref<Entry | null>(null);
const lines = ref<Line[]>([]);
const fault = ref("");
const people = ref<string[]>([]);
const kinds = ref<string[]>([]);
const PAGE = 100;

async function load(before?: number): Promise<void> {
  const query = { author: author.value, kind: kind.value, before };
  const params = { path: { project_id: doc.projectId }, query };
  const found = unwrap(await client.GET("/api/projects/{project_id}/history", { params }));
  entries.value = before ? [...entries.value, ...found] : found;
  more.value = found.length === PAGE;
  people.value = [...new Set([...people.value, ...found.map((entry) => entry.author)])].sort();
  kinds.value = [...new Set([...kinds.value, ...found.flatMap((entry) => entry.kinds)])].sort();
}
watch([author, kind], () => void load(), { immediate: true });
watch(
  () => doc.version,
  () => void load(),
);
async function choose(entry: Entry): Promise<void> {
  chosen.value = entry;
  fault.value = "";
  const path = { project_id: doc.projectId, version: entry.version };
  lines.value = unwrap(
    await client.GET("/api/projects/{project_id}/history/{version}", { params: { path } }),
  );
}
async function back(how: "take-back" | "bring-back"): Promise<void> {
  const version = chosen.value!.version;
  const path = { project_id: doc.projectId, version };
  try {
    fault.value = "";
    await doc.applied((async () =>
      unwrap(
        await client.POST(`/api/projects/{project_id}/history/{version}/${how}`, {
          params: { path },
          body: { base_version: doc.version },
        }),
      )) as unknown as Applied);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
const WAYS: Record<string, string> = { undo: "undone", base: "from the base" };
const when = (at: string) => `${at.slice(0, 10)} ${at.slice(11, 16)}`;
const shown = (value: unknown) =>
  value === null || value === undefined ? "–" : typeof value === "object" ? "…" : String(value);
const choices = (all: string[], none: string) => [
  { value: "", label: none },
  ...all.map((value) => ({ value, label: value.replaceAll("_", " ") })),
];
const latest = computed(() => entries.value[0]?.version);
</script>

<template>
  <DialogBox title="History" :width="920" @close="emit('close')">
    <div class="tools">
      <Choice v-model="author" label="By" :choices="choices(people, 'everybody')" />
      <Choice v-model="kind" label="Kind" :choices="choices(kinds, 'all kinds')" />
      <span class="soft">times are UTC</span>
    </div>
    <div class="two">
      <v-list class="entries" aria-label="Changes">
        <v-list-item
          v-for="entry in entries"
          :key="entry.version"
          :active="entry.version === chosen?.version"
          @click="choose(entry)"
        >
          <v-list-item-title>{{ entry.label }}</v-list-item-title>
          <v-list-item-subtitle
            >{{ when(entry.at) }}, {{ entry.author }}, {{ counted(entry.changes, "thing")
            }}{{ WAYS[entry.way] ? `, ${WAYS[entry.way]}` : "" }}</v-list-item-subtitle
          >
        </v-list-item>
        <v-list-item v-if="more" title="Earlier …" @click="load(entries.at(-1)?.version)" />
      </v-list>
      <div class="lines">
        <template v-if="chosen">
          <p class="acts">
            <Act :disabled="chosen.way === 'base'" @click="back('take-back')">Take back this change</Act>
            <Act :disabled="chosen.version === latest" @click="back('bring-back')"
              >Bring back the state after it</Act
            >
          </p>
          <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
          <v-table class="plain" density="compact" aria-label="What it changed">
            <thead>
              <tr>
                <th>kind</th>
                <th>of</th>
                <th>value</th>
                <th>before</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(line, at) in lines" :key="at">
                <td>{{ line.kind.replaceAll("_", " ") }}</td>
                <td>{{ line.name || "–" }}</td>
                <td>{{ line.field || line.what }}</td>
                <td>{{ line.what === "set" ? shown(line.before) : "" }}</td>
              </tr>
            </tbody>
          </v-table>
        </template>
        <p v-else class="empty">Choose a change to see what it did.</p>
      </div>
    </div>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.tools,
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 12px;
  height: 420px;
  margin-top: 8px;
}
.entries,
.lines {
  overflow: auto;
  border-top: 1px solid var(--line);
}
.acts {
  padding: 6px 0;
}
</style>
