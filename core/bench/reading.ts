import {
  believed,
  correct,
  deltaE00,
  firstBeliefs,
  labOf,
  learn,
  mixCurves,
  readingOf,
  reflectance,
  trustIn,
  type Dose,
  type Lab,
  type Sight,
  type Stage,
} from '../src/index.ts';
import { normal } from '../src/random.ts';
import { bestDoses, painter, reachableTarget, TruePile, type SimulatedPainter } from '../test/simulatedPainter.ts';
import { at, CORRECTING, mean, tubesOf } from './palettes.ts';

const PILES = 13;
const TAUGHT = 10;
const MOST_CORRECTIONS = 6;

export interface BiasedRow {
  readonly studio: string;
  /** Late piles that end truly above ΔE00 2, as a share. */
  readonly above2: number;
  readonly endP90: number;
  /** As a share, late piles truly above ΔE00 2 before anything was added. */
  readonly began2: number;
  /** Late corrections that truly make it worse, as a share, and how many there were. */
  readonly worse: number;
  readonly corrections: number;
  /** ΔE of the sitting's offset that is not known at its end, mean. */
  readonly offsetLeft: number;
}

/** An offset in any direction of Lab: of a length there, or of a ΔE00 wherever a colour is read. */
function offsetOf(random: () => number, length: number, in00: boolean): (look: Lab) => Lab {
  const [x, y, z] = [normal(random), normal(random), normal(random)];
  const one = 1 / Math.hypot(x, y, z);
  const by = (length: number): Lab => [x * one * length, y * one * length, z * one * length];
  if (!in00) return () => by(length);
  return (look) => {
    let [low, high] = [0, 12 * length];
    for (let i = 0; i < 30; i++) {
      const middle = (low + high) / 2;
      const [l, a, b] = by(middle);
      if (deltaE00(look, [look[0] + l, look[1] + a, look[2] + b]) < length) low = middle;
      else high = middle;
    }
    return by(low);
  };
}

interface Sitting {
  readonly bias: number;
  /** Whether that is a ΔE00 rather than a length in Lab. */
  readonly in00?: boolean;
  /** ΔE by which readings scatter. */
  readonly noise?: number;
  readonly sight?: Sight;
  readonly knife: number;
}

/** Painters who see no truth: they do what is advised until it says to leave the pile, all in one sitting. */
function biased(studio: string, { bias, in00 = false, noise, sight, knife }: Sitting, painters: number): BiasedRow {
  const tubes = tubesOf(CORRECTING);
  const ends: number[] = [];
  const begun: number[] = [];
  const left: number[] = [];
  let corrections = 0;
  let worse = 0;
  for (let seed = 0; seed < painters; seed++) {
    const someone = painter(tubes, 100 + seed, undefined, knife);
    const offset = offsetOf(someone.random, bias, in00);
    const reading = sight && readingOf(sight, 'this sitting');
    let beliefs = firstBeliefs(CORRECTING);
    for (let n = 0; n < PILES; n++) {
      const target = reachableTarget(someone);
      const pile = new TruePile(someone, offset, noise);
      const stages: Stage[] = [];
      const put = (additions: readonly Dose[]): void => {
        pile.dose(additions);
        stages.push({ additions, observed: pile.read(), knife, ...(reading && { reading }) });
      };
      put(bestDoses(someone, target, beliefs));
      const started = pile.size;
      if (n >= TAUGHT) begun.push(deltaE00(target, pile.look));
      for (let round = 0; round < MOST_CORRECTIONS; round++) {
        const { add } = correct({ palette: tubes, stages, target, beliefs, mostGrowth: (4 * started) / pile.size });
        if (add.length === 0) break;
        const before = deltaE00(target, pile.look);
        put(add);
        if (n < TAUGHT) continue;
        corrections++;
        if (deltaE00(target, pile.look) > before) worse++;
      }
      if (n >= TAUGHT) ends.push(deltaE00(target, pile.look));
      const learnt = learn(beliefs, tubes, stages);
      ({ beliefs } = learnt);
      if (n === PILES - 1) left.push(Math.hypot(...learnt.offset.map((v, i) => v - offset(target)[i]!)));
    }
  }
  return {
    studio,
    above2: ends.filter((e) => e > 2).length / ends.length,
    endP90: at(ends, 0.9),
    began2: begun.filter((e) => e > 2).length / begun.length,
    worse: worse / Math.max(1, corrections),
    corrections,
    offsetLeft: mean(left),
  };
}

/** A screen whose white is not set to the paper: off by so much over a sitting, scattering by a nudge. */
const UNSET = { bias: 3, in00: true, noise: 1, knife: 0.1 } as const;

