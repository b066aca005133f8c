import { expect } from 'chai';
import {
  best,
  colourFromText,
  COMMON_HEAP,
  commonHeap,
  deltaE00,
  layPalette,
  masstoneOf,
  measurings,
  mixtureOf,
  openToTubes,
  paintOfMixture,
  shareOfPile,
  type Palette,
  type PlannedPile,
} from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';

const DARKS = [
  ['5YR 3/3', '5YR 4/4', '5YR 6/4', '5YR 7/3', '2.5Y 8/4'],
  ['N 2/', 'N 3/', 'N 5/', 'N 7/', '5G 5/4'],
  ['5GY 3/3', '5GY 4/4', '5GY 6/4', '7.5GY 5/3'],
  ['10YR 2/1', '10YR 3/1.5', '10YR 4/1.5', '10YR 5/1.5', '5PB 7/6', '5R 5/8'],
];
const NAMES = ['three: white, sienna, ultramarine', 'eight for skin'];

const planned = (palette: Palette, munsell: readonly string[]): PlannedPile[] =>
  munsell.map((text, i) => {
    const target = colourFromText(text);
    const { mixture, flat, lab } = best(palette, target);
    return { id: `pile ${i}`, target, mixture, flat, lab, amountMl: 4 };
  });

describe('one heap for several piles', () => {
  it('is fewer measurings, loses little, and is what the piles are reckoned from', () => {
    let found = 0;
    for (const name of NAMES) {
      const palette = layPalette(knownTubes(ADVICE_PALETTES[name]!));
      const paintOf = (id: string) => palette.ingredients.find((one) => one.id === id)!;
      for (const munsell of DARKS) {
        const piles = planned(palette, munsell);
        const common = commonHeap(palette, piles);
        if (!common) continue;
        found++;
        expect(common.piles.length).to.be.at.least(3);
        const paint = paintOfMixture(common.mixture, (leaf) => paintOf('tube' in leaf ? leaf.tube : leaf.pile));
        let takes = 0;
        let saved = -measurings(common.mixture);
        for (const { id, recipe, lost } of common.piles) {
          const pile = piles.find((one) => one.id === id)!;
          saved += measurings(pile.mixture) - measurings(recipe.mixture);
          takes += pile.amountMl * shareOfPile(recipe.mixture, COMMON_HEAP);
          expect(lost).to.be.at.most(0.8 + 1e-9);
          // Said is what is made: mixed from the heap as it is, and from its tubes.
          const made = masstoneOf(paintOfMixture(recipe.mixture, (leaf) => ('pile' in leaf ? paint : paintOf(leaf.tube))));
          expect(deltaE00(made, recipe.lab)).to.be.below(0.05);
          const opened = openToTubes(recipe.mixture, () => common.flat);
          const ofTubes = mixtureOf(Object.entries(opened).map(([tube, parts]) => ({ tube, parts })));
          expect(
            deltaE00(masstoneOf(paintOfMixture(ofTubes, (leaf) => paintOf('tube' in leaf ? leaf.tube : leaf.pile))), made),
          ).to.be.below(0.05);
        }
        expect(common.saved).to.equal(saved);
        expect(common.ml).to.be.closeTo(takes, 1e-9);
      }
    }
    expect(found).to.be.above(4);
  });

  it('is not asked for of two piles, nor of piles that share nothing', () => {
    const palette = layPalette(knownTubes(ADVICE_PALETTES['sixteen, outdoors']!));
    expect(commonHeap(palette, planned(palette, ['5YR 3/3', '5YR 4/4']))).to.equal(undefined);
    expect(commonHeap(palette, planned(palette, ['5PB 7/6', '5R 5/8', '5Y 8/8', '5G 4/4']))).to.equal(undefined);
    expect(commonHeap(palette, [])).to.equal(undefined);
  });

  it('is refused of what does not lie on the palette', () => {
    const palette = layPalette(knownTubes(ADVICE_PALETTES['four earths']!));
    const [pile] = planned(palette, ['5YR 4/4']);
    expect(() => commonHeap(palette, [{ ...pile!, flat: { 'cobalt-teal': 1 } }])).to.throw(/no tube "cobalt-teal"/);
  });
});
