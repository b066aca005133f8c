import { defineStore } from 'pinia';
import { ref } from 'vue';
import { ApiError } from '../studio/api.ts';

/** Something to say quietly: that a change was saved, or what to do about one that was not. */
export interface Notice {
  readonly text: string;
  readonly tone: 'saved' | 'waiting' | 'refused';
  readonly undo?: () => Promise<void>;
}

const SAVED_MS = 2500;
const UNDO_MS = 8000;

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
  const refused = (text: string): void => show({ text, tone: 'refused' });
  const waits = (text: string): void => show({ text, tone: 'waiting' });
  /** Trouble that is over leaves. */
  const over = (): void => {
    if (current.value && current.value.tone !== 'saved') dismiss();
  };
  const dismiss = (): void => {
    clearTimeout(timer);
    current.value = undefined;
  };

  /**
   * Asks something of the studio; what went wrong is said and answered with undefined.
   * @param then what is done about it once it was said
   */
  async function attempt<T>(work: () => Promise<T>, then?: (cause: ApiError) => Promise<void>): Promise<T | undefined> {
    try {
      const answer = await work();
      if (current.value?.tone === 'refused') dismiss();
      return answer;
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause;
      refused(cause.message);
      await then?.(cause).catch(() => undefined);
      return undefined;
    }
  }

  return { current, saved, undoable, refused, waits, over, dismiss, attempt };
});
