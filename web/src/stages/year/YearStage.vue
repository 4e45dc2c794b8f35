<script setup lang="ts">
/** The year: energy, rooms, courses of hours and bills of the last run; run again by one key. */
import Segments from "@/parts/Segments.vue";
import { useDocument } from "@/document/store";
import { useTasks } from "@/document/tasks";
import { useYear } from "@/document/year";
import { addressed } from "@/view/address";
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import BillsView from "./BillsView.vue";
import ConnectedView from "./ConnectedView.vue";
import CoursesView from "./CoursesView.vue";
import EnergyView from "./EnergyView.vue";
import RoomsView from "./RoomsView.vue";

/** Up to so many rooms the year follows edits by itself. */
const FOLLOWS = 60;
const AFTER_MS = 600;
const TABS = {
  energy: "Energy",
  rooms: "Rooms",
  courses: "Hours",
  outside: "Outside rooms",
  bills: "Bills",
} as const;
type Tab = keyof typeof TABS;
const doc = useDocument();
const tasks = useTasks();
const year = useYear();
const tab = ref<Tab>("energy");
const course = ref("");
addressed("view", tab as typeof tab & { value: string }, true, (text) => text in TABS);
addressed("course", course);

/** Whether typical days took the place of a file of hours. */
const typical = computed(() => year.summary?.weather_key === "");
const running = () => tasks.open.find((task) => task.id === year.task?.id) ?? year.task;
function show(name: string): void {
  course.value = name;
  tab.value = "courses";
}
function onKey(event: KeyboardEvent): void {
  if (event.key !== "Enter" || !event.ctrlKey) return;
  event.preventDefault();
  void year.calculate();
}
let later = 0;
function follow(): void {
  window.clearTimeout(later);
  later = window.setTimeout(() => {
    if (year.stale && !year.task && !year.failure && doc.rows("room").length < FOLLOWS) void year.calculate();
  }, AFTER_MS);
}
onMounted(async () => {
  window.addEventListener("keydown", onKey);
  await year.load();
  follow();
});
onBeforeUnmount(() => {
  window.removeEventListener("keydown", onKey);
  window.clearTimeout(later);
});
// An edit makes the year stale, and changes bills at once.
watch(
  () => doc.version,
  async () => {
    await year.load();
    follow();
  },
);
watch(
  () => year.task,
  (task) => {
    if (!task) follow();
  },
);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Year</h1>
      <span v-if="year.summary" class="soft">
        {{ year.summary.weather }}, {{ year.summary.hours }} h of {{ year.summary.year }}
      </span>
      <v-chip
        v-if="typical"
        size="small"
        label
        title="A first idea: import a weather file under Place, Weather"
        >No weather file</v-chip
      >
      <v-chip v-if="year.summary && year.stale" size="small" color="warning" label data-test="stale"
        >Inputs have changed since</v-chip
      >
      <span class="grow" />
      <template v-if="year.task">
        <v-progress-linear
          class="progress"
          color="primary"
          :model-value="(running()?.progress ?? 0) * 100"
          aria-label="Progress of the year"
        />
        <span class="soft doing">{{ running()?.doing || "waiting" }}</span>
        <Act @click="tasks.cancel(year.task.id)">Cancel</Act>
      </template>
      <Act v-else title="Ctrl+Enter" @click="year.calculate()">Calculate the year</Act>
      <Segments v-model="tab" label="View" :choices="TABS" />
    </div>
    <p v-if="year.failure" class="fault told" role="alert">{{ year.failure }}</p>
    <BillsView v-if="tab === 'bills'" @show="show" />
    <ConnectedView v-else-if="tab === 'outside'" @show="show" />
    <p v-else-if="!year.summary" class="empty">
      The year is not calculated yet: “Calculate the year” or Ctrl+Enter. It goes by the hours of a weather
      file, which Place takes under Weather; without one by twelve typical days made from the design data.
    </p>
    <EnergyView v-else-if="tab === 'energy'" :summary="year.summary" :bills="year.bills" @show="show" />
    <RoomsView v-else-if="tab === 'rooms'" :summary="year.summary" @show="show" />
    <CoursesView v-else v-model="course" :summary="year.summary" />
  </div>
</template>

<style scoped>
.progress {
  flex: 0 0 120px;
}
.doing {
  max-width: 180px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.told {
  padding: 4px 14px;
  margin: 0;
  font-size: 14px;
}
</style>
