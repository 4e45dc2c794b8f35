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

/** The name, or the name with a number where it is taken. */
export function freeName(name: string, rows: { name: string }[]): string {
  const taken = new Set(rows.map((row) => row.name.toLowerCase()));
  if (!taken.has(name.toLowerCase())) return name;
  let number = 2;
  while (taken.has(`${name} ${number}`.toLowerCase())) number += 1;
  return `${name} ${number}`;
}
