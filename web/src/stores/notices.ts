import { defineStore } from 'pinia';
import { ref } from 'vue';
import { ApiError } from '../api.ts';

/** Something to say quietly: that a change was saved, or what to do about one that was not. */
export interface Notice {
  readonly text: string;
  readonly tone: 'saved' | 'trouble';
  readonly undo?: () => Promise<void>;
}

const SAVED_MS = 2500;
const UNDO_MS = 12_000;

export const useNotices = defineStore('notices', () => {
  const current = ref<Notice>();
  let timer: ReturnType<typeof setTimeout> | undefined;

  function show(notice: Notice, ms?: number): void {
    clearTimeout(timer);
    current.value = notice;
    if (ms !== undefined) timer = setTimeout(() => (current.value = undefined), ms);
  }
  const saved = (text: string): void => show({ text, tone: 'saved' }, SAVED_MS);
  const undoable = (text: string, undo: () => Promise<void>): void => show({ text, tone: 'saved', undo }, UNDO_MS);
  const trouble = (text: string): void => show({ text, tone: 'trouble' });
  const dismiss = (): void => {
    clearTimeout(timer);
    current.value = undefined;
  };

  /** Runs a change; what went wrong is said and answered with undefined, and nothing is lost. */
  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work();
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause;
      trouble(cause.message);
      return undefined;
    }
  }

  return { current, saved, undoable, trouble, dismiss, attempt };
});
