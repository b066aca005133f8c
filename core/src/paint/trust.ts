import { deltaE00From } from '../colour/difference.ts';
import { BANDS } from '../colour/spectrum.ts';
import { seeded } from '../random.ts';
import { leastSure, type Basis, type PaintCurves } from './catalogue.ts';
import { deviate, drawDeviation, SPREAD_OF } from './deviation.ts';
import { mixCurves, type Laying, type Portion } from './mix.ts';
import { BOTH, endToEnd, eyeFor } from './viewing.ts';

/** How far a prediction can be trusted. */
export interface Trust {
  /** The least sure of the curves it rests on. */
  readonly basis: Basis;
  /** ΔE00 that about nine of ten true mixtures stay within. */
  readonly errorEstimate: number;
  /** ΔE00 that about half of them stay within. */
  readonly likelyError: number;
}

/** A portion whose curves rest on something. */
export interface KnownPortion extends Portion {
  readonly basis?: Basis;
  /** Parts that are not known exactly, as those logged in words, lie anywhere in this range. */
  readonly range?: readonly [least: number, most: number];
}

const STUDIOS = 360;
/** A little above nine tenths: the simulation leaves out that makers differ in ways of their own. */
const SURE = 0.92;

/** Simulated studios of curves that were asked about, end to end; a cache, since each follows from the curves alone. */
const simulated = new WeakMap<Float64Array, Map<string, Float64Array>>();

/** A number that follows from curves alone (FNV-1a over their bits), so that each paint has draws of its own. */
function seedOf({ K, S }: PaintCurves): number {
  let hash = 0x811c9dc5;
  for (const curve of [K, S])
    for (const word of new Uint32Array(Float64Array.from(curve).buffer)) hash = Math.imul(hash ^ word, 0x01000193) >>> 0;
  return hash;
}

/** A paint in all simulated studios, one after the other: portions of the same curves deviate alike. */
function inStudios(paint: PaintCurves, basis: Basis): Float64Array {
  let known = simulated.get(paint.K);
  if (!known) simulated.set(paint.K, (known = new Map()));
  const seed = seedOf(paint);
  const key = `${basis} ${seed}`;
  let list = known.get(key);
  if (!list) {
    const random = seeded(seed);
    list = new Float64Array(STUDIOS * BOTH);
    for (let n = 0; n < STUDIOS; n++) list.set(endToEnd(deviate(paint, drawDeviation(SPREAD_OF[basis], random))), n * BOTH);
    known.set(key, list);
  }
  return list;
}

/** A share of the way through a range, in factors. */
const within = ([least, most]: readonly [number, number], share: number): number => least * (most / least) ** share;

const at = (sorted: Float64Array, share: number): number => sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)]!;

/**
 * How far the true mixture may lie from the prediction: the mixture is reckoned in a number of
 * simulated studios whose tubes differ from these curves as tubes do. Not one constant: a tint of
 * one strong tube is far less sure than an earth and white.
 * @param portions tubes and parts, let-downs opened
 */
export function trustIn(portions: readonly KnownPortion[], laying?: Laying): Trust {
  const used = portions.filter(({ parts }) => parts > 0);
  const eye = eyeFor({ ...(laying && { laying }) });
  // Thinning comes after mixing, so that it is the same for every paint: the eye's own curves only scale.
  const thinned = eye.curvesOf({ K: ONE, S: ONE }).K[0]!;
  const [L0, a0, b0] = eye.see(endToEnd(eye.curvesOf(mixCurves(used))));
  const from = deltaE00From([L0, a0, b0]);
  const studios = used.map(({ paint, basis = 'typical' }) => inStudios(paint, basis));
  const doses = used.map(({ parts, range }, i) => {
    const random = seeded(77 + i);
    return Float64Array.from({ length: STUDIOS }, () => (range ? within(range, random()) : parts));
  });
  const mixed = new Float64Array(BOTH);
  const errors = new Float64Array(STUDIOS);
  for (let n = 0; n < STUDIOS; n++) {
    let whole = 0;
    for (const dose of doses) whole += dose[n]!;
    mixed.fill(0);
    for (let i = 0; i < studios.length; i++) {
      const table = studios[i]!;
      const share = (doses[i]![n]! / whole) * thinned;
      for (let k = 0, at = n * BOTH; k < BOTH; k++, at++) mixed[k] = mixed[k]! + share * table[at]!;
    }
    const [L, a, b] = eye.see(mixed);
    errors[n] = from(L, a, b);
  }
  errors.sort();
  const basis = leastSure(used.map((p) => p.basis ?? 'typical'));
  return { basis, errorEstimate: at(errors, SURE), likelyError: at(errors, 0.5) };
}

const ONE = new Float64Array(BANDS).fill(1);
