import { expect } from 'chai';
import { deltaE00, valueOfLightness } from '@dusk/core';
import { labOfDto } from '@dusk/wire';
import { computed, ref } from 'vue';
import { usePiles } from '../../web/src/stores/piles.ts';
import { useDesk } from '../../web/src/stores/useDesk.ts';
import { useKin } from '../../web/src/kin/useKin.ts';
import { soon } from '../soon.ts';
import { Page } from './page.ts';

describe('the next pile, from the one that lies there', () => {
  let page: Page;
  let piles: ReturnType<typeof usePiles>;
  let desk: ReturnType<typeof useDesk>;
  before(async () => {
    page = await Page.open();
    await page.openPainting('Oil can and twine by window and lamp');
    [piles, desk] = page.within(() => [usePiles(), useDesk()]);
    await soon(() => desk.desk !== undefined, 'the palette is laid out');
  });
  after(() => page.end());
  const pileOf = (name: string) => piles.list.find((one) => one.name === name)!;
  const kinOf = (name: string) => {
    const { id } = pileOf(name);
    return page.within(() =>
      useKin(
        computed(() => piles.byId.get(id)!),
        ref(true),
      ),
    );
  };

  it('a step lighter is half a value away, takes from its mother, and is kept with what it is to be', async () => {
    const mother = pileOf('copper, body');
    const kin = kinOf('copper, body');
    kin.step('value', 1);
    page.taken();
    const id = await kin.keepChild();
    const child = piles.byId.get(id!)!;
    const [from, to] = [mother, child].map((one) => valueOfLightness(one.predicted.lab.L));
    expect(to! - from!).to.be.within(0.3, 0.7);
    expect(JSON.stringify(child.plan)).to.contain(mother.id);
    expect(child.target).to.deep.include({ kind: 'relative', pileId: mother.id });
    expect(page.taken().map(({ do: what }) => what)).to.include('pile.add');
    expect(kin.moves.value, 'the hand begins anew').to.equal(false);
  });

  it('steps that follow one another at once are all in what is kept', async () => {
    const mother = pileOf('wall by the window');
    const kin = kinOf('wall by the window');
    for (let i = 0; i < 3; i++) kin.step('value', -1);
    const id = await kin.keepChild();
    const child = piles.byId.get(id!)!;
    const [from, to] = [mother, child].map((one) => valueOfLightness(one.predicted.lab.L));
    expect(from! - to!).to.be.within(1.1, 1.9);
  });

  it('two into one are as many parts of each, between the two, named after both', async () => {
    const kin = kinOf('wall near the lamp');
    const other = pileOf('bench in the light');
    kin.pourWith(other.id);
    await soon(() => kin.plan.value !== undefined, 'they are poured');
    const id = await kin.keepChild();
    const both = piles.byId.get(id!)!;
    expect(both.name).to.equal('wall near the lamp and bench in the light');
    expect(both.plan.heaps.at(-1)!.ingredients.map((one) => one.parts)).to.deep.equal([1, 1]);
    const ends = [pileOf('wall near the lamp'), other].map((one) => one.stages.at(-1)!.looks.at(-1)!.lab.L);
    expect(both.predicted.lab.L).to.be.within(Math.min(...ends), Math.max(...ends));
    expect(kin.blend.value).to.equal(undefined);
  });

  it('a brush makes something of two that are held together', async () => {
    const kin = kinOf('wall by the window');
    kin.pourWith(pileOf('under the bowl').id);
    expect(kin.blend.value).to.not.equal(undefined);
    kin.reset();
    expect(kin.blend.value).to.equal(undefined);
  });

  it('from tubes alone it takes from no pile', async () => {
    const kin = kinOf('copper, body');
    kin.step('value', -1);
    kin.from.value = 'tubes';
    await soon(() => kin.found.value !== undefined, 'a recipe');
    expect(JSON.stringify(kin.plan.value)).to.not.contain('"pile"');
    expect(deltaE00(kin.found.value!.lab, kin.wanted.value)).to.be.below(6);
  });

  it('toward another is on the way to it', async () => {
    const kin = kinOf('copper, body');
    const other = pileOf('wall by the window');
    const from = labOfDto(pileOf('copper, body').predicted.lab);
    kin.aimAt(other.id);
    const aim = labOfDto(other.stages.at(-1)?.looks.at(-1)?.lab ?? other.predicted.lab);
    expect(deltaE00(kin.wanted.value, aim)).to.be.below(deltaE00(from, aim));
    kin.aimAt('');
    expect(kin.moves.value).to.equal(false);
  });
});
