import { client, unwrap, type Schemas } from "@/api/client";

/** Something on the shelf: fields of a new row, with a group or the schedules it refers to. */
export type ShelfItem = Schemas["ShelfItem"];

export type Shelf = Schemas["ShelfOut"];

let kept: Promise<Shelf> | null = null;

/** Ordinary things to take from; fetched once. */
export function loadShelf(): Promise<Shelf> {
  kept ??= client.GET("/api/shelf").then((answer) => unwrap(answer));
  return kept;
}
