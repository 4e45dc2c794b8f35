<script setup lang="ts">
/** Who may read the project or work in it, and who is asked to. */
import { client, unwrap, type Schemas } from "@/api/client";
import { useDocument } from "@/document/store";
import { useAttempt } from "@/parts/attempt";
import Choice from "@/parts/Choice.vue";
import DialogBox from "@/parts/DialogBox.vue";
import { computed, onMounted, ref } from "vue";

const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const people = ref<Schemas["PersonOut"][]>([]);
const asked = ref<Schemas["InvitationOut"][]>([]);
const name = ref("");
const role = ref<"editor" | "reader">("editor");
const ROLES = [
  { value: "editor" as const, label: "works in it" },
  { value: "reader" as const, label: "reads" },
];
const roleOf = (person: Schemas["PersonOut"]) => person.role as "editor" | "reader";
const path = () => ({ project_id: doc.projectId });

const { fault, attempt } = useAttempt();
const People = "/api/projects/{project_id}/people";
const Invitations = "/api/projects/{project_id}/invitations";
onMounted(() =>
  attempt(async () => {
    people.value = unwrap(await client.GET(People, { params: { path: path() } }));
    asked.value = unwrap(await client.GET(Invitations, { params: { path: path() } }));
  }),
);
const put = (who: string, what: "editor" | "reader") =>
  attempt(async () => {
    const body = { name: who, role: what };
    people.value = unwrap(await client.PUT(People, { params: { path: path() }, body }));
  });
/** What holds an @ is a mail address, and is sent an invitation; else it is the name of an account. */
const byMail = computed(() => name.value.includes("@"));
async function add(): Promise<void> {
  const who = name.value.trim();
  if (byMail.value)
    await attempt(async () => {
      const body = { address: who, role: role.value };
      asked.value = unwrap(await client.POST(Invitations, { params: { path: path() }, body }));
    });
  else await put(who, role.value);
  if (!fault.value) name.value = "";
}
const drop = (who: string) =>
  attempt(async () => {
    const params = { path: { ...path(), name: who } };
    people.value = unwrap(await client.DELETE(`${People}/{name}`, { params }));
  });
const withdraw = (address: string) =>
  attempt(async () => {
    const params = { path: { ...path(), address } };
    asked.value = unwrap(await client.DELETE(`${Invitations}/{address}`, { params }));
  });
const roleName = (key: string) => ROLES.find((one) => one.value === key)?.label ?? key;
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
        <tr v-for="one in asked" :key="one.address">
          <td>{{ one.address }}</td>
          <td class="soft">invited, {{ roleName(one.role) }} then</td>
          <td class="num"><TextAct @click="withdraw(one.address)">Withdraw</TextAct></td>
        </tr>
      </tbody>
    </v-table>
    <v-form class="add" @submit.prevent="add">
      <v-text-field v-model="name" label="Account or mail address" />
      <Choice v-model="role" label="Role" :choices="ROLES" />
      <Act type="submit" :disabled="!name.trim()">{{ byMail ? "Invite" : "Add" }}</Act>
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
