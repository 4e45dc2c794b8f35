<script setup lang="ts">
import { computed, onMounted, ref } from "vue";
import DialogBox from "./DialogBox.vue";
import { loadShelf, type Shelf, type ShelfItem } from "./shelf";

const props = defineProps<{ what: keyof Shelf; title: string; note: string }>();
const emit = defineEmits<{ take: [item: ShelfItem]; close: [] }>();
const items = ref<ShelfItem[]>([]);
const typed = ref("");
const taken = ref<string[]>([]);
const shown = computed(() =>
  items.value.filter((item) => String(item.fields["name"]).toLowerCase().includes(typed.value.toLowerCase())),
);

onMounted(async () => {
  items.value = (await loadShelf())[props.what];
});
function take(item: ShelfItem): void {
  taken.value.push(String(item.fields["name"]));
  emit("take", item);
}
</script>

<template>
  <DialogBox :title="title" @close="emit('close')">
    <p class="soft">{{ note }}</p>
    <v-text-field v-model="typed" autofocus label="Find on the shelf" />
    <v-list selectable class="shelf" aria-label="On the shelf">
      <template v-for="(item, i) in shown" :key="i">
        <v-list-subheader v-if="item.group && item.group !== shown[i - 1]?.group">{{
          item.group
        }}</v-list-subheader>
        <v-list-item
          :title="String(item.fields['name'])"
          :subtitle="String(item.fields['source'] ?? '')"
          @click="take(item)"
        >
          <template v-if="taken.includes(String(item.fields['name']))" #append>
            <v-chip size="x-small" label>taken</v-chip>
          </template>
        </v-list-item>
      </template>
    </v-list>
    <p v-if="!shown.length" class="soft">Nothing of that name.</p>
    <template #actions><v-spacer /><Act @click="emit('close')">Done</Act></template>
  </DialogBox>
</template>

<style scoped>
.shelf {
  max-height: 52vh;
  overflow: auto;
}
</style>
