import { client, unwrap, type Schemas } from "@/api/client";
import { onUnmounted, ref } from "vue";

export type YearPoint = Schemas["YearPoint"];
export type Years = Schemas["YearsOut"];
type Figures = NonNullable<YearPoint["figures"]>;

/** What is told of a year among others, and how it is drawn. */
export const FIGURES: Record<string, { name: string; quantity: string; of: (figures: Figures) => number | null }> = {
  delivered: { name: "delivered", quantity: "yearly_energy", of: (f) => f.delivered_kwh },
  heating: { name: "heating", quantity: "yearly_energy", of: (f) => f.uses_kwh["heating"] ?? 0 },
  cooling: { name: "cooling", quantity: "yearly_energy", of: (f) => f.uses_kwh["cooling"] ?? 0 },
  fans: { name: "fans", quantity: "yearly_energy", of: (f) => f.uses_kwh["fans"] ?? 0 },
  loose: { name: "without a plant", quantity: "yearly_energy", of: (f) => f.loose_kwh },
  cost: { name: "bills", quantity: "money", of: (f) => (f.billed ? f.cost : null) },
  emissions: { name: "CO₂", quantity: "emission_mass", of: (f) => (f.billed ? f.emissions_kg : null) },
  warm: { name: "too warm", quantity: "hours", of: (f) => f.too_warm_h },
  unmet: { name: "off the set-points", quantity: "hours", of: (f) => f.unmet_h },
}; // prettier-ignore

const OPEN = ["waiting", "running"];
export const isOpen = (point: YearPoint) => OPEN.includes(point.state);
/** What a line of points is called: the option and, where there are several, its weather. */
export const lineOf = (point: YearPoint, weathers: number) =>
  weathers > 1 ? `${point.option_name}, ${point.weather_name}` : point.option_name;

const EVERY_MS = 800;

/** The years that a project asked for last, followed while any is not done. */
export function useYears(project: () => string) {
  const years = ref<Years>({ field: null, points: [] });
  let timer = 0;
  const path = () => ({ params: { path: { project_id: project() } } });

  function take(found: Years): void {
    years.value = found;
    window.clearTimeout(timer);
    if (found.points.some(isOpen)) timer = window.setTimeout(() => void load(), EVERY_MS);
  }
  async function load(): Promise<void> {
    const answer = await client.GET("/api/projects/{project_id}/years", path());
    if (answer.response.ok) take(unwrap(answer));
    else timer = window.setTimeout(() => void load(), EVERY_MS * 4); // gone for a while: they go on
  }
  /** Throws a Refusal. */
  async function ask(body: Schemas["YearsIn"]): Promise<void> {
    take(unwrap(await client.POST("/api/projects/{project_id}/years", { ...path(), body })));
  }
  async function stop(): Promise<void> {
    await client.DELETE("/api/projects/{project_id}/years", path());
    await load();
  }
  onUnmounted(() => window.clearTimeout(timer));
  return { years, load, ask, stop };
}

/** Points as lines over the value that is tried, or as a row of columns where there is none; figures as shown. */
export function drawn(points: YearPoint[], figure: string, shown: (value: number) => number) {
  const weathers = new Set(points.map((point) => point.weather)).size;
  const told = points.filter((point) => point.figures !== null);
  const lines = new Map<string, [number | string, number][]>();
  for (const point of told) {
    const value = FIGURES[figure]!.of(point.figures!);
    if (value === null) continue;
    const name = point.value === null ? point.weather_name : lineOf(point, weathers);
    const at = point.value ?? point.option_name;
    lines.set(name, [...(lines.get(name) ?? []), [at, shown(value)]]);
  }
  return [...lines].map(([name, data]) => ({ name, data }));
}
