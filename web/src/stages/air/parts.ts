/** Parts of a unit as they stand on its path: what they are called, and how they are moved. */
import type { AirSystem } from "@/document/types";

export type UnitPart = AirSystem["parts"][number];
export type PartKind = UnitPart["kind"];

export const PART_NAMES: Record<PartKind, string> = {
  "heating coil": "heating coil",
  "cooling coil": "cooling coil",
  "steam humidifier": "steam humidifier",
  "adiabatic humidifier": "adiabatic humidifier",
  fan: "fan",
  filter: "filter",
  attenuator: "attenuator",
  other: "anything else",
};
/** Parts that change the pressure alone. */
export const STILL: PartKind[] = ["filter", "attenuator", "other"];

/** Parts that count: units in rooms have no heating coil. */
export function fitted(system: AirSystem): { part: UnitPart; at: number }[] {
  return system.parts
    .map((part, at) => ({ part, at }))
    .filter(({ part }) => system.arrangement !== "room units" || part.kind !== "heating coil");
}

/** The parts with one of them at another place; `to` counts places between parts as they stand. */
export function moved(parts: UnitPart[], from: number, to: number): UnitPart[] {
  const rest = parts.filter((_, at) => at !== from);
  rest.splice(to > from ? to - 1 : to, 0, parts[from]!);
  return rest;
}

/** Kinds that could be added to what is there. */
export function addable(parts: UnitPart[]): PartKind[] {
  const has = (kind: PartKind) => parts.filter((part) => part.kind === kind).length;
  const humid = has("steam humidifier") + has("adiabatic humidifier");
  return (Object.keys(PART_NAMES) as PartKind[]).filter((kind) => {
    if (kind === "fan") return false;
    if (kind === "cooling coil") return has(kind) === 0;
    if (kind === "heating coil") return has(kind) < (has("cooling coil") ? 2 : 1);
    if (kind.endsWith("humidifier")) return humid === 0;
    return true;
  });
}

/** The parts with a new one, and its place: a second heating coil at the end, others behind the part `after`, or at the end. */
export function withNew(
  parts: UnitPart[],
  kind: PartKind,
  after: number | null,
): { parts: UnitPart[]; at: number } {
  const made: UnitPart = {
    kind,
    drop_pa: STILL.includes(kind) ? 80 : 40,
    clean_pa: null,
    rows: null,
    face_velocity_m_s: null,
  };
  const cooling = parts.findIndex((part) => part.kind === "cooling coil");
  const heats = parts.findIndex((part) => part.kind === "heating coil");
  let at = after === null ? parts.length : after + 1;
  // Two heating coils stand on either side of the cooling coil.
  if (kind === "heating coil" && heats >= 0) at = heats < cooling ? parts.length : 0;
  return { parts: [...parts.slice(0, at), made, ...parts.slice(at)], at };
}
