import type { Schemas } from "@/api/client";
import { format, unitOf } from "@/units/units";

/** A Working tree; values in SI. */
export type WorkingTree = Schemas["WorkingOut"];

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
