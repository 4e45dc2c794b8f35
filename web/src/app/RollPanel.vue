<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import TextBox from "@/parts/TextBox.vue";
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { useResults } from "@/results/store";
import { useView } from "@/view/store";
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, ref } from "vue";

const doc = useDocument();
const results = useResults();
const view = useView();
const filter = ref("");
const box = ref<HTMLElement | null>(null);

type Line = { key: string; title: string; room?: Room; cool: number; heat: number };
const kindOf: Record<string, "level" | "zone" | "use" | "air_system"> = {
  level: "level",
  zone: "zone",
  use: "use",
  system: "air_system",
};
const groupings = Object.keys(kindOf).map((name) => ({ value: name, label: name }));

const largest = computed(() =>
  Math.max(1, ...results.rows("room").flatMap(([, r]) => [r.cooling?.sensible_w ?? 0, r.heating_w])),
);

const lines = computed<Line[]>(() => {
  const kind = kindOf[view.grouping] ?? "level";
  const wanted = filter.value.trim().toLowerCase();
  const groups = new Map<string, Room[]>();
  for (const room of doc.rows("room")) {
    if (wanted && !`${room.number} ${room.name}`.toLowerCase().includes(wanted)) continue;
    const key = room[kind] ?? "";
    groups.set(key, [...(groups.get(key) ?? []), room]);
  }
  const named = [...groups].map(([id, rooms]) => ({ id, rooms, row: doc.get(kind, id) }));
  // Rooms on none stand last.
  named.sort(
    (a, b) =>
      Number(!a.row) - Number(!b.row) ||
      order(a.row) - order(b.row) ||
      (a.row?.name ?? "").localeCompare(b.row?.name ?? ""),
  );
  return named.flatMap(({ id, rooms, row }) => [
    {
      key: id || "none",
      title: row?.name ?? `${kind === "zone" || kind === "level" ? "in" : "on"} no ${view.grouping}`,
      cool: 0,
      heat: 0,
    },
    ...rooms
      .sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true }))
      .map((room) => {
        const r = results.get("room", room.id);
        return {
          key: room.id,
          title: room.name,
          room,
          cool: r?.cooling?.sensible_w ?? 0,
          heat: r?.heating_w ?? 0,
        };
      }),
  ]);
});

function order(row: unknown): number {
  return typeof row === "object" && row !== null && "position" in row ? Number(row.position) : 0;
}

const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => box.value,
    estimateSize: () => 24,
    overscan: 10,
  })),
);

function choose(line: Line): void {
  if (line.room) view.selectRoom(line.room.id);
  else if (results.get("group", line.key)) view.subject = { kind: "group", id: line.key };
}

function onKey(event: KeyboardEvent): void {
  const down = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  if (!down) return;
  event.preventDefault();
  const rooms = lines.value.filter((line) => line.room);
  const index = rooms.findIndex((line) => line.key === view.selectedRoom);
  const next = rooms[Math.max(0, Math.min(rooms.length - 1, index + down))];
  if (!next) return;
  choose(next);
  virtual.value.scrollToIndex(lines.value.indexOf(next));
}
</script>

<template>
  <aside class="panel" aria-label="Roll of rooms">
    <div class="bar">
      <span class="soft">by</span>
      <Choice v-model="view.grouping" label="Group the roll by" :choices="groupings" />
      <TextBox v-model="filter" label="Filter rooms" placeholder="filter" />
      <span class="soft key"
        ><b style="color: var(--ember)">heat</b> <b style="color: var(--tide)">cool</b></span
      >
    </div>
    <v-btn
      variant="text"
      class="line group"
      :class="{ on: view.subject.id === 'building' }"
      @click="view.subject = { kind: 'group', id: 'building' }"
    >
      Building total
    </v-btn>
    <div ref="box" class="list" tabindex="0" role="listbox" aria-label="Rooms" @keydown="onKey">
      <div :style="{ height: virtual.getTotalSize() + 'px', position: 'relative' }">
        <template v-for="item in virtual.getVirtualItems()" :key="lines[item.index]?.key ?? item.index">
          <div
            v-if="lines[item.index]"
            class="line"
            role="option"
            :aria-selected="lines[item.index]!.key === view.subject.id"
            :class="{ group: !lines[item.index]!.room, on: lines[item.index]!.key === view.subject.id }"
            :style="{ transform: `translateY(${item.start}px)` }"
            @click="choose(lines[item.index]!)"
          >
            <template v-if="lines[item.index]!.room">
              <span class="soft no">{{ lines[item.index]!.room!.number }}</span>
              <span class="name">{{ lines[item.index]!.title }}</span>
              <span class="two" aria-hidden="true">
                <i class="h" :style="{ width: (lines[item.index]!.heat / largest) * 28 + 'px' }" />
                <i class="c" :style="{ width: (lines[item.index]!.cool / largest) * 28 + 'px' }" />
              </span>
            </template>
            <template v-else>{{ lines[item.index]!.title }}</template>
          </div>
        </template>
      </div>
      <p v-if="!lines.length" class="empty">
        {{ filter ? "No room matches." : "No rooms yet. Add the first on the Rooms stage." }}
      </p>
    </div>
  </aside>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  font-family: var(--narrow);
}
.bar {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 7px 10px;
  border-bottom: 1px solid var(--line);
}
.bar :deep(.choice) {
  flex: 0 0 92px;
}
.bar > :deep(.v-text-field:not(.choice)) {
  flex: 1;
}
.key {
  margin-left: auto;
  font-size: 12px;
}
.key b {
  font-weight: 500;
}
.list {
  flex: 1;
  overflow: auto;
  min-height: 0;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 24px;
  padding: 2px 10px;
  display: flex;
  gap: 7px;
  align-items: center;
  cursor: pointer;
  white-space: nowrap;
  border-left: 3px solid transparent;
}
.line.v-btn {
  position: static;
  width: 100%;
  font-weight: 600;
  font-size: 14px;
  height: 27px;
  justify-content: start;
}
.line:hover {
  background: var(--hair);
}
.line.on {
  background: var(--wash);
  border-left-color: var(--accent);
}
.group {
  color: var(--soft);
}
.group.v-btn {
  color: inherit;
}
.no {
  width: 34px;
  flex: none;
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
}
.two {
  display: grid;
  grid-template-columns: 28px 28px;
  gap: 1px;
  border: 0;
  flex: none;
}
.two i {
  height: 9px;
  display: block;
}
.h {
  background: var(--ember);
  justify-self: end;
}
.c {
  background: var(--tide);
}
</style>
