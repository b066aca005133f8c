import { labOf, mixCurves, reflectance, type Basis, type Lab, type PaintCurves } from '@dusk/core';
import type { TubeDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { paintOf } from './states.ts';
import { useStudio } from '../studio/useStudio.ts';

/** A tube with its curves ready to mix and its two tell-tale colours. */
export interface Tube extends Omit<TubeDto, 'curves'> {
  readonly paint: PaintCurves;
  /** What its piles are learnt over: its newest curves that are not learnt. */
  readonly base: PaintCurves;
  readonly baseBasis: Basis;
  readonly masstone: Lab;
  /** One part in nine of titanium white. */
  readonly tint: Lab;
}

/** A white, whatever its pigments: as light as paper, and of no colour to speak of. */
const WHITE = { L: 92, C: 8 } as const;
export const isWhite = ({ masstone: [L, a, b] }: Pick<Tube, 'masstone'>): boolean => L >= WHITE.L && Math.hypot(a, b) <= WHITE.C;

/** A black, whatever its pigments: nearly no light and no colour, straight and in a tint. */
const BLACK = { L: 27, C: 5, tint: 4.5 } as const;
export const isBlack = ({ masstone: [L, a, b], tint }: Pick<Tube, 'masstone' | 'tint'>): boolean =>
  L <= BLACK.L && Math.hypot(a, b) <= BLACK.C && Math.hypot(tint[1], tint[2]) <= BLACK.tint;

/** What is mixed from where darks are mixed: no tube black, as long as two other tubes lie there. */
export function mixedDarks<T extends Pick<Tube, 'masstone' | 'tint'>>(isWished: boolean, tubes: readonly T[]): readonly T[] {
  const others = tubes.filter((tube) => !isBlack(tube));
  return isWished && others.length >= 2 ? others : tubes;
}

const TINT_PARTS = 9;

function makeTube(row: TubeDto, white: PaintCurves): Tube {
  const { curves, ...tube } = row;
  const paint = paintOf(curves);
  const tinted = mixCurves([
    { paint, parts: 1 },
    { paint: white, parts: TINT_PARTS },
  ]);
  return {
    ...tube,
    paint,
    base: tube.learnt ? paintOf(tube.learnt.curves) : paint,
    baseBasis: tube.learnt?.basis ?? tube.basis,
    masstone: labOf(reflectance(paint)),
    tint: labOf(reflectance(tinted)),
  };
}

export const useTubes = defineStore('tubes', () => {
  const studio = useStudio();
  /** Made once for each row as it was heard of. */
  const made = new WeakMap<TubeDto, Tube>();

  const known = computed((): readonly Tube[] => {
    const rows = [...studio.rows.tubes.values()];
    const standard = rows.find((t) => t.pigment === 'titanium-white' && t.maker === '');
    if (!standard) return [];
    const white = paintOf(standard.learnt?.curves ?? standard.curves);
    return rows.map((row) => {
      const tube = made.get(row) ?? makeTube(row, white);
      made.set(row, tube);
      return tube;
    });
  });
  /** What can be put on a palette; what was put away stays known to whatever was mixed from it. */
  const all = computed(() => known.value.filter(({ deletedAt }) => deletedAt === null));
  const byId = computed(() => new Map(known.value.map((tube) => [tube.id, tube])));

  return { all, byId };
});
