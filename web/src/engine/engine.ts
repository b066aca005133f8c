import { USUAL_LIMITS, type Lab, type Limits, type Wishes } from '@dusk/core';
import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { GivenUp, keepErrorsTyped } from './crossing.ts';
import type { WorkerEngine } from './engine.worker.ts';
import type { JobName, Jobs, Laid } from './jobs.ts';
import type { Proposed } from './proposal.ts';

keepErrorsTyped();

/** What recipes are made from, laid out in the engine; closed when it is no longer wanted. */
export interface Desk {
  readonly id: string;
  readonly laid: Laid;
}

interface Asking {
  readonly desk?: Desk;
  /** Aborted when nobody wants the answer any more. */
  readonly signal?: AbortSignal;
  /** Hears how far it is, 0–1. */
  readonly progress?: (done: number) => void;
}

interface Following {
  readonly desk: Desk;
  readonly target: Lab;
  readonly wishes: Wishes | undefined;
  readonly answer: (proposed: Proposed | undefined) => void;
  readonly fail: (cause: unknown) => void;
}

interface Bench {
  readonly worker: Worker;
  readonly remote: Remote<WorkerEngine>;
}

function open(): Bench {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<WorkerEngine>(worker) };
}

/**
 * The one way to the workers, of which there are two by urgency: `hand` answers what follows it,
 * `bench` what may take longer.
 */
class Engine {
  private readonly hand = open();
  private readonly bench = open();
  private calls = 0;
  private desks = 0;
  private following: Following | undefined;
  private next: Following | undefined;
  private closed = false;

  /**
   * Lays out what recipes may be made from.
   * @param prepared whether it is made ready at once, so that the hand can be followed
   */
  async lay(
    laid: Laid,
    { limits = USUAL_LIMITS, prepared = true, signal }: Asking & { limits?: Limits; prepared?: boolean } = {},
  ): Promise<Desk> {
    const id = String(++this.desks);
    const desk: Desk = { id, laid };
    const unwanted = (): void => this.clear(desk);
    signal?.addEventListener('abort', unwanted, { once: true });
    await Promise.all([this.hand, this.bench].map(({ remote }) => remote.lay(id, laid, limits)));
    if (!prepared) return desk;
    await this.hand.remote.prepare(id);
    if (signal?.aborted) throw new GivenUp();
    return desk;
  }

  clear({ id }: Desk): void {
    if (this.closed) return;
    for (const { remote } of [this.hand, this.bench]) void remote.clear(id);
  }

  /** The best recipe for where the hand is now; what was asked before and is not answered yet is answered with nothing. */
  follow(desk: Desk, target: Lab, wishes?: Wishes): Promise<Proposed | undefined> {
    return new Promise((answer, fail) => {
      if (this.closed) return fail(new GivenUp());
      this.next?.answer(undefined);
      this.next = { desk, target, wishes, answer, fail };
      if (!this.following) void this.goOn();
    });
  }

  private async goOn(): Promise<void> {
    for (let now = this.next; now; now = this.next) {
      this.following = now;
      this.next = undefined;
      await this.hand.remote.follow(now.desk.id, now.target, now.wishes).then(now.answer, now.fail);
    }
    this.following = undefined;
  }

  /** Whatever else is asked, on the bench. */
  async ask<N extends JobName>(job: N, needs: Jobs[N]['needs'], { desk, signal, progress }: Asking = {}): Promise<Jobs[N]['answers']> {
    if (this.closed || signal?.aborted) throw new GivenUp();
    const call = ++this.calls;
    const { remote } = this.bench;
    signal?.addEventListener('abort', () => void remote.giveUp(call), { once: true });
    const told = progress && proxy(progress);
    const answer = (await remote.ask(call, job, needs, desk?.id, told)) as Jobs[N]['answers'];
    if (signal?.aborted) throw new GivenUp();
    return answer;
  }

  /** Ends the workers; whoever still waits is told that it was given up. */
  close(): void {
    this.closed = true;
    this.following?.fail(new GivenUp());
    this.next?.fail(new GivenUp());
    this.following = this.next = undefined;
    for (const { remote, worker } of [this.hand, this.bench]) {
      remote[releaseProxy]();
      worker.terminate();
    }
  }
}

export type { Engine };
let running: Engine | undefined;
/** The page's engine, started when it is first needed. */
export const engine = (): Engine => (running ??= new Engine());

/** Answers with undefined when the work was given up, and throws whatever else went wrong. */
export async function unlessGivenUp<T>(work: Promise<T>): Promise<T | undefined> {
  try {
    return await work;
  } catch (cause) {
    if (cause instanceof GivenUp) return undefined;
    throw cause;
  }
}
