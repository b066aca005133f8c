import type { Answer, Change, Operation, Problem } from '@dusk/wire';
import { ApiError } from '../floor/apiError.ts';
import { alone } from './alone.ts';
import { sendChange, sendPicture } from './api.ts';
import { localPictureOf, Queue, type Waiting } from './queue.ts';

/** What became of a change: the studio has it, refused it, or does not answer, so that it waits. */
export type Outcome =
  | { readonly is: 'answered'; readonly answer: Answer }
  | { readonly is: 'refused'; readonly problem: Problem }
  | { readonly is: 'waiting'; readonly problem: Problem };

interface Told {
  readonly id: string;
  readonly outcome: Outcome;
}

/**
 * Whether an answer is no refusal: the studio is not there, has no room, fails, or another one answers in its
 * place. What waits is tried again.
 */
const isPassing = ({ status }: Problem): boolean => status === 0 || status === 408 || status === 421 || status === 429 || status >= 500;
/** A change that breaks the studio so often is put before the painter, so that what was done after it goes on. */
const MOST_BREAKS = 5;

/** Versions of rows in an answer. */
function versionsIn({ rows }: Answer): Map<string, number> {
  const versions = new Map<string, number>();
  for (const list of Object.values(rows) as (readonly { readonly id: string; readonly version?: number }[])[])
    for (const { id, version } of list) if (version !== undefined) versions.set(id, version);
  return versions;
}

/**
 * Sends what is in the queue: one window at a time (a lock of the browser's), in order, each once. What is
 * refused is parked with what rests on it; where the studio does not answer, everything waits.
 */
export class Sender {
  private readonly channel: BroadcastChannel;
  private readonly breaks = new Map<string, number>();
  private readonly asking = new Map<string, (outcome: Outcome) => void>();

  private constructor(
    private readonly studio: string,
    readonly queue: Queue,
    private readonly heard: (told: Told) => void,
    private readonly changed: () => void,
  ) {
    this.channel = new BroadcastChannel(`dusk.queue.${studio}`);
    this.channel.onmessage = ({ data }: MessageEvent<Told | 'changed'>) => {
      if (data !== 'changed') this.tell(data);
      this.changed();
    };
  }

  /**
   * @param studio the one that its changes are for
   * @param heard told what becomes of every change, of whichever window
   * @param changed told that the queue is different now
   */
  static async open(studio: string, heard: (told: Told) => void, changed: () => void): Promise<Sender> {
    return new Sender(studio, await Queue.open(studio), heard, changed);
  }

  /** Keeps a change here and sends it; answers once it is known what became of it, or that it waits. */
  async make(change: Change, says: string, was?: Waiting['was'], own?: Waiting['follows']): Promise<Outcome> {
    const outcome = new Promise<Outcome>((resolve) => this.asking.set(change.id, resolve));
    const item = await this.queue.add(change, says, was, own);
    this.channel.postMessage('changed');
    this.changed();
    if (item.parked) this.tell({ id: change.id, outcome: { is: 'waiting', problem: item.parked.problem } });
    else void this.go();
    return outcome;
  }

  /** Sends what can go. Another window that is at it already does it for this one. */
  go(): Promise<void> {
    return alone(`dusk.sending.${this.studio}`, async () => {
      for (let item = await this.queue.next(); item; item = await this.queue.next()) if (!(await this.send(item))) return;
    });
  }

  /** @returns whether to go on with the next */
  private async send(item: Waiting): Promise<boolean> {
    try {
      const answer = await sendChange(await this.withPictures(item.change), this.studio);
      await this.queue.answered(item, versionsIn(answer));
      this.publish({ id: item.change.id, outcome: { is: 'answered', answer } });
      return true;
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause;
      const { problem } = cause;
      const breaks = problem.status === 500 ? (this.breaks.get(item.change.id) ?? 0) + 1 : 0;
      this.breaks.set(item.change.id, breaks);
      if (breaks >= MOST_BREAKS) {
        await this.queue.park(item, problem);
        this.publish({ id: item.change.id, outcome: { is: 'waiting', problem } });
        return true;
      }
      if (isPassing(problem)) {
        for (const { change, parked } of await this.queue.all())
          if (!parked) this.publish({ id: change.id, outcome: { is: 'waiting', problem } });
        return false;
      }
      // Whoever asked is told, and that is that, unless there are two sides to choose from.
      if (this.asking.has(item.change.id) && problem.current === undefined) await this.queue.remove(item);
      else await this.queue.park(item, problem);
      this.publish({ id: item.change.id, outcome: { is: 'refused', problem } });
      return true;
    }
  }

  /** Pictures go first, each once. */
  private async withPictures(change: Change): Promise<Change> {
    const ops = [];
    for (const op of change.ops) {
      const local = localPictureOf(op);
      if (local === undefined) {
        ops.push(op);
        continue;
      }
      const file = await this.queue.picture(local);
      if (!file)
        throw new ApiError({
          type: 'about:blank',
          title: 'Gone',
          status: 410,
          detail: 'The picture is not in this browser any more. Bring it again.',
        });
      const { id } = await sendPicture(file, this.studio);
      await this.queue.pictureIs(local, id);
      ops.push({ ...op, pictureId: id } as Operation);
    }
    return { ...change, ops };
  }

  private publish(told: Told): void {
    this.channel.postMessage(told);
    this.tell(told);
    this.changed();
  }

  private tell(told: Told): void {
    this.heard(told);
    this.asking.get(told.id)?.(told.outcome);
    this.asking.delete(told.id);
  }
}
