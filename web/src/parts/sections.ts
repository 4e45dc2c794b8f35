import type { DuctSection, PipeSection } from "@/document/types";

type AnySection = DuctSection | PipeSection;

/** Sections in the order of a walk from the root, with their depth; loose ones at the end. */
export function inOrder<T extends AnySection>(rows: T[]): { row: T; depth: number }[] {
  const below = new Map<string, T[]>();
  for (const row of [...rows].sort((a, b) => a.position - b.position)) {
    const key = row.parent ?? "";
    below.set(key, [...(below.get(key) ?? []), row]);
  }
  const result: { row: T; depth: number }[] = [];
  const walk = (parent: string, depth: number) => {
    for (const row of below.get(parent) ?? []) {
      result.push({ row, depth });
      walk(row.id, depth + 1);
    }
  };
  walk("", 0);
  const seen = new Set(result.map((item) => item.row.id));
  return [...result, ...rows.filter((row) => !seen.has(row.id)).map((row) => ({ row, depth: 0 }))];
}
