/** The twelve stages in the order the work is done. */
export interface Stage {
  key: string;
  name: string;
  /** Letter after G. */
  letter: string;
  /** Whether it shows the day rail. */
  rail?: boolean;
  /** Whether the roll of rooms stands at its left. */
  roll?: boolean;
  /** Whether Working is open without being asked for. */
  working?: boolean;
}

export const STAGES: Stage[] = [
  { key: "place", name: "Place", letter: "p" },
  { key: "fabric", name: "Fabric", letter: "f" },
  { key: "schedules", name: "Schedules", letter: "s" },
  { key: "uses", name: "Uses", letter: "u" },
  { key: "rooms", name: "Rooms", letter: "r", roll: true },
  { key: "loads", name: "Loads", letter: "l", rail: true, roll: true, working: true },
  { key: "air", name: "Air", letter: "a", rail: true, working: true },
  { key: "water", name: "Water", letter: "w", rail: true, working: true },
  { key: "kit", name: "Kit", letter: "k" },
  { key: "year", name: "Year", letter: "y" },
  { key: "compare", name: "Compare", letter: "c" },
  { key: "issue", name: "Issue", letter: "i" },
];
