import type { Paged, ReadAnswers, ReadName, Rows } from '@dusk/wire';
import { statesSpokenOf } from '@dusk/wire/records';
import type { EntityManager } from 'typeorm';
import { Sitting, Tube, type Painting } from '../entities/index.ts';
import { beliefsWithout, doubtsAbout } from '../beliefs/beliefs.ts';
import { bringingRows } from '../cards/bringing.ts';
import { cardStory } from '../cards/cards.ts';
import { setRows } from '../cards/cardSets.ts';
import { newestSeq } from '../change/newestSeq.ts';
import { logOf, sittingsBefore } from '../log/log.ts';
import { sightingRows } from '../piles/looks.ts';
import { areaRows } from '../paintings/areas.ts';
import { sittingRows } from '../deeds/sittings.ts';
import { deviceRows } from '../settings/devices.ts';
import { readingRows } from '../piles/readings.ts';
import { pageOfPaintings, paintingOf, paintingRows } from '../paintings/paintings.ts';
import { paletteRows } from '../palettes/palettes.ts';
import { pileOf, pileRows, withSources } from '../piles/piles.ts';
import { notFound } from '../refusing/problems.ts';
import { present } from '../change/rows.ts';
import { referenceRows, sampleRows } from '../paintings/references.ts';
import { settingsRows, studioIdOf } from '../settings/settings.ts';
import { taughtOf } from '../tubes/taught.ts';
import { stateRows, tubeRows } from '../tubes/tubes.ts';

/** A page of paintings with their references, beside other rows. */
async function paged(db: EntityManager, after: Painting | undefined, rows: Rows): Promise<Paged> {
  const { ids, next } = await pageOfPaintings(db, after);
  const paintings = await paintingRows(db, ids);
  const references = await referenceRows(db, { paintingIds: ids });
  return { seq: await newestSeq(db), rows: { ...rows, paintings, references }, ...(next !== undefined && { next }) };
}

/** How each read of the wire's table is answered; the id is empty where the read has none. */
export const READING: { readonly [N in ReadName]: (db: EntityManager, id: string) => Promise<ReadAnswers[N]> } = {
  studio: async (db) => ({
    studio: await studioIdOf(db),
    ...(await paged(db, undefined, {
      settings: await settingsRows(db),
      tubes: await tubeRows(db),
      palettes: await paletteRows(db),
    })),
  }),
  paintings: async (db, id) => paged(db, await paintingOf(db, id), {}),
  painting: async (db, paintingId) => {
    await paintingOf(db, paintingId);
    const piles = await withSources(db, await pileRows(db, { paintingId }));
    return {
      seq: await newestSeq(db),
      rows: {
        samples: await sampleRows(db, { paintingId }),
        sightings: await sightingRows(db, { paintingId }),
        piles,
        areas: await areaRows(db, { paintingIds: [paintingId] }),
        sittings: await sittingRows(db, { paintingId }),
        states: await stateRows(db, statesSpokenOf(piles)),
      },
    };
  },
  log: logOf,
  sittings: async (db, id) => sittingsBefore(db, present('sitting', await db.findOneBy(Sitting, { id }))),
  tube: async (db, id) => {
    const tubes = await tubeRows(db, [id]);
    if (tubes.length === 0) throw notFound('tube');
    return { seq: await newestSeq(db), rows: { tubes, readings: await readingRows(db, { tubeId: id }) } };
  },
  taught: async (db, id) => {
    if (!(await db.existsBy(Tube, { id }))) throw notFound('tube');
    return { looks: await taughtOf(db, id) };
  },
  devices: async (db) => ({ seq: await newestSeq(db), rows: { devices: await deviceRows(db) } }),
  sets: async (db) => ({ seq: await newestSeq(db), rows: { sets: await setRows(db), bringings: await bringingRows(db) } }),
  card: async (db, id) => ({ seq: await newestSeq(db), ...(await cardStory(db, id)) }),
  beliefs: async (db, pileId) => {
    await pileOf(db, pileId);
    return beliefsWithout(db, pileId);
  },
  doubts: async (db, paletteId) => {
    const [palette] = await paletteRows(db, [paletteId]);
    return doubtsAbout(db, present('palette', palette ?? null).tubeIds);
  },
};
