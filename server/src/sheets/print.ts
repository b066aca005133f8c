import { hexToLab } from '@dusk/core';
import type { SheetKind, SheetWanted } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { CardSet } from '../entities/index.ts';
import { paintingOf } from '../paintings/paintings.ts';
import { unfit } from '../refusing/problems.ts';
import { drawChart } from './chart.ts';
import { inWords, valueOn } from './contents.ts';
import { FITS, Flow, SMALL } from './flow.ts';
import { cardMixtures, chartTubes, due, lessonPiles, picturesFor, pilesFound, sayingOf, tubeNames, tubesOfPalette } from './gather.ts';
import { drawDay } from './day.ts';
import { areasOnPaper, drawDrying } from './drying.ts';
import { drawKit } from './kit.ts';
import { drawLesson } from './lesson.ts';
import { othersTurn } from './flow.ts';
import { drawList, drawMixture, drawStrip, drawTitle } from './mixtures.ts';
import { sRgbProfile } from './paper.ts';
import { madeSmall } from './pictures.ts';

/** A sheet as it is sent: what it is called, and its bytes. */
export interface Printed {
  readonly name: string;
  readonly bytes: Buffer;
}

/** Only what may be printed is read in the studio's turn; drawing holds nobody up. */
type Draw = () => Promise<Printed>;

const drawing =
  (wanted: SheetWanted, title: string, draw: (flow: Flow) => Promise<void> | void): Draw =>
  async () => {
    const flow = new Flow(wanted.paper, title, await sRgbProfile());
    await draw(flow);
    return { name: title, bytes: await flow.bytes() };
  };

/** Longest side of a picture on paper, px: fine enough for a hand's width. */
const PRINTED_PX = 1200;
const forPaper = (bytes: Buffer): Promise<Buffer> => madeSmall(bytes, PRINTED_PX, 88);

/** The set that cards lie in, where they are those of one. */
const setOf = async (db: EntityManager, { setId }: SheetWanted): Promise<CardSet | null> =>
  setId ? db.findOneBy(CardSet, { id: setId }) : null;

