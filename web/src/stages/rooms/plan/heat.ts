import { client } from "@/api/client";
import { useBaseLoads } from "@/document/baseLoads";
import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { useResults } from "@/results/store";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch, type ComputedRef, type Ref } from "vue";

/** What the plan's rooms can be coloured by. */
export const MEASURES = [
  { key: "", label: "nothing", quantity: "", colour: "" },
  {
    key: "cooling",
    label: "cooling at its peak, by area",
    quantity: "power_per_area",
    colour: "var(--tide)",
  },
  { key: "now", label: "cooling at the hour, by area", quantity: "power_per_area", colour: "var(--tide)" },
  { key: "heating", label: "heating, by area", quantity: "power_per_area", colour: "var(--ember)" },
  { key: "air", label: "air at the hour", quantity: "temperature", colour: "var(--ember)" },
  {
    key: "cooling_to_base",
    label: "cooling against the base, by area",
    quantity: "power_per_area",
    colour: "var(--tide)",
  },
  {
    key: "heating_to_base",
    label: "heating against the base, by area",
    quantity: "power_per_area",
    colour: "var(--ember)",
  },
  { key: "supply", label: "supply air, by area", quantity: "airflow_per_area", colour: "var(--accent)" },
  { key: "lights", label: "lights", quantity: "connected_density", colour: "var(--sun)" },
  { key: "people", label: "people", quantity: "people_density", colour: "var(--people)" },
  { key: "equipment", label: "equipment", quantity: "connected_density", colour: "var(--equipment)" },
] as const;
export type Measure = (typeof MEASURES)[number]["key"];

interface Heat {
  values: ComputedRef<Map<string, number>>;
  range: ComputedRef<[number, number]>;
  fill: (room: string) => string;
  text: (room: string) => string;
}

/** Figures of a measure for rooms, and the colours they are drawn in. */
export function useHeat(measure: Ref<Measure>, rooms: ComputedRef<Room[]>): Heat {
  const doc = useDocument();
  const results = useResults();
  const base = useBaseLoads();
  const view = useView();
  const hour = ref<Record<string, { load_w: number; air_c: number }>>({});

  watch(
    [measure, () => view.month, () => view.step, () => results.version],
    async () => {
      if (measure.value !== "now" && measure.value !== "air") return;
      const query = { month: view.month, step: view.step };
      const answer = await client.GET("/api/projects/{project_id}/hour", {
        params: { path: { project_id: doc.projectId }, query },
      });
      if (answer.response.ok) hour.value = answer.data as typeof hour.value;
    },
    { immediate: true },
  );

  function figure(room: Room): number | null | undefined {
    const area = room.floor_area_m2;
    const result = results.get("room", room.id);
    const effective = (key: string) => results.get("effective", room.id)?.[key]?.[0] as number | null | undefined;
    const byArea = (value: number | null | undefined) => (area && value !== null && value !== undefined ? value / area : null);
    switch (measure.value) {
      case "cooling":
        return byArea(result?.cooling?.sensible_w);
      case "now":
        return byArea(hour.value[room.id]?.load_w);
      case "heating":
        return byArea(result?.heating_w);
      case "air":
        return hour.value[room.id]?.air_c;
      case "cooling_to_base":
        return byArea(change(result?.cooling?.sensible_w, base.of(room.id)?.cooling_w));
      case "heating_to_base":
        return byArea(change(result?.heating_w, base.of(room.id)?.heating_w));
      case "supply":
        return byArea(results.get("airflow", room.id)?.design_m3_s);
      case "lights":
        return effective("lights_w_m2");
      case "people":
        return effective("people_per_m2");
      case "equipment":
        return effective("equipment_w_m2");
      default:
        return null;
    }
  }

  const values = computed(() => {
    const found = new Map<string, number>();
    for (const room of rooms.value) {
      const value = figure(room);
      if (typeof value === "number") found.set(room.id, value);
    }
    return found;
  });
  const range = computed<[number, number]>(() => {
    const all = [...values.value.values()];
    if (!all.length) return [0, 1];
    if (isChange(measure.value)) {
      const most = Math.max(...all.map(Math.abs), 1e-9);
      return [-most, most];
    }
    const low = measure.value === "air" ? Math.min(...all) : Math.min(0, ...all);
    return [low, Math.max(...all, low + 1e-9)];
  });
  const kind = computed(() => MEASURES.find((item) => item.key === measure.value)!);
  function fill(room: string): string {
    const value = values.value.get(room);
    if (value === undefined) return "var(--field)";
    const [low, high] = range.value;
    return shadeOf(measure.value, (value - low) / (high - low));
  }
  function text(room: string): string {
    const value = values.value.get(room);
    if (value === undefined || !kind.value.quantity) return "";
    return `${format(value, kind.value.quantity, view.system)} ${unitOf(kind.value.quantity, view.system)}`;
  }
  return { values, range, fill, text };
} // prettier-ignore

/** A colour between paper and full. */
export function shade(colour: string, share: number): string {
  return `color-mix(in srgb, ${colour} ${Math.round(6 + 64 * Math.max(0, Math.min(1, share)))}%, var(--field))`;
}

/** Whether a measure is a change against the base: less is green, more is red. */
export function isChange(measure: Measure): boolean {
  return measure.endsWith("_to_base");
}

function change(now: number | null | undefined, before: number | null | undefined): number | null {
  return now === null || now === undefined || before === null || before === undefined ? null : now - before;
}

/** The colour of a measure at a share of its range. */
export function shadeOf(measure: Measure, share: number): string {
  const kind = MEASURES.find((item) => item.key === measure)!;
  if (!isChange(measure)) return shade(kind.colour, share);
  return shade(share < 0.5 ? "var(--accent)" : "var(--ember)", Math.abs(share - 0.5) * 2);
}
