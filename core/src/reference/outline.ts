/** An area of a picture in its pixels: a disc, or what a hand drew round; perhaps with others that it was joined with. */
export interface Outline {
  /** Middle of the disc, or of what was drawn. */
  readonly x: number;
  readonly y: number;
  /** Of the disc; of a drawn area that of a disc as large. */
  readonly radius: number;
  /** Corners of a drawn area: x, y, x, y, … */
  readonly points?: readonly number[] | undefined;
  readonly more?: readonly Outline[] | undefined;
}

const clamp = (v: number, most: number): number => Math.min(most, Math.max(0, v));

function eachInDisc({ x, y, radius }: Outline, width: number, height: number, visit: (x: number, y: number) => void): void {
  const cx = clamp(Math.floor(x), width - 1);
  const cy = clamp(Math.floor(y), height - 1);
  const r = Math.max(0, radius);
  for (let py = Math.max(0, Math.ceil(cy - r)); py <= Math.min(height - 1, cy + r); py++) {
    const half = Math.sqrt(Math.max(0, r * r - (py - cy) ** 2));
    for (let px = Math.max(0, Math.ceil(cx - half)); px <= Math.min(width - 1, cx + half); px++) visit(px, py);
  }
}

/** Rows of a polygon between its crossings, by the even–odd rule. @returns how many pixels were in it */
export function eachInPolygon(points: readonly number[], width: number, height: number, visit: (x: number, y: number) => void): number {
  const corners = Math.floor(points.length / 2);
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < corners; i++) {
    least = Math.min(least, points[2 * i + 1]!);
    most = Math.max(most, points[2 * i + 1]!);
  }
  let count = 0;
  for (let y = Math.max(0, Math.floor(least)); y <= Math.min(height - 1, Math.ceil(most)); y++) {
    const middle = y + 0.5;
    const crossings: number[] = [];
    for (let i = 0; i < corners; i++) {
      const j = (i + 1) % corners;
      const [x1, y1, x2, y2] = [points[2 * i]!, points[2 * i + 1]!, points[2 * j]!, points[2 * j + 1]!];
      if (y1 <= middle !== y2 <= middle) crossings.push(x1 + ((middle - y1) / (y2 - y1)) * (x2 - x1));
    }
    crossings.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, Math.ceil(crossings[i]! - 0.5));
      const to = Math.min(width - 1, Math.ceil(crossings[i + 1]! - 0.5) - 1);
      for (let x = from; x <= to; x++) {
        visit(x, y);
        count++;
      }
    }
  }
  return count;
}

/** Visits every pixel of an area at least once; one that lies outside the picture or holds no pixel's middle is its nearest pixel. */
export function eachPixel(outline: Outline, width: number, height: number, visit: (x: number, y: number) => void): void {
  const { points, more } = outline;
  const drawn = points !== undefined && points.length >= 6 && eachInPolygon(points, width, height, visit) > 0;
  if (!drawn) eachInDisc(points ? { ...outline, radius: 0 } : outline, width, height, visit);
  for (const other of more ?? []) eachPixel(other, width, height, visit);
}

/** Area that corners go round (the shoelace formula): x, y, x, y, … */
export function areaWithin(points: readonly number[]): number {
  let twice = 0;
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length;
    twice += points[i]! * points[j + 1]! - points[j]! * points[i + 1]!;
  }
  return Math.abs(twice) / 2;
}

/** Whether a place lies within corners, by the even–odd rule. */
export function isWithin(points: readonly number[], x: number, y: number): boolean {
  let is = false;
  for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
    const [x1, y1, x2, y2] = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!];
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) is = !is;
  }
  return is;
}

/** What was drawn round, with its middle and the disc that is as large. */
export function drawnOutline(points: readonly number[]): Outline {
  const corners = points.length / 2;
  let x = 0;
  let y = 0;
  for (let i = 0; i < corners; i++) {
    x += points[2 * i]! / corners;
    y += points[2 * i + 1]! / corners;
  }
  return { x, y, radius: Math.sqrt(areaWithin(points) / Math.PI), points };
}

/** An outline in a picture of another size. */
export const resized = (outline: Outline, by: number): Outline => ({
  x: outline.x * by,
  y: outline.y * by,
  radius: outline.radius * by,
  ...(outline.points && { points: outline.points.map((v) => v * by) }),
  ...(outline.more && { more: outline.more.map((one) => resized(one, by)) }),
});

/** An outline elsewhere. */
export const movedBy = (outline: Outline, dx: number, dy: number): Outline => ({
  x: outline.x + dx,
  y: outline.y + dy,
  radius: outline.radius,
  ...(outline.points && { points: outline.points.map((v, i) => v + (i % 2 === 0 ? dx : dy)) }),
  ...(outline.more && { more: outline.more.map((one) => movedBy(one, dx, dy)) }),
});

/** Several areas as one. */
export function joined(outlines: readonly [Outline, ...Outline[]]): Outline {
  const alone = outlines.flatMap(({ more, ...own }) => [own, ...(more ?? [])]);
  const [first, ...rest] = alone as [Outline, ...Outline[]];
  return { ...first, ...(rest.length > 0 && { more: rest }) };
}
