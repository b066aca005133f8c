import type { PaintCurves } from '../paint/catalogue.ts';
import { isWhitePaint } from '../paint/whitePaint.ts';
import { fitTube, fitWhite, type FittedTube, type SwatchReading } from './fit.ts';

/** What swatches tell of a tube: a white by itself, any other against the white of its tints. */
export function taughtBy(from: PaintCurves, white: PaintCurves, readings: readonly SwatchReading[]): FittedTube {
  const alone = readings.some(({ parts }) => parts.white === 0);
  return isWhitePaint(from) && alone ? fitWhite(from, readings) : fitTube(from, white, readings);
}
