import { format, unitOf } from "@/units/units";

/** A Working tree as the server sends it; values in SI. */
export interface WorkingTree {
  name: string;
  value: number | null;
  quantity: string;
  symbol: string;
  formula: string;
  numbers: string;
  source: string;
  note: string;
  /** Where an input comes from, and the stage and "kind/id" that holds it. */
  origin: string;
  stage: string;
  place: string;
  inputs: WorkingTree[];
}

/** The tree as indented text, both unit systems on every line. */
export function asText(node: WorkingTree, depth = 0): string {
  const pad = "  ".repeat(depth);
  const value =
    node.value === null
      ? ""
      : `: ${format(node.value, node.quantity, "SI")} ${unitOf(node.quantity, "SI")} (${format(node.value, node.quantity, "IP")} ${unitOf(node.quantity, "IP")})`;
  const lines = [`${pad}${node.name}${value}${node.origin ? ` [${node.origin}]` : ""}`];
  for (const extra of [node.formula, node.numbers, node.source, node.note]) {
    if (extra) lines.push(`${pad}    ${extra}`);
  }
  return [...lines, ...node.inputs.map((input) => asText(input, depth + 1))].join("\n");
}