/** How each sheet is filled. */
const SHEETS: { readonly [S in SheetKind]: (db: EntityManager, wanted: SheetWanted, at: string) => Promise<Draw> } = {
  cards: async (db, wanted) => {
    const [saying, cards] = [await sayingOf(db), await cardMixtures(db, wanted)];
    return drawing(wanted, cards.length === 1 ? cards[0]!.name : `${cards.length} cards`, async (flow) => {
      const isSmall = wanted.paper === 'A6';
      for (const [i, card] of cards.entries()) {
        const draw = (): void => drawMixture(flow, card, saying);
        // Small paper is one card, as a card alone is; larger holds as many as have room, each whole.
        if (i > 0 && isSmall) flow.turn();
        else if (i > 0) flow.divide();
        if (isSmall || cards.length === 1) await flow.fitted(FITS[isSmall ? 'small' : 'alone'], draw);
        else await flow.together(draw);
        await othersTurn();
      }
    });
  },
  row: async (db, wanted) => {
    const [saying, cards] = [await sayingOf(db), await cardMixtures(db, wanted)];
    const set = await setOf(db, wanted);
    return drawing(wanted, set?.name ?? `${cards.length} cards`, async (flow) => {
      drawTitle(flow, set?.name ?? 'Cards in a row', set?.note ? [set.note] : []);
      drawStrip(flow, cards, saying);
      await drawList(flow, cards, saying);
    });
  },
  kit: async (db, wanted) => {
    const [saying, cards] = [await sayingOf(db), await cardMixtures(db, wanted)];
    const set = await setOf(db, wanted);
    const title = `To take along${set ? ` for ${set.name}` : ''}`;
    return drawing(wanted, title, (flow) => drawKit(flow, title, cards, saying));
  },
  chart: async (db, wanted) => {
    const [saying, { name, tubes }] = [await sayingOf(db), await tubesOfPalette(db, wanted.paletteId)];
    return drawing(wanted, `Chart of ${name}`, (flow) => drawChart(flow, `Chart of ${name}`, chartTubes(tubes), saying));
  },
  painting: async (db, wanted) => {
    const [saying, { title, ground, piles }] = [await sayingOf(db), await pilesFound(db, wanted)];
    const { pictures } = wanted.pictures ? await picturesFor(db, wanted.paintingId!) : { pictures: [] };
    return drawing(wanted, title, async (flow) => {
      drawTitle(flow, title, [
        `${piles.length} ${piles.length === 1 ? 'pile' : 'piles'}, dark to light, then in the order to mix them`,
        `On a ground of value ${valueOn(hexToLab(ground), saying)}, ${inWords(hexToLab(ground), saying)}`,
      ]);
      for (const picture of pictures.slice(0, 1)) {
        flow.paper.picture(await forPaper(picture), flow.left, flow.y, flow.room, 60);
        flow.gap(63);
      }
      const mixtures = piles.map(({ mixture }) => mixture);
      drawStrip(
        flow,
        [...mixtures].sort((one, other) => one.lab[0] - other.lab[0]),
        saying,
      );
      await drawList(flow, mixtures, saying);
      for (const caution of due(piles)) flow.text(caution, SMALL);
    });
  },
  order: async (db, wanted) => {
    const [saying, { title, piles }] = [await sayingOf(db), await pilesFound(db, wanted)];
    const planned = wanted.pileIds ? piles : piles.filter(({ pile }) => pile.stages.length === 0);
    const shown = planned.length > 0 ? planned : piles;
    return drawing(wanted, `${title}, in the order of mixing`, async (flow) => {
      // A day's work on one page, where it can be.
      await flow.fitted(FITS[wanted.paper === 'A6' ? 'small' : 'many'], async () => {
        drawTitle(flow, title, [`${shown.length} ${shown.length === 1 ? 'pile' : 'piles'} in the order to mix them`]);
        await drawList(
          flow,
          shown.map(({ mixture }) => mixture),
          saying,
        );
        for (const caution of due(shown)) flow.text(caution, SMALL);
      });
    });
  },
  day: async (db, wanted) => {
    const { day } = wanted;
    if (!day) throw unfit('No day', 'day', 'Plan the day first; nothing was printed.');
    const called = [...day.steps, ...day.later].map(({ id }) => id);
    const [saying, { title, piles }] = [await sayingOf(db), await pilesFound(db, { ...wanted, pileIds: [...called, ...day.leftIds] })];
    const names = await tubeNames(
      db,
      day.later.map(({ tubeId }) => tubeId),
    );
    return drawing(wanted, `A day on ${title}`, (flow) => drawDay(flow, title, day, { piles, names, saying }));
  },
  'painting-kit': async (db, wanted) => {
    const [saying, { title, piles }] = [await sayingOf(db), await pilesFound(db, wanted)];
    const name = `To take along for ${title}`;
    return drawing(wanted, name, (flow) =>
      drawKit(
        flow,
        name,
        piles.map(({ mixture }) => mixture),
        saying,
      ),
    );
  },
  lesson: async (db, wanted) => {
    const [saying, { title, piles: found }] = [await sayingOf(db), await pilesFound(db, wanted)];
    const { pictures, heldBack } = await picturesFor(db, wanted.paintingId!);
    const areas = await areasOnPaper(db, wanted.paintingId!, zoneOf(wanted));
    const painting = await paintingOf(db, wanted.paintingId!);
    const palette = await tubesOfPalette(db, painting.paletteId);
    const { support, priming } = painting.about;
    const on = [support, priming && `primed ${priming}`, `a ground of value ${valueOn(hexToLab(painting.ground), saying)}`];
    const { piles, ownTitle } = await lessonPiles(db, found, wanted.paletteId, saying);
    return drawing(wanted, `A lesson: ${title}`, async (flow) => {
      const said = [
        `From ${palette.tubes.map(({ name }) => name).join(', ')}, on ${on.filter(Boolean).join(', ')}.`,
        'Lay your own dab beside each colour; the mixtures are a beginning.',
      ];
      if (heldBack > 0) said.push(`${heldBack} ${heldBack === 1 ? 'picture is' : 'pictures are'} not to be passed on and left out.`);
      const shown = wanted.pictures === false ? [] : await Promise.all(pictures.slice(0, 4).map(forPaper));
      await drawLesson(flow, title, said, shown, piles, saying, ownTitle, areas);
    });
  },
  drying: async (db, wanted, at) => {
    const { title, id } = await paintingOf(db, wanted.paintingId ?? '');
    const zone = zoneOf(wanted);
    const areas = await areasOnPaper(db, id, zone);
    if (areas.length === 0) throw unfit('Nothing dries', 'paintingId', 'Nothing was laid on this painting yet; nothing was printed.');
    return drawing(wanted, `What dries when: ${title}`, (flow) => drawDrying(flow, title, areas, Date.parse(at), zone));
  },
};

/** @throws ProblemError for a zone that the calendar does not know */
function zoneOf({ zone = 'UTC' }: SheetWanted): string {
  try {
    return Intl.DateTimeFormat('en-GB', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    throw unfit('No such zone', 'zone', 'A time zone looks like Europe/Berlin.');
  }
}

/** Reads what is to stand on a sheet printed at a moment, UTC ISO. @returns what draws it, when the studio's turn is over */
export const sheetOf = (db: EntityManager, wanted: SheetWanted, at: string): Promise<Draw> => SHEETS[wanted.sheet](db, wanted, at);
