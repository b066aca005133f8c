import { deltaE00, type Delta } from '../colour/difference.ts';
import { BANDS } from '../colour/spectrum.ts';
import { labOf, mixCurves, reflectance, type Laying } from '../paint/mix.ts';
import type { Lab } from '../colour/spaces.ts';
import type { InSteps } from '../matching/inSteps.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf } from '../paint/mixer.ts';

/** A tube as it is compared. */
export interface Comparable extends PaintCurves {
  readonly id: string;
  readonly pigments: readonly string[];
}

/** Two tubes of which one does. */
export interface Alike {
  readonly ids: readonly [string, string];
  /** ΔE00 by which they part at most: straight from the tube, and in tints. */
  readonly apart: Delta;
  readonly isOnePigment: boolean;
}

/** A tube that others make. */
export interface ReadyMade {
  readonly id: string;
  readonly of: readonly { readonly id: string; readonly parts: number }[];
  readonly apart: Delta;
}

/** Alike within what an eye sees beside one another, and what passes for one another where they are one pigment. */
const AS_ONE: Delta = 1.5;
const OF_ONE_PIGMENT: Delta = 4;
/** A mixture that passes for a tube. */
const PASSES: Delta = 2;
/** How much more what is thin may part. */
const THIN_COUNTS = 2;
const TWIN: Delta = 4;
/** Parts of a knife. */
const MOST_PARTS = 12;
const TINTS = [0, 3, 12] as const;

/** A stroke so thin shows what covers and what does not. */
const THIN: Laying = { film: { thicknessUm: 40, ground: new Float64Array(BANDS).fill(0.03) } };
const thinOf = (paint: PaintCurves): Lab => labOf(reflectance(paint, THIN));

/** How a tube looks straight, in tints, and thin over black. */
const looksOf = (paint: PaintCurves, white: PaintCurves): Lab[] => [
  ...TINTS.map((n) =>
    labOf(
      reflectance(
        mixCurves([
          { paint, parts: 1 },
          { paint: white, parts: n },
        ]),
      ),
    ),
  ),
  thinOf(paint),
];

const apartBy = (one: readonly Lab[], other: readonly Lab[]): Delta =>
  Math.max(...one.map((lab, i) => deltaE00(lab, other[i]!) / (i === TINTS.length ? THIN_COUNTS : 1)));

/** Pairs of tubes of which one does, the likest first. @param white what tints are made with */
export function alikeAmong(tubes: readonly Comparable[], white: PaintCurves): Alike[] {
  const looks = tubes.map((tube) => looksOf(tube, white));
  const found: Alike[] = [];
  tubes.forEach((one, i) =>
    tubes.slice(i + 1).forEach((other, k) => {
      const apart = apartBy(looks[i]!, looks[i + 1 + k]!);
      const isOnePigment = [...one.pigments].sort().join() === [...other.pigments].sort().join();
      if (apart <= (isOnePigment ? OF_ONE_PIGMENT : AS_ONE)) found.push({ ids: [one.id, other.id], apart, isOnePigment });
    }),
  );
  return found.sort((one, other) => one.apart - other.apart);
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
/** Whole parts of two that a knife lays, each proportion once. */
const WHOLE: readonly (readonly [number, number])[] = Array.from({ length: MOST_PARTS }, (_, i) => i + 1).flatMap((a) =>
  Array.from({ length: MOST_PARTS }, (_, j) => j + 1)
    .filter((b) => (a === 1 || b === 1 || a + b <= 7) && divisor(a, b) === 1)
    .map((b) => [a, b] as const),
);

/** Lightness within which a mixture may pass for a tube: ΔE00 weighs it by at most a half. */
const AS_LIGHT = 2 * PASSES + 1;
/** The first of a list by lightness that is not darker. */
function firstFrom(list: readonly { readonly L: number }[], L: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.L < L) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * Tubes that two others make, straight and in tints, each by its nearest mixture.
 * @param white what tints are made with; a white is no ready-made mixture
 */
export function* readyMadeAmong(tubes: readonly Comparable[], white: PaintCurves): InSteps<ReadyMade[]> {
  const looks = tubes.map((tube) => looksOf(tube, white));
  const best = new Map<
    number,
    { readonly pair: readonly [number, number]; readonly parts: readonly [number, number]; readonly apart: Delta }
  >();
  // A tube that passes for another by itself makes no mixture of it.
  const twins = tubes.map((_, t) => new Set(tubes.flatMap((__, i) => (i !== t && apartBy(looks[i]!, looks[t]!) <= TWIN ? [i] : []))));
  // Of several of one pigment the first stands for all as a part of others.
  const kinds = new Map(tubes.map(({ pigments }, i) => [[...pigments].sort().join(), i] as const).reverse());
  const parted = [...kinds.values()].sort((one, other) => one - other);
  const byLight = looks.map((own, t) => ({ t, L: own[0]![0] })).sort((one, other) => one.L - other.L);
  for (const [at, i] of parted.entries()) {
    yield at / parted.length;
    for (const j of parted.slice(at + 1)) {
      const mix = mixerOf([tubes[i]!, tubes[j]!, white]);
      for (const parts of WHOLE) {
        const straight = mix([...parts, 0]);
        for (let near = firstFrom(byLight, straight[0] - AS_LIGHT); near < byLight.length; near++) {
          const { t, L } = byLight[near]!;
          if (L > straight[0] + AS_LIGHT) break;
          if (t === i || t === j || twins[t]!.has(i) || twins[t]!.has(j)) continue;
          const own = looks[t]!;
          const known = best.get(t)?.apart ?? PASSES;
          if (deltaE00(straight, own[0]!) > known) continue;
          const tinted = TINTS.map((n) => (n === 0 ? straight : mix([...parts, n * (parts[0] + parts[1])])));
          if (apartBy(tinted, own) > known) continue;
          const thin = thinOf(
            mixCurves([
              { paint: tubes[i]!, parts: parts[0] },
              { paint: tubes[j]!, parts: parts[1] },
            ]),
          );
          // Thin over black an eye is less strict: a hand lays no two strokes alike.
          const apart = Math.max(apartBy(tinted, own), deltaE00(thin, own[TINTS.length]!) / THIN_COUNTS);
          if (apart <= known) best.set(t, { pair: [i, j], parts, apart });
        }
      }
    }
  }
  return [...best]
    .map(([t, { pair, parts, apart }]) => ({
      id: tubes[t]!.id,
      of: pair.map((i, k) => ({ id: tubes[i]!.id, parts: parts[k]! })).sort((one, other) => other.parts - one.parts),
      apart,
    }))
    .sort((one, other) => one.apart - other.apart);
}
