/** A day pattern: [until_minute, value] rising to 1440. */
export type Steps = [number, number][];

const DAY = 1440;

/** Value at each cell of `minutes` width; the average where a cell holds several. */
export function toCells(steps: Steps, minutes: number): number[] {
  const cells: number[] = [];
  for (let start = 0; start < DAY; start += minutes) {
    let sum = 0;
    let from = 0;
    for (const [until, value] of steps) {
      const overlap = Math.min(until, start + minutes) - Math.max(from, start);
      if (overlap > 0) sum += overlap * value;
      from = until;
    }
    cells.push(Number((sum / minutes).toPrecision(10)));
  }
  return cells;
}

/** Equal neighbours joined. */
export function tidy(steps: Steps): Steps {
  return steps.filter(([, value], i) => steps[i + 1]?.[1] !== value);
}

/** Set a stretch of the day to one value; the rest stays as it is to the minute. */
export function paint(steps: Steps, start: number, end: number, value: number): Steps {
  const result: Steps = [];
  let from = 0;
  for (const [until, old] of steps) {
    if (from < start) result.push([Math.min(until, start), old]);
    if (until > start && from < end && result.at(-1)?.[0] !== end) result.push([end, value]);
    if (until > end) result.push([until, old]);
    from = until;
  }
  const rising = result.filter(([until], i) => until > (result[i - 1]?.[0] ?? 0));
  return tidy(rising);
}

function clock(minute: number): string {
  const hours = String(Math.floor(minute / 60)).padStart(2, "0");
  const rest = minute % 60;
  return rest ? `${hours}:${String(rest).padStart(2, "0")}` : hours;
}

/** How values of a line are written: shown figures, and the stored values that are allowed. */
export interface Writing {
  show: (value: number) => number;
  store: (figure: number) => number;
  low: number;
  high: number;
}

const PERCENT: Writing = { show: (v) => v * 100, store: (f) => f / 100, low: 0, high: 1 };

/** The pattern as one line, fractions in percent: `00–07 0 · 07–18 100 · 18–24 0`. */
export function toLine(steps: Steps, writing: Writing = PERCENT): string {
  let from = 0;
  return steps
    .map(([until, value]) => {
      const text = `${clock(from)}–${clock(until)} ${Number(writing.show(value).toPrecision(6))}`;
      from = until;
      return text;
    })
    .join(" · ");
}

function round(figure: number): number {
  return Number(figure.toPrecision(6));
}

/** Every value moved or scaled, held within its limits. */
export function moved(steps: Steps, change: (value: number) => number, low: number, high: number): Steps {
  return tidy(
    steps.map(([until, value]) => [
      until,
      Number(Math.max(low, Math.min(high, change(value))).toPrecision(12)),
    ]),
  );
}

/** The whole pattern earlier (negative) or later by some minutes, round the day. */
export function shifted(steps: Steps, minutes: number): Steps {
  const by = ((minutes % DAY) + DAY) % DAY;
  const ends = steps.map(([until]) => (until + by - 1) % DAY).map((end) => end + 1);
  const pieces = steps.map(([, value], i) => ({ end: ends[i] ?? DAY, value }));
  const rotated = [...pieces].sort((a, b) => a.end - b.end);
  const result: Steps = rotated.map(({ end, value }) => [end, value]);
  const last = result.at(-1);
  // What runs over midnight stands at both ends of the day.
  if (last && last[0] < DAY) result.push([DAY, result[0]![1]]);
  return tidy(result);
}

/** Value at a minute of the day. */
export function valueAt(steps: Steps, minute: number): number {
  return steps.find(([until]) => until > minute)?.[1] ?? steps.at(-1)?.[1] ?? 0;
}

/** A stretch of another pattern put over this one. */
export function taken(steps: Steps, other: Steps, start: number, end: number): Steps {
  let result = steps;
  let from = 0;
  for (const [until, value] of other) {
    const [a, b] = [Math.max(from, start), Math.min(until, end)];
    if (a < b) result = paint(result, a, b, value);
    from = until;
  }
  return result;
}

