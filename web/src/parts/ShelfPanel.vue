<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from "vue";
import { loadShelf, type Shelf, type ShelfItem } from "./shelf";

const props = defineProps<{ what: keyof Shelf; title: string; note: string }>();
const emit = defineEmits<{ take: [item: ShelfItem]; close: [] }>();
const items = ref<ShelfItem[]>([]);
const typed = ref("");
const taken = ref<string[]>([]);
const box = ref<HTMLElement | null>(null);
const shown = computed(() =>
  items.value.filter((item) => String(item.fields["name"]).toLowerCase().includes(typed.value.toLowerCase())),
);

onMounted(async () => {
  await nextTick();
  box.value?.querySelector("input")?.focus();
  items.value = (await loadShelf())[props.what];
});
function take(item: ShelfItem): void {
  taken.value.push(String(item.fields["name"]));
  emit("take", item);
}
</script>

<template>
  <div class="veil" @click.self="emit('close')" @keydown.esc="emit('close')">
    <div ref="box" class="box" role="dialog" :aria-label="title">
      <h2>{{ title }}</h2>
      <p class="soft">{{ note }}</p>
      <input v-model="typed" class="find" aria-label="Find on the shelf" placeholder="find" />
      <ul>
        <li v-for="(item, i) in shown" :key="i">
          <span v-if="item.group && item.group !== shown[i - 1]?.group" class="soft group">{{
            item.group
          }}</span>
          <button @click="take(item)">
            <b>{{ item.fields["name"] }}</b>
            <span class="soft">{{ item.fields["source"] ?? "" }}</span>
            <span v-if="taken.includes(String(item.fields['name']))" class="tag">taken</span>
          </button>
        </li>
      </ul>
      <p v-if="!shown.length" class="soft">Nothing of that name.</p>
      <button class="act" @click="emit('close')">Done</button>
    </div>
  </div>
</template>

<style scoped>
.box {
  width: min(620px, 94vw);
}
.find {
  width: 100%;
  border: 1px solid var(--ink);
  padding: 4px 8px;
  background: var(--field);
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0;
  max-height: 56vh;
  overflow: auto;
}
li button {
  display: flex;
  gap: 10px;
  width: 100%;
  text-align: left;
  padding: 3px 6px;
  font-family: var(--narrow);
}
li button:hover {
  background: var(--wash);
}
li button .soft {
  flex: 1;
}
.group {
  display: block;
  font-size: 12px;
  padding-top: 8px;
}
</style>
