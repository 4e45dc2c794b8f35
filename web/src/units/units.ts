import registry from "./registry.json";

export type System = "SI" | "IP";
export type Quantity = keyof typeof registry;

interface Entry {
  si: string;
  ip: string;
  ip_factor: number;
  si_decimals: number;
  ip_decimals: number;
  si_factor: number;
  ip_offset: number;
}

const table: Record<string, Entry> = registry;

function entry(quantity: string): Entry {
  const found = table[quantity];
  if (!found) throw new Error(`no quantity ${quantity}`);
  return found;
}

/** Unit label of a quantity. */
export function unitOf(quantity: string, system: System): string {
  return system === "IP" ? entry(quantity).ip : entry(quantity).si;
}

/** Stored SI value to the figure shown. */
export function toShown(value: number, quantity: string, system: System): number {
  const q = entry(quantity);
  return system === "IP" ? value * q.ip_factor + q.ip_offset : value * q.si_factor;
}

/** Figure shown to the stored SI value. */
export function fromShown(figure: number, quantity: string, system: System): number {
  const q = entry(quantity);
  const value = system === "IP" ? (figure - q.ip_offset) / q.ip_factor : figure / q.si_factor;
  // Twelve digits: what was typed must come back as it was typed.
  return Number(value.toPrecision(12));
}

const grouped = new Map<number, Intl.NumberFormat>();

function formatter(decimals: number): Intl.NumberFormat {
  let found = grouped.get(decimals);
  if (!found) {
    found = new Intl.NumberFormat("en-GB", {
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
    grouped.set(decimals, found);
  }
  return found;
}

/** A stored value as the text shown, without its unit; thin spaces between thousands. */
export function format(
  value: number | null | undefined,
  quantity: string,
  system: System,
  extra = 0,
): string {
  if (value === null || value === undefined || Number.isNaN(value)) return "–";
  const q = entry(quantity);
  const decimals = (system === "IP" ? q.ip_decimals : q.si_decimals) + extra;
  const text = formatter(decimals).format(toShown(value, quantity, system));
  return text
    .replaceAll(",", "\u2009")
    .replace(/^-(?=[0.]*$)/, "")
    .replace("-", "−");
}

/** A stored value as text to edit: no grouping, no padding; in inch-pound units rounded, for few were typed in them. */
export function editText(value: number | null | undefined, quantity: string, system: System): string {
  if (value === null || value === undefined) return "";
  return String(Number(toShown(value, quantity, system).toPrecision(system === "IP" ? 6 : 8)));
}

/** A figure such as 1,200: whether the mark is a decimal one cannot be seen. */
export function isAmbiguous(text: string): boolean {
  return /^[-+−]?[1-9]\d{0,2},\d{3}$/.test(text.trim());
}

/** Groups of three and the decimal mark, where both marks or several of one tell which is which. */
function ungrouped(text: string): string {
  if (/^[-+]?\d{1,3}(,\d{3})+\.\d*$|^[-+]?\d{1,3}(,\d{3}){2,}$/.test(text)) return text.replaceAll(",", "");
  if (/^[-+]?\d{1,3}(\.\d{3})+,\d*$|^[-+]?\d{1,3}(\.\d{3}){2,}$/.test(text))
    return text.replaceAll(".", "").replace(",", ".");
  return text.replace(",", ".");
}

/**
 * Read a typed figure; null for nothing, NaN for what is not a number or may be two. Comma and point both work, and so do
 * groups of three with the other mark.
 */
export function parse(text: string, quantity: string, system: System): number | null {
  if (isAmbiguous(text)) return Number.NaN;
  const plain = ungrouped(text.trim().replace(/\s/g, "").replace("−", "-"));
  if (plain === "") return null;
  return /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(plain)
    ? fromShown(Number(plain), quantity, system)
    : Number.NaN;
}

const POINTS = [
  "N",
  "NNE",
  "NE",
  "ENE",
  "E",
  "ESE",
  "SE",
  "SSE",
  "S",
  "SSW",
  "SW",
  "WSW",
  "W",
  "WNW",
  "NW",
  "NNW",
];

/** Compass point of an azimuth. */
export function compass(azimuth_deg: number): string {
  return POINTS[Math.round(azimuth_deg / 22.5) % 16] ?? "";
}

/** Months, and the dehumidification day as the thirteenth design day. */
export const MONTHS = [
  "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec", "Dew day",
]; // prettier-ignore

/** Start of a 10-minute step as hh:mm. */
export function clock(step: number): string {
  const minutes = step * 10;
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

/** A count with its noun: 1 room, 3 rooms. */
export function counted(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? "" : "s"}`;
}

/** A whole figure with its thousands set apart. */
export function spaced(value: number): string {
  return formatter(0).format(value).replaceAll(",", "\u2009").replace("-", "−");
}
