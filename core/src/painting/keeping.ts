import { CraftError } from '../errors.ts';
import { dryingOf, type DryingPart } from '../mixing/drying.ts';
import type { Drying } from '../paint/pigments/definition.ts';

// Piles on the palette: with alkyd one to three hours, of fast tubes a day, of slow ones two to four days; covered and cold three times as long.
const HOURS: Readonly<Record<Drying, readonly [number, number]>> = { fast: [18, 30], medium: [30, 60], slow: [48, 96] };
const ALKYD_HOURS = [1, 3] as const;
const COVERED = 3;
const HOUR_MS = 3_600_000;
/** Skinned so much longer there is nothing left under the skin. */
const GONE = 2.5;

export type PileStands = 'workable' | 'skins over' | 'skinned' | 'gone';

export interface PileKept {
  readonly stands: PileStands;
  /** When it skins over, ms since 1970. */
  readonly skins: readonly [from: number, to: number];
}

/** How a pile on the palette is at a moment. @throws CraftError for a pile of nothing */
export function pileKept(
  parts: readonly DryingPart[],
  { mixedAt, at, isCovered = false, withAlkyd = false }: { mixedAt: number; at: number; isCovered?: boolean; withAlkyd?: boolean },
): PileKept {
  if (parts.length === 0) throw new CraftError('parts', 'A pile holds some paint.');
  const times = isCovered ? COVERED : 1;
  const [from, to] = withAlkyd ? ALKYD_HOURS : HOURS[dryingOf(parts).kind];
  const skins = [mixedAt + from * times * HOUR_MS, mixedAt + to * times * HOUR_MS] as const;
  const gone = mixedAt + to * times * GONE * HOUR_MS;
  return { stands: at < skins[0] ? 'workable' : at < skins[1] ? 'skins over' : at < gone ? 'skinned' : 'gone', skins };
}
