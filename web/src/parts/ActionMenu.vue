<script setup lang="ts">
/** A button with a menu of things to do: nothing happens while a key only moves through them. */
defineProps<{
  /** What the menu does, for those who do not see the button. */
  label: string;
  text: string;
  items: { value: string; title: string }[];
  disabled?: boolean;
}>();
const emit = defineEmits<{ choose: [value: string] }>();
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <Act v-bind="menu" :aria-label="label" :disabled="disabled">{{ text }}</Act>
    </template>
    <v-list density="compact" :aria-label="label">
      <v-list-item
        v-for="item in items"
        :key="item.value"
        :title="item.title"
        @click="emit('choose', item.value)"
      />
    </v-list>
  </v-menu>
</template>
