import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import {
  USUAL_TINTS,
  standInReader,
  best,
  CATALOGUE,
  findGlints,
  isGlint,
  labOf,
  labToHex,
  layKey,
  layPalette,
  mixtureOfRecipe,
  paintRange,
  readArea,
  throughKey,
  valueSpread,
  washOver,
  type Key,
  type Palette,
  type Pixels,
} from '@dusk/core';
import { addTube, hasWork, keepPicture, makeChange, pilesOf, readPicture, tubeRows, type Studio } from '@dusk/server';
import { labDto, mixtureSent, type Needs, type Operation, type TubeDto, type View } from '@dusk/wire';
import sharp from 'sharp';
import { SAMPLE_MAKER, SAMPLE_PAINTINGS, SAMPLE_TAUGHT, SAMPLE_TUBES, type SamplePainting, type SamplePlace } from './sampleStudio.ts';
import { growKin } from './kin.ts';
import { layLayers } from './layers.ts';
import { tellStory } from './story.ts';

/** Radius of a sampled area, as a share of the picture's width. */
const AREA = 0.008;
const USUAL_ML = 4;
const DEVICE = 'the sample studio';

const laidOut = (tubes: readonly TubeDto[]): Palette =>
  layPalette(
    tubes.map(({ id, pigment, curves }) => ({
      id,
      K: Float64Array.from(curves.K),
      S: Float64Array.from(curves.S),
      caution: CATALOGUE.get(pigment)!.caution,
    })),
  );

