// How the copies of the studio stand: seen where they are set, and told in the head line once work has gone long without one.
import type { CopiesDto } from '@dusk/wire';
import { useIntervalFn, useNow, useTimeoutFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { readCopies } from '../studio/api.ts';

const MINUTE_MS = 60_000;
/** Asked for once the first place has long been there, and then now and then. */
const FIRST_MS = MINUTE_MS / 2;
const AGAIN_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** Work that lies in no copy for so many days is told. */
const TOLD_DAYS = 3;

export const useCopies = defineStore('copies', () => {
  const copies = shallowRef<CopiesDto>();
  const now = useNow({ interval: MINUTE_MS });
  async function read(): Promise<void> {
    copies.value = (await readCopies().catch(() => undefined)) ?? copies.value;
  }
  useTimeoutFn(() => void read(), FIRST_MS);
  useIntervalFn(() => void read(), AGAIN_MS);
  /** For how many days there is work without a copy, once that is to be told. */
  const daysWithout = computed(() => {
    const since = copies.value?.behindSince;
    const days = since ? Math.floor((now.value.getTime() - Date.parse(since)) / DAY_MS) : 0;
    return days >= TOLD_DAYS ? days : undefined;
  });
  return { copies, read, daysWithout };
});
