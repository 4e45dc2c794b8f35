import type { Use } from "@/document/types";

type Steps = [number, number][];

/** Fraction at each quarter of an hour; 1 where there is no schedule. */
function fractions(steps: Steps | undefined): number[] {
  return Array.from({ length: 96 }, (_, i) => steps?.find(([until]) => until > i * 15 + 7)?.[1] ?? 1);
}

/** Entered sensible gains by quarter hour [W/m²]: for drawing what was typed, not a load. */
export function gainCourses(
  use: Use,
  weekday: (schedule: string | null) => Steps | undefined,
): { people: number[]; lights: number[]; equipment: number[] } {
  const kept = 1 - use.equipment_vented_share - use.equipment_latent_share;
  const course = (full: number, schedule: string | null) => fractions(weekday(schedule)).map((f) => f * full);
  return {
    people: course(use.people_per_m2 * use.person_sensible_w, use.people_schedule),
    lights: course(use.lights_w_m2, use.lights_schedule),
    equipment: course(use.equipment_w_m2 * kept, use.equipment_schedule),
  };
}
