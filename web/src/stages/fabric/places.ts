import { newId, useDocument } from "@/document/store";
import type { Change, Kind, Kinds } from "@/document/types";
import { freeName } from "@/parts/shelf";
import type { Place } from "@/parts/UsedIn.vue";

/** A place that refers to a thing, with the field that does. */
export interface FieldPlace extends Place {
  kind: Kind;
  id: string;
  field: string;
}

/** Fields that refer to a kind of fabric, by the kind of the thing that has them. */
const FIELDS: Partial<Record<Kind, [Kind, string[]][]>> = {
  assembly: [
    ["kit", ["outer_wall", "roof", "ground_floor", "inner_wall", "inner_floor", "door"]],
    ["surface", ["assembly"]],
    ["opening", ["assembly"]],
  ],
  glazing: [
    ["kit", ["window"]],
    ["opening", ["glazing"]],
  ],
  shading: [["opening", ["shading"]]],
  material: [["layer", ["material", "bridge_material"]]],
};

function roomName(surface: string | undefined): string {
  const doc = useDocument();
  const room = doc.get("room", doc.get("surface", surface)?.room);
  return room ? `${room.number} ${room.name}` : "";
}

function nameOf(kind: Kind, row: { id: string }): [string, string] {
  const doc = useDocument();
  if (kind === "kit") return [(row as Kinds["kit"]).name, ""];
  if (kind === "surface") return [roomName(row.id), (row as Kinds["surface"]).name];
  if (kind === "opening") return [roomName((row as Kinds["opening"]).surface), (row as Kinds["opening"]).name];
  return [doc.get("assembly", (row as Kinds["layer"]).assembly)?.name ?? "", "layer"];
} // prettier-ignore

/** Everywhere that refers to a thing. */
export function placesOf(kind: Kind, id: string): FieldPlace[] {
  const doc = useDocument();
  return (FIELDS[kind] ?? []).flatMap(([user, fields]) =>
    doc.rows(user).flatMap((row) =>
      fields
        .filter((field) => (row as unknown as Record<string, unknown>)[field] === id)
        .map((field) => {
          const [name, what] = nameOf(user, row);
          const role = user === "kit" ? field.replaceAll("_", " ") : what;
          return { key: `${row.id}/${field}`, name, what: role, kind: user, id: row.id, field };
        }),
    ),
  );
}

function fieldsOf(row: object): Record<string, unknown> {
  return Object.fromEntries(Object.entries(row).filter(([key]) => key !== "id"));
}

/** Creation of a copy of a thing, with the layers of an assembly; returns its id and the changes. */
export function copyOf(kind: Kind, id: string, name: string): [string, Change[]] {
  const doc = useDocument();
  const row = doc.get(kind, id) as (Kinds["assembly"] & { name: string }) | undefined;
  const made = newId();
  if (!row) return [made, []];
  const free = freeName(name, doc.rows(kind) as { name: string }[]);
  const changes: Change[] = [{ op: "create", kind, id: made, fields: { ...fieldsOf(row), name: free } }];
  if (kind === "assembly")
    for (const layer of doc.rows("layer").filter((item) => item.assembly === id))
      changes.push({ op: "create", kind: "layer", id: newId(), fields: { ...fieldsOf(layer), assembly: made } });
  return [made, changes];
} // prettier-ignore

/** Give one place a copy of its own; returns the copy's id, or "" where that was refused. */
export async function copyFor(kind: Kind, id: string, place: FieldPlace): Promise<string> {
  const doc = useDocument();
  const name = (doc.get(kind, id) as { name: string } | undefined)?.name ?? "";
  const [made, changes] = copyOf(kind, id, `${name}, ${place.name}`);
  const refer: Change = { op: "set", kind: place.kind, id: place.id, fields: { [place.field]: made } };
  return (await doc.attempt("Copy for one place", [...changes, refer])) ? made : "";
}

/** Put another thing in every place, and delete this one. */
export function replaceEverywhere(kind: Kind, id: string, other: string): Promise<boolean> {
  const changes: Change[] = placesOf(kind, id).map((place) => ({
    op: "set",
    kind: place.kind,
    id: place.id,
    fields: { [place.field]: other },
  }));
  return useDocument().attempt("Replaced everywhere and deleted", [...changes, { op: "delete", kind, id }]);
}
