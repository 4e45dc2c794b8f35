import { useDocument } from "@/document/store";
import { useResults } from "@/results/store";
import type { GroupAirResult, Peak } from "@/results/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";

/** A row of the loads grid: a room, or rooms together. */
export interface LoadRow {
  id: string;
  kind: "room" | "level" | "zone" | "use" | "air_system" | "building";
  isRoom: boolean;
  number: string;
  name: string;
  area_m2: number;
  peak: Peak | null;
  heating_w: number;
  heating_parts_w: number[];
  heating_simple_w: number;
  /** With the margins of the room, or of each of the rooms. */
  with_margin: { cooling_w: number | null; heating_w: number };
  flow_m3_s: number | null;
  /** What outdoor air by air systems brings to their coils at the peak. */
  outdoor_air_w: number | null;
  floating: { month: number; step: number; text: string } | null;
  prior: { cooling_w?: number; heating_w?: number; flow_m3_s?: number };
}

function outdoorAir(found: GroupAirResult | undefined): number | null {
  const air = found?.outdoor_air;
  return air ? air.sensible_w + air.latent_w : null;
}

/** Rooms by number, then levels, zones, uses, systems and the building. */
export function loadRows(): LoadRow[] {
  const doc = useDocument();
  const results = useResults();
  const { system } = useView();
  const rooms: LoadRow[] = [];
  for (const room of doc.rows("room")) {
    const r = results.get("room", room.id);
    if (!r) continue;
    const flow = results.get("airflow", room.id);
    const warmest = results.get("room_air", room.id)?.warmest_c ?? r.floating_peak_c;
    const text = `${format(warmest, "temperature", system)} ${unitOf("temperature", system)}`;
    const before = results.prior("room", room.id);
    rooms.push({
      id: room.id,
      kind: "room",
      isRoom: true,
      number: room.number,
      name: room.name,
      area_m2: room.floor_area_m2 ?? 0,
      peak: r.cooling,
      heating_w: r.heating_w,
      heating_parts_w: r.heating_parts_w,
      heating_simple_w: r.heating_simple_w,
      with_margin: { cooling_w: r.cooling_with_margin_w, heating_w: r.heating_with_margin_w },
      flow_m3_s: flow?.design_m3_s ?? null,
      outdoor_air_w: outdoorAir(results.get("room_air", room.id)),
      floating: r.floating_peak_c === null ? null : { month: r.floating_month, step: r.floating_step, text },
      prior: {
        cooling_w: before?.cooling?.sensible_w,
        heating_w: before?.heating_w,
        flow_m3_s: results.prior("airflow", room.id)?.design_m3_s,
      },
    });
  }
  rooms.sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true }));
  const groups: LoadRow[] = results.rows("group").map(([id, group]) => {
    const before = results.prior("group", id);
    const systemResult = results.get("air_system", id);
    return {
      id,
      kind: group.kind,
      isRoom: false,
      number: "",
      name: group.name,
      area_m2: group.floor_area_m2,
      // Rooms of which none is cooled have no peak.
      peak: group.cooling.sensible_w > 0 ? group.cooling : null,
      heating_w: group.heating_w,
      heating_parts_w: group.heating_parts_w,
      heating_simple_w: group.heating_simple_w,
      with_margin: { cooling_w: group.cooling_with_margin_w, heating_w: group.heating_with_margin_w },
      flow_m3_s: systemResult?.flow_m3_s ?? null,
      outdoor_air_w: group.cooling.sensible_w > 0 ? outdoorAir(results.get("group_air", id)) : null,
      floating: null,
      prior: {
        cooling_w: before?.cooling.sensible_w,
        heating_w: before?.heating_w,
        flow_m3_s: results.prior("air_system", id)?.flow_m3_s,
      },
    };
  });
  const kinds = ["level", "zone", "use", "air_system", "building"];
  const order = (row: LoadRow) => kinds.indexOf(row.kind);
  return [...rooms, ...groups.sort((a, b) => order(a) - order(b))];
}
