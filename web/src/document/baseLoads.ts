import { client } from "@/api/client";
import type { ResultKinds } from "@/results/types";
import { defineStore } from "pinia";
import { ref, watch } from "vue";
import { useOptions } from "./options";
import { useDocument } from "./store";

/** Peaks and their parts of a room or of rooms together, in the base. */
export interface BaseLoads {
  cooling_w: number | null;
  parts_w: number[];
  heating_w: number;
  heating_parts_w: number[];
}

type Payload = { changed: Partial<{ [K in "room" | "group"]: Record<string, ResultKinds[K]> }> };

/** Loads of the base, while an option of it is worked in: what its own are compared with. */
export const useBaseLoads = defineStore("base loads", () => {
  const doc = useDocument();
  const options = useOptions();
  const loads = ref<Record<string, BaseLoads> | null>(null);

  async function read(): Promise<void> {
    const [option, base] = [options.current, options.base];
    if (!option || !base) {
      loads.value = null;
      return;
    }
    const answer = await client.GET("/api/projects/{project_id}/results", {
      params: { path: { project_id: base.id } },
    });
    if (!answer.response.ok || options.current?.id !== option.id) return;
    const { changed } = answer.data as unknown as Payload;
    const found: Record<string, BaseLoads> = {};
    for (const kind of ["room", "group"] as const)
      for (const [id, record] of Object.entries(changed[kind] ?? {}))
        found[id] = {
          cooling_w: record.cooling?.sensible_w ?? null,
          parts_w: record.cooling?.parts_w ?? [],
          heating_w: record.heating_w,
          heating_parts_w: record.heating_parts_w,
        };
    loads.value = found;
  }
  watch([() => options.current?.id, () => options.base?.id], () => void read(), { immediate: true });
  // What was not typed here may have come from the base.
  watch(
    () => doc.version,
    () => {
      if (!doc.waiting) void read();
    },
  );

  /** What something has in the base; nothing where it is not there, or where the base itself is worked in. */
  const of = (id: string): BaseLoads | undefined => loads.value?.[id];

  return { loads, of };
});
