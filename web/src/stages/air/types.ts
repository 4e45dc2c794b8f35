import type { Schemas } from "@/api/client";

/** Names of the states along an air path; "recovered" only where there is an exchanger. */
export type StateName = "outdoors" | "recovered" | "mixed" | "supply" | "rooms" | "return";

/** States and duties of an air path over one day, per 10-minute step; SI. */
export type AirDay = Omit<Schemas["AirDay"], "points"> & {
  points: Partial<Record<StateName, Schemas["AirState"]>>;
};
