import { firstBeliefs, HARSH_SPREAD, USUAL_SPREAD, type Spread } from '../src/index.ts';
import { closeIn, painter, reachableTarget } from '../test/simulatedPainter.ts';
import { at, CORRECTING, mean, tubesOf } from './palettes.ts';

export interface ClosingRow {
  readonly studio: string;
  readonly painters: number;
  readonly firstMedian: number;
  readonly firstP90: number;
  readonly firstError: number;
  readonly lateMean: number;
  readonly lateP90: number;
  readonly lateError: number;
  readonly failed: string;
}

const PILES = 13;
const TAUGHT = 10;

/** How many corrections painters with unknown tubes need, at first and after ten piles. */
function closing(studio: string, spread: Spread, painters: number): ClosingRow {
  const tubes = tubesOf(CORRECTING);
  const first: number[] = [];
  const late: number[] = [];
  const errors = { first: [] as number[], late: [] as number[] };
  let failed = 0;
  for (let seed = 0; seed < painters; seed++) {
    const someone = painter(tubes, 100 + seed, spread);
    let beliefs = firstBeliefs(CORRECTING);
    for (let pile = 0; pile < PILES; pile++) {
      const outcome = closeIn(someone, reachableTarget(someone), beliefs);
      ({ beliefs } = outcome);
      if (outcome.failed) failed++;
      if (pile === 0) {
        first.push(outcome.corrections);
        errors.first.push(outcome.firstError);
      }
      if (pile >= TAUGHT) {
        late.push(outcome.corrections);
        errors.late.push(outcome.firstError);
      }
    }
  }
  return {
    studio,
    painters,
    firstMedian: at(first, 0.5),
    firstP90: at(first, 0.9),
    firstError: mean(errors.first),
    lateMean: mean(late),
    lateP90: at(late, 0.9),
    lateError: mean(errors.late),
    failed: `${failed} of ${painters * PILES}`,
  };
}

export const closingRows = (painters: number): ClosingRow[] => [
  closing('usual', USUAL_SPREAD, painters),
  closing('harsh', HARSH_SPREAD, Math.ceil(painters / 2)),
];
