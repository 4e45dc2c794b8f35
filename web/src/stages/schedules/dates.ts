/** Day of the year, from 0, of an ISO date; null outside the year. */
export function dayOf(text: string, year: number): number | null {
  const day = Math.round((Date.parse(`${text}T00:00:00Z`) - Date.UTC(year, 0, 1)) / 864e5);
  const count = Math.round((Date.UTC(year + 1, 0, 1) - Date.UTC(year, 0, 1)) / 864e5);
  return Number.isFinite(day) && day >= 0 && day < count ? day : null;
}