async function pixelsOf(bytes: Buffer): Promise<Pixels> {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** The key of a sample painting, laid over its picture and palette. */
function keyOn(palette: Palette, pixels: Pixels, { view }: SamplePainting): Key {
  const glints = findGlints(pixels);
  const { range } = valueSpread(pixels, [1, 1, 1], (x, y) => isGlint(glints, x, y));
  const plan = view.key?.kind === 'fitted' ? { kind: 'fitted' as const, held: view.key.held! } : { kind: 'as it is' as const };
  return layKey(plan, { seen: range, paint: paintRange(palette) });
}

/** A pile as the painter would have kept it: pointed at, and the best recipe taken. */
function kept(
  palette: Palette,
  pixels: Pixels,
  key: Key,
  paintingId: string,
  referenceId: string,
  { name, thing, zone, x, y, lands }: SamplePlace,
): Operation[] {
  const outline = { x: x * pixels.width, y: y * pixels.height, radius: AREA * pixels.width };
  const { lab } = readArea(pixels, outline.x, outline.y, outline.radius);
  const paint = throughKey(key, lab);
  const plan = mixtureSent(mixtureOfRecipe(best(palette, paint), (tube) => ({ tube })));
  const sampleId = randomUUID();
  return [
    { do: 'sample.add', id: sampleId, paintingId, referenceId, outline, seen: labDto(lab), paint: labDto(paint), zone, thing },
    {
      do: 'pile.add',
      id: randomUUID(),
      paintingId,
      name,
      target: { kind: 'absolute', lab: labDto(paint) },
      sampleId,
      plan,
      ml: USUAL_ML,
      ...(lands && { purpose: lands }),
    },
  ];
}

/** A ground of its own colour, or a wash of one of its tubes. */
function groundOf(
  { ground, groundOf: pigment }: SamplePainting,
  tubes: readonly TubeDto[],
): Pick<Needs<'painting.add'>, 'ground' | 'groundOf'> {
  const tube = tubes.find((one) => one.pigment === pigment);
  if (!tube) return { ground };
  const { K, S } = tube.curves;
  const wash = washOver({ K: Float64Array.from(K), S: Float64Array.from(S) }, 'wiped to a stain');
  return { ground: labToHex(labOf(wash)), groundOf: { tubeId: tube.id, wiped: 'wiped to a stain' } };
}

async function addSamplePainting(studio: Studio, sample: SamplePainting, tubes: ReadonlyMap<string, TubeDto>): Promise<void> {
  const chosen = sample.palette.pigments.map((pigment) => tubes.get(pigment)!);
  const picture = await readPicture(readFileSync(new URL(`../pictures/${sample.picture}.jpg`, import.meta.url)));
  const { kept: held } = await studio.change((db) => keepPicture(db, picture, studio.now()));
  const pixels = await pixelsOf((picture.working ?? picture).bytes);
  const palette = laidOut(chosen);
  const [paletteId, paintingId, referenceId] = [randomUUID(), randomUUID(), randomUUID()];
  const make = (...ops: readonly Operation[]) => makeChange(studio, { id: randomUUID(), device: DEVICE, ops });
  await make(
    { do: 'palette.add', id: paletteId, name: sample.palette.name, tubeIds: chosen.map((t) => t.id) },
    { do: 'painting.add', id: paintingId, title: sample.title, paletteId, ...groundOf(sample, chosen) },
    { do: 'reference.add', id: referenceId, paintingId, pictureId: held.id, name: sample.picture },
  );
  await make(
    { do: 'painting.change', id: paintingId, version: 1, canvas: sample.canvas },
    {
      do: 'reference.change',
      id: referenceId,
      version: 1,
      source: sample.source,
      passing: 'mine',
      view: sample.view as unknown as View,
    },
  );
  const key = keyOn(palette, pixels, sample);
  for (const place of sample.piles) await make(...kept(palette, pixels, key, paintingId, referenceId, place));
  await tellStory(studio, paintingId, chosen, sample.done ?? []);
  await layLayers(studio, paintingId, chosen, sample.areas ?? []);
  await growKin(studio, paintingId, chosen, sample.kin ?? []);
  if (sample.cards) await keepCards(studio, paintingId, sample.cards);
}

/** Cards of some piles as they lie there, in a set. */
async function keepCards(studio: Studio, paintingId: string, { set, note, piles }: NonNullable<SamplePainting['cards']>): Promise<void> {
  const there = await pilesOf(studio, paintingId);
  const cards = piles.map((name) => ({ id: randomUUID(), pileId: there.find((pile) => pile.name === name)!.id }));
  const ops = [
    ...cards.map((card): Operation => ({ do: 'card.add', ...card })),
    { do: 'set.add' as const, id: randomUUID(), name: set, kind: 'chosen' as const, note, cardIds: cards.map(({ id }) => id) },
  ];
  await makeChange(studio, { id: randomUUID(), device: DEVICE, ops });
}

/** A tube and what the stand-in reader read of it: straight, and in three tints of the studio's white. */
async function teachOne(studio: Studio, white: TubeDto): Promise<void> {
  const { pigment, name, nozzleMm } = SAMPLE_TAUGHT;
  const tubeId = await studio.change((db) => addTube(db, CATALOGUE.get(pigment)!, name, SAMPLE_MAKER, nozzleMm, studio.now()));
  const reader = standInReader((id) => CATALOGUE.get(id === tubeId ? pigment : white.pigment)!, 7);
  const sightingId = randomUUID();
  const readings = await Promise.all(
    USUAL_TINTS.map(async (parts): Promise<Operation> => {
      const tints = parts > 0 ? [{ id: white.id, parts }] : [];
      const spectrum = await reader.read([{ id: tubeId, parts: 1 }, ...tints].map((one) => ({ tubeId: one.id, parts: one.parts })));
      return {
        do: 'reading.add',
        id: randomUUID(),
        sightingId,
        tubeId,
        patch: {
          form: 1,
          heaps: [{ ingredients: [{ id: tubeId, parts: 1 }, ...tints].map((one) => ({ tube: one.id, parts: one.parts })) }],
        },
        lab: labDto(labOf(spectrum)),
        spectrum: [...spectrum],
      };
    }),
  );
  await makeChange(studio, {
    id: randomUUID(),
    device: DEVICE,
    ops: [{ do: 'sighting.add', id: sightingId, kind: 'reader', light: 'daylight' }, ...readings],
  });
}

/**
 * Fills a studio that nobody has worked in yet with the sample studio.
 * @returns whether it did
 */
export async function fillStudio(studio: Studio): Promise<boolean> {
  if (await studio.look(hasWork)) return false;
  await studio.change(async (db) => {
    for (const { pigment, name, nozzleMm } of SAMPLE_TUBES)
      await addTube(db, CATALOGUE.get(pigment)!, name, SAMPLE_MAKER, nozzleMm, studio.now());
  });
  const tubes = (await studio.look((db) => tubeRows(db))).filter((t) => t.maker === SAMPLE_MAKER);
  const byPigment = new Map(tubes.map((t) => [t.pigment, t]));
  for (const sample of SAMPLE_PAINTINGS) await addSamplePainting(studio, sample, byPigment);
  await teachOne(studio, byPigment.get('titanium-white')!);
  return true;
}
