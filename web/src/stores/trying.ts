// Trials of the picture: parts of it in another colour, value or place, side by side; the picture stays what it is.
import type { Lab, TrialChange } from '@dusk/core';
import type { TrialChangeDto, TrialDto } from '@dusk/wire';
import { MOST_CHANGES_TRIED, MOST_TRIALS } from '@dusk/wire/limits';
import { labDto, labOfDto } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { lookNow, usePiles } from './piles.ts';
import { useReference } from './reference.ts';

export const useTrying = defineStore('trying', () => {
  const reference = useReference();
  const piles = usePiles();
  const trials = computed<readonly TrialDto[]>(() => reference.view.trials ?? []);
  /** The trial that is looked through; nothing: as it is. */
  const at = ref<number>();
  const changeAt = ref<number>();
  const trial = computed(() => (at.value === undefined ? undefined : trials.value[at.value]));
  const change = computed(() => (changeAt.value === undefined ? undefined : trial.value?.changes[changeAt.value]));
  watch(
    () => reference.reference?.id,
    () => (at.value = changeAt.value = undefined),
  );

  /** A trial as the engine is asked for it. */
  const askedOf = ({ changes }: TrialDto): TrialChange[] =>
    changes.map(({ points, to, fades, pileId, lighter, moveX = 0, moveY = 0 }) => {
      const pile = piles.byId.get(pileId ?? '');
      const lab: Lab | undefined = pile ? lookNow(pile) : to && labOfDto(to);
      return {
        points: [...points],
        ...(lab && { to: lab }),
        ...(fades && { fades: labOfDto(fades) }),
        ...(lighter !== undefined && { lighter }),
        ...((moveX !== 0 || moveY !== 0) && { move: [moveX, moveY] as const }),
      };
    });
  const asked = computed(() => trial.value && askedOf(trial.value));

  const keep = (next: readonly TrialDto[], says: string): Promise<void> => reference.see({ trials: next }, says);
  const withChanges = (changes: readonly TrialChangeDto[]): TrialDto[] =>
    trials.value.map((one, i) => (i === at.value ? { changes } : one));

  /** An outline becomes a change of the trial that is looked through, or of a new one. */
  async function draw(points: readonly number[]): Promise<void> {
    const own: TrialChangeDto = { points };
    if (trial.value && trial.value.changes.length < MOST_CHANGES_TRIED) {
      changeAt.value = trial.value.changes.length;
      return keep(withChanges([...trial.value.changes, own]), 'Drew round what is to change');
    }
    if (trials.value.length >= MOST_TRIALS) return;
    const next = [...trials.value, { changes: [own] }];
    at.value = trials.value.length;
    changeAt.value = 0;
    await keep(next, 'Began a trial');
  }
  async function begin(): Promise<void> {
    if (trials.value.length >= MOST_TRIALS) return;
    at.value = trials.value.length;
    changeAt.value = undefined;
    await keep([...trials.value, { changes: [] }], 'Began a trial');
  }
  function set(part: Partial<TrialChangeDto>, says: string): Promise<void> {
    const k = changeAt.value;
    if (!trial.value || k === undefined) return Promise.resolve();
    const changes = trial.value.changes.map((one, i) => (i === k ? (cleaned({ ...one, ...part }) as TrialChangeDto) : one));
    return keep(withChanges(changes), says);
  }
  const MOST_LIGHTER = 8;
  const lighter = (by: number): Promise<void> => {
    const next = Math.min(MOST_LIGHTER, Math.max(-MOST_LIGHTER, (change.value?.lighter ?? 0) + by));
    return set({ lighter: next === 0 ? undefined : next } as never, by > 0 ? 'Tried it lighter' : 'Tried it darker');
  };
  const move = (dx: number, dy: number): Promise<void> => {
    const { moveX = 0, moveY = 0 } = change.value ?? {};
    const within = (v: number): number => Math.min(1, Math.max(-1, Math.round(1000 * v) / 1000));
    return set({ moveX: within(moveX + dx), moveY: within(moveY + dy) }, 'Tried it elsewhere');
  };
  const colour = (lab: Lab): Promise<void> => set({ to: labDto(lab), pileId: undefined } as never, 'Tried another colour');
  const pile = (pileId: string): Promise<void> => set({ pileId: pileId || undefined, to: undefined } as never, 'Tried a pile');
  const fade = (lab: Lab | undefined): Promise<void> =>
    set({ fades: lab && labDto(lab) } as never, lab ? 'Tried it fading' : 'Tried it flat');
  async function remove(): Promise<void> {
    const k = changeAt.value;
    if (!trial.value || k === undefined) return;
    changeAt.value = undefined;
    await keep(withChanges(trial.value.changes.filter((_, i) => i !== k)), 'Took a change away');
  }
  async function removeTrial(): Promise<void> {
    const i = at.value;
    if (i === undefined) return;
    at.value = changeAt.value = undefined;
    await keep(
      trials.value.filter((_, k) => k !== i),
      'Took a trial away',
    );
  }
  function look(i: number | undefined): void {
    at.value = i;
    changeAt.value = i !== undefined && trials.value[i]!.changes.length > 0 ? trials.value[i]!.changes.length - 1 : undefined;
  }

  return { trials, at, changeAt, trial, change, askedOf, asked, draw, begin, lighter, move, colour, pile, fade, remove, removeTrial, look };
});

/** Without what is not said. */
const cleaned = (change: Partial<TrialChangeDto>): Partial<TrialChangeDto> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
