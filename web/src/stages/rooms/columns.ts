import { useDocument } from "@/document/store";
import type { Room } from "@/document/types";
import { column, sheetFields } from "@/parts/declared";
import type { Editor } from "@/parts/edit";
import type { Column } from "@/parts/grid";
import { choicesOf } from "@/parts/saving";
import { useResults } from "@/results/store";
import { addLevel, addZone } from "./levels";

export const SETS = {
  geometry: "Geometry",
  use: "Use",
  thermostat: "Thermostat",
  gains: "Gains",
  air: "Air",
  results: "Results",
};
export type ColumnSet = keyof typeof SETS;

type RoomKey = keyof Room & string;

/** A value that a room may have of its own; otherwise the inherited one shows, in italics. */
function inherited(key: RoomKey, title?: string, width = 96): Column<Room> {
  const results = useResults();
  return column("room", key, width, {
    ...(title ? { title } : {}),
    value: (row) => row[key] ?? results.get("effective", row.id)?.[key]?.[0],
    origin: (row) => results.get("effective", row.id)?.[key]?.[1] ?? "",
    text: undefined,
  });
}

/** All that rooms inherit and that is declared for a set. */
function inheritedOf(set: ColumnSet): Column<Room>[] {
  return sheetFields(set).map((key) => inherited(key as RoomKey));
}

/** How far a typed floor area may lie from that of the outline [m²]. */
const SAME_AREA_M2 = 0.011;
function offPlan(row: Room): boolean {
  const { plan_area_m2: drawn, floor_area_m2: area } = row;
  return drawn != null && area != null && Math.abs(drawn - area) > SAME_AREA_M2;
}

/** What a name that is not there yet can be made into. */
const MADE: Partial<Record<string, Editor["make"]>> = {
  level: { what: "level", of: addLevel },
  zone: { what: "zone", of: addZone },
};

/** Columns of the sheet by task; number, name and the two peaks are always there. */
export function roomColumns(set: ColumnSet): Column<Room>[] {
  const doc = useDocument();
  const results = useResults();
  const choice = (key: "use" | "level" | "zone" | "air_system", title: string): Column<Room> => ({
    key,
    title,
    width: 128,
    value: (row) => row[key],
    text: (row) => doc.get(key, row[key])?.name ?? "–",
    editor: { type: "choice", clearable: true, choices: choicesOf(doc.rows(key)), make: MADE[key] },
  });
  const sensorOf = (row: Room): string => {
    const room = row.sensor_room ?? results.get("effective", row.id)?.["sensor_room"]?.[0];
    return !room || room === row.id ? "itself" : (doc.get("room", String(room))?.number ?? "–");
  };
  const sets: Record<ColumnSet, Column<Room>[]> = {
    geometry: [
      choice("level", "Level"),
      choice("zone", "Zone"),
      { key: "floor_area_m2", title: "Floor", quantity: "area", width: 86, value: (row) => row.floor_area_m2, editor: { type: "number", quantity: "area", clearable: true },
        note: (row) => (offPlan(row) ? `The outline on the plan has another area; Delete takes that one again.` : "") },
      inherited("height_m", "Height", 90),
      { key: "volume", title: "Volume", quantity: "volume", width: 96, value: (row) => results.get("room", row.id)?.volume_m3 },
    ],
    use: [
      choice("use", "Use"),
      column("room", "occupied", 84),
      inherited("heated", undefined, 76),
      inherited("cooled", undefined, 76),
      ...inheritedOf("use"),
    ],
    thermostat: [
      ...inheritedOf("thermostat"),
      column("room", "heating_capacity_w", 116),
      column("room", "cooling_capacity_w", 116),
      { key: "sensor_room", title: "Sensor in", width: 128, value: (row) => row.sensor_room, text: (row) => sensorOf(row), origin: (row) => results.get("effective", row.id)?.["sensor_room"]?.[1] ?? "",
        editor: { type: "choice", clearable: true, empty: "as its zone", choices: doc.rows("room").map((r) => ({ value: r.id, label: `${r.number} ${r.name}` })) } },
    ],
    results: [
      { key: "warmest", title: "Air at peak", quantity: "temperature", width: 100, value: (row) => { const r = results.get("room", row.id); return r?.control?.air_c ?? r?.floating_peak_c ?? (r ? results.get("effective", row.id)?.["cooling_setpoint_c"]?.[0] : null); } },
      { key: "operative", title: "Operative", quantity: "temperature", width: 92, value: (row) => results.get("room", row.id)?.control?.operative_c },
      { key: "too_warm", title: "Too warm by", quantity: "temperature_difference", width: 96, value: (row) => results.get("room", row.id)?.control?.too_warm?.kelvin },
      { key: "too_cold", title: "Too cold by", quantity: "temperature_difference", width: 96, value: (row) => results.get("room", row.id)?.control?.too_cold?.kelvin },
      { key: "warm_up", title: "For warm-up", quantity: "load", width: 100, value: (row) => results.get("room", row.id)?.control?.warm_up_w,
        explain: (row) => (results.get("room", row.id)?.control ? { quantity: "room_heating", subject: row.id } : null) },
      { key: "humidity", title: "Humidity to", quantity: "percent", width: 92, value: (row) => results.get("room_air", row.id)?.moisture?.highest },
    ],
    gains: [
      choice("use", "Use"),
      inherited("people_per_m2", "People", 110),
      inherited("lights_w_m2", "Lights", 110),
      inherited("equipment_w_m2", "Equipment", 120),
    ],
    air: [
      choice("air_system", "Air system"),
      ...inheritedOf("air"),
      { key: "second_system", title: "then", width: 118, value: (row) => row.second_system, text: (row) => doc.get("air_system", row.second_system)?.name ?? "–",
        editor: { type: "choice", clearable: true, empty: "no second one", choices: choicesOf(doc.rows("air_system")) } },
      column("room", "offset_m3_s", 86),
      column("room", "pinned_flow_m3_s", 86),
      { key: "airflow", title: "Supply", quantity: "airflow", width: 92, value: (row) => results.get("airflow", row.id)?.design_m3_s,
        prior: (row) => results.prior("airflow", row.id)?.design_m3_s, explain: (row) => (results.get("airflow", row.id) ? { quantity: "room_airflow", subject: row.id } : null) },
    ],
  }; // prettier-ignore
  return [
    column("room", "number", 58, { title: "No." }),
    column("room", "name", 132, { title: "Room" }),
    ...sets[set],
    { key: "cooling", title: "Cooling", quantity: "load", width: 128, value: (row) => results.get("room", row.id)?.cooling?.sensible_w,
      prior: (row) => results.prior("room", row.id)?.cooling?.sensible_w, explain: (row) => (results.get("room", row.id)?.cooling ? { quantity: "room_cooling", subject: row.id } : null) },
    { key: "heating", title: "Heating", quantity: "load", width: 128, value: (row) => results.get("room", row.id)?.heating_w,
      prior: (row) => results.prior("room", row.id)?.heating_w, explain: (row) => ({ quantity: "room_heating", subject: row.id }) },
  ]; // prettier-ignore
}
