// What the steps of a picture's values, or the shapes of its plan, are painted with.
import { deltaE00, evenSteps, isWithin, stepOf, stepValues, valueOfLightness, type Dress, type Lab } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { lookNow, usePiles } from './piles.ts';
import { useReference } from './reference.ts';

/** Steps that values are cut into where the painter has set none. */
const USUAL_STEPS = 5;

/** A part of the picture that takes one colour. */
export interface Part {
  /** A pile by its id, `mean`, or nothing yet. */
  readonly in: string;
  readonly says: string;
  /** What it is painted with. */
  readonly dress: Dress;
  /** Where a part has a value or a colour of its own, that. */
  readonly own: Lab;
}

export const useDress = defineStore('dress', () => {
  const reference = useReference();
  const piles = usePiles();

  const bounds = computed<readonly number[]>(
    () => reference.view.steps ?? (reference.range ? evenSteps(USUAL_STEPS, reference.range) : [2, 4, 6, 8]),
  );
  const shapes = computed(() => reference.view.shapes ?? []);
  const byShapes = computed(() => shapes.value.length > 0);

  const partIn = (pileId: string, own: Lab): Part => {
    const pile = piles.byId.get(pileId);
    if (pile) return { in: pileId, says: pile.name, dress: lookNow(pile), own };
    return pileId === 'mean'
      ? { in: 'mean', says: 'the mean of what it has', dress: 'mean', own }
      : { in: '', says: 'no pile', dress: undefined, own };
  };
  const parts = computed<readonly Part[]>(() => {
    if (byShapes.value) return shapes.value.map(({ pileId, lab }) => partIn(pileId ?? '', labOfDto(lab)));
    const said = reference.view.dress ?? [];
    return stepValues(bounds.value, reference.range ?? { darkest: 0, lightest: 10 }).map((value, i) =>
      partIn(said[i] ?? '', [10 * value, 0, 0]),
    );
  });
  /** As the engine is asked for it. */
  const asked = computed(() => {
    const dress = parts.value.map((part) => part.dress);
    return byShapes.value
      ? { kind: 'shapes' as const, shapes: shapes.value.map(({ points }) => points), dress }
      : { kind: 'piles' as const, bounds: bounds.value, dress };
  });

  /** Dresses some parts: pile ids, `mean`, or nothing. */
  function set(into: ReadonlyMap<number, string>, says: string): Promise<void> {
    if (byShapes.value)
      return reference.see(
        {
          shapes: shapes.value.map(({ pileId: was, ...shape }, i) => {
            const pileId = into.has(i) ? into.get(i)! : (was ?? '');
            return { ...shape, ...(piles.byId.has(pileId) && { pileId }) };
          }),
        },
        says,
      );
    return reference.see({ dress: parts.value.map((part, i) => into.get(i) ?? part.in) }, says);
  }
  const says = (i: number, to: string): string =>
    piles.byId.has(to)
      ? `“${piles.byId.get(to)!.name}” is for ${nameOf(i)}`
      : to === 'mean'
        ? `${nameOf(i)}: the mean of what it has`
        : `Nothing for ${nameOf(i)} yet`;
  const nameOf = (i: number): string => (byShapes.value ? (shapes.value[i]!.thing ?? `shape ${i + 1}`) : `step ${i + 1}`);
  const put = (i: number, to: string): Promise<void> => set(new Map([[i, to]]), says(i, to));

  /** Every part takes the pile of the ledge that is nearest to it: in value where it is a step, as it looks where it is a shape. */
  function fromLedge(means: readonly Lab[] | undefined): Promise<void> {
    const own = (i: number): Lab => means?.[i] ?? parts.value[i]!.own;
    const into = new Map<number, string>();
    const apart = (pileId: string, i: number): number => {
      const lab = lookNow(piles.byId.get(pileId)!);
      const value = Math.abs(valueOfLightness(lab[0]) - valueOfLightness(own(i)[0]));
      return byShapes.value ? 3 * value + 0.1 * deltaE00(lab, own(i)) : value + 0.01 * deltaE00(lab, own(i));
    };
    const pairs = [...parts.value.keys()].flatMap((i) => piles.ofRank.map(({ id }) => ({ i, id, by: apart(id, i) })));
    const taken = new Set<string>();
    for (const { i, id } of pairs.sort((one, other) => one.by - other.by)) {
      // Of steps each has its own; a pile may serve several shapes.
      if (into.has(i) || (!byShapes.value && taken.has(id))) continue;
      into.set(i, id);
      taken.add(id);
    }
    return set(into, 'Dressed in what lies on the ledge');
  }

  /** The part that a place of the picture belongs to: shares of its sides, and its value. */
  function partAt(x: number, y: number, value: number): number | undefined {
    if (!byShapes.value) return stepOf(value, bounds.value);
    const at = shapes.value.findLastIndex(({ points }) => isWithin(points, x, y));
    return at < 0 ? undefined : at;
  }

  return { bounds, shapes, byShapes, parts, asked, set, put, fromLedge, partAt, nameOf };
});
