/** What the value of a basis is. */
const QUANTITIES: Record<string, string> = {
  per_m2: "people_density",
  m2_per_person: "area_per_person",
  count: "count",
  w_m2: "connected_density",
  w: "connected_power",
  w_per_person: "connected_power",
};

/** Unit registry key of what people, lights or equipment are entered as. */
export function quantityOfBasis(basis: string | undefined): string {
  return QUANTITIES[basis ?? ""] ?? "ratio";
}
