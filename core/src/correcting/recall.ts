import { deltaE00 } from '../colour/difference.ts';
import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import { mixerOf } from '../paint/mixer.ts';
import type { PaletteTube } from '../laying/palette.ts';
import { searchFactors } from '../matching/search.ts';

/** What is remembered of a mixture. */
export interface Remembered {
  /** Tubes that were certainly in it. */
  readonly known: readonly PaletteTube[];
  /** Tubes one of which may have been the missing one. */
  readonly candidates: readonly PaletteTube[];
  /** How it looked. */
  readonly seen: Lab;
  /** How a tint of it looked, if one was read: parts of white to one of it. */
  readonly tint?: { readonly lab: Lab; readonly white: PaletteTube; readonly parts: number };
}

/** A tube that may have been the missing one. */
export interface Suspect {
  readonly id: string;
  /** How likely it is, 0–1: among the candidates, and that none of them was in it. */
  readonly likelihood: number;
  /** Parts of all tubes, the suspect last, adding up to 1. */
  readonly shares: Readonly<Record<string, number>>;
  /** ΔE00 between what was seen and the best this tube can explain. */
  readonly deltaE00: number;
  readonly tintDeltaE00?: number;
}

/** The likely missing tubes, likeliest first. */
export interface Recall {
  readonly suspects: readonly Suspect[];
  /** Whether one stands out; otherwise `advice` says what to read. */
  readonly certain: boolean;
  readonly advice: string;
}

/** How far a remembered or read colour is off, in ΔE00, with what the painter's own tubes are other than typical. */
const SIGMA = 1.7;
/** Likelihood from which one suspect stands out by how far off it explains what was seen, ΔE00: the further, the likelier it must be. */
const STANDS_OUT = [
  { upTo: 1.2, likelihood: 0.85 },
  { upTo: 3, likelihood: 0.95 },
] as const;
/** Below this a colour is a dark, in which many tubes look alike. */
const DARK = 30;

const STARTS = [0.08, 0.3, 0.9];

function suspect({ known, seen, tint }: Remembered, candidate: PaletteTube): Omit<Suspect, 'likelihood'> & { misfit: number } {
  const tubes = [...known, candidate];
  const mix = mixerOf(tubes);
  const tinted = tint && mixerOf([...tubes, tint.white]);
  const errors = (shares: Float64Array): readonly [number, number] => {
    const total = shares.reduce((s, v) => s + v, 0);
    return [deltaE00(seen, mix(shares)), tint && tinted ? deltaE00(tint.lab, tinted([...shares, total * tint.parts])) : 0];
  };
  const cost = (shares: Float64Array): number => {
    const [whole, pale] = errors(shares);
    return whole * whole + pale * pale;
  };
  const found = STARTS.map((share) => searchFactors(cost, [...known.map(() => 1), share], { factor: 2.2 })).sort(
    (a, b) => a.cost - b.cost,
  )[0]!;
  const total = found.numbers.reduce((s, v) => s + v, 0);
  const [whole, pale] = errors(found.numbers);
  return {
    id: candidate.id,
    shares: Object.fromEntries(tubes.map((t, i) => [t.id, found.numbers[i]! / total])),
    deltaE00: whole,
    ...(tint && { tintDeltaE00: pale }),
    misfit: found.cost,
  };
}

/** Suspects up to so many times less likely than the first are as likely as it. */
const AS_LIKELY = 1.5;
/** A tube of which less than this share was in it was not in it: it would be told as 0.0 %. */
const LEAST_SHARE = 5e-4;
/** Further off than this, ΔE00, nothing is remade by it. */
const REMAKES = 2;

/** What to do where none stands out. */
function adviceBetween(ranked: readonly Suspect[], seen: Lab, hasTint: boolean): string {
  if (!hasTint)
    return seen[0] < DARK
      ? 'The dark alone cannot tell: read a tint of it with white.'
      : 'It cannot be told from this alone: read a tint of it with white.';
  const first = ranked[0]!;
  const alike = ranked.filter((one) => one.likelihood * AS_LIKELY >= first.likelihood);
  if (alike.length > 1)
    return alike.every((one) => one.deltaE00 <= REMAKES)
      ? `${alike.length} explain it equally well; any of them remakes it.`
      : `${alike.length} explain it equally well, none of them closely.`;
  return 'The first is the likeliest, and yet not sure: try it small beside the old one.';
}

/**
 * The likely missing tube of a half remembered mixture. Each candidate is given its best chance
 * (proportions fitted to what was seen), then weighed against the others by Bayes' rule.
 * @throws CraftError without a known tube or without candidates
 */
export function recall(remembered: Remembered): Recall {
  const { known, candidates, seen, tint } = remembered;
  if (known.length === 0) throw new CraftError('palette', 'Name at least one tube that was in it.');
  const open = candidates.filter((c) => known.every((k) => k.id !== c.id));
  if (open.length === 0) throw new CraftError('palette', 'Name at least one tube that may have been the other.');
  const suspects = open.map((candidate) => suspect(remembered, candidate));
  const weights = suspects.map(({ misfit }) => Math.exp(-misfit / (2 * SIGMA * SIGMA)));
  const sum = weights.reduce((s, w) => s + w, 0);
  const ranked = suspects
    .map(({ misfit: _, ...s }, i) => ({ ...s, likelihood: sum > 0 ? weights[i]! / sum : 1 / suspects.length }))
    // What is known explains it better by itself than with any of this: that is no suspect, and its weight speaks against the others.
    .filter(({ id, shares }) => shares[id]! >= LEAST_SHARE)
    .sort((a, b) => b.likelihood - a.likelihood || a.deltaE00 - b.deltaE00);
  if (ranked.length === 0)
    return { suspects: [], certain: false, advice: 'What is named explains it by itself: no other tube need have been in it.' };
  const explains = sum > Math.exp(-8);
  const [first] = ranked as [Suspect];
  const off = Math.hypot(first.deltaE00, first.tintDeltaE00 ?? 0);
  const certain = explains && STANDS_OUT.some(({ upTo, likelihood }) => off <= upTo && first.likelihood >= likelihood);
  const advice = !explains
    ? 'None of these explains what was seen; another tube was in it, or more than one.'
    : certain
      ? `${first.id} is the likely one.`
      : adviceBetween(ranked, seen, tint !== undefined);
  return { suspects: ranked, certain, advice };
}
