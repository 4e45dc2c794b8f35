<script setup lang="ts">
import { freeName } from "@/document/copies";
import { newId, useDocument } from "@/document/store";
import ShelfPanel from "@/parts/ShelfPanel.vue";
import { loadShelf, type ShelfItem } from "@/parts/shelf";
import type { Change } from "@/document/types";
import { useResults } from "@/results/store";
import { counted } from "@/units/units";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import BulkPanel from "./BulkPanel.vue";
import UsePage from "./UsePage.vue";

const doc = useDocument();
const results = useResults();
const route = useRoute();
const id = ref("");
const panel = ref<"" | "shelf" | "bulk">("");
const uses = computed(() => doc.rows("use").sort((a, b) => a.name.localeCompare(b.name)));
const use = computed(() => doc.get("use", id.value) ?? uses.value[0]);
const counts = computed(() => {
  const map = new Map<string, number>();
  for (const room of doc.rows("room")) if (room.use) map.set(room.use, (map.get(room.use) ?? 0) + 1);
  return map;
});

watch(
  () => route.query["at"],
  (place) => {
    const [kind, wanted] = String(place ?? "").split("/");
    if (kind === "use" && wanted) id.value = wanted;
  },
  { immediate: true },
);

async function create(fields: Record<string, unknown>): Promise<void> {
  const made = newId();
  const name = freeName(String(fields["name"]), uses.value);
  if (
    await doc.attempt(`New use: ${name}`, [
      { op: "create", kind: "use", id: made, fields: { ...fields, name } },
    ])
  )
    id.value = made;
}
function add(): void {
  const always = doc.rows("schedule")[0]?.id ?? null;
  void create({
    name: "New use",
    people_schedule: always,
    lights_schedule: always,
    equipment_schedule: always,
  });
}
async function copy(): Promise<void> {
  const from = use.value;
  if (!from) return;
  const made = newId();
  const fields: Record<string, unknown> = { ...from, name: freeName(`${from.name}, copy`, uses.value) };
  delete fields["id"];
  const items = doc.rows("use_item").filter((row) => row.use === from.id);
  const done = await doc.attempt(`Copy of ${from.name}`, [
    { op: "create", kind: "use", id: made, fields },
    ...items.map((row) => {
      const own: Record<string, unknown> = { ...row, use: made };
      delete own["id"];
      return { op: "create" as const, kind: "use_item" as const, id: newId(), fields: own };
    }),
  ]);
  if (done) id.value = made;
}

/** A use from the shelf, with the schedules it refers to where the project has none of that name. */
async function take(item: ShelfItem): Promise<void> {
  const shelf = await loadShelf();
  const changes: Change[] = [];
  const found = new Map(doc.rows("schedule").map((row) => [row.name, row.id]));
  const fields: Record<string, unknown> = { ...item.fields };
  for (const [field, name] of Object.entries(item.schedules ?? {})) {
    if (!found.has(name)) {
      const made = newId();
      const pattern = shelf.schedules.find((row) => row.fields["name"] === name);
      if (!pattern) continue;
      changes.push({ op: "create", kind: "schedule", id: made, fields: pattern.fields });
      found.set(name, made);
    }
    fields[field] = found.get(name);
  }
  const made = newId();
  fields["name"] = freeName(String(fields["name"]), uses.value);
  changes.push({ op: "create", kind: "use", id: made, fields });
  if (await doc.attempt(`Use from the shelf: ${String(fields["name"])}`, changes)) id.value = made;
}

/** Rooms of this use get another one; this one goes. */
async function replaceBy(other: string): Promise<void> {
  const row = use.value;
  if (!row || !other) return;
  const rooms = doc.rows("room").filter((room) => room.use === row.id);
  const done = await doc.attempt(`${row.name} replaced and deleted`, [
    ...rooms.map((room) => ({
      op: "set" as const,
      kind: "room" as const,
      id: room.id,
      fields: { use: other },
    })),
    { op: "delete", kind: "use", id: row.id },
  ]);
  if (done) id.value = other;
}

async function remove(): Promise<void> {
  const row = use.value;
  if (row && (await doc.attempt("Use deleted", [{ op: "delete", kind: "use", id: row.id }]))) id.value = "";
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Uses">
      <button
        v-for="row in uses"
        :key="row.id"
        class="item"
        :class="{ on: row.id === use?.id }"
        @click="id = row.id"
      >
        {{ row.name }}<span class="soft">{{ counted(counts.get(row.id) ?? 0, "room") }}</span>
      </button>
      <p class="add">
        <button class="link" @click="add">+ use</button>
        <button class="link" @click="panel = 'shelf'">from the shelf …</button>
      </p>
      <p class="add">
        <button v-if="uses.length" class="link" @click="panel = 'bulk'">change several …</button>
      </p>
    </nav>
    <UsePage
      v-if="use"
      :key="use.id"
      :use="use"
      :result="results.get('group', use.id)"
      :before="results.prior('group', use.id)"
      @remove="remove"
      @copy="copy"
      @replace="replaceBy"
    />
    <div v-else class="page">
      <div class="head"><h1>Uses</h1></div>
      <p class="empty">
        A use says how a kind of room is used: people, lights, equipment, air, set-points. Rooms take it over
        and may differ. Add the first at the left.
      </p>
    </div>
    <ShelfPanel
      v-if="panel === 'shelf'"
      what="uses"
      title="Ordinary uses"
      note="Ventilation and people by ANSI/ASHRAE 62.1-2019; schedules come along where they are not there yet."
      @take="take"
      @close="panel = ''"
    />
    <BulkPanel v-if="panel === 'bulk'" @close="panel = ''" />
  </div>
</template>

<style scoped src="../list.css"></style>
