import { newId, useDocument } from "@/document/store";
import type { Change } from "@/document/types";

function withoutId<T extends { id: string }>(row: T): Record<string, unknown> {
  const fields: Record<string, unknown> = { ...row };
  delete fields["id"];
  return fields;
}

/** Surfaces and openings of a room, once more for another. */
export function copiedFaces(from: string, to: string): Change[] {
  const doc = useDocument();
  return doc
    .rows("surface")
    .filter((row) => row.room === from)
    .flatMap((surface) => {
      const id = newId();
      // The copy does not follow the plan: it is not the plan's any more.
      const fields = { ...withoutId(surface), plan_key: null, plan_area_m2: null };
      const openings = doc
        .rows("opening")
        .filter((row) => row.surface === surface.id)
        .map((opening): Change => {
          const rest = withoutId(opening);
          return { op: "create", kind: "opening", id: newId(), fields: { ...rest, surface: id } };
        });
      return [{ op: "create", kind: "surface", id, fields: { ...fields, room: to } } as Change, ...openings];
    });
}

/** A room's surfaces taken away, openings with them. */
export function withoutFaces(room: string): Change[] {
  const surfaces = useDocument()
    .rows("surface")
    .filter((row) => row.room === room);
  return surfaces.map((row) => ({ op: "delete", kind: "surface", id: row.id }));
}
