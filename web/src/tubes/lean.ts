import {
  labOf,
  labToLch,
  lchToLab,
  mixCurves,
  reflectance,
  temperature,
  valueOfLightness,
  type Lab,
  type PaintCurves,
  type WarmBlue,
} from '@dusk/core';
import type { Tube } from '../stores/tubes.ts';

/** Parts of white to one of the tube along its tints. */
export const TINTS = [0, 0.5, 1, 2, 4, 8, 16, 40] as const;
export const tintsOf = (paint: PaintCurves, white: PaintCurves): readonly Lab[] =>
  TINTS.map((n) =>
    labOf(
      reflectance(
        mixCurves([
          { paint, parts: 1 },
          { paint: white, parts: n },
        ]),
      ),
    ),
  );

/** Value to which a tint is taken to say how strong a tube is. */
const HALF_WAY = 6;
/** Parts of white that one part of a tube colours down to the middle: how strong it is, whatever its hue; none of what is lighter by itself. */
export function strengthOf(paint: PaintCurves, white: PaintCurves): number | undefined {
  const valueAt = (n: number): number =>
    valueOfLightness(
      labOf(
        reflectance(
          mixCurves([
            { paint, parts: 1 },
            { paint: white, parts: n },
          ]),
        ),
      )[0],
    );
  if (valueAt(0) >= HALF_WAY) return undefined;
  let [low, high] = [0, 1];
  while (valueAt(high) < HALF_WAY && high < 500) [low, high] = [high, 2 * high];
  for (let i = 0; i < 16; i++) {
    const middle = (low + high) / 2;
    if (valueAt(middle) < HALF_WAY) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const FAMILIES: readonly (readonly [name: string, until: number])[] = [
  ['red', 50],
  ['orange', 68],
  ['yellow', 108],
  ['green', 195],
  ['blue', 305],
  ['violet', 345],
  ['red', 360],
];
/** What a colour leans to within its family: by the hue of a tint, where a dark tube shows it. */
function familyOf(tube: Pick<Tube, 'masstone' | 'tint'>): string {
  const [, C] = labToLch(tube.masstone);
  const [, tintC, hue] = labToLch(C > 15 ? tube.masstone : tube.tint);
  if (tube.masstone[0] > 90 && C < 8) return 'white';
  if (Math.max(C, tintC) < 5) return tube.masstone[0] < 35 ? 'black' : 'grey';
  const isEarth = C < 45 && tube.masstone[0] < 70 && hue > 25 && hue < 100;
  if (isEarth) return 'earth';
  return FAMILIES.find(([, until]) => hue < until)![0];
}

/** Nearer than this in hue a tube leans nowhere, degrees. */
const LEANS = 7;
/** What a tube leans to beside the others of its family. */
export function leanOf(tube: Tube, rack: readonly Tube[], warmBlue: WarmBlue): string {
  const family = familyOf(tube);
  if (family === 'white' || family === 'black' || family === 'grey') {
    const t = temperature(tube.tint, warmBlue);
    return Math.abs(t) < 1.5 ? `a neutral ${family}` : `a ${t > 0 ? 'warm' : 'cool'} ${family}`;
  }
  const hueOf = (one: Tube): number => labToLch(labToLch(one.masstone)[1] > 15 ? one.masstone : one.tint)[2];
  const others = rack.filter((one) => one.id !== tube.id && familyOf(one) === family);
  if (others.length === 0) return `the only ${family} here`;
  // Hues of one family lie together: their mean is that of their directions.
  const sums = others
    .map(hueOf)
    .reduce(([x, y], h) => [x + Math.cos((h * Math.PI) / 180), y + Math.sin((h * Math.PI) / 180)] as const, [0, 0] as readonly [
      number,
      number,
    ]);
  const mean = (Math.atan2(sums[1], sums[0]) * 180) / Math.PI;
  const by = ((hueOf(tube) - mean + 540) % 360) - 180;
  if (Math.abs(by) < LEANS) return `in the middle of the ${family}s`;
  const toward = temperature(lchToLab([50, 40, mean + by]), warmBlue) > temperature(lchToLab([50, 40, mean]), warmBlue);
  const NEXT: Readonly<Record<string, readonly [less: string, more: string]>> = {
    red: ['violet', 'orange'],
    orange: ['red', 'yellow'],
    yellow: ['orange', 'green'],
    green: ['yellow', 'blue'],
    blue: ['green', 'violet'],
    violet: ['blue', 'red'],
    earth: ['red', 'yellow'],
  };
  return `a ${toward ? 'warm' : 'cool'} ${family}, leaning to ${NEXT[family]![by > 0 ? 1 : 0]}`;
}

/** How hue and strength bend in tints. */
export function bendOf(tints: readonly Lab[]): string {
  const polar = tints.map((lab) => labToLch(lab));
  const first = polar[0]!;
  const brightest = polar.reduce((best, one, i) => (one[1] > polar[best]![1] ? i : best), 0);
  const last = polar.at(-2)!;
  const strength =
    Math.max(...polar.map(([, C]) => C)) < 6
      ? ''
      : brightest === 0
        ? 'white dulls it from the first'
        : `brightest with ${TINTS[brightest] === 1 ? 'as much' : `${TINTS[brightest]} parts of`} white`;
  const from = polar[Math.max(brightest, 0)]!;
  const by = ((last[2] - from[2] + 540) % 360) - 180;
  const cooler =
    temperature([60, ...lchToLab(last).slice(1)] as unknown as Lab) < temperature([60, ...lchToLab(from).slice(1)] as unknown as Lab);
  const bends = Math.min(first[1], last[1]) < 4 || Math.abs(by) < 8 ? '' : `its tints turn ${cooler ? 'cooler' : 'warmer'}`;
  return [strength, bends].filter(Boolean).join('; ');
}
