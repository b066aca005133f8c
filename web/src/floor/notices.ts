import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { ApiError } from './apiError.ts';

/** Something to say quietly: that a change was saved, or what to do about one that was not. */
export interface Notice {
  readonly text: string;
  readonly tone: 'saved' | 'waiting' | 'refused';
  readonly undo?: () => Promise<void>;
}

const SAVED_MS = 2500;
const UNDO_MS = 8000;

/** One queue and one place: trouble stays until it is over or put away, what was saved is said over it for a moment. */
export const useNotices = defineStore('notices', () => {
  const trouble = ref<Notice>();
  const passing = ref<Notice>();
  const current = computed(() => passing.value ?? trouble.value);
  let timer: ReturnType<typeof setTimeout> | undefined;

  function pass(notice: Notice, ms: number): void {
    clearTimeout(timer);
    passing.value = notice;
    timer = setTimeout(() => (passing.value = undefined), ms);
  }
  function stays(notice: Notice): void {
    clearTimeout(timer);
    passing.value = undefined;
    trouble.value = notice;
  }
  const saved = (text: string): void => pass({ text, tone: 'saved' }, SAVED_MS);
  const undoable = (text: string, undo: () => Promise<void>): void => pass({ text, tone: 'saved', undo }, UNDO_MS);
  const refused = (text: string): void => stays({ text, tone: 'refused' });
  const waits = (text: string): void => stays({ text, tone: 'waiting' });
  /** Trouble that is over leaves. */
  const over = (): void => void (trouble.value = undefined);
  function dismiss(): void {
    clearTimeout(timer);
    if (passing.value) passing.value = undefined;
    else trouble.value = undefined;
  }

  /**
   * Asks something of the studio; what went wrong is said and answered with undefined.
   * @param then what is done about it once it was said
   */
  async function attempt<T>(work: () => Promise<T>, then?: (cause: ApiError) => Promise<void>): Promise<T | undefined> {
    try {
      const answer = await work();
      if (trouble.value?.tone === 'refused') over();
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
