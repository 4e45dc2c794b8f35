<script setup lang="ts">
/** The door: name and password, and a way in for who has forgotten it. */
import { client, Refusal, unwrap } from "@/api/client";
import { useSession } from "@/document/session";
import { ref } from "vue";
import DoorPage from "./DoorPage.vue";

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const name = ref("");
const password = ref("");
const fault = ref("");
const told = ref("");
const busy = ref(false);

async function attempt(work: () => Promise<void>): Promise<void> {
  busy.value = true;
  fault.value = told.value = "";
  try {
    await work();
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
    password.value = "";
  } finally {
    busy.value = false;
  }
}
const enter = () =>
  attempt(async () => {
    await session.signIn(name.value.trim(), password.value);
    emit("done");
  });
const forgotten = () =>
  attempt(async () => {
    if (!name.value.trim()) {
      fault.value = "Type your name or mail address first.";
      return;
    }
    unwrap(await client.POST("/api/password/forgotten", { body: { name: name.value.trim() } }));
    told.value = "If there is such an account and it has a mail address, a link is on its way there.";
  });
</script>

<template>
  <DoorPage :fault="fault" @sent="enter">
    <v-text-field v-model="name" label="Name" autocomplete="username" autofocus />
    <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
    <template #actions>
      <p v-if="told" role="status">{{ told }}</p>
      <Act class="on" type="submit" :disabled="busy || !name || !password">Sign in</Act>
      <TextAct :disabled="busy" @click="forgotten">Password forgotten</TextAct>
      <p class="soft">Accounts come with an invitation, or are made by whoever runs this server.</p>
    </template>
  </DoorPage>
</template>
