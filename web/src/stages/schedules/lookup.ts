import { useDocument } from "@/document/store";
import type { Use } from "@/document/types";
import { useResults } from "@/results/store";
import { format, unitOf, type System } from "@/units/units";

/** A place that refers to a schedule: a use with what it drives, or something else by name. */
export interface UsePlace {
  use: Use | null;
  what: string;
  /** Field that holds the reference, with the thing it is of. */
  kind: "use" | "use_item" | "glazing" | "surface";
  id: string;
  field: string;
  name: string;
  rooms: number;
}

export const USE_FIELDS = {
  people_schedule: "people",
  person_schedule: "watts of a person",
  lights_schedule: "lights",
  task_lights_schedule: "task lights",
  equipment_schedule: "equipment",
} as const;

/** Everything that refers to a schedule. */
export function placesOf(schedule: string): UsePlace[] {
  const doc = useDocument();
  const roomsOf = (use: string) => doc.rows("room").filter((room) => room.use === use).length;
  const places: UsePlace[] = [];
  for (const use of doc.rows("use"))
    for (const [field, what] of Object.entries(USE_FIELDS))
      if (use[field as keyof typeof USE_FIELDS] === schedule)
        places.push({ use, what, kind: "use", id: use.id, field, name: use.name, rooms: roomsOf(use.id) });
  for (const item of doc.rows("use_item"))
    if (item.schedule === schedule) {
      const use = doc.get("use", item.use) ?? null;
      places.push({ use, what: item.name, kind: "use_item", id: item.id, field: "schedule", name: use?.name ?? "", rooms: roomsOf(item.use) });
    }
  for (const row of doc.rows("glazing"))
    if (row.blind_schedule === schedule)
      places.push({ use: null, what: "blind", kind: "glazing", id: row.id, field: "blind_schedule", name: row.name, rooms: 0 });
  for (const row of doc.rows("surface"))
    if (row.temperature_schedule === schedule)
      places.push({ use: null, what: "temperature beyond it", kind: "surface", id: row.id, field: "temperature_schedule", name: row.name, rooms: 1 });
  return places;
} // prettier-ignore

/** What a value stands for in the first place that uses it: people, or watts of lights and equipment. */
export function useAt(places: UsePlace[], value: number, system: System): string {
  const place = places.find((item) => item.kind === "use" && ["people", "lights", "equipment"].includes(item.what));
  const result = place?.use ? useResults().get("use", place.use.id) : undefined;
  if (!place?.use || !result) return "";
  if (place.what === "people") return `${(value * result.people).toFixed(1)} of ${result.people.toFixed(1)} people in ${place.name}`;
  const watts = (place.what === "lights" ? result.lights_w_m2 : result.equipment_w_m2) * value;
  return `${format(watts, "power_per_area", system)} ${unitOf("power_per_area", system)} of ${place.what} in ${place.name}`;
} // prettier-ignore
