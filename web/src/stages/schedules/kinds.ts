import type { Schedule } from "@/document/types";
import { fromShown, toShown, type System } from "@/units/units";
import type { Writing } from "@/parts/pattern";

/** What the values of a schedule are. */
export interface ScheduleKind {
  title: string;
  quantity: string;
  low: number;
  high: number;
  /** One press of an arrow key. */
  step: number;
  colour: string;
}

export const KINDS: Record<Schedule["kind"], ScheduleKind> = {
  fraction: { title: "Fractions", quantity: "percent", low: 0, high: 1, step: 0.05, colour: "var(--people)" },
  on_off: { title: "On and off", quantity: "count", low: 0, high: 1, step: 1, colour: "var(--equipment)" },
  temperature: { title: "Temperatures", quantity: "temperature", low: -60, high: 120, step: 0.5, colour: "var(--ember)" },
  w_per_person: { title: "Watts per person", quantity: "power", low: 0, high: 600, step: 5, colour: "var(--people)" },
}; // prettier-ignore

/** How a kind's values are written in a unit system. */
export function writingOf(kind: ScheduleKind, system: System): Writing {
  return {
    show: (value) => toShown(value, kind.quantity, system),
    store: (figure) => fromShown(figure, kind.quantity, system),
    low: kind.low,
    high: kind.high,
  };
}

/** Colours of the patterns of one schedule, in their order. */
const TONES = ["#1e6f66", "#c99012", "#7b4b7a", "#2c66a0", "#b8482b", "#5c6b78", "#a8704a", "#7e9685"];
export function toneOf(index: number): string {
  return TONES[index % TONES.length] ?? "#1e6f66";
}
