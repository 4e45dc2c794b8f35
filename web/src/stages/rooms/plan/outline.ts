/** A place on the plan [m]; y is plan north. */
export type Point = [number, number];
export type Outline = Point[];

const NEAR_M = 0.011;

export function snapped(value: number, grid: number): number {
  return Number((Math.round(value / grid) * grid).toFixed(3));
}

function near(a: Point, b: Point): boolean {
  return Math.abs(a[0] - b[0]) < NEAR_M && Math.abs(a[1] - b[1]) < NEAR_M;
}

export function rectangle(a: Point, b: Point): Outline {
  const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

/** Middle of the corners' box: where a name is written. */
export function centre(outline: Outline): Point {
  const xs = outline.map((p) => p[0]);
  const ys = outline.map((p) => p[1]);
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
}

export function length(a: Point, b: Point): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

/** The corner within reach of a place, else the place on the grid. */
export function snap(place: Point, corners: Point[], grid: number, reach: number): Point {
  const close = corners
    .map((corner) => ({ corner, far: length(corner, place) }))
    .filter((item) => item.far < reach)
    .sort((a, b) => a.far - b.far)[0];
  return close ? [...close.corner] : [snapped(place[0], grid), snapped(place[1], grid)];
}

/** A corner moved, in every room that has it. */
export function moveCorner(outlines: Map<string, Outline>, from: Point, to: Point): Map<string, Outline> {
  const changed = new Map<string, Outline>();
  for (const [room, outline] of outlines) {
    if (outline.some((corner) => near(corner, from))) {
      changed.set(
        room,
        outline.map((corner) => (near(corner, from) ? [...to] : corner)),
      );
    }
  }
  return changed;
}

/** Place along and distance beside the line through a side. */
function beside(a: Point, b: Point, p: Point): { along: number; off: number } {
  const size = length(a, b) || 1;
  const [ux, uy] = [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
  const [dx, dy] = [p[0] - a[0], p[1] - a[1]];
  return { along: dx * ux + dy * uy, off: dx * uy - dy * ux };
}

/**
 * A wall moved sideways by a distance to the right of a → b, with everything that lies on the same line and hangs
 * together with it: rooms on both sides stay in touch.
 */
export function moveWall(
  outlines: Map<string, Outline>,
  a: Point,
  b: Point,
  by: number,
): Map<string, Outline> {
  const size = length(a, b);
  let [from, to] = [0, size];
  const sides: [number, number][] = [];
  for (const outline of outlines.values()) {
    outline.forEach((corner, i) => {
      const one = beside(a, b, corner);
      const two = beside(a, b, outline[(i + 1) % outline.length]!);
      if (Math.abs(one.off) < NEAR_M && Math.abs(two.off) < NEAR_M)
        sides.push([Math.min(one.along, two.along), Math.max(one.along, two.along)]);
    });
  }
  for (let grown = true; grown;) {
    grown = false;
    for (const [low, high] of sides) {
      if (low < to - NEAR_M && high > from + NEAR_M && (low < from - NEAR_M || high > to + NEAR_M)) {
        [from, to] = [Math.min(from, low), Math.max(to, high)];
        grown = true;
      }
    }
  }
  const step: Point = [(by * (b[1] - a[1])) / size, (-by * (b[0] - a[0])) / size];
  const changed = new Map<string, Outline>();
  for (const [room, outline] of outlines) {
    const moved = outline.map((corner): Point => {
      const at = beside(a, b, corner);
      const on = Math.abs(at.off) < NEAR_M && at.along > from - NEAR_M && at.along < to + NEAR_M;
      return on
        ? [Number((corner[0] + step[0]).toFixed(3)), Number((corner[1] + step[1]).toFixed(3))]
        : corner;
    });
    if (moved.some((corner, i) => corner !== outline[i])) changed.set(room, moved);
  }
  return changed;
}

/** How far a place lies to the right of a → b. */
export function distanceBeside(a: Point, b: Point, place: Point): number {
  return beside(a, b, place).off;
}

/** A room shifted as a whole. */
export function shifted(outline: Outline, dx: number, dy: number): Outline {
  return outline.map(([x, y]) => [Number((x + dx).toFixed(3)), Number((y + dy).toFixed(3))]);
}

/** Width of the corners' box [m]. */
export function widthOf(outline: Outline): number {
  const xs = outline.map((p) => p[0]);
  return Math.max(...xs) - Math.min(...xs);
}

/** Mean width of a sign of the plan's names [px], and the air beside them. */
const SIGN_PX = 5.3;
const BESIDE_PX = 6;

/** A name cut to a width [px]; the whole stands in the list and where the room is chosen. */
export function fitted(name: string, width: number): string {
  const most = Math.floor((width - BESIDE_PX) / SIGN_PX);
  if (name.length <= most) return name;
  return most < 2 ? "" : `${name.slice(0, most - 1).trimEnd()}…`;
}
