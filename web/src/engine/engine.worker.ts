import { best, bookInSteps, reachOf, solve, type Lab, type Limits, type Wishes } from '@dusk/core';
import { expose, transfer } from 'comlink';
import { keepErrorsTyped } from './crossing.ts';
import { decodePicture, DOING, ON_DESK, sourceOn, type JobName, type Jobs, type Laid, type Prepared } from './jobs.ts';
import { proposalOf, type Proposed } from './proposal.ts';
import { inSlices } from './slices.ts';

keepErrorsTyped();

/** What lies on each desk, and the desk reckoned through once it was needed. */
interface Desk {
  readonly laid: Laid;
  readonly limits: Limits;
  prepared?: Promise<Prepared>;
  ready?: Prepared;
}

const desks = new Map<string, Desk>();
const wanted = new Set<number>();

function prepare(id: string, told?: (done: number) => void): Promise<Prepared> {
  const desk = desks.get(id);
  if (!desk) throw new Error('This desk was cleared.');
  desk.prepared ??= inSlices(bookInSteps(desk.laid.tubes, desk.limits, 'D65', desk.laid.piles), () => desks.has(id), told).then(
    (book) => (desk.ready = { laid: desk.laid, book }),
  );
  return desk.prepared;
}

/** One of the page's workers: it holds desks, follows the hand, and does jobs in slices. */
const engine = {
  lay(id: string, laid: Laid, limits: Limits): void {
    desks.set(id, { laid, limits });
  },
  /** Reckons a desk through; answers how many recipes it allows. */
  async prepare(id: string, told: (done: number) => void): Promise<number> {
    return (await prepare(id, told)).book.count;
  },
  clear(id: string): void {
    desks.delete(id);
  },
  /** The best recipe for a target, at once; nothing while the desk is not ready. */
  follow(id: string, target: Lab, wishes?: Wishes): Proposed | undefined {
    const ready = desks.get(id)?.ready;
    if (!ready) return undefined;
    const sourceOf = sourceOn(ready.laid);
    if (wishes) {
      const { reach, recipes } = solve(ready.book, target, { ...wishes, alternatives: 0 });
      return { reach, proposals: [proposalOf(recipes[0]!, sourceOf)] };
    }
    const recipe = best(ready.book, target);
    return { reach: reachOf(recipe), proposals: [proposalOf(recipe, sourceOf)] };
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
        return transfer(picture, [picture.image, picture.data.buffer]);
      }
      const prepared = ON_DESK.includes(job) ? await prepare(deskId!) : undefined;
      const work = DOING[job as Exclude<JobName, 'picture'>](needs as never, prepared);
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
