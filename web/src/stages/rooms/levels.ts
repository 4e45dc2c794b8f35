import type { Room } from "@/document/types";
import { newId, useDocument } from "@/document/store";

/** Height of a level, its own or the building's [m]. */
export function levelHeight(level: { height_m?: number | null }): number {
  return level.height_m ?? useDocument().project?.height_m ?? 3;
}

/** A new zone without rooms; rooms choose it in the sheet. */
export async function addZone(): Promise<void> {
  const doc = useDocument();
  const taken = new Set(doc.rows("zone").map((zone) => zone.name));
  let count = taken.size + 1;
  while (taken.has(`Zone ${count}`)) count += 1;
  await doc.attempt("New zone", [
    { op: "create", kind: "zone", id: newId(), fields: { name: `Zone ${count}` } },
  ]);
}

/** A new level on top of the others. */
export async function addLevel(): Promise<void> {
  const doc = useDocument();
  const [top] = doc.rows("level").sort((a, b) => b.floor_m! - a.floor_m!);
  const count = doc.rows("level").length;
  const fields = {
    name: `Level ${count}`,
    floor_m: top ? top.floor_m! + levelHeight(top) : 0,
    height_m: top ? top.height_m : null,
    position: count,
  };
  await doc.attempt("New level", [{ op: "create", kind: "level", id: newId(), fields }]);
}

/** The use that a new room gets without being asked for: that of a chosen room, or the only one there is. */
export function usualUse(chosen: Room | undefined): string | null {
  const uses = useDocument().rows("use");
  return chosen?.use ?? (uses.length === 1 ? uses[0]!.id : null);
}
