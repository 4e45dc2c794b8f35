import type { System } from "@/units/units";
import { defineStore } from "pinia";
import { computed, ref, watch } from "vue";

/** What is selected: a room or a group of rooms. */
export interface Subject {
  kind: "room" | "group";
  id: string;
}

export interface WorkingTarget {
  quantity: string;
  subject: string;
}

/** What stands for the air balance of all rooms where an air system is chosen. */
export const BALANCE = "balance";

/** A field of a thing. */
export interface Wanted {
  kind: string;
  id: string;
  field: string;
}

function remembered(key: string, fallback: string): string {
  return localStorage.getItem(`pendrum.${key}`) ?? fallback;
}

/** What the engineer looks at: selection, hour, units, open panels. Kept in the browser, never in the document. */
export const useView = defineStore("view", () => {
  const system = ref<System>(remembered("units", "SI") === "IP" ? "IP" : "SI");
  const dark = ref(remembered("theme", "day") === "night");
  const subject = ref<Subject>({ kind: "group", id: "building" });
  const airSystem = ref("");
  const circuit = ref("");
  const month = ref(7);
  const step = ref(90);
  const working = ref<WorkingTarget | null>(null);
  /** Which of its loads a room is looked at for. */
  const season = ref<"cooling" | "heating">("cooling");
  /** The field that the cursor is to go to; whoever shows it takes it from here. */
  const wanted = ref<Wanted | null>(null);
  /** What the sheet of rooms was told to do from elsewhere; it takes it from here. */
  const ordered = ref<"" | "add room" | "import rooms">("");
  const rollOpen = ref(true);
  const workingOpen = ref(true);
  /** Whether what belongs to the selection is shown below a sheet; without it more rows are seen. */
  const detailsOpen = ref(remembered("details", "open") === "open");
  /** Whether the first steps of a new project are told. */
  const stepsTold = ref(remembered("steps", "told") === "told");
  const grouping = ref(remembered("grouping", "level"));
  const selectedRoom = computed(() => (subject.value.kind === "room" ? subject.value.id : ""));

  watch(system, (value) => localStorage.setItem("pendrum.units", value));
  watch(dark, (value) => localStorage.setItem("pendrum.theme", value ? "night" : "day"));
  watch(detailsOpen, (value) => localStorage.setItem("pendrum.details", value ? "open" : "closed"));
  watch(stepsTold, (value) => localStorage.setItem("pendrum.steps", value ? "told" : "known"));
  watch(grouping, (value) => localStorage.setItem("pendrum.grouping", value));

  /** Units of a project that is opened, where none were chosen in this browser. */
  function openIn(units: string | undefined): void {
    if (localStorage.getItem("pendrum.units") === null) system.value = units === "IP" ? "IP" : "SI";
  }

  function selectRoom(id: string): void {
    subject.value = { kind: "room", id };
  }

  function explain(quantity: string, id: string): void {
    working.value = { quantity, subject: id };
    workingOpen.value = true;
  }

  function moveStep(by: number): void {
    step.value = (step.value + by + 144) % 144;
  }

  return {
    system, dark, subject, airSystem, circuit, month, step, working, season, wanted, ordered, rollOpen, workingOpen, detailsOpen, stepsTold, grouping, selectedRoom,
    openIn, selectRoom, explain, moveStep,
  }; // prettier-ignore
});
