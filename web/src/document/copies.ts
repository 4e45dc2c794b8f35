import { newId, useDocument } from "./store";
import type { Change, Kind } from "./types";
import { ownerOf } from "./usage";

const KINDS_WITH_PARTS: Partial<Record<Kind, Kind>> = { assembly: "layer", use: "use_item" };

interface Row {
  id: string;
}

/** A thing with its parts at one moment. Rows are never changed in place, so keeping them is enough. */
export interface Held {
  kind: Kind;
  row: Row;
  parts: Row[];
}

/** The name, or the name with a number where it is taken. */
export function freeName(name: string, rows: { name: string }[]): string {
  const taken = new Set(rows.map((row) => row.name.toLowerCase()));
  if (!taken.has(name.toLowerCase())) return name;
  let number = 2;
  while (taken.has(`${name} ${number}`.toLowerCase())) number += 1;
  return `${name} ${number}`;
}

/** Names of schedules become names of files; the server refuses these characters, and any name that is too long. */
const UNSAFE = /[/\\:*?"<>|]/g;
const LONGEST = 110;

/** A name made of other names as its kind may be called. */
function fitting(kind: Kind, name: string): string {
  return (kind === "schedule" ? name.replace(UNSAFE, "-") : name).slice(0, LONGEST).trim();
}

/** The fields of a row without its id. */
export function fieldsOf(row: object): Record<string, unknown> {
  return Object.fromEntries(Object.entries(row).filter(([key]) => key !== "id"));
}

/** A thing with its parts as it stands. */
export function hold(kind: Kind, id: string): Held | null {
  const doc = useDocument();
  const row = doc.get(kind, id);
  if (!row) return null;
  const part = KINDS_WITH_PARTS[kind];
  const field = part && ownerOf(part)![0];
  const parts = part ? doc.rows(part).filter((item) => (item as unknown as Record<string, unknown>)[field!] === id) : [];
  return { kind, row, parts };
} // prettier-ignore

/** Whether two states of a thing say the same; what it is called does not count. */
export function alike(a: Held, b: Held): boolean {
  // The order of fields tells nothing: a row that was made anew may have another one.
  const inOrder = (row: object) => Object.entries(row).sort(([p], [q]) => p.localeCompare(q));
  const told = (held: Held) =>
    JSON.stringify([
      inOrder({ ...held.row, name: null, source: null }),
      [...held.parts].sort((p, q) => p.id.localeCompare(q.id)).map(inOrder),
    ]);
  return a === b || told(a) === told(b);
}

/** Creation of a copy of a thing with its parts, under a free name; returns its id and the changes. */
export function copyOf(held: Held, name: string): [string, Change[]] {
  const doc = useDocument();
  const made = newId();
  const { kind, row, parts } = held;
  const free = freeName(fitting(kind, name), doc.rows(kind) as unknown as { name: string }[]);
  const changes: Change[] = [{ op: "create", kind, id: made, fields: { ...fieldsOf(row), name: free } }];
  const part = KINDS_WITH_PARTS[kind];
  for (const item of part ? parts : [])
    changes.push({ op: "create", kind: part!, id: newId(), fields: { ...fieldsOf(item), [ownerOf(part!)![0]]: made } });
  return [made, changes];
} // prettier-ignore

/** What brings a thing and its parts back to a state held before. */
export function broughtBack(before: Held, now: Held): Change[] {
  const part = KINDS_WITH_PARTS[before.kind];
  const kept = new Map(before.parts.map((item) => [item.id, item]));
  const there = new Set(now.parts.map((item) => item.id));
  const changes: Change[] = [
    { op: "set", kind: before.kind, id: before.row.id, fields: fieldsOf(before.row) },
  ];
  if (!part) return changes;
  for (const item of now.parts)
    if (!kept.has(item.id)) changes.push({ op: "delete", kind: part, id: item.id });
  for (const [id, item] of kept)
    changes.push({ op: there.has(id) ? "set" : "create", kind: part, id, fields: fieldsOf(item) });
  return changes;
}
