import type { Room } from "@/document/types";
import { newId, useDocument } from "@/document/store";

/** Height of a level, its own or the building's [m]. */
export function levelHeight(level: { height_m?: number | null }): number {
  return level.height_m ?? useDocument().project?.height_m ?? 3;
}

/** A new zone without rooms; rooms choose it in the sheet. Its id, or none where it was refused. */
export async function addZone(name?: string): Promise<string | null> {
  const doc = useDocument();
  const taken = new Set(doc.rows("zone").map((zone) => zone.name));
  let count = taken.size + 1;
  while (taken.has(`Zone ${count}`)) count += 1;
  const id = newId();
  const fields = { name: name ?? `Zone ${count}` };
  return (await doc.attempt("New zone", [{ op: "create", kind: "zone", id, fields }])) ? id : null;
}

/** A new level on top of the others. Its id, or none where it was refused. */
export async function addLevel(name?: string): Promise<string | null> {
  const doc = useDocument();
  const [top] = doc.rows("level").sort((a, b) => b.floor_m! - a.floor_m!);
  const count = doc.rows("level").length;
  const fields = {
    name: name ?? `Level ${count}`,
    floor_m: top ? top.floor_m! + levelHeight(top) : 0,
    height_m: top ? top.height_m : null,
    position: count,
  };
  const id = newId();
  return (await doc.attempt("New level", [{ op: "create", kind: "level", id, fields }])) ? id : null;
}

/** The use that a new room gets without being asked for: that of a chosen room, or the only one there is. */
export function usualUse(chosen: Room | undefined): string | null {
  const uses = useDocument().rows("use");
  return chosen?.use ?? (uses.length === 1 ? uses[0]!.id : null);
}
