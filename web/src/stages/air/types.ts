import type { Schemas } from "@/api/client";

/** Names of the states along an air path; "recovered" and "humidified" only where there is something of the kind. */
export type StateName =
  "outdoors" | "recovered" | "mixed" | "off_coil" | "humidified" | "supply" | "rooms" | "return";

/** States and duties of an air path over one day, per 10-minute step; SI. */
export type AirDay = Omit<Schemas["AirDay"], "points"> & {
  points: Partial<Record<StateName, Schemas["AirState"]>>;
};
