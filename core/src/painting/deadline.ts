import { CraftError } from '../errors.ts';
import { DAY_MS, windowOf, throughOf, type Layer } from './drying.ts';
import { timeOf, type DryingLearnt } from './felt.ts';

/** What is wanted when a painting hangs. */
export const VARNISHES = ['none', 'breathing', 'final'] as const;
export type Varnish = (typeof VARNISHES)[number];
/** Months after the last layer at which a final varnish is usual; a breathing one goes on when it is dry to touch throughout, as its label says. */
export const FINAL_VARNISH_MONTHS = [6, 12] as const;
const MONTH_DAYS = 30.4;
/** A varnish is dry to handle after so many days. */
const VARNISH_DAYS = 1;

/** A layer that is still to come. */
export interface ToCome {
  readonly name: string;
  /** As it is to be laid; when is reckoned. */
  readonly layer: Omit<Layer, 'at'>;
}

/** A way out where a day cannot be kept, with its price. */
export interface WayOut {
  readonly does: 'thinner' | 'alkyd' | 'without';
  readonly says: string;
  /** Days won. */
  readonly wins: number;
}

export interface LastDays {
  /** The last moment at which each layer can be laid, in the order they were given, ms since 1970. */
  readonly layers: readonly {
    readonly name: string;
    readonly by: number;
    readonly driesIn: readonly [number, number];
    readonly waysOut: readonly WayOut[];
  }[];
  /** When it is to be varnished. */
  readonly varnishBy?: number | undefined;
  /** Days that are missing; none or less where it can be met. */
  readonly short: number;
}

const THIN_UM = 30;
const ALKYD = { kind: 'alkyd', share: 0.15 } as const;

/**
 * The last day for each layer still to come, backwards from when a painting must hang.
 * @param free when the first of them can be laid: now, or when what is below is dry @throws CraftError for a day that has passed
 */
export function lastDays(
  due: number,
  toCome: readonly ToCome[],
  { now, free = now, varnish = 'none', learnt }: { now: number; free?: number; varnish?: Varnish; learnt?: DryingLearnt | undefined },
): LastDays {
  if (!Number.isFinite(due) || due <= now) throw new CraftError('input', 'The day on which it must hang has passed: say another.');
  const dry = (layer: Omit<Layer, 'at'>, isLast: boolean): readonly [number, number] => {
    const whole = { ...layer, at: now };
    const time = timeOf(undefined, whole, learnt);
    // A final varnish wants it through; a breathing one, and the next layer, dry to touch.
    return windowOf(isLast && varnish === 'final' ? throughOf(time, layer.filmUm) : time);
  };
  const varnishBy = varnish === 'none' ? undefined : due - VARNISH_DAYS * DAY_MS;
  let by = varnishBy ?? due;
  const found = [...toCome.entries()].reverse().map(([i, { name, layer }]) => {
    const isLast = i === toCome.length - 1;
    const driesIn = dry(layer, isLast);
    const needs = isLast && varnish === 'final' ? Math.max(driesIn[1], FINAL_VARNISH_MONTHS[0] * MONTH_DAYS) : driesIn[1];
    by -= needs * DAY_MS;
    const won = (other: Omit<Layer, 'at'>): number => driesIn[1] - dry(other, isLast)[1];
    const waysOut: WayOut[] = [];
    if (layer.filmUm > THIN_UM)
      waysOut.push({
        does: 'thinner',
        wins: won({ ...layer, filmUm: THIN_UM }),
        says: 'laid thin: it covers less, and shows what is below',
      });
    if (layer.medium?.kind !== 'alkyd')
      waysOut.push({
        does: 'alkyd',
        wins: won({ ...layer, medium: ALKYD }),
        says: 'with a little alkyd medium: tacky within the sitting, glossier; open the window, mind its label',
      });
    waysOut.push({ does: 'without', wins: driesIn[1], says: 'left out, or joined wet with the one before' });
    return { name, by, driesIn, waysOut: waysOut.filter(({ wins }) => wins > 0.2).sort((one, other) => other.wins - one.wins) };
  });
  const layers = found.reverse();
  return { layers, varnishBy, short: (free - (layers[0]?.by ?? by)) / DAY_MS };
}

/** When a painting may be varnished, from when its last layer was laid and when all of it is dry to touch. */
export const varnishFrom = (lastLaid: number, touchDry: number, kind: Exclude<Varnish, 'none'>): readonly [from: number, to: number] =>
  kind === 'final'
    ? [lastLaid + FINAL_VARNISH_MONTHS[0] * MONTH_DAYS * DAY_MS, lastLaid + FINAL_VARNISH_MONTHS[1] * MONTH_DAYS * DAY_MS]
    : [touchDry, touchDry + MONTH_DAYS * DAY_MS];
