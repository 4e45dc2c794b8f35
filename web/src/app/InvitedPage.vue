<script setup lang="ts">
/** Where the link of an invitation leads: come in as who is signed in, or with a new account. */
import { client, Refusal, unwrap, type Schemas } from "@/api/client";
import { onMounted, ref } from "vue";
import DoorPage from "./DoorPage.vue";

const props = defineProps<{ token: string }>();
const found = ref<Schemas["InvitedOut"] | null>(null);
const name = ref("");
const password = ref("");
const fault = ref("");
const busy = ref(false);
const path = () => ({ token: props.token });

async function attempt(work: () => Promise<void>): Promise<void> {
  busy.value = true;
  fault.value = "";
  try {
    await work();
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
onMounted(() =>
  attempt(async () => {
    found.value = unwrap(await client.GET("/api/invited/{token}", { params: { path: path() } }));
  }),
);
const comeIn = () =>
  attempt(async () => {
    const body = found.value?.user
      ? { name: "", password: "" }
      : { name: name.value.trim(), password: password.value };
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
          Choose a name and a password. If you have an account, sign in first and open the link again.
        </p>
        <v-text-field v-model="name" label="Name" autocomplete="username" autofocus />
        <v-text-field
          v-model="password"
          label="Password"
          type="password"
          autocomplete="new-password"
          hint="At least ten signs, none of the common ones."
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
      <a class="link" href="/">To the sign-in</a>
    </template>
  </DoorPage>
</template>
