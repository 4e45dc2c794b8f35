import { useDocument } from "@/document/store";
import type { Kind } from "@/document/types";
import type { Snag } from "@/results/types";
import { BALANCE, useView } from "@/view/store";
import { useRouter } from "vue-router";

/** Snags of rooms that are mended where the air balance stands. */
const BALANCE_CODES = new Set([
  "extract_without_make_up",
  "return_below_nought",
  "room_off_balance",
  "nothing_to_make_up",
]);

/** Ways to a thing: what shows it is chosen, and its stage is opened at it. */
export function usePlaces() {
  const doc = useDocument();
  const view = useView();
  const router = useRouter();

  /** Choose what a thing is seen through: its room, its air system or its circuit. */
  function choose(kind: string, id: string): void {
    if (kind === "room") view.selectRoom(id);
    else if (kind === "surface") view.selectRoom(doc.get("surface", id)?.room ?? "");
    else if (kind === "opening") view.selectRoom(roomOfOpening(id));
    else if (kind === "transfer") view.airSystem = BALANCE;
    else if (kind === "air_system") view.airSystem = id;
    else if (kind === "duct_section") view.airSystem = doc.get("duct_section", id)?.air_system ?? "";
    else if (kind === "circuit" || kind === "hot_water") view.circuit = id;
    else if (kind === "plant_unit") view.circuit = doc.get("plant_unit", id)?.circuit ?? "";
    else if (kind === "pipe_section") view.circuit = doc.get("pipe_section", id)?.circuit ?? "";
  }
  function roomOfOpening(id: string): string {
    return doc.get("surface", doc.get("opening", id)?.surface)?.room ?? "";
  }

  /** Open a stage at a thing, with the cursor in a field of it where one is named. */
  function toThing(kind: string, id: string, stage: string, field = ""): void {
    choose(kind, id);
    view.wanted = field ? { kind: kind as Kind, id, field } : null;
    void router.push({ path: `/${doc.projectId}/${stage}`, query: id ? { at: `${kind}/${id}` } : {} });
  }
  function toSnag(snag: Snag): void {
    toThing(snag.kind, snag.id, snag.stage, snag.field ?? "");
    if (BALANCE_CODES.has(snag.code)) view.airSystem = BALANCE;
  }
  function toStage(stage: string, page = ""): void {
    void router.push({ path: `/${doc.projectId}/${stage}`, query: page ? { page } : {} });
  }

  return { toThing, toSnag, toStage };
}
