import { deltaE00 } from '../colour/difference.ts';
import { valueOfColour } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { CraftError, finite } from '../errors.ts';

/** A colour that a pile will stand beside: barely off it (`most`), clear of it (`least`), or both, ΔE00; so many values apart from it. */
export interface Neighbour {
  readonly lab: Lab;
  readonly least?: number | undefined;
  readonly most?: number | undefined;
  /** Least distance in Munsell value. */
  readonly apart?: number | undefined;
}

/** A colour that keeps its distances, or comes as near to that as can be. */
export interface Between {
  readonly lab: Lab;
  /** ΔE00 to each neighbour. */
  readonly differences: readonly number[];
  /** Whether every distance is kept. */
  readonly keeps: boolean;
  /** ΔE00 from the colour that was wanted. */
  readonly moved: number;
}

/** How much more a broken distance weighs than what the colour moves; grows until it is kept. */
const WEIGHTS = [4, 40, 400, 4000] as const;
/** ΔE00 by which a distance may be missed and is still kept: less than can be seen. */
const KEPT = 0.05;
/** Steps of the search, Lab. */
const WIDEST = 16;
const FINEST = 0.02;
/** Directions that are tried: along the axes and across. */
const WAYS: readonly Lab[] = [-1, 0, 1]
  .flatMap((l) => [-1, 0, 1].flatMap((a) => [-1, 0, 1].map((b): Lab => [l, a, b])))
  .filter((way) => way.some((v) => v !== 0));

/** What a value step weighs, as ΔE00. */
const PER_VALUE = 8;
const valuesApart = (lab: Lab, other: Lab): number => Math.abs(valueOfColour(lab) - valueOfColour(other));

/** By how much a colour misses its distances from a neighbour, ΔE00. */
function missed({ lab, least = 0, most = Infinity, apart = 0 }: Neighbour, at: Lab): number {
  const difference = least > 0 || most < Infinity ? deltaE00(lab, at) : 0;
  const inValue = apart > 0 ? PER_VALUE * Math.max(0, apart - valuesApart(lab, at)) : 0;
  return Math.hypot(Math.max(0, least - difference, difference - most), inValue);
}

/**
 * The colour nearest to a wanted one that keeps its distances to its neighbours, by pattern search with
 * growing penalties. What already keeps them stays as it is.
 * @throws CraftError for bounds that are no numbers, or cross
 */
export function betweenNeighbours(wanted: Lab, neighbours: readonly Neighbour[]): Between {
  for (const { least = 0, most = Infinity, apart = 0 } of neighbours) {
    if (!(finite('target', 'The least difference', least) >= 0 && least <= most))
      throw new CraftError('target', 'The least difference to a neighbour is no larger than the most.');
    if (!(finite('target', 'How far apart', apart) >= 0 && apart <= 10))
      throw new CraftError('target', 'Neighbours are 0 to 10 values apart.');
  }
  const differencesOf = (lab: Lab): number[] => neighbours.map((neighbour) => deltaE00(neighbour.lab, lab));
  const missing = (lab: Lab): number => neighbours.reduce((sum, neighbour) => sum + missed(neighbour, lab) ** 2, 0);
  const isFine = (lab: Lab): boolean => neighbours.every((neighbour) => missed(neighbour, lab) <= KEPT);
  const answer = (lab: Lab): Between => ({ lab, differences: differencesOf(lab), keeps: isFine(lab), moved: deltaE00(wanted, lab) });
  if (isFine(wanted)) return answer(wanted);
  // Where the wanted colour is a neighbour's own, no way off it is nearer than another: start a little aside.
  const starts: readonly Lab[] = [
    wanted,
    ...WAYS.filter((way) => way.filter((v) => v !== 0).length === 1).map((way): Lab => [
      wanted[0] + 2 * way[0],
      wanted[1] + 2 * way[1],
      wanted[2] + 2 * way[2],
    ]),
  ];
  const found = starts.map((start) => {
    let lab = start;
    for (const weight of WEIGHTS) {
      const cost = (at: Lab): number => deltaE00(wanted, at) ** 2 + weight * missing(at) + (at[0] < 0 || at[0] > 100 ? 1e6 : 0);
      let best = cost(lab);
      for (let step = WIDEST; step > FINEST;) {
        const next = WAYS.map((way): Lab => [lab[0] + step * way[0], lab[1] + step * way[1], lab[2] + step * way[2]])
          .map((at) => ({ at, cost: cost(at) }))
          .reduce((least, one) => (one.cost < least.cost ? one : least));
        if (next.cost < best - 1e-9) {
          lab = next.at;
          best = next.cost;
        } else step /= 2;
      }
    }
    return answer(lab);
  });
  return found.reduce((best, one) => {
    if (one.keeps !== best.keeps) return one.keeps ? one : best;
    return (one.keeps ? one.moved < best.moved : missing(one.lab) < missing(best.lab)) ? one : best;
  });
}
