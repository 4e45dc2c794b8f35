<script setup lang="ts">
/** The door: name and password, and a way in for who has forgotten it. */
import { client, unwrap } from "@/api/client";
import { useSession } from "@/document/session";
import { useAttempt } from "@/parts/attempt";
import { ref } from "vue";
import DoorPage from "./DoorPage.vue";

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const name = ref("");
const password = ref("");
const told = ref("");
const { busy, fault, attempt } = useAttempt();

async function enter(): Promise<void> {
  told.value = "";
  const inside = await attempt(() => session.signIn(name.value.trim(), password.value));
  if (inside) emit("done");
  else password.value = "";
}
async function forgotten(): Promise<void> {
  told.value = "";
  const who = name.value.trim();
  if (!who) {
    fault.value = "Type your name or mail address first.";
    return;
  }
  const asked = await attempt(async () => {
    unwrap(await client.POST("/api/password/forgotten", { body: { name: who } }));
  });
  if (asked)
    told.value = "If there is such an account and it has a mail address, a link is on its way there.";
}
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
