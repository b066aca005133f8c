import { labOf, mixCurves, reflectance, type Lab, type PaintCurves } from '@dusk/core';
import type { TubeDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { api } from '../api.ts';

/** A tube with its curves ready to mix and its two tell-tale colours. */
export interface Tube extends Omit<TubeDto, 'curves'> {
  readonly paint: PaintCurves;
  readonly masstone: Lab;
  /** One part in nine of titanium white. */
  readonly tint: Lab;
}

const TINT_PARTS = 9;

function makeTube({ curves, ...tube }: TubeDto, white: PaintCurves): Tube {
  const paint = paintOf(curves);
  const tinted = mixCurves([
    { paint, parts: 1 },
    { paint: white, parts: TINT_PARTS },
  ]);
  return { ...tube, paint, masstone: labOf(reflectance(paint)), tint: labOf(reflectance(tinted)) };
}

const paintOf = ({ K, S }: TubeDto['curves']): PaintCurves => ({ K: Float64Array.from(K), S: Float64Array.from(S) });

export const useTubes = defineStore('tubes', () => {
  const all = shallowRef<readonly Tube[]>([]);
  const byId = computed(() => new Map(all.value.map((tube) => [tube.id, tube])));

  async function load(): Promise<void> {
    const listed = await api.tubes();
    const white = paintOf(listed.find((t) => t.pigment === 'titanium-white')!.curves);
    all.value = listed.map((tube) => makeTube(tube, white));
  }

  return { all, byId, load };
});
