import { expect } from 'chai';
import { deltaE00, HABITS, valueOfLightness } from '@dusk/core';
import { labOfDto } from '@dusk/wire';
import { useLanding } from '../../web/src/stores/landing.ts';
import { usePiles } from '../../web/src/stores/piles.ts';
import { usePaintings } from '../../web/src/stores/paintings.ts';
import { useDesk } from '../../web/src/stores/useDesk.ts';
import { soon } from '../soon.ts';
import { Page } from './page.ts';

describe('where paint lands, reckoned', () => {
  let page: Page;
  let landing: ReturnType<typeof useLanding>;
  let piles: ReturnType<typeof usePiles>;
  let paintings: ReturnType<typeof usePaintings>;
  let desk: ReturnType<typeof useDesk>;
  before(async () => {
    page = await Page.open();
    await page.openPainting('Oil can and twine by window and lamp');
    [landing, piles, paintings, desk] = page.within(() => [useLanding(), usePiles(), usePaintings(), useDesk()]);
    await soon(() => desk.desk !== undefined, 'the palette is laid out');
  });
  after(() => page.end());
  const pileOf = (name: string) => piles.list.find((one) => one.name === name)!;
  const change = async (name: string, purpose: object): Promise<void> => {
    const { id, version, purpose: was } = pileOf(name);
    expect(
      await piles.make([{ do: 'pile.change', id, version, purpose: { ...was, ...purpose } as never }], 'Said how it is laid'),
    ).to.equal(true);
  };

  it('a pile of which nothing is said lands nowhere, and is wanted as it was meant', () => {
    const pile = piles.list.find(({ purpose, target }) => purpose.laid === undefined && target)!;
    expect(landing.landingOf(pile)).to.equal(undefined);
    expect(landing.there(pile)).to.equal(undefined);
    expect(landing.wantedOf(pile)).to.deep.equal(labOfDto(pile.target!.lab));
  });

  it('thin paint shows of the ground, loaded paint does not', async () => {
    const name = 'bench in the light';
    await change(name, { laid: { how: 'glaze' } });
    const glazed = landing.there(pileOf(name))!;
    expect(glazed.what).to.match(/^there: .*the ground/);
    await change(name, { laid: { how: 'loaded' } });
    const loaded = landing.there(pileOf(name))!;
    const own = labOfDto(pileOf(name).stages.at(-1)!.looks.at(-1)!.lab);
    expect(deltaE00(loaded.lab, own)).to.be.below(deltaE00(glazed.lab, own));
    await change(name, { laid: {} });
  });

  it('by the painting’s habit every pile is laid, darks otherwise than lights, on desks of their own', async () => {
    const { id } = paintings.onEasel!;
    for (const habit of HABITS) {
      expect(await paintings.change(id, { habit }), String(habit)).to.equal(true);
      await soon(() => landing.byHabit.size > 0, `desks for ${habit}`);
      for (const pile of piles.list) expect(landing.soOf(pile), pile.name).to.not.equal(undefined);
    }
    await paintings.change(id, { habit: null });
    await soon(() => landing.byHabit.size === 0, 'no desks');
  });

  it('a recipe for a place looks right there rather than on the palette', async () => {
    const pile = pileOf('twine in the light');
    await change(pile.name, { laid: { how: 'thin' } });
    const at = landing.landingOf(pileOf(pile.name))!;
    const wanted = labOfDto(pile.target!.lab);
    const mixture = await landing.recipeFor(pileOf(pile.name), wanted, at);
    expect(mixture!.heaps.length).to.be.above(0);
    const plain = await landing.recipeFor(pileOf(pile.name), wanted, undefined);
    expect(plain).to.not.deep.equal(mixture);
    await change(pile.name, { laid: {} });
  });

  it('a pile that is too small for its passage will not last, and one that is large enough will', async () => {
    const name = 'wall by the window';
    const { ml } = pileOf(name);
    const cm2 = (times: number) => ({ passage: { cm2: times * ml * 25 } });
    await change(name, cm2(40));
    expect(landing.neededFor(pileOf(name))).to.be.above(ml);
    expect(landing.willNotLast(pileOf(name))).to.equal(true);
    await change(name, cm2(0.05));
    expect(landing.willNotLast(pileOf(name))).to.equal(false);
  });

  it('the ground is as light as it is said to be', async () => {
    const value = (): number => valueOfLightness(landing.groundLab[0]);
    const { id } = paintings.onEasel!;
    await paintings.change(id, { ground: '#ffffff', groundOf: null });
    const white = value();
    await paintings.change(id, { ground: '#40403c' });
    expect(value()).to.be.below(white - 4);
  });
});
