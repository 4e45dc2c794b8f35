<script setup lang="ts">
/** The door: name and password. */
import { Refusal } from "@/api/client";
import { useSession } from "@/document/session";
import { ref } from "vue";

const emit = defineEmits<{ done: [] }>();
const session = useSession();
const name = ref("");
const password = ref("");
const fault = ref("");
const busy = ref(false);

async function enter(): Promise<void> {
  busy.value = true;
  fault.value = "";
  try {
    await session.signIn(name.value.trim(), password.value);
    emit("done");
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
    password.value = "";
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <main class="door">
    <v-form class="form" @submit.prevent="enter">
      <h1>Pendrum</h1>
      <v-text-field v-model="name" label="Name" autocomplete="username" autofocus />
      <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <Act class="on" type="submit" :disabled="busy || !name || !password">Sign in</Act>
      <p class="soft">Accounts are made by whoever runs this server.</p>
    </v-form>
  </main>
</template>

<style scoped>
.door {
  height: 100vh;
  display: grid;
  place-items: center;
}
.form {
  width: 300px;
  display: grid;
  gap: 10px;
  justify-items: start;
  border-top: 3px solid var(--accent);
  padding-top: 14px;
}
.form > :deep(.v-input) {
  width: 100%;
}
</style>
