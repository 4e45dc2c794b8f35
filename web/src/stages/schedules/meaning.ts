import { useDocument } from "@/document/store";
import type { Usage } from "@/document/usage";
import { useResults } from "@/results/store";
import type { UseResult } from "@/results/types";
import { format, unitOf, type System } from "@/units/units";

function power(watts: number, system: System): string {
  return `${format(watts, "load", system)} ${unitOf("load", system)}`;
}

/** Watts of all rooms of a use that a schedule multiplies by one of the use's fields; null where it multiplies none. */
function multiplied(field: string, use: UseResult, taskLights: number): number | null {
  if (field === "lights_schedule") return use.lights_w;
  if (field === "task_lights_schedule") return taskLights * use.area_m2;
  if (field === "equipment_schedule") return use.equipment_w;
  return null;
}

/** What a value of a schedule stands for in a place that uses it: people or watts of its rooms; "" where it multiplies nothing. */
export function meaningOf(usage: Usage, value: number, system: System): string {
  const doc = useDocument();
  if (usage.kind === "use_item") {
    const item = doc.get("use_item", usage.id);
    return item?.basis === "w"
      ? `${power(value * item.value! * item.count! * item.usage_factor! * usage.rooms.length, system)}`
      : "";
  }
  if (usage.kind !== "use" || !usage.rooms.length) return "";
  const use = useResults().get("use", usage.id);
  if (!use) return "";
  if (usage.field === "people_schedule") {
    const heat = value * use.people * (use.person_sensible_w + use.person_latent_w);
    return `${(value * use.people).toFixed(1)} of ${use.people.toFixed(1)} people, ${power(heat, system)}`;
  }
  if (usage.field === "setpoint_schedule") return value > 0 ? "set-points hold" : "set back, set up or off";
  const watts = multiplied(usage.field, use, doc.get("use", usage.id)?.task_lights_w_m2 ?? 0);
  return watts === null ? "" : `${power(value * watts, system)} of ${power(watts, system)}`;
} // prettier-ignore
