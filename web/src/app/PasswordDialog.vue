<script setup lang="ts">
/** A new password. */
import { client, unwrap } from "@/api/client";
import { useAttempt } from "@/parts/attempt";
import DialogBox from "@/parts/DialogBox.vue";
import { ref } from "vue";

const emit = defineEmits<{ close: [] }>();
const old = ref("");
const fresh = ref("");
const { fault, attempt } = useAttempt();

async function save(): Promise<void> {
  const saved = await attempt(async () => {
    unwrap(await client.POST("/api/password", { body: { old: old.value, new: fresh.value } }));
  });
  if (saved) emit("close");
}
</script>

<template>
  <DialogBox title="Password" :width="420" @close="emit('close')">
    <v-form id="new-password" class="fields" @submit.prevent="save">
      <v-text-field v-model="old" label="Present password" type="password" autocomplete="current-password" />
      <v-text-field v-model="fresh" label="New password" type="password" autocomplete="new-password" />
      <p class="soft">At least ten signs. Your other sessions end with the old one.</p>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    </v-form>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Cancel</Act>
      <Act class="on" type="submit" form="new-password">Change password</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
</style>
