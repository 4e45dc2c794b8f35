const DAY_MS = 864e5;
const WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];

/** Day of the year, from 0; null where there is no such day in that year. */
export function dayOfYear(month: number, day: number, year: number): number | null {
  const date = new Date(Date.UTC(year, month - 1, day));
  if (date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return null;
  return Math.round((date.getTime() - Date.UTC(year, 0, 1)) / DAY_MS);
}

/** Month (1 to 12), day and weekday of a day of the year, from 0. */
export function monthAndDay(day: number, year: number): { month: number; day: number; weekday: string } {
  const date = new Date(Date.UTC(year, 0, 1 + day));
  return {
    month: date.getUTCMonth() + 1,
    day: date.getUTCDate(),
    weekday: WEEKDAYS[date.getUTCDay()] ?? "",
  };
}
