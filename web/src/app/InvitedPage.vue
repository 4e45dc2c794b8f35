<script setup lang="ts">
/** Where the link of an invitation leads: come in as who is signed in, or with a new account. */
import { client, unwrap, type Schemas } from "@/api/client";
import { useSession } from "@/document/session";
import { useAttempt } from "@/parts/attempt";
import { onMounted, ref } from "vue";
import DoorPage from "./DoorPage.vue";

const props = defineProps<{ token: string }>();
const found = ref<Schemas["InvitedOut"] | null>(null);
const name = ref("");
const password = ref("");
/** Whether they have an account already, and sign in with it here. */
const known = ref(false);
const { busy, fault, attempt } = useAttempt();
const session = useSession();
const path = () => ({ token: props.token });

onMounted(() =>
  attempt(async () => {
    found.value = unwrap(await client.GET("/api/invited/{token}", { params: { path: path() } }));
  }),
);
const comeIn = () =>
  attempt(async () => {
    const told = { name: name.value.trim(), password: password.value };
    if (known.value) await session.signIn(told.name, told.password);
    const body = found.value?.user || known.value ? { name: "", password: "" } : told;
    const into = unwrap(await client.POST("/api/invited/{token}", { params: { path: path() }, body }));
    // The page begins anew: it now belongs to somebody else.
    window.location.assign(`/${into.id}/loads`);
  });
</script>

<template>
  <DoorPage :title="found ? found.project : 'Invitation'" :fault="fault" @sent="comeIn">
    <template v-if="found">
      <p>
        {{ found.by }} asks you to
        {{ found.role === "editor" ? "work in this project" : "read this project" }}.
      </p>
      <p v-if="found.user">You are signed in as {{ found.user }}.</p>
      <template v-else>
        <p class="soft">
          {{ known ? "Sign in with your account." : "Choose a name and a password." }}
          <TextAct @click="known = !known">{{ known ? "Make an account" : "I have an account" }}</TextAct>
        </p>
        <v-text-field v-model="name" label="Name" autocomplete="username" autofocus />
        <v-text-field
          v-model="password"
          label="Password"
          type="password"
          :autocomplete="known ? 'current-password' : 'new-password'"
          :hint="known ? '' : 'At least ten signs, none of the common ones.'"
        />
      </template>
    </template>
    <template #actions>
      <Act
        v-if="found"
        class="on"
        type="submit"
        :disabled="busy || (!found.user && (!name.trim() || !password))"
      >
        Come in
      </Act>
      <a v-else class="link" href="/">To the sign-in</a>
    </template>
  </DoorPage>
</template>
