import { labOf, mixCurves, reflectance, type Lab, type PaintCurves } from '../src/index.ts';
import { CORRECTING, tubesOf } from '../bench/palettes.ts';

export const IDS = CORRECTING;
export const TUBES = tubesOf(IDS);
export const look = (parts: readonly (readonly [PaintCurves, number])[]): Lab =>
  labOf(reflectance(mixCurves(parts.map(([paint, n]) => ({ paint, parts: n })))));
export const tube = (id: string) => TUBES.find((t) => t.id === id)!;
export const plain = { strength: 1, shiftNm: 0, extender: 0, shapeK: new Float64Array(36), shapeS: new Float64Array(36) };
