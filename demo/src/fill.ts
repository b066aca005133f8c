import { readFileSync } from 'node:fs';
import { best, CATALOGUE, makeBook, readArea, USUAL_LIMITS, type Book, type Lab, type Pixels } from '@dusk/core';
import { addPainting, addPalette, addPile, addReference, addTube, allTubes, hasWork, normalise, type Studio } from '@dusk/server';
import type { NewPile, TubeDto } from '@dusk/wire';
import sharp from 'sharp';
import { SAMPLE_MAKER, SAMPLE_PAINTINGS, SAMPLE_TUBES, type SamplePainting, type SamplePlace } from './sampleStudio.ts';

/** Radius of a sampled area, as a share of the picture's width. */
const AREA = 0.008;

function bookOf(tubes: readonly TubeDto[]): Book {
  const paints = tubes.map(({ id, curves }) => ({ id, K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) }));
  return makeBook(paints, USUAL_LIMITS);
}

async function pixelsOf(bytes: Buffer): Promise<Pixels> {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** A pile as the painter would have kept it: pointed at, and the best recipe taken. */
function pileAt(book: Book, picture: Pixels, referenceId: string, { name, x, y }: SamplePlace): NewPile {
  const radius = AREA * picture.width;
  const at = { x: x * picture.width, y: y * picture.height };
  const { lab } = readArea(picture, at.x, at.y, radius);
  const target: Lab = lab;
  const measures = best(book, target).measures.map(({ ingredient, parts }) =>
    ingredient.letdown
      ? { parts, letdown: Object.entries(ingredient.letdown.parts).map(([tubeId, n]) => ({ tubeId, parts: n })) }
      : { parts, tubeId: ingredient.id },
  );
  return { name, target: { L: lab[0], a: lab[1], b: lab[2] }, sampled: { referenceId, ...at, radius }, measures };
}

async function addSamplePainting(studio: Studio, sample: SamplePainting, tubes: ReadonlyMap<string, TubeDto>): Promise<void> {
  const chosen = sample.palette.pigments.map((pigment) => tubes.get(pigment)!);
  const picture = await normalise(readFileSync(new URL(`../pictures/${sample.picture}.jpg`, import.meta.url)));
  const pixels = await pixelsOf(picture.bytes);
  const book = bookOf(chosen);
  await studio.change(async (db) => {
    const palette = await addPalette(db, { name: sample.palette.name, tubeIds: chosen.map((t) => t.id) });
    const painting = await addPainting(db, { title: sample.title, paletteId: palette.id, ground: sample.ground });
    const reference = await addReference(db, painting.id, picture, sample.picture);
    for (const place of sample.piles) await addPile(db, painting.id, pileAt(book, pixels, reference.id, place));
  });
}

/**
 * Fills a studio that nobody has worked in yet with the sample studio.
 * @returns whether it did
 */
export async function fillStudio(studio: Studio): Promise<boolean> {
  if (await studio.look(hasWork)) return false;
  await studio.change(async (db) => {
    for (const { pigment, name, nozzleMm } of SAMPLE_TUBES) await addTube(db, CATALOGUE.get(pigment)!, name, SAMPLE_MAKER, nozzleMm);
  });
  const tubes = (await studio.look(allTubes)).filter((t) => t.maker === SAMPLE_MAKER);
  const byPigment = new Map(tubes.map((t) => [t.pigment, t]));
  for (const sample of SAMPLE_PAINTINGS) await addSamplePainting(studio, sample, byPigment);
  return true;
}
