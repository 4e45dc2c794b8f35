import { client, Refusal, unwrap } from "@/api/client";
import { newId, useDocument } from "@/document/store";
import type { Change } from "@/document/types";
import type { Outline, Point } from "./outline";

type Answer = { data?: unknown; error?: unknown; response: Response };

/** What drawing does to the document. */
export function usePlanEdits() {
  const doc = useDocument();

  /** Keep outlines that were changed. */
  async function keep(label: string, changed: Map<string, Outline>): Promise<void> {
    const changes = [...changed].map(([id, outline]): Change => ({ op: "set", kind: "room", id, fields: { outline_m: outline } }));
    if (changes.length) await doc.attempt(label, changes);
  } // prettier-ignore

  /** Give a room that has none yet an outline. */
  async function draw(id: string, number: string, outline: Outline): Promise<void> {
    await keep(`${number} drawn`, new Map([[id, outline]]));
  }

  /** A new room with an outline; its id, or "" where that was refused. */
  async function create(fields: { number: string; level: string | null; use: string | null; outline_m: Outline }): Promise<string> {
    const id = newId();
    const change: Change = { op: "create", kind: "room", id, fields: { ...fields, name: "New room" } };
    return (await doc.attempt("Room drawn", [change])) ? id : "";
  } // prettier-ignore

  async function ask(send: () => Promise<Answer>): Promise<void> {
    try {
      await doc.applied(async () => unwrap(await send()) as never);
    } catch (error) {
      doc.message = error instanceof Refusal ? error.message : String(error);
    }
  }

  /** Cut a room along a line. */
  function split(room: string, start: Point, end: Point): Promise<void> {
    return ask(() => client.POST("/api/projects/{project_id}/plan/split", {
      params: { path: { project_id: doc.projectId } },
      body: { base_version: doc.version, room, start, end },
    }));
  } // prettier-ignore

  /** Make one room of several that touch. */
  function join(rooms: string[]): Promise<void> {
    return ask(() => client.POST("/api/projects/{project_id}/plan/join", {
      params: { path: { project_id: doc.projectId } },
      body: { base_version: doc.version, rooms },
    }));
  } // prettier-ignore

  return { keep, draw, create, split, join };
}
