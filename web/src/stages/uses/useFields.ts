import type { Use } from "@/document/types";
import type { Editor } from "@/parts/edit";
import { fieldSaver } from "@/parts/saving";

export type UseKey = keyof Use & string;

export const PEOPLE_BASES = [
  { value: "per_m2", label: "per floor area", quantity: "people_density" },
  { value: "m2_per_person", label: "floor area of one", quantity: "area_per_person" },
  { value: "count", label: "number in the room", quantity: "count" },
] as const;

export const POWER_BASES = [
  { value: "w_m2", label: "per floor area", quantity: "connected_density" },
  { value: "w", label: "power in the room", quantity: "connected_power" },
  { value: "w_per_person", label: "for each person", quantity: "connected_power" },
] as const;

export const ACTIVITIES = [
  "seated in an audience", "seated, very light work", "moderately active office work",
  "standing, light work, walking", "walking and standing", "sedentary work, eating", "light bench work",
  "moderate dancing", "light machine work", "heavy work", "heavy machine work, lifting", "athletics",
].map((value) => ({ value, label: value })); // prettier-ignore

export const LEAKS = [
  { value: "air_changes", label: "air changes" },
  { value: "envelope", label: "per outer area" },
  { value: "leakage", label: "leakage area, wind, stack" },
];

/** Quantity of a basis. */
export function quantityOf(bases: readonly { value: string; quantity: string }[], basis: string | undefined): string {
  return bases.find((item) => item.value === basis)?.quantity ?? "ratio";
} // prettier-ignore

export const AWAY_HEATING = [
  { value: "hold", label: "held all the same" },
  { value: "setback", label: "set back" },
  { value: "off", label: "off" },
];

export const AWAY_COOLING = [
  { value: "hold", label: "held all the same" },
  { value: "setup", label: "set up" },
  { value: "off", label: "off" },
];

export const WARM_UP = [
  { value: "solved", label: "calculated for a time" },
  { value: "allowance", label: "allowance, EN 12831-1" },
];

export const SENSING = [
  { value: "air", label: "the air" },
  { value: "operative", label: "air and surfaces, half each" },
  { value: "mixed", label: "a mix of both" },
];

export const DRAWN_AIR = [
  { value: "none", label: "nothing" },
  { value: "windows", label: "windows, while outdoors is cooler" },
  { value: "extract", label: "extract fan" },
];

/** How the fields of a use are saved and edited, for the parts of its page. */
export function useEditing(use: () => Use) {
  return {
    save: (key: UseKey, label: string) => fieldSaver("use", () => use().id, key, `${use().name}: ${label}`),
    number: (quantity: string, clearable = false): Editor => ({ type: "number", quantity, clearable }),
    choice: (choices: readonly { value: string; label: string }[], empty?: string): Editor =>
      empty === undefined
        ? { type: "choice", choices: [...choices] }
        : { type: "choice", choices: [...choices], clearable: true, empty },
  };
}
