/** How a load source is named and drawn. */
export interface Source {
  name: string;
  colour: string;
}

const NAMES: Record<string, string> = {
  sun: "Sun through windows",
  walls: "Walls",
  roofs: "Roofs and ceilings",
  floors: "Floors",
  windows: "Windows, conduction",
  doors: "Doors",
  neighbours: "Neighbouring spaces",
  people: "People",
  lights: "Lights",
  equipment: "Equipment",
  infiltration: "Infiltration",
  "outdoor air": "Untreated outdoor air",
  "drawn air": "Air drawn in by warmth",
  storage: "Stored heat",
};

/** Name and colour of a load source. */
export function source(category: string): Source {
  return { name: NAMES[category] ?? category, colour: `var(--${category.replace(" ", "-")})` };
}

/** Colour of a source by the name it is shown with. */
export function colourOf(name: string): string {
  const category = Object.keys(NAMES).find((key) => NAMES[key] === name) ?? "storage";
  return source(category).colour;
}
