import { best, follow, layPalette, type Lab, type Limits, type Wishes } from '@dusk/core';
import { expose, transfer } from 'comlink';
import { keepErrorsTyped } from './crossing.ts';
import { DOING, ON_DESK, sourceOn, type JobName, type Jobs, type Laid, type PictureJob, type Prepared } from './jobs.ts';
import { holdCanvas, seeCard, seePalette, seeSpot, standInCanvas } from './photos.ts';
import { decodePicture, lightIn, lookAt, sayTried } from './pictures.ts';
import { proposalOf, type Proposed } from './proposal.ts';
import { inSlices } from './slices.ts';

keepErrorsTyped();

/** What lies on each desk, laid out once it is needed: a few milliseconds. */
interface Desk {
  readonly laid: Laid;
  readonly limits: Limits;
  ready?: Prepared;
}

const desks = new Map<string, Desk>();
const wanted = new Set<number>();

function prepared(id: string): Prepared {
  const desk = desks.get(id);
  if (!desk) throw new Error('This desk was cleared.');
  return (desk.ready ??= { laid: desk.laid, palette: layPalette(desk.laid.tubes, desk.limits, desk.laid.viewing, desk.laid.piles) });
}

/** Colours that are looked up once beforehand, since code runs slowly until it has run a while. */
const WARMING: readonly Lab[] = Array.from({ length: 24 }, (_, i) => [20 + ((i * 29) % 70), ((i * 17) % 30) - 12, ((i * 23) % 40) - 15]);

/** One of the page's workers: it holds desks, follows the hand, and does jobs in slices. */
const engine = {
  lay(id: string, laid: Laid, limits: Limits): void {
    desks.set(id, { laid, limits });
  },
  /** Lays a desk out at once, so that the hand can be followed. @throws CraftError for what cannot be laid out */
  prepare(id: string): void {
    if (!desks.has(id)) return;
    const { palette } = prepared(id);
    for (const target of WARMING) best(palette, target);
  },
  clear(id: string): void {
    desks.delete(id);
  },
  /** The best recipe for a target, at once; nothing when the desk was cleared. */
  follow(id: string, target: Lab, wishes?: Wishes): Proposed | undefined {
    if (!desks.has(id)) return undefined;
    const { laid, palette } = prepared(id);
    const { reach, recipe } = follow(palette, target, wishes);
    return { reach, proposals: [proposalOf(recipe, sourceOn(laid))] };
  },
  /** Does a job; `call` is its number, by which it can be given up. */
  async ask<N extends JobName>(
    call: number,
    job: N,
    needs: Jobs[N]['needs'],
    deskId: string | undefined,
    told?: (done: number) => void,
  ): Promise<Jobs[N]['answers']> {
    wanted.add(call);
    try {
      if (job === 'picture') {
        const picture = await decodePicture(needs as Jobs['picture']['needs']);
        return transfer(picture, [picture.image, picture.data.buffer]) as Jobs[N]['answers'];
      }
      if (job === 'light') return lightIn(needs as Jobs['light']['needs']) as Jobs[N]['answers'];
      if (job === 'look') {
        const looked = lookAt(needs as Jobs['look']['needs']);
        return transfer(looked, [looked.bytes.buffer]) as Jobs[N]['answers'];
      }
      if (job === 'tried') return sayTried(needs as Jobs['tried']['needs']) as Jobs[N]['answers'];
      if (job === 'canvas') {
        const seen = await holdCanvas(needs as Jobs['canvas']['needs']);
        return transfer(seen, [seen.flat, seen.photo]) as Jobs[N]['answers'];
      }
      if (job === 'standIn') return (await standInCanvas(needs as Jobs['standIn']['needs'])) as Jobs[N]['answers'];
      if (job === 'palette') {
        const seen = await seePalette(needs as Jobs['palette']['needs']);
        return transfer(seen, [seen.image]) as Jobs[N]['answers'];
      }
      if (job === 'spot') return seeSpot(needs as Jobs['spot']['needs']) as Jobs[N]['answers'];
      if (job === 'card') {
        const seen = await seeCard(needs as Jobs['card']['needs']);
        return transfer(seen, [seen.image]) as Jobs[N]['answers'];
      }
      const desk = ON_DESK.includes(job) ? prepared(deskId!) : undefined;
      const work = DOING[job as Exclude<JobName, PictureJob>](needs as never, desk);
      return (await inSlices(work as never, () => wanted.has(call), told)) as Jobs[N]['answers'];
    } finally {
      wanted.delete(call);
    }
  },
  giveUp(call: number): void {
    wanted.delete(call);
  },
};

export type WorkerEngine = typeof engine;
expose(engine);
