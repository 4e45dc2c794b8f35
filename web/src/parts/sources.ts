/** How a load source is named and drawn. */
export interface Source {
  name: string;
  colour: string;
}

const NAMES: Record<string, string> = {
  sun: "Sun through windows",
  walls: "Walls",
  roofs: "Roofs",
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
  storage: "Kept and given back",
};

/** Name and colour of a load source. */
export function source(category: string): Source {
  return { name: NAMES[category] ?? category, colour: `var(--${category.replace(" ", "-")})` };
}
