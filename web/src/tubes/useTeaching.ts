// A tube is taught: swatches read off a card, by a reader, from a file or typed; what they tell before anything is kept.
import {
  ANOTHER_PAINT,
  checkReadings,
  colourFromText,
  CraftError,
  deltaE00,
  labOf,
  mixCurves,
  readingsFromFile,
  reflectance,
  standInReader,
  tintsOfRow,
  USUAL_TINTS,
  type Lab,
  type Spectrum,
  type SwatchFound,
  type SwatchReading,
} from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { labDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { CardSeen } from '../engine/photos.ts';
import type { Fitted } from '../engine/rack.ts';
import { newId } from '../floor/ids.ts';
import { counted } from '../floor/words.ts';
import { isWhite, useTubes, type Tube } from '../stores/tubes.ts';
import { useStudio } from '../studio/useStudio.ts';

/** One swatch as it is told: which parts, and what was read of it. */
export interface Told {
  readonly key: number;
  readonly tubeId: string;
  /** Parts of white to one of the tube. */
  readonly white: number;
  readonly lab: Lab;
  readonly spectrum?: Spectrum;
  readonly by: 'reader' | 'photo' | 'typed';
  /** Where it lies on the photo. */
  readonly found?: SwatchFound;
}

/** So far off one swatch is when the others fit, ΔE00. */
const ODD_ONE = 5;

export function useTeaching(tube: () => Tube | undefined) {
  const studio = useStudio();
  const tubes = useTubes();
  const told = shallowRef<Told[]>([]);
  const card = shallowRef<CardSeen>();
  const failure = ref('');
  const busy = ref(false);
  const fitted = shallowRef<ReadonlyMap<string, Fitted>>(new Map());
  /** Other tubes on the same card, a row each. */
  const others = shallowRef<readonly string[]>([]);
  const tints = shallowRef<readonly number[]>([...USUAL_TINTS]);
  let keys = 0;

  const rows = computed(() => [tube()?.id, ...others.value].flatMap((id) => (id === undefined ? [] : (tubes.byId.get(id) ?? []))));
  const whites = computed(() => tubes.all.filter(isWhite));
  const whiteId = ref('');
  /** The white of the tints: one of one's own, else the typical one. */
  const white = computed(
    () =>
      whites.value.find(({ id }) => id === whiteId.value) ??
      whites.value.find(({ maker }) => maker !== '') ??
      whites.value.find(({ pigment }) => pigment === 'titanium-white')!,
  );

  function begin(): void {
    told.value = [];
    card.value = undefined;
    failure.value = '';
    others.value = [];
    fitted.value = new Map();
    tints.value = [...USUAL_TINTS];
  }
  const tell = (one: Omit<Told, 'key'>): void => void (told.value = [...told.value, { ...one, key: ++keys }]);
  const set = (key: number, part: Partial<Told>): void =>
    void (told.value = told.value.map((one) => (one.key === key ? { ...one, ...part } : one)));
  const drop = (key: number): void => void (told.value = told.value.filter((one) => one.key !== key));

  async function attempt(work: () => Promise<void> | void): Promise<void> {
    failure.value = '';
    busy.value = true;
    try {
      await work();
    } catch (cause) {
      failure.value =
        cause instanceof CraftError ? cause.message : 'This file cannot be read. Choose a JPEG or PNG, or a table of readings.';
    } finally {
      busy.value = false;
    }
  }

  /** Rows of the card are the tubes in their order; what is on it takes the place of what a card told before. */
  function takeCard(seen: CardSeen): void {
    card.value = seen;
    if (seen.rows.length !== rows.value.length)
      throw new CraftError(
        'input',
        `${counted(seen.rows.length, 'row')} of swatches ${seen.rows.length === 1 ? 'was' : 'were'} found for ${counted(rows.value.length, 'tube')}: lay each tube’s in a row of its own, and say which tubes there are.`,
      );
    const read = seen.rows.flatMap((row, r) => tintsOfRow(row, tints.value).map((one) => ({ ...one, tubeId: rows.value[r]!.id })));
    told.value = told.value.filter(({ by }) => by !== 'photo');
    for (const { found, white: n, tubeId } of read) tell({ tubeId, white: n, lab: found.lab, by: 'photo', found });
  }
  const photograph = (file: Blob): Promise<void> =>
    attempt(async () => {
      card.value = undefined;
      const seen = await unlessGivenUp(engine().ask('card', { of: { file } }));
      if (seen) takeCard(seen);
    });
  const swatchOf = (id: string, n: number) => [{ tubeId: id, parts: 1 }, ...(n > 0 ? [{ tubeId: white.value.id, parts: n }] : [])];
  /** Typical curves of whatever a stand-in looks at: its hidden studio differs from those. */
  const typical = (id: string) => tubes.byId.get(id)!.base;
  /** What the stand-in camera gives of such a card. */
  const standInCard = (): Promise<void> =>
    attempt(async () => {
      const of = {
        rows: rows.value.map(({ id }) => tints.value.map((n) => swatchOf(id, n))),
        typical: [...rows.value, white.value].map(({ id }) => {
          const { K, S } = typical(id);
          return [id, { K, S }] as const;
        }),
        seed: rows.value.length + tints.value.length,
      };
      const seen = await unlessGivenUp(engine().ask('card', { of }));
      if (seen) takeCard(seen);
    });
  /** What the stand-in reader gives of each swatch of this tube. */
  const standInRead = (): Promise<void> =>
    attempt(async () => {
      const own = tube()!;
      const reader = standInReader(typical, told.value.length + 1);
      for (const n of tints.value) {
        const spectrum = await reader.read(swatchOf(own.id, n));
        tell({ tubeId: own.id, white: n, spectrum, lab: labOf(spectrum), by: 'reader' });
      }
    });
  /** Readings of a file, the first the tube as it comes, the next its tints in their order. */
  const readFile = (file: Blob): Promise<void> =>
    attempt(async () => {
      const readings = readingsFromFile(await file.text());
      if (readings.length > tints.value.length)
        throw new CraftError(
          'input',
          `This file holds ${readings.length} readings; ${tints.value.length} swatches were to be there. Say how many tints there are.`,
        );
      for (const [i, one] of readings.entries()) {
        const n = Number(/1\s*[:+]\s*(\d+(?:\.\d+)?)/.exec(one.name)?.[1] ?? tints.value[i]);
        const lab = one.spectrum ? labOf(one.spectrum) : one.lab!;
        tell({ tubeId: tube()!.id, white: n, lab, by: 'reader', ...(one.spectrum && { spectrum: one.spectrum }) });
      }
    });
  /** A colour that is typed. */
  const type = (text: string, n: number): Promise<void> =>
    attempt(() => tell({ tubeId: tube()!.id, white: n, lab: colourFromText(text), by: 'typed' }));

  /** A swatch that was moved by hand is read where it then lies, beside the same paper. */
  const moveTo = (key: number, x: number, y: number): Promise<void> =>
    attempt(async () => {
      const one = told.value.find((own) => own.key === key);
      if (!one?.found || !card.value) return;
      const lab = await unlessGivenUp(
        engine().ask('spot', { image: await createImageBitmap(card.value.image), x, y, width: one.found.width, paper: card.value.paper }),
      );
      if (lab) set(key, { lab, found: { ...one.found, x, y, lab } });
    });

  const readingOf = ({ white: n, lab, spectrum, by }: Told): SwatchReading => ({
    parts: { tube: 1, white: n },
    ...(spectrum ? { spectrum } : { lab, by: by === 'typed' ? ('eye' as const) : ('photo' as const) }),
  });
  let fitting: AbortController | undefined;
  watch(
    () => JSON.stringify([told.value.map(({ tubeId, white: n, lab, by }) => [tubeId, n, lab, by]), white.value?.stateId]),
    async () => {
      fitting?.abort();
      const own = (fitting = new AbortController());
      const next = new Map<string, Fitted>();
      for (const id of new Set(told.value.map(({ tubeId }) => tubeId))) {
        const readings = told.value.filter(({ tubeId }) => tubeId === id).map(readingOf);
        try {
          checkReadings(readings);
          const { K, S } = tubes.byId.get(id)!.base;
          const { base } = white.value;
          const found = await unlessGivenUp(
            engine().ask('fit', { from: { K, S }, white: { K: base.K, S: base.S }, readings }, { signal: own.signal }),
          );
          if (own.signal.aborted) return;
          if (found) next.set(id, found);
        } catch (cause) {
          if (own.signal.aborted) return;
          failure.value = (cause as Error).message;
        }
      }
      fitted.value = next;
    },
  );

  /** What looks wrong, in a sentence each; a card that would mislead is not kept. */
  const wrong = computed(() =>
    [...fitted.value].flatMap(([id, { strangeness, residuals, swapped }]) => {
      const name = tubes.byId.get(id)?.name ?? 'This tube';
      const own = told.value.filter(({ tubeId }) => tubeId === id);
      const called = (n: number): string => (own[n]!.white === 0 ? 'the tube as it comes' : `1 to ${own[n]!.white} of white`);
      const says: { readonly text: string; readonly isBad: boolean }[] = [];
      if (swapped) says.push({ text: `${name}: ${called(swapped[0])} and ${called(swapped[1])} look exchanged.`, isBad: true });
      if (strangeness > ANOTHER_PAINT)
        says.push({
          text: `${name} is far from what its pigment usually is: is it another tube, or another row of the card?`,
          isBad: true,
        });
      else if (!swapped) {
        const odd = residuals.findIndex((one) => one > ODD_ONE);
        if (odd >= 0 && own[odd])
          says.push({ text: `${name}: ${called(odd)} does not fit the others. Look at how it was mixed.`, isBad: false });
      }
      return says;
    }),
  );
  const looksOf = (id: string) => {
    const fit = fitted.value.get(id);
    const own = tubes.byId.get(id);
    if (!fit || !own) return [];
    return told.value
      .filter(({ tubeId }) => tubeId === id)
      .map((one) => {
        const look = (paint: { K: Float64Array; S: Float64Array }): Lab =>
          labOf(
            reflectance(
              mixCurves([
                { paint, parts: 1 },
                { paint: white.value.base, parts: one.white },
              ]),
            ),
          );
        const [before, after] = [look(own.base), look(fit)];
        return { ...one, before, after, off: deltaE00(after, one.lab) };
      });
  };

  /** @returns whether it was kept */
  async function keep(): Promise<boolean> {
    const kinds = [...new Set(told.value.map(({ by }) => by))];
    const sightings = new Map(kinds.map((kind) => [kind, newId()]));
    const ops: Operation[] = kinds.map((kind) => ({ do: 'sighting.add', id: sightings.get(kind)!, kind }));
    for (const one of told.value)
      ops.push({
        do: 'reading.add',
        id: newId(),
        sightingId: sightings.get(one.by)!,
        tubeId: one.tubeId,
        patch: {
          form: 1,
          heaps: [
            { ingredients: [{ tube: one.tubeId, parts: 1 }, ...(one.white > 0 ? [{ tube: white.value.id, parts: one.white }] : [])] },
          ],
        },
        lab: labDto(one.lab),
        ...(one.spectrum && { spectrum: Array.from(one.spectrum, (v) => Math.min(1.1, Math.max(-0.01, v))) }),
      });
    const count = new Set(told.value.map(({ tubeId }) => tubeId)).size;
    return studio.make(ops, `Taught ${counted(count, 'tube')} by ${counted(told.value.length, 'swatch', 'swatches')}`);
  }
  return {
    told,
    card,
    failure,
    busy,
    fitted,
    others,
    tints,
    rows,
    whites,
    white,
    whiteId,
    wrong,
    begin,
    set,
    drop,
    moveTo,
    photograph,
    standInCard,
    standInRead,
    readFile,
    type,
    looksOf,
    keep,
  };
}
