import { MONTHS } from "@/units/units";

/** The twelve months as choices. */
export const MONTH_CHOICES = MONTHS.slice(0, 12).map((label, index) => ({ value: index + 1, label }));
