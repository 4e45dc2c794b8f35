import declared from "./fields.json";
import type { Kind } from "./types";

/** A field as it is declared on the server (server/projects/kinds); `make generated` writes it here. */
export interface Declared {
  label: string;
  /** Its name where there is little room. */
  short?: string;
  type: "number" | "integer" | "yesno" | "choice" | "link" | "text" | "list";
  /** Unit registry key. */
  quantity?: string;
  low?: number;
  high?: number;
  /** Choices and what they are called. */
  words?: Record<string, string>;
  /** Whether the choices are numbers. */
  numeric?: boolean;
  /** Kind of thing that it points at. */
  to?: Kind;
  help?: string;
  /** Set of the room sheet that shows it. */
  sheet?: string;
  nullable?: boolean;
  default?: unknown;
  /** Whether it names what the thing is part of. */
  owner?: boolean;
}

const DECLARED = declared as unknown as Record<Kind, Record<string, Declared>>;

/** All kinds of things of a document. */
export const KINDS = Object.keys(DECLARED) as Kind[];

/** The declared fields of a kind, in their order. */
export function fieldsOf(kind: Kind): [string, Declared][] {
  return Object.entries(DECLARED[kind]);
}

/** A declared field; nothing where there is none of that name. */
export function declaredField(kind: string, field: string): Declared | undefined {
  return (DECLARED as Record<string, Record<string, Declared> | undefined>)[kind]?.[field];
}

/** The label of a field, as the server tells it too. */
export function labelOf(kind: string, field: string): string {
  return declaredField(kind, field)?.label ?? field.replaceAll("_", " ");
}

/** The quantity of a field that holds a figure. */
export function quantityOf(kind: string, field: string): string {
  return declaredField(kind, field)?.quantity ?? "ratio";
}

/** The kind of thing that a field points at; nothing where it holds a value. */
export function targetOf(kind: string, field: string): Kind | undefined {
  return declaredField(kind, field)?.to;
}

/** A value as it is read: choices by their words. */
export function wordOf(kind: string, field: string, value: unknown): string {
  return declaredField(kind, field)?.words?.[String(value)] ?? String(value);
}
