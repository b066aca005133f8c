import type { ViewDto } from '@dusk/wire';

export const USUAL_GRID: NonNullable<ViewDto['grid']> = { across: 4, down: 3, diagonals: false, thirds: false };

/** `10 × 9.5 cm`: what a square of a grid is on the canvas. */
export function squareOn(
  canvas: { readonly widthMm: number; readonly heightMm: number },
  { across, down }: NonNullable<ViewDto['grid']>,
): string {
  const cm = (mm: number): string => (mm / 10).toFixed(1).replace(/\.0$/, '');
  return `${cm(canvas.widthMm / across)} × ${cm(canvas.heightMm / down)} cm`;
}
