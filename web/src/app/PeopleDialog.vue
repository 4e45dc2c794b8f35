<script setup lang="ts">
/** Who may read the project or work in it. */
import { client, Refusal, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import Choice from "@/parts/Choice.vue";
import DialogBox from "@/parts/DialogBox.vue";
import { onMounted, ref } from "vue";

interface Person {
  name: string;
  role: string;
}
const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const people = ref<Person[]>([]);
const name = ref("");
const role = ref<"editor" | "reader">("editor");
const fault = ref("");
const ROLES = [
  { value: "editor" as const, label: "works in it" },
  { value: "reader" as const, label: "reads" },
];
const roleOf = (person: Person) => person.role as "editor" | "reader";
const path = () => ({ project_id: doc.projectId });

async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    fault.value = "";
    people.value = (await work()) as Person[];
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
onMounted(() =>
  attempt(async () =>
    unwrap(await client.GET("/api/projects/{project_id}/people", { params: { path: path() } })),
  ),
);
const put = (who: string, what: "editor" | "reader") =>
  attempt(async () => {
    const body = { name: who, role: what };
    return unwrap(await client.PUT("/api/projects/{project_id}/people", { params: { path: path() }, body }));
  });
async function add(): Promise<void> {
  await put(name.value.trim(), role.value);
  if (!fault.value) name.value = "";
}
const drop = (who: string) =>
  attempt(async () =>
    unwrap(
      await client.DELETE("/api/projects/{project_id}/people/{name}", {
        params: { path: { ...path(), name: who } },
      }),
    ),
  );
</script>

<template>
  <DialogBox :title="`People of ${doc.project?.name ?? ''}`" :width="520" @close="emit('close')">
    <v-table class="plain" density="compact" aria-label="People">
      <tbody>
        <tr v-for="person in people" :key="person.name">
          <td>{{ person.name }}</td>
          <td v-if="person.role === 'owner'" class="soft">owns it</td>
          <td v-else>
            <Choice
              :model-value="roleOf(person)"
              :label="`Role of ${person.name}`"
              :choices="ROLES"
              @update:model-value="put(person.name, $event)"
            />
          </td>
          <td class="num">
            <TextAct v-if="person.role !== 'owner'" @click="drop(person.name)">Withdraw</TextAct>
          </td>
        </tr>
      </tbody>
    </v-table>
    <v-form class="add" @submit.prevent="add">
      <v-text-field v-model="name" label="Name of an account" />
      <Choice v-model="role" label="Role" :choices="ROLES" />
      <Act type="submit" :disabled="!name.trim()">Add</Act>
    </v-form>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.add {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
}
</style>
