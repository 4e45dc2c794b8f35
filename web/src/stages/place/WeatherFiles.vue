<script setup lang="ts">
/** The weather files that a project keeps, and the one that its year goes by. */
import { client, unwrap, type Schemas } from "@/api/client";
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import Choice from "@/parts/Choice.vue";
import { computed, ref, watch } from "vue";

const props = defineProps<{
  /** Grows whenever the kept files may be others. */
  revision: number;
  /** Of the file that counts, also where it is the base's. */
  name: string | undefined;
}>();
const emit = defineEmits<{ work: [what: string, work: () => Promise<void>] }>();
const doc = useDocument();
const options = useOptions();
const files = ref<Schemas["WeatherFileOut"][]>([]);
watch(
  () => props.revision,
  async () => {
    const path = { project_id: doc.projectId };
    const answer = await client.GET("/api/projects/{project_id}/weather/files", { params: { path } });
    files.value = (answer.data ?? []).filter((file) => file.own);
  },
  { immediate: true },
);
const choices = computed(() => [
  ...files.value.map((file) => ({ value: file.id, label: file.name })),
  { value: "", label: options.current ? "what the base goes by" : "twelve typical days" },
]);
/** The file that the project itself goes by; "" for typical days, or what an option's base goes by. */
const chosen = computed({
  get: () => files.value.find((file) => file.chosen)?.id ?? "",
  set: (id: string) => emit("work", "taking another year", () => goBy(id || null)),
});
async function goBy(file: string | null): Promise<void> {
  const path = { project_id: doc.projectId };
  unwrap(await client.PUT("/api/projects/{project_id}/weather/chosen", { params: { path }, body: { file } }));
}
async function remove(): Promise<void> {
  const path = { project_id: doc.projectId, file: chosen.value };
  unwrap(await client.DELETE("/api/projects/{project_id}/weather/files/{file}", { params: { path } }));
}
</script>

<template>
  <template v-if="files.length">
    <span class="soft">the year goes by</span>
    <Choice v-model="chosen" class="file" label="The year goes by" :choices="choices" />
    <Act v-if="chosen" @click="emit('work', 'removing it', remove)">Remove</Act>
  </template>
  <b v-if="name && !chosen">{{ name }}</b>
</template>

<style scoped>
.file {
  flex: 0 1 240px;
}
</style>
