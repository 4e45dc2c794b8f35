import { useDocument } from "@/document/store";
import { defineStore } from "pinia";
import { computed, ref, watch } from "vue";
import { useResults } from "@/results/store";

/** Peaks and their parts of a room or of rooms together, as they were. */
export interface HeldLoads {
  cooling_w: number | null;
  parts_w: number[];
  heating_w: number;
  heating_parts_w: number[];
}

interface Held {
  version: number;
  /** When it was held, ISO. */
  at: string;
  loads: Record<string, HeldLoads>;
}

/** A state of the loads that is held beside the present one; it stays in this browser, project by project. */
export const useHeld = defineStore("held", () => {
  const doc = useDocument();
  const results = useResults();
  const held = ref<Held | null>(null);
  const key = computed(() => `held loads of ${doc.projectId}`);

  function read(): void {
    try {
      held.value = JSON.parse(localStorage.getItem(key.value) ?? "null") as Held | null;
    } catch {
      held.value = null;
    }
  }
  watch(key, read, { immediate: true });

  function hold(): void {
    const loads: Held["loads"] = {};
    for (const kind of ["room", "group"] as const)
      for (const [id, record] of results.rows(kind))
        loads[id] = {
          cooling_w: record.cooling?.sensible_w ?? null,
          parts_w: record.cooling?.parts_w ?? [],
          heating_w: record.heating_w,
          heating_parts_w: record.heating_parts_w,
        };
    held.value = { version: results.version, at: new Date().toISOString(), loads };
    try {
      localStorage.setItem(key.value, JSON.stringify(held.value));
    } catch {
      // Without room in the browser's store it is held until the page is left.
    }
  }

  function letGo(): void {
    held.value = null;
    localStorage.removeItem(key.value);
  }

  /** What something had; nothing where it was not there. */
  const of = (id: string): HeldLoads | undefined => held.value?.loads[id];

  return { held, hold, letGo, of };
});
