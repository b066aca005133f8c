import type { Operation, ReadAnswers, ReadName } from '@dusk/wire';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useNotices } from '../shell/notices.ts';
import { ApiError, read, sendChange } from './api.ts';
import { applied, emptyRows } from './rows.ts';

/** A change of this window that can be undone, and what it was, in a painter's words. */
interface Undoable {
  readonly id: string;
  readonly says: string;
}

const MOST_UNDOABLE = 60;
/** An id of this browser, so that its changes can be told apart from others'. */
const device = useLocalStorage('dusk.device', () => crypto.randomUUID());

/** The one way to the studio: changes out, rows in, and what was done last taken back. */
export const useStudio = defineStore('studio', () => {
  const rows = emptyRows();
  const heard = new Map<string, number>();
  const seq = ref(0);
  const done = useLocalStorage<Undoable[]>('dusk.done', []);
  const undone = ref<Undoable[]>([]);
  const notices = useNotices();
  const undoable = computed(() => done.value.at(-1));

  function apply(answer: ReadAnswers['studio']): void {
    applied(rows, heard, answer);
    seq.value = Math.max(seq.value, answer.seq);
  }

  /** Reads rows and takes them in. */
  async function load(name: 'studio' | 'painting', id?: string): Promise<void> {
    apply(await read(name, id));
  }

  /** After a refusal the rows here may be old: they are heard of again. */
  async function catchUp(cause: unknown): Promise<void> {
    const { status, current } = cause instanceof ApiError ? cause.problem : { status: 0, current: undefined };
    if (status === 0) return;
    const paintings = new Set([...rows.piles.values()].flatMap((pile) => pile.paintingId ?? []));
    if (current !== undefined || status === 404 || status === 409)
      await Promise.all([load('studio'), ...[...paintings].map((id) => load('painting', id).catch(() => undefined))]);
  }

  async function sent(work: () => ReturnType<typeof sendChange>): Promise<boolean> {
    const answer = await notices.attempt(work, catchUp);
    if (answer) apply(answer);
    return answer !== undefined;
  }

  /**
   * Makes a change and takes in what is different then.
   * @param says what it was, as `Kept “wall”`; said with a way back
   * @returns whether it was made; if not, why was said
   */
  async function make(ops: readonly Operation[], says: string): Promise<boolean> {
    const id = crypto.randomUUID();
    if (!(await sent(() => sendChange({ id, device: device.value, ops })))) return false;
    done.value = [...done.value, { id, says }].slice(-MOST_UNDOABLE);
    undone.value = [];
    notices.undoable(says, undo);
    return true;
  }

  /** Takes back what was done last here, or does again what was taken back: each a change of its own. */
  async function turnBack(from: typeof done, to: typeof undone, says: (what: string) => string): Promise<void> {
    const last = from.value.at(-1);
    if (!last) return notices.saved('Nothing was done here yet.');
    from.value = from.value.slice(0, -1);
    const id = crypto.randomUUID();
    if (!(await sent(() => sendChange({ id, device: device.value, ops: [], undoes: last.id })))) return;
    to.value = [...to.value, { id, says: last.says }];
    notices.saved(says(last.says));
  }
  const undo = (): Promise<void> => turnBack(done, undone, (what) => `Taken back: ${what}`);
  const redo = (): Promise<void> => turnBack(undone, done, (what) => `Done again: ${what}`);

  const ask = <N extends ReadName>(name: N, id?: string): Promise<ReadAnswers[N] | undefined> => notices.attempt(() => read(name, id));

  return { rows, seq, undoable, apply, load, make, undo, redo, ask };
});
