/** Colours of what energy is used for and of carriers, by names of the theme's. */
const TONES: Record<string, string> = {
  heating: "ember",
  cooling: "tide",
  fans: "drawn-air",
  "hot water": "outdoor-air",
  pumps: "storage",
  "plant auxiliaries": "doors",
  "heat rejection": "roofs",
  humidifying: "windows",
  lights: "lights",
  equipment: "equipment",
  lifts: "people",
  "outdoor lighting": "task-lights",
  "other loads": "roofs",
  electricity: "sun",
  "natural gas": "walls",
  "liquid gas": "floors",
  "heating oil": "roofs",
  "wood pellets": "infiltration",
  "district heat": "ember",
};

export function toneOf(name: string): string {
  return TONES[name] ?? "neighbours";
}

/** Heat and cold that no plant of the project makes: counted, but nobody's bill. */
export function isLoose(carrier: string): boolean {
  return carrier.endsWith("without a plant");
}
