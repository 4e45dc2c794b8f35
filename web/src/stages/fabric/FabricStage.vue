<script setup lang="ts">
import { newId, useDocument } from "@/document/store";
import { onListKey } from "@/parts/listKeys";
import { addressed } from "@/view/address";
import { computed, ref, watch } from "vue";
import { useRoute } from "vue-router";
import AssemblyPage from "./AssemblyPage.vue";
import EnvelopePage from "./EnvelopePage.vue";
import GlazingPage from "./GlazingPage.vue";
import KitPage from "./KitPage.vue";
import MaterialsPage from "./MaterialsPage.vue";
import ShadingPage from "./ShadingPage.vue";

const doc = useDocument();
const route = useRoute();
type At = { kind: "assembly" | "glazing" | "shading" | "kit" | "materials" | "envelope"; id: string };
const at = ref<At>({ kind: "kit", id: "" });
const ELEMENTS = {
  wall: "Outer walls",
  roof: "Roofs",
  floor: "Floors on ground",
  partition: "Inner walls and floors",
  door: "Doors",
};
const assemblies = computed(() =>
  Object.entries(ELEMENTS).map(([element, title]) => ({
    title,
    rows: doc.rows("assembly").filter((row) => row.element === element),
  })),
);

watch(
  () => route.query["at"],
  (place) => {
    const [kind, id] = String(place ?? "").split("/");
    if ((kind === "assembly" || kind === "glazing" || kind === "shading") && id) at.value = { kind, id };
    else if (kind === "kit" || kind === "surface" || kind === "opening") at.value = { kind: "kit", id: "" };
  },
  { immediate: true },
);

const page = computed({
  get: () => `${at.value.kind}/${at.value.id}`,
  set: (text) => {
    const [kind, id] = text.split("/");
    at.value = { kind: kind as At["kind"], id: id ?? "" };
  },
});
addressed("page", page, true, (text) =>
  /^(assembly|glazing|shading|kit|materials|envelope)\/[\w.-]*$/.test(text),
);

/** Show a thing, or the kit where there is none to show. */
function open(kind: At["kind"], id: string): void {
  at.value = id ? { kind, id } : { kind: "kit", id: "" };
}

async function addAssembly(): Promise<void> {
  const id = newId();
  const fields = { name: "New assembly", element: "wall" };
  if (await doc.attempt("New assembly", [{ op: "create", kind: "assembly", id, fields }]))
    at.value = { kind: "assembly", id };
}

async function addShading(): Promise<void> {
  const id = newId();
  const fields = { name: "New shading", overhang_m: 0.6, overhang_gap_m: 0.1, overhang_beyond_m: 0.2 };
  if (await doc.attempt("New shading", [{ op: "create", kind: "shading", id, fields }]))
    at.value = { kind: "shading", id };
}

async function addGlazing(): Promise<void> {
  const id = newId();
  const fields = { name: "New glazing", u_value: 1.4, g_value: 0.5, frame_share: 0.2, panes: 2 };
  if (await doc.attempt("New glazing", [{ op: "create", kind: "glazing", id, fields }]))
    at.value = { kind: "glazing", id };
}
</script>

<template>
  <div class="split">
    <nav class="list" aria-label="Fabric" @keydown="onListKey">
      <v-list-item
        tag="button"
        class="item strong"
        :class="{ on: at.kind === 'kit' }"
        @click="at = { kind: 'kit', id: '' }"
      >
        Fabric kit
      </v-list-item>
      <v-list-item
        tag="button"
        class="item strong"
        :class="{ on: at.kind === 'materials' }"
        @click="at = { kind: 'materials', id: '' }"
      >
        Materials
      </v-list-item>
      <v-list-item
        tag="button"
        class="item strong"
        :class="{ on: at.kind === 'envelope' }"
        @click="at = { kind: 'envelope', id: '' }"
      >
        Envelope
      </v-list-item>
      <template v-for="group in assemblies" :key="group.title">
        <p v-if="group.rows.length" class="soft group">{{ group.title }}</p>
        <v-list-item
          tag="button"
          v-for="row in group.rows"
          :key="row.id"
          class="item"
          :class="{ on: at.id === row.id }"
          @click="at = { kind: 'assembly', id: row.id }"
        >
          {{ row.name }}
        </v-list-item>
      </template>
      <p class="soft group">Glazing</p>
      <v-list-item
        tag="button"
        v-for="row in doc.rows('glazing')"
        :key="row.id"
        class="item"
        :class="{ on: at.id === row.id }"
        @click="at = { kind: 'glazing', id: row.id }"
      >
        {{ row.name }}
      </v-list-item>
      <p class="soft group">Shading of openings</p>
      <v-list-item
        tag="button"
        v-for="row in doc.rows('shading')"
        :key="row.id"
        class="item"
        :class="{ on: at.id === row.id }"
        @click="at = { kind: 'shading', id: row.id }"
      >
        {{ row.name }}
      </v-list-item>
      <p class="add">
        <TextAct @click="addAssembly">+ assembly</TextAct>
        <TextAct @click="addGlazing">+ glazing</TextAct>
        <TextAct @click="addShading">+ shading</TextAct>
      </p>
    </nav>
    <AssemblyPage
      v-if="at.kind === 'assembly' && doc.get('assembly', at.id)"
      :id="at.id"
      :key="at.id"
      @open="open('assembly', $event)"
    />
    <GlazingPage
      v-else-if="at.kind === 'glazing' && doc.get('glazing', at.id)"
      :id="at.id"
      :key="at.id"
      @open="open('glazing', $event)"
    />
    <ShadingPage
      v-else-if="at.kind === 'shading' && doc.get('shading', at.id)"
      :id="at.id"
      :key="at.id"
      @open="open('shading', $event)"
    />
    <EnvelopePage v-else-if="at.kind === 'envelope'" />
    <MaterialsPage v-else-if="at.kind === 'materials'" />
    <KitPage v-else @open="at = $event" />
  </div>
</template>

<style scoped src="../list.css"></style>
