import type { useDocument } from "@/document/store";
import type { YearSummary } from "@/document/year";

/** A course of hours that can be looked at. */
export interface Course {
  value: string;
  label: string;
}

const ROOM = {
  air_c: "air",
  operative_c: "operative",
  heating_w: "heating",
  cooling_w: "cooling",
  sun_w: "sun through windows",
};
const SYSTEM = {
  cooling_w: "cooling coil",
  heating_w: "heat with reheat",
  fans_w: "fans",
  flow_kg_s: "supply air",
  outdoor_kg_s: "outdoor air",
};

const CIRCUIT = { carried_w: "carried", unmet_w: "asked and not given" };

const STORE = {
  drawn_w: "drawn",
  charged_w: "charged",
  solar_w: "from the sun",
  lost_w: "lost",
  tank_c: "store",
  preheated_c: "preheated",
};

/** What takes water, by its key among the year's. */
export function waterName(doc: ReturnType<typeof useDocument>, id: string): string {
  const [what = "", of = ""] = id.split("/");
  const [owner = "", room = ""] = of.split("~");
  if (what === "tower") return `Cooling tower of ${doc.get("circuit", owner)?.name ?? owner}`;
  const number = doc.get("room", room)?.number;
  return `Humidifier of ${doc.get("air_system", owner)?.name ?? owner}${number ? `, ${number}` : ""}`;
}

/** Quantity of a course, for its unit. */
export function quantityOf(course: string): string {
  if (course.startsWith("water/")) return "mass_flow";
  if (course.endsWith("_c")) return "temperature";
  return course.endsWith("_kg_s") ? "mass_flow" : "load";
}

/** All courses of a year, the building's first. */
export function coursesOf(doc: ReturnType<typeof useDocument>, summary: YearSummary): Course[] {
  const all: Course[] = summary.energy.map(({ use, carrier }) => ({
    value: `energy/${use}/${carrier}`,
    label: `Building: ${use}, ${carrier}`,
  }));
  for (const id of Object.keys(summary.systems)) {
    const [system = "", room = ""] = id.split("~");
    const of = doc.get("air_system", system)?.name ?? system;
    const name = room ? `${of}, ${doc.get("room", room)?.number ?? ""}` : of;
    for (const [key, what] of Object.entries(SYSTEM))
      all.push({ value: `air_system/${id}/${key}`, label: `${name}: ${what}` });
  }
  for (const id of Object.keys(summary.stores ?? {}))
    for (const [key, what] of Object.entries(STORE))
      all.push({
        value: `hot_water/${id}/${key}`,
        label: `${doc.get("hot_water", id)?.name ?? id}: ${what}`,
      });
  for (const id of Object.keys(summary.water ?? {}))
    all.push({ value: `water/${id}`, label: `${waterName(doc, id)}: water` });
  for (const id of Object.keys(summary.circuits ?? {}))
    for (const [key, what] of Object.entries(CIRCUIT))
      all.push({ value: `circuit/${id}/${key}`, label: `${doc.get("circuit", id)?.name ?? id}: ${what}` });
  for (const [id, { circuit }] of Object.entries(summary.units))
    all.push({
      value: `unit/${circuit}/${id}`,
      label: `${doc.get("circuit", circuit)?.name ?? ""}: ${doc.get("plant_unit", id)?.name ?? id}`,
    });
  const rooms = Object.keys(summary.rooms)
    .flatMap((id) => doc.get("room", id) ?? [])
    .sort((a, b) => a.number.localeCompare(b.number, "en", { numeric: true }));
  for (const room of rooms)
    for (const [key, what] of Object.entries(ROOM))
      all.push({ value: `room/${room.id}/${key}`, label: `${room.number} ${room.name}: ${what}` });
  return all;
}