/** A stretch of the day earlier (negative) or later, as far as the day goes; what it leaves takes the value beside it. */
export function slid(steps: Steps, start: number, end: number, minutes: number): Steps {
  const by = Math.max(-start, Math.min(DAY - end, minutes));
  if (!by) return steps;
  const beside = valueAt(steps, by > 0 ? (start || DAY) - 1 : end % DAY);
  const left = by > 0 ? [start, Math.min(end, start + by)] : [Math.max(start, end + by), end];
  const moved = steps.map(([until, value]): [number, number] => [until + by, value]);
  return taken(paint(steps, left[0]!, left[1]!, beside), [[start + by, 0], ...moved.filter(([until]) => until > start + by)], start + by, end + by);
} // prettier-ignore

function minuteOf(text: string): number {
  const match = text.match(/^(\d{1,2})(?::(\d{2}))?$/);
  if (!match) throw new Error(`“${text}” is not a time like 07 or 07:30.`);
  const minute = Number(match[1]) * 60 + Number(match[2] ?? 0);
  if (Number(match[2] ?? 0) > 59 || minute > DAY) throw new Error(`${text} is outside 00:00 to 24:00.`);
  return minute;
}

/**
 * A row of 24, 48, 96 or 1440 figures as they are shown, for a whole day. Fractions are shown in percent; a row in which
 * nothing is above 1 is taken as fractions all the same. Throws with what is wrong with it.
 */
export function fromRow(text: string, writing: Writing = PERCENT): Steps {
  const figures = text
    .trim()
    .split(/[\s;]+/)
    .map((piece) => Number(piece.replace(",", ".").replace("−", "-")));
  const plain = writing.high === 1 && figures.every((figure) => figure <= 1);
  const values = figures.map((figure) => Number((plain ? figure : writing.store(figure)).toPrecision(12)));
  const fits = values.every((value) => value >= writing.low && value <= writing.high);
  if (![24, 48, 96, DAY].includes(values.length) || !fits) {
    const [low, high] = [round(writing.show(writing.low)), round(writing.show(writing.high))];
    throw new Error(`Paste a row of 24, 48, 96 or 1440 numbers between ${low} and ${high}.`);
  }
  const minutes = DAY / values.length;
  return tidy(values.map((value, i) => [(i + 1) * minutes, value]));
}

/** Read the line again. Throws with what is wrong with it. */
export function fromLine(line: string, writing: Writing = PERCENT): Steps {
  const steps: Steps = [];
  let from = 0;
  // Parts stand apart by a point in the middle, a semicolon, a line break, or a comma before the next time.
  for (const part of line
    .split(/[·;\n]|,(?=\s*\d{1,2}(?::\d{2})?\s*[–-])/)
    .map((piece) => piece.trim())
    .filter(Boolean)) {
    const match = part.match(/^([\d:]+)\s*[–-]\s*([\d:]+)\s+(\S+)$/);
    if (!match) throw new Error(`“${part}” should read like 07–18 100.`);
    const [, start, end, figure] = match as unknown as [string, string, string, string];
    if (minuteOf(start) !== from)
      throw new Error(`${start} should be ${clock(from)}: no gaps and no overlaps.`);
    const until = minuteOf(end);
    if (until <= from) throw new Error(`${end} does not come after ${start}.`);
    const value = Number(writing.store(Number(figure.replace(",", ".").replace("−", "-"))).toPrecision(12));
    if (!(value >= writing.low && value <= writing.high))
      throw new Error(
        `${figure} is outside ${round(writing.show(writing.low))} to ${round(writing.show(writing.high))}.`,
      );
    steps.push([until, value]);
    from = until;
  }
  if (from !== DAY) throw new Error(`The line ends at ${clock(from)}; it must run to 24.`);
  return tidy(steps);
}
