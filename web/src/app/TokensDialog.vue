<script setup lang="ts">
/** Tokens with which programs come in as the person who is signed in. */
import { client, unwrap, type Schemas } from "@/api/client";
import { useAttempt } from "@/parts/attempt";
import DialogBox from "@/parts/DialogBox.vue";
import { onMounted, ref } from "vue";

const emit = defineEmits<{ close: [] }>();
const rows = ref<Schemas["TokenOut"][]>([]);
const name = ref("");
const fresh = ref("");
const { fault, attempt } = useAttempt();
const day = (text: string | null | undefined) => (text ? text.slice(0, 16).replace("T", " ") : "never");

/** Do something with the list and show how it stands then. */
const after = (work: () => Promise<void>) =>
  attempt(async () => {
    await work();
    rows.value = unwrap(await client.GET("/api/tokens"));
  });
const load = () => after(async () => {});
const make = () =>
  after(async () => {
    const made = unwrap(await client.POST("/api/tokens", { body: { name: name.value.trim() } }));
    fresh.value = made.token;
    name.value = "";
  });
const withdraw = (token: number) =>
  after(async () => {
    unwrap(await client.DELETE("/api/tokens/{token}", { params: { path: { token } } }));
    fresh.value = "";
  });
const copy = () => navigator.clipboard.writeText(fresh.value);
onMounted(load);
</script>

<template>
  <DialogBox title="Access for programs" :width="620" @close="emit('close')">
    <p class="soft">
      A program that shows a token acts as you, in every project that you may open. The routes stand at
      <a href="/api/docs" target="_blank" rel="noopener">/api/docs</a>.
    </p>
    <v-table v-if="rows.length" class="plain" aria-label="Tokens">
      <thead>
        <tr>
          <th>Token for</th>
          <th>made</th>
          <th>last used</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id">
          <td>{{ row.name }}</td>
          <td>{{ day(row.created) }}</td>
          <td>{{ day(row.used) }}</td>
          <td><TextAct @click="withdraw(row.id)">Withdraw</TextAct></td>
        </tr>
      </tbody>
    </v-table>
    <p v-else class="soft">No token yet.</p>
    <p v-if="fresh" class="fresh" role="status">
      <code>{{ fresh }}</code> <TextAct @click="copy">Copy</TextAct>
      <span class="soft">It is shown this once.</span>
    </p>
    <v-form id="new-token" class="new" @submit.prevent="make">
      <v-text-field v-model="name" label="New token for" maxlength="80" />
      <Act type="submit" :disabled="!name.trim()">Make a token</Act>
    </v-form>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Close</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.new {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 10px;
}
.fresh {
  padding: 8px 10px;
  border: 1px solid var(--accent);
  overflow-wrap: anywhere;
}
</style>
