<script setup lang="ts">
import { counted } from "@/units/units";

export interface Place {
  key: string;
  name: string;
  what: string;
}

defineProps<{
  places: Place[];
  /** What could take its place everywhere. */
  others: { id: string; name: string }[];
  /** Whether one place can be given a copy of its own. */
  copies?: boolean;
}>();
const emit = defineEmits<{ copy: [place: Place]; replace: [other: string] }>();
</script>

<template>
  <section class="used">
    <h2>Used in</h2>
    <p v-if="!places.length" class="soft">Nothing refers to it yet.</p>
    <p v-else-if="places.length > 1" class="soft">
      {{ counted(places.length, "place") }}: a change here is for all of them. Ctrl+Z takes it back.
    </p>
    <ul>
      <li v-for="place in places.slice(0, 40)" :key="place.key">
        <b>{{ place.name }}</b> <span class="soft">{{ place.what }}</span>
        <button v-if="copies && places.length > 1" class="link" @click="emit('copy', place)">
          a copy for here
        </button>
      </li>
      <li v-if="places.length > 40" class="soft">and {{ places.length - 40 }} more</li>
    </ul>
    <label v-if="places.length && others.length" class="soft">
      Replace it everywhere and delete it:
      <select
        aria-label="Replace everywhere by"
        @change="emit('replace', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">by …</option>
        <option v-for="row in others" :key="row.id" :value="row.id">{{ row.name }}</option>
      </select>
    </label>
  </section>
</template>

<style scoped>
.used {
  margin-top: 12px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 6px;
  max-height: 150px;
  overflow: auto;
  font-family: var(--narrow);
}
li {
  border-bottom: 1px solid var(--hair);
  padding: 2px 0;
}
.link {
  margin-left: 8px;
}
select {
  border: 1px solid var(--line);
  background: var(--field);
}
</style>
