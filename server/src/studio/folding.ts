// Folds what takes long in a thread of its own, piece by piece, off the studio's queue.
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { Answer } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Change } from '../entities/index.ts';
import { rowsOf } from './changes.ts';
import { newestSeq } from '../change/newestSeq.ts';
import type { Studio } from '../change/studio.ts';
import { workOn } from '../change/work.ts';
import { FOLD_THREAD } from '../threads.ts';
import { evidenceAndCurves } from '../beliefs/beliefs.ts';
import { baseIds } from '../beliefs/evidence.ts';
import type { FoldAnswered, FoldAsked } from '../beliefs/fold.ts';
import { INTERVAL, keepShare, keepSnapshot, newestStart, placesAfter, type Place, type Start } from '../beliefs/order.ts';
import { bringStatesUp } from '../beliefs/states.ts';

/** A piece of the fold: what it rests on, to be compared when it comes back, and what the worker is sent. */
interface Piece {
  readonly restsOn: string;
  readonly tubeIds: readonly string[];
  readonly asked: FoldAsked;
}

const placesOfNext = (db: EntityManager, start: Start): Promise<Place[]> =>
  placesAfter(db, start, INTERVAL - (start.folded.piles % INTERVAL));

/** Where a piece begins, the piles in it with the beliefs that count, and the states their tubes are laid over. */
async function restingOn(db: EntityManager, start: Start, places: readonly Place[], tubeIds: readonly string[]): Promise<string> {
  const bases = [...(await baseIds(db, [...new Set(tubeIds)])).values()].sort();
  return JSON.stringify([start.place ?? null, places, bases]);
}

/** What is to be folded next, up to the next interval; nothing where all is folded. */
async function nextPiece(db: EntityManager): Promise<Piece | undefined> {
  const start = await newestStart(db);
  const places = await placesOfNext(db, start);
  if (places.length === 0) return undefined;
  const { evidence, tubes } = await evidenceAndCurves(
    db,
    places.map(({ pileId }) => pileId),
  );
  const tubeIds = evidence.flatMap((one) => one.tubeIds);
  return {
    restsOn: await restingOn(db, start, places, tubeIds),
    tubeIds,
    asked: { from: start.folded, evidence, tubes },
  };
}

/** Keeps a piece that came back, unless what it rests on has changed meanwhile. */
async function keepPiece(db: EntityManager, { restsOn, tubeIds }: Piece, { shares, snapshots }: FoldAnswered): Promise<void> {
  const start = await newestStart(db);
  if ((await restingOn(db, start, await placesOfNext(db, start), tubeIds)) !== restsOn) return;
  for (const { pileId, share } of shares) await keepShare(db, pileId, share);
  for (const { pileId, piles, snapshot } of snapshots) await keepSnapshot(db, pileId, piles, snapshot);
}

/** Brings the tubes up to what was folded, as a change of the studio's own, so that open windows hear of it. */
async function bringUp(db: EntityManager, at: string): Promise<Answer | undefined> {
  const start = await newestStart(db);
  // More has come meanwhile: the tubes wait for that too.
  if ((await placesAfter(db, start, 1)).length > 0) return undefined;
  const { work, touched } = workOn(db, at);
  await bringStatesUp(work, start.folded);
  const rows = touched();
  if (Object.keys(rows).length === 0) return undefined;
  const seq = (await newestSeq(db)) + 1;
  const id = randomUUID();
  await db.insert(Change, { seq, id, device: 'the studio', at, undoes: null, ops: [], inverse: [], touched: rows });
  return { seq, log: id, rows: await rowsOf(db, rows) };
}

const IDLE_MS = 10_000;
const MOST_MB = 64;

/** Keeps what is believed up to the evidence. */
export class Folding {
  private worker: Worker | undefined;
  private going: Promise<void> | undefined;
  private isClosed = false;
  /** Whether more has come since it last looked. */
  private isWanted = false;
  private resting: NodeJS.Timeout | undefined;

  constructor(private readonly studio: Pick<Studio, 'look' | 'change' | 'hearing' | 'now'>) {}

  /** Goes on with what is not folded yet, unless it is at it; what fails is tried again with the next change. */
  goOn(): void {
    this.isWanted = true;
    this.going ??= this.foldRest()
      .catch((cause: unknown) => {
        if (!this.isClosed) process.emitWarning(`What piles taught was not reckoned: ${String(cause)}`);
      })
      .finally(() => (this.going = undefined));
  }

  /** Waits until all is folded. */
  async settled(): Promise<void> {
    while (this.going) await this.going;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    await this.worker?.terminate();
    await this.settled();
  }

  private async foldRest(): Promise<void> {
    const { look, change, hearing, now } = this.studio;
    while (this.isWanted && !this.isClosed) {
      this.isWanted = false;
      for (let piece = await look(nextPiece); piece && !this.isClosed; piece = await look(nextPiece)) {
        const done = await this.fold(piece.asked);
        const own = piece;
        if (!this.isClosed) await change((db) => keepPiece(db, own, done));
      }
      this.restSoon();
      if (this.isClosed) return;
      const answer = await change((db) => bringUp(db, now()));
      if (answer) hearing.tell(answer);
    }
  }

  /** A thread that has nothing to do gives its memory back after a while. */
  private restSoon(): void {
    const { worker } = this;
    if (!worker) return;
    worker.unref();
    clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      this.worker = undefined;
      void worker.terminate();
    }, IDLE_MS).unref();
  }

  private async fold(asked: FoldAsked): Promise<FoldAnswered> {
    clearTimeout(this.resting);
    this.worker ??= new Worker(FOLD_THREAD, {
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB, maxYoungGenerationSizeMb: 8 },
    });
    const { worker } = this;
    const heard = new AbortController();
    worker.ref();
    worker.postMessage(asked);
    try {
      const ended = once(worker, 'exit', heard).then(() => Promise.reject(new Error('The thread that folds has ended.')));
      const [answer] = (await Promise.race([once(worker, 'message', heard), ended])) as [FoldAnswered];
      return answer;
    } catch (cause) {
      this.worker = undefined;
      throw cause;
    } finally {
      heard.abort();
    }
  }
}
