<script setup lang="ts">
/** Which layer is worked in: the base or one of its options; and a new one. */
import { useOptions } from "@/document/options";
import { useDocument } from "@/document/store";
import NewOption from "@/parts/NewOption.vue";
import { counted } from "@/units/units";
import { ref, watch } from "vue";
import { useRoute } from "vue-router";

const doc = useDocument();
const options = useOptions();
const route = useRoute();
const asking = ref(false);

watch(
  () => doc.projectId,
  (id) => {
    if (id) void options.load();
  },
  { immediate: true },
);
const at = (id: string) => `/${id}/${String(route.name ?? "loads")}`;
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
  <NewOption v-if="asking" @close="asking = false" />
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
