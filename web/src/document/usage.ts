import { fieldsOf, KINDS } from "./fields";
import { useDocument } from "./store";
import { isServedBy } from "./served";
import type { Kind, Kinds } from "./types";

/** A place that refers to a thing. */
export interface Usage {
  key: string;
  /** The row that refers to it, and the field that does. */
  kind: Kind;
  id: string;
  field: string;
  /** What a person calls the place, and what the thing is there. */
  name: string;
  what: string;
  /** Rooms that feel a change of the thing here, by id. */
  rooms: string[];
}

const WHAT: Record<string, string> = {
  people_schedule: "people",
  person_schedule: "watts of a person",
  lights_schedule: "lights",
  task_lights_schedule: "task lights",
  equipment_schedule: "equipment",
  setpoint_schedule: "hours of the set-points",
  drawn_air_schedule: "hours of drawn-in air",
  humidity_schedule: "hours of the humidity limits",
  blind_schedule: "blind",
  running: "hours of running",
  material: "layer",
  bridge_material: "crossing a layer",
};

/** Field that says what a kind is part of, with the kind of that. */
export function ownerOf(kind: Kind): [field: string, owner: Kind] | null {
  const found = fieldsOf(kind).find(([, it]) => it.owner);
  return found ? [found[0], found[1].to!] : null;
}

/** Kinds and fields that refer to a kind, but for those that say what something is part of. */
export function referring(kind: Kind): [Kind, string][] {
  return KINDS.flatMap((from) =>
    fieldsOf(from)
      .filter(([, it]) => it.to === kind && !it.owner)
      .map(([field]): [Kind, string] => [from, field]),
  );
}

function value(row: object, field: string): unknown {
  return (row as Record<string, unknown>)[field];
}

/** How often each thing of a kind is referred to, by id. */
export function countUsages(kind: Kind): Map<string, number> {
  const doc = useDocument();
  const counts = new Map<string, number>();
  for (const [from, field] of referring(kind))
    for (const row of doc.rows(from)) {
      const id = value(row, field) as string | null;
      if (id) counts.set(id, (counts.get(id) ?? 0) + 1);
    }
  return counts;
}

/** Everywhere that refers to a thing. */
export function usagesOf(kind: Kind, id: string): Usage[] {
  const doc = useDocument();
  return referring(kind).flatMap(([from, field]) =>
    doc
      .rows(from)
      .filter((row) => value(row, field) === id)
      .map((row) => {
        const [name, what] = wordsOf(from, row, field);
        return { key: `${row.id}/${field}`, kind: from, id: row.id, field, name, what, rooms: roomsOf(from, row, field) };
      }),
  );
} // prettier-ignore

/** Rooms that several usages reach, each once. */
export function roomsReached(usages: Usage[]): Set<string> {
  return new Set(usages.flatMap((usage) => usage.rooms));
}

function roomName(id: string | undefined): string {
  const room = useDocument().get("room", id);
  return room ? `${room.number} ${room.name}` : "";
}

function wordsOf(kind: Kind, row: { id: string }, field: string): [string, string] {
  const doc = useDocument();
  const what = WHAT[field] ?? field.replaceAll("_", " ");
  if (kind === "room") return [roomName(row.id), field === "use" ? "" : what];
  if (kind === "surface") {
    const surface = row as Kinds["surface"];
    return [roomName(surface.room), field === "assembly" ? surface.name : `${what} beyond ${surface.name}`];
  }
  if (kind === "opening") {
    const opening = row as Kinds["opening"];
    return [roomName(doc.get("surface", opening.surface)?.room), opening.name];
  }
  if (kind === "extract") {
    const extract = row as Kinds["extract"];
    return [roomName(extract.room), extract.name];
  }
  if (kind === "transfer") return [roomName((row as Kinds["transfer"]).room), "air that comes in"];
  if (kind === "layer") return [doc.get("assembly", (row as Kinds["layer"]).assembly)?.name ?? "", what];
  if (kind === "use_item") {
    const item = row as Kinds["use_item"];
    return [doc.get("use", item.use)?.name ?? "", item.name];
  }
  return [String(value(row, "name") ?? ""), what];
}

/** Rooms that feel what a row refers to by a field. */
function roomsOf(kind: Kind, row: { id: string }, field: string): string[] {
  const doc = useDocument();
  if (kind === "room") return [row.id];
  if (kind === "surface") return [(row as Kinds["surface"]).room];
  if (kind === "opening") return [doc.get("surface", (row as Kinds["opening"]).surface)?.room ?? ""];
  if (kind === "extract") return [(row as Kinds["extract"]).room];
  if (kind === "transfer") return [(row as Kinds["transfer"]).room];
  if (kind === "use") return withUse(row.id);
  if (kind === "use_item") return withUse((row as Kinds["use_item"]).use);
  if (kind === "kit") return row.id === doc.project?.kit ? withRole(field) : [];
  if (kind === "layer") return reached("assembly", (row as Kinds["layer"]).assembly);
  if (kind === "air_system")
    return doc
      .rows("room")
      .filter((room) => isServedBy(room, row.id))
      .map((room) => room.id);
  if (kind === "project") return doc.rows("room").map((room) => room.id);
  if (kind === "glazing") return reached("glazing", row.id);
  return [];
}

function reached(kind: Kind, id: string): string[] {
  return [...roomsReached(usagesOf(kind, id))];
}

function withUse(use: string): string[] {
  return useDocument()
    .rows("room")
    .filter((room) => room.use === use)
    .map((room) => room.id);
}

/** Rooms whose surfaces or openings take a role of the kit. */
function withRole(role: string): string[] {
  const doc = useDocument();
  const surfaces = () =>
    doc
      .rows("surface")
      .filter((row) => row.role === role && !row.assembly)
      .map((row) => row.room);
  const openings = () =>
    doc
      .rows("opening")
      .filter((row) => row.kind === role && !(role === "window" ? row.glazing : row.assembly))
      .map((row) => doc.get("surface", row.surface)?.room ?? "");
  return [...new Set(role === "door" || role === "window" ? openings() : surfaces())];
}
