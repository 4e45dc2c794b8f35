import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import type { Peak } from "@/results/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";

/** A row of the loads grid: a room, or rooms together. */
export interface LoadRow {
  id: string;
  isRoom: boolean;
  number: string;
  name: string;
  area_m2: number;
  peak: Peak | null;
  heating_w: number;
  heating_parts_w: number[];
  flow_m3_s: number | null;
  floating: { month: number; step: number; text: string } | null;
  prior: { cooling_w?: number; heating_w?: number; flow_m3_s?: number };
}

/** Rooms by number, then levels, systems and the building. */
export function loadRows(): LoadRow[] {
  const doc = useDocument();
  const results = useResults();
  const { system } = useView();
  const rooms: LoadRow[] = [];
  for (const room of doc.rows("room")) {
    const r = results.get("room", room.id);
    if (!r) continue;
    const flow = results.get("airflow", room.id);
    const text = `${format(r.floating_peak_c, "temperature", system)} ${unitOf("temperature", system)}`;
    const before = results.prior("room", room.id);
    rooms.push({
      id: room.id,
      isRoom: true,
      number: room.number,
      name: room.name,
      area_m2: room.floor_area_m2 ?? 0,
      peak: r.cooling,
      heating_w: r.heating_w,
      heating_parts_w: r.heating_parts_w,
      flow_m3_s: flow?.design_m3_s ?? null,
      floating: r.floating_peak_c === null ? null : { month: r.floating_month, step: r.floating_step, text },
      prior: {
        cooling_w: before?.cooling?.sensible_w,
        heating_w: before?.heating_w,
        flow_m3_s: results.prior("airflow", room.id)?.design_m3_s,
      },
    });
  }
  rooms.sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true }));
  const groups: LoadRow[] = results
    .rows("group")
    .filter(([, group]) => group.kind !== "use")
    .map(([id, group]) => {
      const before = results.prior("group", id);
      const systemResult = results.get("air_system", id);
      return {
        id,
        isRoom: false,
        number: "",
        name: group.name,
        area_m2: group.floor_area_m2,
        peak: group.cooling,
        heating_w: group.heating_w,
        heating_parts_w: group.heating_parts_w,
        flow_m3_s: systemResult?.flow_m3_s ?? null,
        floating: null,
        prior: {
          cooling_w: before?.cooling.sensible_w,
          heating_w: before?.heating_w,
          flow_m3_s: results.prior("air_system", id)?.flow_m3_s,
        },
      };
    });
  const order = (row: LoadRow) => (row.id === "building" ? 1 : 0);
  return [...rooms, ...groups.sort((a, b) => order(a) - order(b))];
}