export const biasedRows = (painters: number): BiasedRow[] => [
  biased('photo, off by 1.75', { bias: 1.75, sight: 'photo', knife: 0.1 }, painters),
  biased('photo, off by 1.75, knife 25 %', { bias: 1.75, sight: 'photo', knife: 0.25 }, painters),
  biased('photo, off by 1.75, not said', { bias: 1.75, knife: 0.1 }, painters),
  biased('photo, off by ΔE00 1.75', { bias: 1.75, in00: true, sight: 'photo', knife: 0.1 }, painters),
  biased('reader, not off', { bias: 0, sight: 'reader', knife: 0.1 }, painters),
  biased('nudges, screen not set, as words', { ...UNSET, sight: 'words' }, painters),
  biased('nudges, screen not set, as if it were', { ...UNSET, sight: 'eye' }, painters),
];

export interface CoverRow {
  readonly palette: string;
  readonly taught: string;
  /** Shares of true piles within the stated error: all, and by thirds of it. */
  readonly cover: number;
  readonly thirds: readonly number[];
  readonly stated: number;
  readonly off: number;
}

const ASKED = 25;

/** Some tubes and whole parts: white and one to three more. */
function somePile({ random, typical }: SimulatedPainter): Dose[] {
  const chosen = new Set([0]);
  while (chosen.size < 2 + Math.floor(random() * 3)) chosen.add(Math.floor(random() * typical.length));
  return [...chosen].map((i) => ({ id: typical[i]!.id, parts: 1 + Math.floor(random() * 5) }));
}

/** Palettes that differ in what piles can teach of them. */
const COVERED = {
  'eight without a very strong one': CORRECTING,
  'earths with ivory black': ['titanium-white', 'yellow-ochre', 'raw-umber', 'burnt-sienna', 'venetian-red', 'ivory-black'],
  'earths and black, no white': ['yellow-ochre', 'raw-umber', 'burnt-sienna', 'venetian-red', 'ivory-black'],
  'three whites': ['titanium-white', 'zinc-white', 'lead-white', 'yellow-ochre', 'ultramarine-blue', 'venetian-red'],
  'strong modern': ['titanium-white', 'hansa-yellow', 'quinacridone-rose', 'phthalo-blue', 'viridian', 'pyrrole-red'],
} as const;
type CoverPalette = keyof typeof COVERED;

/** Whether true piles lie within the error that is stated once some piles have taught the tubes. */
function covering(
  taught: number,
  knife: number,
  isStated: boolean,
  painters: number,
  palette: CoverPalette = 'eight without a very strong one',
): CoverRow {
  const ids = COVERED[palette];
  const tubes = tubesOf(ids);
  const outcomes: { readonly stated: number; readonly off: number }[] = [];
  for (let seed = 0; seed < painters; seed++) {
    const someone = painter(tubes, 500 + seed, undefined, knife);
    let beliefs = firstBeliefs(ids);
    for (let n = 0; n < taught; n++) {
      const pile = new TruePile(someone);
      const additions = somePile(someone);
      pile.dose(additions);
      ({ beliefs } = learn(beliefs, tubes, [{ additions, observed: pile.read(), ...(isStated && { knife }) }]));
    }
    const exact = { ...someone, knife: 0 };
    for (let n = 0; n < ASKED; n++) {
      const doses = somePile(someone);
      const portions = doses.map(({ id, parts }) => ({
        id,
        parts,
        basis: taught > 0 ? ('learnt' as const) : ('typical' as const),
        paint: believed(
          tubes.find((t) => t.id === id)!,
          beliefs,
          id,
        ),
      }));
      const { errorEstimate } = trustIn(portions, undefined, { ...(taught > 0 && { joint: beliefs }), ...(isStated && { knife }) });
      const pile = new TruePile(isStated ? someone : exact);
      pile.dose(doses);
      outcomes.push({ stated: errorEstimate, off: deltaE00(labOf(reflectance(mixCurves(portions))), pile.look) });
    }
  }
  const cover = (list: typeof outcomes): number => list.filter(({ stated, off }) => off <= stated).length / list.length;
  const sorted = [...outcomes].sort((a, b) => a.stated - b.stated);
  const third = Math.floor(sorted.length / 3);
  return {
    palette,
    taught: `${taught} piles${isStated ? `, knife ${100 * knife} %` : ''}`,
    cover: cover(outcomes),
    thirds: [0, 1, 2].map((n) => cover(sorted.slice(n * third, (n + 1) * third))),
    stated: mean(outcomes.map((o) => o.stated)),
    off: mean(outcomes.map((o) => o.off)),
  };
}

export const coverRows = (painters: number): CoverRow[] => [
  ...[0, 1, 3, 10, 30].map((taught) => covering(taught, 0.1, false, painters)),
  covering(10, 0.1, true, painters),
  covering(0, 0.25, true, painters),
  covering(10, 0.25, true, painters),
  ...(Object.keys(COVERED) as CoverPalette[])
    .slice(1)
    .flatMap((palette) => [1, 10].map((taught) => covering(taught, 0.1, false, painters, palette))),
];
