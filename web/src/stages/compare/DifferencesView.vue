<script setup lang="ts">
/** What an option enters otherwise than the base; which of two values stands; and what becomes of the option. */
import { Refusal } from "@/api/client";
import { useOptions, type Difference } from "@/document/options";
import { quantityOf, targetOf } from "@/document/fields";
import { useDocument } from "@/document/store";
import DataGrid from "@/parts/DataGrid.vue";
import DialogBox from "@/parts/DialogBox.vue";
import type { Column } from "@/parts/grid";
import TextBox from "@/parts/TextBox.vue";
import { onListKey } from "@/parts/listKeys";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";

const emit = defineEmits<{ changed: [] }>();
const doc = useDocument();
const options = useOptions();
const router = useRouter();
const view = useView();
const chosen = ref("");
const row = ref("");
const found = ref<Difference[]>([]);
const fault = ref("");
const sure = ref(false);
const option = computed(
  () => options.options.find((one) => one.id === chosen.value) ?? options.current ?? options.options[0],
);
watch(
  [() => option.value?.id, () => doc.version, () => options.options],
  async ([id]) => {
    if (id) found.value = await options.differences(id).catch(() => []);
  },
  { immediate: true },
);

type Row = Difference & { key: string };
const rows = computed(() =>
  found.value.map((one) => ({ ...one, key: one.id, id: `${one.kind}/${one.id}/${one.field}` })),
);
const selected = computed(() => rows.value.find((one) => one.id === row.value));
function text(one: Difference, value: unknown): string {
  if (one.op !== "set") return "";
  if (value === null || value === undefined) return "–";
  if (typeof value === "boolean") return value ? "yes" : "no";
  const target = targetOf(one.kind, one.field);
  if (target) return (doc.get(target, String(value)) as { name?: string } | undefined)?.name ?? String(value);
  if (typeof value !== "number") return typeof value === "object" ? "changed" : String(value);
  const quantity = quantityOf(one.kind, one.field);
  return `${format(value, quantity, view.system)} ${unitOf(quantity, view.system)}`;
}
const SAID = { set: "", made: "added", gone: "removed" };
const columns: Column<Row>[] = [
  { key: "kind", title: "Kind", width: 120, value: (r) => r.kind.replaceAll("_", " ") },
  { key: "name", title: "Of", width: 240, value: (r) => r.name || "–" },
  { key: "label", title: "Value", width: 220, value: (r) => r.label || SAID[r.op] },
  { key: "base", title: "Base", width: 150, value: (r) => text(r, r.base) || "–" },
  { key: "mine", title: "Option", width: 150, value: (r) => text(r, r.value) || SAID[r.op] },
  { key: "state", title: "", width: 250, value: (r) => (r.conflict ? `the base had ${text(r, r.was)} before: choose` : "") },
]; // prettier-ignore

async function act(work: () => Promise<unknown>): Promise<void> {
  try {
    fault.value = "";
    await work();
    if (option.value) found.value = await options.differences(option.value.id);
    await doc.refresh();
    emit("changed");
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
const asBase = () => act(() => options.put(option.value!.id, { ...selected.value!, id: selected.value!.key }, selected.value!.base)); // prettier-ignore
const keep = () =>
  act(() => options.agree(option.value!.id, { ...selected.value!, id: selected.value!.key }));
const takeOver = () => act(() => options.takeOver(option.value!.id));
async function detach(): Promise<void> {
  const id = await options
    .detach(option.value!.id, `${options.base?.name ?? ""}, ${option.value!.name}`.slice(0, 120))
    .catch((error: unknown) => void (fault.value = String(error)));
  if (id) await router.push(`/${id}/loads`);
}
async function remove(): Promise<void> {
  const id = option.value!.id;
  sure.value = false;
  if (doc.projectId === id && options.base) await router.push(`/${options.base.id}/compare`);
  await act(() => options.remove(id));
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Options" @keydown="onListKey">
      <v-list-item
        tag="button"
        v-for="one in options.options"
        :key="one.id"
        class="item"
        :class="{ on: one.id === option?.id }"
        @click="chosen = one.id"
        >{{ one.name }}<span class="soft">{{ one.differences }}</span></v-list-item
      >
    </nav>
    <div v-if="option" class="page">
      <div class="tools">
        <TextBox
          class="name"
          label="Name of the option"
          :model-value="option.name"
          @change="act(() => options.set(option!.id, { name: ($event.target as HTMLInputElement).value }))"
        />
        <TextBox
          class="remarks"
          label="Remarks"
          placeholder="what it is for"
          :model-value="option.remarks"
          @change="act(() => options.set(option!.id, { remarks: ($event.target as HTMLInputElement).value }))"
        />
        <Act :disabled="!rows.length" @click="takeOver">Take over into base</Act>
        <Act @click="detach">Make a project of its own</Act>
        <Act @click="sure = true">Delete</Act>
      </div>
      <div class="tools">
        <Act :disabled="selected?.op !== 'set'" @click="asBase">Take the base's value</Act>
        <Act :disabled="!selected?.conflict || selected.op !== 'set'" @click="keep"
          >Keep the option's value</Act
        >
        <span class="soft">of the chosen line</span>
        <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
      </div>
      <div class="grid">
        <DataGrid
          v-if="rows.length"
          label="Differences"
          :columns="columns"
          :rows="rows"
          :selected="selected?.id"
          @select="row = $event.id"
        />
        <p v-else class="empty">
          {{ option.name }} is as the base. Work in it through the button beside the project's name: what is
          changed there stays there.
        </p>
      </div>
    </div>
    <DialogBox v-if="sure" :title="`Delete ${option?.name}?`" :width="420" @close="sure = false">
      <p>It goes from the lists; the base stays as it is.</p>
      <template #actions>
        <v-spacer />
        <Act @click="sure = false">Cancel</Act>
        <Act class="on" @click="remove">Delete option</Act>
      </template>
    </DialogBox>
  </div>
</template>

<style scoped src="../list.css"></style>
<style scoped>
.split {
  flex: 1;
  min-height: 0;
  grid-template-columns: 190px minmax(0, 1fr);
}
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 12px;
  flex-wrap: wrap;
}
.name {
  flex: 0 0 180px;
}
.remarks {
  flex: 1 1 220px;
}
.grid {
  flex: 1;
  min-height: 0;
  overflow: hidden;
  border-top: 1px solid var(--ink);
}
</style>
