import {
  BINDER_KINDS,
  CATALOGUE,
  CraftError,
  DAY_MS,
  FELT,
  finite,
  isInCalendar,
  layersJudged,
  learnDrying,
  MEDIUM_KINDS,
  timeOf,
  type DayWindow,
  type FeltLayer,
  type Layer,
  type LayerPart,
} from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { isOwn, tubeOf } from '../ownTubes.ts';

const MOST_COATS = 500;
const MOST_FELT = 100;
/** What a tube of one’s own is taken for, as long as nothing else is known of it. */
const UNKNOWN = { drying: 'medium', oil: 45, density: 1.5 } as const;

/** When something was done: a day as ISO, or a number of days; answers come in the same form. */
function momentFrom(input: unknown, name: string): { readonly ms: number; readonly isDays: boolean } {
  if (typeof input === 'number' && Number.isFinite(input)) return { ms: input * DAY_MS, isDays: true };
  const ms = typeof input === 'string' ? Date.parse(input) : NaN;
  // A day that no month has would be read as one of the next.
  const [day] = typeof input === 'string' ? (/^\d{4}-\d\d-\d\d/.exec(input) ?? []) : [];
  const isNone = Number.isNaN(ms) || (day !== undefined && !isInCalendar(day));
  if (isNone) throw new CraftError('input', `${name} is a day, as "2026-11-30" or "2026-11-30T18:00Z", or a number of days.`);
  return { ms, isDays: false };
}

function oneOf<T extends string>(input: unknown, all: readonly T[], name: string): T {
  if (all.includes(input as T)) return input as T;
  throw new CraftError('input', `${name} is ${all.join(', ')}; it is ${JSON.stringify(input)}.`);
}

function partsFrom(input: unknown, by: number, bound: Pick<LayerPart, 'bound'>): LayerPart[] {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('parts', 'parts must be an object of tubes and numbers, as {"titanium-white": 9, "burnt-umber": 1}.');
  const given = Object.entries(input).map(([id, n]) => ({ id, parts: finite('parts', `The parts of ${id}`, n) }));
  const whole = given.reduce((sum, { parts }) => sum + parts, 0);
  return given.map(({ id, parts }) => {
    tubeOf(id);
    const { drying, oil, density } = isOwn(id) ? UNKNOWN : CATALOGUE.get(id)!;
    return { id, parts: whole > 0 ? (by * parts) / whole : parts, drying, oil, density, ...bound };
  });
}

/** Paint of a coat: parts of tubes, or piles by how much of each. */
function paintFrom(parts: unknown, piles: unknown, bound: Pick<LayerPart, 'bound'>): LayerPart[] {
  if ((parts === undefined) === (piles === undefined)) throw new CraftError('parts', 'A coat has parts, or piles; one of the two.');
  if (piles === undefined) return partsFrom(parts, 1, bound);
  if (!Array.isArray(piles) || piles.length === 0)
    throw new CraftError('parts', 'piles must be a list, as [{"parts":{"titanium-white":1},"ml":2}].');
  return piles.flatMap((pile) => {
    const { parts: of, ml = 1 } = fieldsOf(pile, ['parts', 'ml']);
    const much = finite('parts', 'The ml of a pile', ml);
    if (!(much > 0)) throw new CraftError('parts', `The ml of a pile lies above 0; it is ${much}.`);
    return partsFrom(of, much, bound);
  });
}

interface Coat extends FeltLayer {
  readonly isDays: boolean;
}

