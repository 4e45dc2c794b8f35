<script setup lang="ts">
/** Asks for the name of a new option and opens it, on the stage that is open. */
import { useOptions } from "@/document/options";
import NameDialog from "./NameDialog.vue";
import { useRoute, useRouter } from "vue-router";

const emit = defineEmits<{ close: [] }>();
const options = useOptions();
const route = useRoute();
const router = useRouter();

async function make(name: string): Promise<void> {
  const made = await options.create(name, options.current?.id);
  await router.push(`/${made.id}/${String(route.name ?? "loads")}`);
}
</script>

<template>
  <NameDialog
    title="New option"
    label="Name of the option"
    action="Start option"
    :make="make"
    @close="emit('close')"
  >
    <p>What you change in an option stays in it; what you change in the base flows into all options.</p>
  </NameDialog>
</template>
