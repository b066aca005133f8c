import { labOf, mixCurves, reflectance, type Basis, type Lab, type PaintCurves } from '@dusk/core';
import type { CurvesDto, TubeDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed } from 'vue';
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

const TINT_PARTS = 9;
const paintOf = ({ K, S }: CurvesDto): PaintCurves => ({ K: Float64Array.from(K), S: Float64Array.from(S) });

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
