<script setup lang="ts">
/** Where the link of a forgotten password leads. */
import { client, unwrap } from "@/api/client";
import { useAttempt } from "@/parts/attempt";
import { ref } from "vue";
import DoorPage from "./DoorPage.vue";

const props = defineProps<{ person: string; token: string }>();
const password = ref("");
const done = ref(false);
const { busy, fault, attempt } = useAttempt();

async function set(): Promise<void> {
  const body = { person: props.person, token: props.token, new: password.value };
  done.value = await attempt(async () => {
    unwrap(await client.POST("/api/password/by-link", { body }));
  });
}
</script>

<template>
  <DoorPage title="New password" :fault="fault" @sent="set">
    <v-text-field
      v-if="!done"
      v-model="password"
      label="New password"
      type="password"
      autocomplete="new-password"
      hint="At least ten signs, none of the common ones."
      autofocus
    />
    <p v-else role="status">It is set. Sign in with it.</p>
    <template #actions>
      <Act v-if="!done" class="on" type="submit" :disabled="busy || !password">Set password</Act>
      <a class="link" href="/">To the sign-in</a>
    </template>
  </DoorPage>
</template>
