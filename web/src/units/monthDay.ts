import { MONTHS } from "./units";

const DAYS = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** A day of any year, stored as month-day, as it is read: `03-28` is 28 Mar. */
export function showMonthDay(stored: string): string {
  const [month, day] = stored.split("-").map(Number);
  return `${day} ${MONTHS[(month ?? 1) - 1]}`;
}

/** A day of any year as it may be typed (28 Mar, March 28, 03-28), stored as month-day; null where it is none. */
export function parseMonthDay(text: string): string | null {
  const words =
    text
      .trim()
      .toLowerCase()
      .match(/[a-z]+|\d+/g) ?? [];
  if (words.length !== 2) return null;
  const named = words.find((word) => /[a-z]/.test(word));
  const index = named
    ? MONTHS.slice(0, 12).findIndex((name) => named.length > 2 && named.startsWith(name.toLowerCase()))
    : Number(words[0]) - 1;
  const day = Number(named ? words.find((word) => word !== named) : words[1]);
  if (!(day >= 1 && day <= (DAYS[index] ?? 0))) return null;
  return `${String(index + 1).padStart(2, "0")}-${String(day).padStart(2, "0")}`;
}
