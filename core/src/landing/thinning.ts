import type { Lab } from '../colour/spaces.ts';
import type { Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { labOf, reflectance } from '../paint/mix.ts';
import { filmOf, type LaidHow } from './laid.ts';

/** The thinnest and the thickest of a strip that thins out, µm: less than a wash, and a loaded stroke. */
const THIN_UM = 1.5;
const THICK_UM = 350;

/** How thick a strip lies at a place along it, from 0 (a loaded stroke) to 1 (next to nothing), µm: even steps of ratio, as a knife draws out. */
export const thicknessAlong = (at: number): number => THICK_UM * (THIN_UM / THICK_UM) ** at;

const placeOf = (how: LaidHow): number => Math.log(filmOf({ how }).thicknessUm / THICK_UM) / Math.log(THIN_UM / THICK_UM);

/** One paint drawn out from a loaded stroke to a wash over one thing. @param n places along it, from 2 */
export const drawnOut = (paint: PaintCurves, ground: Spectrum, n: number): readonly Lab[] =>
  Array.from({ length: n }, (_, i) => labOf(reflectance(paint, { film: { thicknessUm: thicknessAlong(i / (n - 1)), ground } })));

/** Where along such a strip paint lies as it is laid in each of these ways, 0–1. */
export const FILM_ALONG: Readonly<Record<'loaded' | 'normal' | 'thin' | 'glaze' | 'wash', number>> = {
  loaded: placeOf('loaded'),
  normal: placeOf('normal'),
  thin: placeOf('thin'),
  glaze: placeOf('glaze'),
  wash: placeOf('wash'),
};
