import { client, unwrap } from "@/api/client";

/** Something on the shelf: fields of a new row, with a group or the schedules it refers to. */
export interface ShelfItem {
  group?: string;
  fields: Record<string, unknown>;
  schedules?: Record<string, string>;
}

export interface Shelf {
  materials: ShelfItem[];
  schedules: ShelfItem[];
  uses: ShelfItem[];
}

let kept: Promise<Shelf> | null = null;

/** Ordinary things to take from; fetched once. */
export function loadShelf(): Promise<Shelf> {
  kept ??= client.GET("/api/shelf").then((answer) => unwrap(answer) as unknown as Shelf);
  return kept;
}
