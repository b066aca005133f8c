import { stretchOf, through, type Frame, type Outline } from '@dusk/core';

/** Where an outline lies on the screen: a circle, or a path; px. */
export interface OnScreen {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly path: string | undefined;
}

/** Smallest circle that is seen, px. */
const LEAST_R = 3;

/** An outline of the picture as it is drawn over it. */
export function onScreen({ toFrame }: Frame, scale: number, outline: Outline): OnScreen {
  const at = (x: number, y: number): readonly [number, number] => {
    const [fx, fy] = through(toFrame, x, y);
    return [fx * scale, fy * scale];
  };
  const { points } = outline;
  const middle = points ? at(outline.x, outline.y) : at(outline.x + 0.5, outline.y + 0.5);
  const corners = points && Array.from({ length: points.length / 2 }, (_, i) => at(points[2 * i]!, points[2 * i + 1]!));
  return {
    x: middle[0],
    y: middle[1],
    r: Math.max(LEAST_R, outline.radius * stretchOf(toFrame) * scale),
    path: corners && `M${corners.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`,
  };
}

/** Fewest px between two corners of what is drawn. */
const APART_PX = 4;

/** A line drawn by a hand, thinned to what can be told apart. @param most corners */
export function thinned(line: readonly (readonly [number, number])[], most: number): (readonly [number, number])[] {
  const kept: (readonly [number, number])[] = [];
  for (const at of line) {
    const last = kept.at(-1);
    if (!last || Math.hypot(at[0] - last[0], at[1] - last[1]) >= APART_PX) kept.push(at);
  }
  const every = Math.ceil(kept.length / most);
  return kept.filter((_, i) => i % every === 0);
}

/** A rectangle between two corners, in some proportions where they are given. */
export function rectangle(
  [x0, y0]: readonly [number, number],
  [x1, y1]: readonly [number, number],
  width: number,
  height: number,
  ratio?: number,
): { readonly x: number; readonly y: number; readonly width: number; readonly height: number } {
  const clamp = (v: number, most: number): number => Math.min(most, Math.max(0, v));
  const [cx, cy] = [clamp(x0, width), clamp(y0, height)];
  let w = Math.abs(clamp(x1, width) - cx);
  let h = Math.abs(clamp(y1, height) - cy);
  if (ratio !== undefined) {
    if (w / Math.max(1, h) > ratio) h = w / ratio;
    else w = h * ratio;
    const least = 1e-9;
    const room = Math.min(1, (x1 < x0 ? cx : width - cx) / Math.max(least, w), (y1 < y0 ? cy : height - cy) / Math.max(least, h));
    w *= room;
    h *= room;
  }
  return { x: x1 < x0 ? cx - w : cx, y: y1 < y0 ? cy - h : cy, width: w, height: h };
}
