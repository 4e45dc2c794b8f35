import { Refusal } from "@/api/client";
import { parseMonthDay, showMonthDay } from "@/units/monthDay";
import { editText, isAmbiguous, parse, unitOf, type System } from "@/units/units";

/** How a value is edited. */
export interface Editor {
  type: "number" | "text" | "choice" | "yesno" | "month_day";
  /** Unit registry key of a number. */
  quantity?: string;
  /** Choices as value and label. */
  choices?: { value: string; label: string }[];
  /** Whether the choices are stored as numbers. */
  numeric?: boolean;
  /** Whether emptying it means "inherit" or "none". */
  clearable?: boolean;
  /** Whether a text may be empty. */
  optional?: boolean;
  /** What an empty choice says. */
  empty?: string;
  /** Makes a thing of a name that no choice has, and gives its id; with the word for it. */
  make?: { what: string; of: (name: string) => Promise<string | null> };
}

/** A value as text to edit. */
export function toText(value: unknown, editor: Editor, system: System): string {
  if (editor.type === "number") return editText(value as number | null, editor.quantity ?? "ratio", system);
  if (editor.type === "yesno") return value === null || value === undefined ? "" : value ? "yes" : "no";
  if (editor.type === "month_day") return value ? showMonthDay(String(value)) : "";
  return value === null || value === undefined ? "" : String(value);
}

/** Read what was typed. `fault` says why it cannot be taken. */
export function fromText(text: string, editor: Editor, system: System): { value: unknown; fault: string } {
  const trimmed = text.trim();
  if (trimmed === "" && editor.clearable) return { value: null, fault: "" };
  if (editor.type === "number") {
    const value = parse(text, editor.quantity ?? "ratio", system);
    if (value === null) return { value: null, fault: "A number is needed." };
    if (isAmbiguous(trimmed)) {
      const [whole, rest] = trimmed.split(",");
      return {
        value: null,
        fault: `“${trimmed}” may be ${whole}${rest} or ${whole}.${rest}: write one of these.`,
      };
    }
    return Number.isNaN(value)
      ? { value: null, fault: `“${trimmed}” is not a number.` }
      : { value, fault: "" };
  }
  if (editor.type === "yesno") {
    const known: Record<string, boolean> = {
      yes: true,
      y: true,
      true: true,
      "1": true,
      no: false,
      n: false,
      false: false,
      "0": false,
    };
    const value = known[trimmed.toLowerCase()];
    return value === undefined
      ? { value: null, fault: `“${trimmed}” is neither yes nor no.` }
      : { value, fault: "" };
  }
  if (editor.type === "month_day") {
    const value = parseMonthDay(trimmed);
    return value ? { value, fault: "" } : { value: null, fault: `“${trimmed}” is no day like 28 Mar.` };
  }
  if (editor.type === "choice") {
    const found = editor.choices?.find(
      (choice) => choice.value === trimmed || choice.label.toLowerCase() === trimmed.toLowerCase(),
    );
    if (found) return { value: editor.numeric ? Number(found.value) : found.value, fault: "" };
    return { value: null, fault: `There is no “${trimmed}”.` };
  }
  if (trimmed === "" && !editor.clearable && editor.optional) return { value: "", fault: "" };
  return trimmed === "" ? { value: null, fault: "This cannot be empty." } : { value: trimmed, fault: "" };
}

/** A refusal as one line; ranges are told in the units shown. */
export function faultText(error: unknown, editor: Editor, system: System): string {
  if (!(error instanceof Refusal)) return String(error);
  const fault = error.problem.faults[0];
  if (!fault || error.problem.code !== "invalid" || !fault.allowed) return error.problem.title;
  const quantity = editor.quantity;
  const allowed = quantity
    ? fault.allowed.replace(/-?\d+(\.\d+)?(e[-+]?\d+)?/g, (number) =>
        editText(Number(number), quantity, system),
      )
    : fault.allowed;
  const unit = quantity ? ` ${unitOf(quantity, system)}` : "";
  return `${fault.field}: allowed is ${allowed}${unit}.`;
}
