<script setup lang="ts">
/** Which layer is worked in: the base or one of its options; and a new one. */
import { Refusal } from "@/api/client";
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import DialogBox from "@/parts/DialogBox.vue";
import { counted } from "@/units/units";
import { ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";

const doc = useDocument();
const options = useOptions();
const route = useRoute();
const router = useRouter();
const asking = ref(false);
const name = ref("");
const fault = ref("");

watch(
  () => doc.projectId,
  (id) => {
    if (id) void options.load();
  },
  { immediate: true },
);
const at = (id: string) => `/${id}/${String(route.name ?? "loads")}`;

async function create(): Promise<void> {
  try {
    const made = await options.create(name.value.trim(), options.current?.id);
    asking.value = false;
    name.value = fault.value = "";
    await router.push(at(made.id));
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <v-btn
        variant="text"
        v-bind="menu"
        class="layer"
        :class="{ option: options.current }"
        title="Option that is worked in"
        aria-label="Option"
      >
        {{ options.current?.name ?? "Base" }} ▾
      </v-btn>
    </template>
    <v-list aria-label="Options" min-width="240" @click="options.load()">
      <v-list-item v-if="options.base" :to="at(options.base.id)" title="Base" />
      <v-list-item
        v-for="option in options.options"
        :key="option.id"
        :to="at(option.id)"
        :title="option.name"
        :subtitle="
          option.differences ? `differs in ${counted(option.differences, 'value')}` : 'does not differ yet'
        "
      />
      <v-list-item
        :title="options.current ? `New option like ${options.current.name} …` : 'New option …'"
        @click="asking = true"
      />
    </v-list>
  </v-menu>
  <DialogBox v-if="asking" title="New option" :width="420" @close="asking = false">
    <v-form id="new-option" @submit.prevent="create">
      <p>What you change in an option stays in it; what you change in the base flows into all options.</p>
      <v-text-field v-model="name" label="Name of the option" autofocus />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    </v-form>
    <template #actions>
      <v-spacer />
      <Act @click="asking = false">Cancel</Act>
      <Act class="on" type="submit" form="new-option">Start option</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.layer.v-btn {
  height: 26px;
  padding: 0 7px;
  font-size: 12px;
  max-width: 130px;
  border: 1px solid var(--line);
  background: var(--field);
  color: var(--soft);
}
.layer.option {
  background: var(--storage);
  border-color: var(--storage);
  color: #1d2126;
  font-weight: 600;
}
.layer :deep(.v-btn__content) {
  overflow: hidden;
  text-overflow: ellipsis;
  display: block;
  white-space: nowrap;
}
</style>
