<script setup lang="ts">
/** The frame of pages before the work: signing in, an invitation, a new password. */
defineProps<{ title?: string; fault: string }>();
const emit = defineEmits<{ sent: [] }>();
</script>

<template>
  <main class="door">
    <v-form class="form" @submit.prevent="emit('sent')">
      <h1>Pendrum</h1>
      <h2 v-if="title">{{ title }}</h2>
      <slot />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <slot name="actions" />
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
  width: 320px;
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
