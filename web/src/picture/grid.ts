import type { ViewDto } from '@dusk/wire';

export const USUAL_GRID: NonNullable<ViewDto['grid']> = { across: 4, down: 3, diagonals: false, thirds: false };

/** Proportions that differ by less are the same to a hand with a ruler. */
const AS_GOOD_AS = 0.01;
interface Sides {
  readonly width: number;
  readonly height: number;
}
/** Whether what is seen of a picture has the canvas's proportions, so that squares on one are squares on the other. */
export const fitsCanvas = (canvas: { readonly widthMm: number; readonly heightMm: number }, { width, height }: Sides): boolean =>
  Math.abs((width * canvas.heightMm) / (height * canvas.widthMm) - 1) < AS_GOOD_AS;

/** `10 × 9.5 cm`: what a square of a grid is on the canvas. */
export function squareOn(
  canvas: { readonly widthMm: number; readonly heightMm: number },
  { across, down }: NonNullable<ViewDto['grid']>,
): string {
  const cm = (mm: number): string => (mm / 10).toFixed(1).replace(/\.0$/, '');
  return `${cm(canvas.widthMm / across)} × ${cm(canvas.heightMm / down)} cm`;
}