function coatFrom(input: unknown, i: number): Coat {
  const { parts, piles, medium, thinner, film_um, at, temperature_c, binder, touched } = fieldsOf(input, [
    'parts',
    'piles',
    'medium',
    'thinner',
    'film_um',
    'at',
    'temperature_c',
    'binder',
    'touched',
  ]);
  const bound = binder === undefined ? {} : { bound: oneOf(binder, BINDER_KINDS, 'binder') };
  const { kind, share } = medium === undefined || medium === null ? {} : fieldsOf(medium, ['kind', 'share']);
  const laid = momentFrom(at, 'at');
  const layer: Layer = {
    paint: paintFrom(parts, piles, bound),
    ...(medium !== undefined &&
      medium !== null && {
        medium: { kind: oneOf(kind, MEDIUM_KINDS, 'The kind of medium'), share: finite('film', 'The share of medium', share) },
      }),
    ...(thinner !== undefined && { thinner: finite('film', 'thinner', thinner) }),
    filmUm: finite('film', 'film_um', film_um),
    at: laid.ms,
    ...(temperature_c !== undefined && { temperatureC: finite('input', 'temperature_c', temperature_c) }),
  };
  if (touched !== undefined && !Array.isArray(touched))
    throw new CraftError('input', 'touched must be a list, as [{"at":"2026-12-03","felt":"dry"}].');
  if (touched !== undefined && touched.length > MOST_FELT)
    throw new CraftError('input', `A coat is touched ${MOST_FELT} times at most; this one was ${touched.length} times.`);
  const touches = (touched ?? []).map((one: unknown) => {
    const { at: when, felt } = fieldsOf(one, ['at', 'felt']);
    return { at: momentFrom(when, 'When it was touched').ms, felt: oneOf(felt, FELT, 'felt') };
  });
  return { id: String(i), layer, touches, isDays: laid.isDays };
}

export const layers: Command = {
  name: 'layers',
  summary: 'coats of paint one over another → when each is dry, how fat it is, and whether it may lie there',
  help: `  echo '{"coats":[{"parts":{"burnt-umber":1},"thinner":0.3,"film_um":20,"at":"2026-11-30","temperature_c":18},{"piles":[{"parts":{"titanium-white":9,"yellow-ochre":1},"ml":4}],"medium":{"kind":"linseed","share":0.1},"film_um":80,"at":"2026-12-03"}]}' | npx dusk layers
    → {"coats":[{"touch_dry":{"from":"2026-11-30T…","to":"…"},"through_dry":{"from":"…","to":"…"},"fatness":0.55,"verdict":"good","says":""},…]}

Nine of ten such coats are dry within the window; it is wider where "temperature_c" is left out. "at" is a day, a moment, or a
number of days, and answers come in the same form. "medium" kinds: linseed, walnut, poppy, resin, alkyd; shares are of the film.
"binder" is what the tubes are bound in: linseed (usual), walnut, poppy. "touched": [{"at":"2026-12-02","felt":"dry"}] (wet, tacky,
dry, dry through, sunk) moves that coat's window, and those of coats of like tubes. "fatness" is the share of oil and resin in
the dry film. "verdict" over the coat before it: good, wet below, tacky below, perhaps tacky below, leaner than below,
fast over slow, thin over thick. A touch test beats all of it.`,
  run: (input) => {
    const { coats } = fieldsOf(input, ['coats']);
    if (!Array.isArray(coats) || coats.length === 0)
      throw new CraftError('input', 'coats must be a list, as [{"parts":{"burnt-umber":1},"film_um":20,"at":"2026-11-30"}].');
    if (coats.length > MOST_COATS) throw new CraftError('input', `At most ${MOST_COATS} coats; these are ${coats.length}.`);
    const all = coats.map(coatFrom);
    if (all.some(({ layer }, i) => i > 0 && layer.at < all[i - 1]!.layer.at))
      throw new CraftError('input', 'Coats come in the order in which they were laid, the first below.');
    const learnt = learnDrying(all);
    const times = all.map(({ id, layer }) => timeOf(id, layer, learnt));
    const judged = layersJudged(
      all.map(({ layer }) => layer),
      times,
    );
    return {
      coats: judged.map(({ touchDry, throughDry, fatness, verdict, says }, i) => {
        const { layer, isDays } = all[i]!;
        const written = (days: number) => {
          const ms = layer.at + days * DAY_MS;
          return isDays ? rounded(ms / DAY_MS) : new Date(ms).toISOString();
        };
        const window = ([from, to]: DayWindow) => ({ from: written(from), to: written(to) });
        return { touch_dry: window(touchDry), through_dry: window(throughDry), fatness: rounded(fatness), verdict, says };
      }),
    };
  },
};
