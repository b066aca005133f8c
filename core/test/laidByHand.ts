import { expect } from 'chai';
import fc from 'fast-check';
import { isTouch, layPalette, LEAST_TOUCH_ML, measureOut, SHORTEST_BEAD_MM, type Lab, type Mixture } from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { everydayLabs } from '../bench/everyday.ts';

export const LABS = everydayLabs();
const NAMES = ['four: strong primaries', 'six, mixed darks', 'twelve, ordinary'] as const;
export const palettes = new Map(NAMES.map((name) => [name as string, layPalette(knownTubes(ADVICE_PALETTES[name]!))]));
export const ODD = {
  'no white': ['yellow-ochre', 'burnt-sienna', 'ultramarine-blue', 'cadmium-red'],
  'three whites': ['titanium-white', 'zinc-white', 'lead-white', 'yellow-ochre', 'ultramarine-blue', 'venetian-red'],
  'one tube': ['ivory-black'],
  'only earths': ['yellow-ochre', 'raw-umber', 'burnt-sienna', 'venetian-red'],
} as const;

export const anyPalette = fc.constantFrom(...NAMES).map((name) => palettes.get(name)!);
export const anyTarget: fc.Arbitrary<Lab> = fc.oneof(
  fc.constantFrom(...LABS),
  fc.tuple(
    fc.double({ min: 8, max: 96, noNaN: true }),
    fc.double({ min: -50, max: 60, noNaN: true }),
    fc.double({ min: -50, max: 70, noNaN: true }),
  ),
);
export const handling = () => ({ density: 1.5, nozzleMm: 6 });

/** Nothing in any heap, and nothing of any heap, is asked for that a hand cannot lay. */
export function expectLaid(mixture: Mixture, ml: number): void {
  const measured = measureOut(mixture, ml, handling);
  measured.forEach(({ amounts, ml: made, batch }, at) => {
    const isPile = at === measured.length - 1;
    if (isPile) expect(batch).to.be.closeTo(1, 1e-9);
    amounts.forEach(({ ml: dose, beadMm, touches }, i) => {
      const said = isTouch(mixture.heaps[at]!.ingredients[i]!);
      if (touches === undefined) expect(beadMm).to.be.at.least(SHORTEST_BEAD_MM - 1e-6);
      else expect(isPile && said && dose >= LEAST_TOUCH_ML - 1e-9, `${dose} ml of ${made}`).to.equal(true);
    });
  });
}
