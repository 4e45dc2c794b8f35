import { MONTHS } from "@/units/units";

const pad = (value: number) => String(value).padStart(2, "0");

/** The hour of a year as day and time: 14 Jul 15:00. */
export function hourText(year: number, hour: number): string {
  const at = new Date(Date.UTC(year, 0, 1, hour));
  return `${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]} ${pad(at.getUTCHours())}:00`;
}

/** The day of a year with its weekday: Tue 14 Jul. */
export function dayText(year: number, day: number): string {
  const at = new Date(Date.UTC(year, 0, 1 + day));
  const weekday = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"][at.getUTCDay()];
  return `${weekday} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]}`;
}

/** First hours of the months. */
export function monthStarts(year: number): number[] {
  return MONTHS.slice(0, 12).map((_, month) => (Date.UTC(year, month, 1) - Date.UTC(year, 0, 1)) / 36e5);
}
