/** Pieces of the kit list as the page shows them: with what is noted of them, equal ones together, and their sums. */
import type { KitNote } from "@/document/types";
import type { KitItem } from "@/results/types";

/** A line of the page: one piece, or equal ones together. */
export interface Piece extends KitItem {
  id: string;
  remark: string;
  /** Tags of all that stand together; one alone has none. */
  together: string[];
}

export const GROUPS = { none: "Each piece", serves: "By what it serves", equal: "Equal together" } as const;
export type Group = keyof typeof GROUPS;

const byName = (a: { tag: string }, b: { tag: string }) =>
  a.tag.localeCompare(b.tag, "en", { numeric: true });

/** All pieces, with their own tag where they have one, in the order of the list: by what they are called without it, so that
 *  a row stays where it is while it is named. */
export function piecesOf(items: [string, KitItem][], notes: readonly KitNote[]): Piece[] {
  const noted = new Map(notes.map((note) => [note.piece, note]));
  return [...items]
    .sort(([, a], [, b]) => a.order - b.order || byName(a, b))
    .map(([id, item]) => {
      const note = noted.get(id);
      return { ...item, id, tag: note?.tag || item.tag, remark: note?.remark ?? "", together: [] };
    });
}

/** Whether it is bought by length, area or number, so that equal ones add up. */
export const isBill = (piece: KitItem) => piece.count === 0 || piece.state === "counted";

/** Equal items of one size on one line: the largest duty, of bills the sum; sums of pieces, power and weight. */
export function equalTogether(pieces: Piece[]): Piece[] {
  const lines = new Map<string, Piece>();
  for (const piece of pieces) {
    const key = `${piece.item}\n${piece.size}`;
    const line = lines.get(key);
    if (!line) {
      lines.set(key, { ...piece, together: [piece.tag] });
      continue;
    }
    line.together.push(piece.tag);
    if (isBill(piece)) addUp(line, piece);
    else if (piece.duty > line.duty) Object.assign(line, { duty: piece.duty, second: piece.second, account: piece.account, why: piece.why });
    line.count += piece.count;
    line.power_w += piece.power_w;
    line.weight_kg = added(line.weight_kg, piece.weight_kg);
    if (piece.serves !== line.serves) line.serves = "several";
    if (piece.state !== line.state) line.state = "both";
    if (piece.remark && !line.remark.includes(piece.remark)) line.remark = [line.remark, piece.remark].filter(Boolean).join("; ");
  }
  return [...lines.values()].map((line) =>
    line.together.length > 1 ? { ...line, tag: `${line.together[0]} and ${line.together.length - 1} more` } : { ...line, together: [] },
  );
} // prettier-ignore

/** What is bought of a bill is bought of all together. */
function addUp(line: Piece, more: Piece): void {
  line.duty += more.duty;
  line.second += more.second;
  line.account = line.account.map((own, at) => ({
    ...own,
    value: own.value + (more.account[at]?.value ?? 0),
  }));
}

function added(a: number | null, b: number | null): number | null {
  return a === null ? b : b === null ? a : a + b;
}

/** Lines in the order of a group. */
export function grouped(pieces: Piece[], group: Group): Piece[] {
  if (group === "equal") return equalTogether(pieces);
  if (group === "serves")
    return [...pieces].sort((a, b) => a.serves.localeCompare(b.serves, "en", { numeric: true }));
  return pieces;
}

export interface Sums {
  count: number;
  power_w: number;
  weight_kg: number | null;
}

/** What lines come to; weight of those that have one. */
export function sumsOf(pieces: readonly Piece[]): Sums {
  return pieces.reduce<Sums>(
    (sums, piece) => ({
      count: sums.count + piece.count,
      power_w: sums.power_w + piece.power_w,
      weight_kg: added(sums.weight_kg, piece.weight_kg),
    }),
    { count: 0, power_w: 0, weight_kg: null },
  );
}

/** How far the size falls short of a duty, or what it gives above it, of the piece's first duty that has a size [share]. */
export function leftOver(piece: Piece): number | null {
  const at = piece.account.findIndex((line) => line.role === "left over");
  if (at < 0) return null;
  const first = piece.account.slice(0, at).map((line) => line.role).lastIndexOf("asked"); // prettier-ignore
  const asked = piece.account
    .slice(first, at)
    .filter((line) => line.role === "asked" || line.role === "margin")
    .reduce((sum, line) => sum + line.value, 0);
  return asked ? piece.account[at]!.value / asked : null;
}
