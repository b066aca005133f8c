import { expect } from 'chai';
import { LAYER_STANDS } from '@dusk/core';
import type { AreaDto } from '@dusk/wire';
import { later, MORNING } from '../../server/test/clock.ts';
import { useLog } from '../../web/src/stores/log.ts';
import { usePiles } from '../../web/src/stores/piles.ts';
import { Page } from './page.ts';

const DAY_MS = 86_400_000;

describe('the log of a painting, reckoned', () => {
  let page: Page;
  let paintingId: string;
  let log: ReturnType<typeof useLog>;
  let piles: ReturnType<typeof usePiles>;
  before(async () => {
    page = await Page.open();
    paintingId = await page.openPainting('Oil can and twine by window and lamp');
    [log, piles] = page.within(() => [useLog(), usePiles()]);
    await log.load();
  });
  after(() => page.end());
  const area = (name: string): AreaDto => log.ofPainting(paintingId).find((one) => one.name === name)!;
  const passage = (name: string) => log.passagesOf(paintingId).find((one) => one.area.name === name)!;
  /** When a layer was laid on an area last, ms. */
  const laidAt = (name: string): number => Date.parse(area(name).deeds.findLast(({ kind }) => kind === 'laid')!.at);

  it('what lies longer dries sooner, and paint with oil later than the same without', () => {
    expect(log.ofPainting(paintingId).map(({ name }) => name)).to.have.members(['wall', 'bowl', 'bench']);
    const [wall, bowl, bench] = ['wall', 'bowl', 'bench'].map((name) => passage(name).dryAt!);
    expect(wall![1]).to.be.below(Date.parse(MORNING));
    expect(bench![0] - laidAt('bench')).to.be.above(DAY_MS / 2);
    expect(bowl![1] - laidAt('bowl')).to.be.above(bench![1] - laidAt('bench'));
  });

  it('a touch that found it dry holds the window to that day', () => {
    const felt = area('wall').deeds.find(({ kind }) => kind === 'touched')!;
    expect(passage('wall').dryAt![1]).to.be.at.most(Date.parse(felt.at));
    expect(log.learnt).to.be.an('object');
  });

  it('answers for each moment that is asked about, never wetter than at the one before', () => {
    for (const name of ['wall', 'bowl', 'bench']) {
      const { answers } = passage(name);
      expect(answers.length).to.be.above(2);
      const stands = answers.map(({ may }) => LAYER_STANDS.indexOf(may.stands as (typeof LAYER_STANDS)[number]));
      expect(stands, name).to.deep.equal([...stands].sort((one, other) => one - other));
    }
    expect(passage('wall').answers[0]!.may.stands).to.not.equal('wet');
  });

  it('a layer of a pile is of the tubes in it, by what lies in the pile', () => {
    const pile = piles.list.find(({ stages }) => stages.length > 0)!;
    const stageId = pile.stages.at(-1)!.id;
    expect(log.pileAt(stageId)?.id).to.equal(pile.id);
    const layer = log.layerOf({ how: 'thin' }, [{ stageId, ml: 2 }], log.at);
    expect(layer.paint.length).to.equal(Object.keys(piles.contentOf(pile.id)!.tubes).length);
  });

  it('advice over what lies there names the area: wet below, or nothing to say of what is dry', () => {
    const thin = (name: string) => log.layerOf({ how: 'thin' }, log.lastOf(area(name))!.additions, log.at);
    const overBench = log.adviceFor(area('bench'), thin('bench')).filter(({ over }) => over === 'bench');
    expect(overBench.map(({ verdict }) => verdict)).to.deep.equal(['wet below']);
    expect(overBench[0]!.says).to.match(/wet/);
    const overWall = log.adviceFor(area('wall'), thin('wall')).filter(({ over }) => over === 'wall');
    expect(overWall.some(({ verdict }) => verdict === 'wet below' || verdict === 'tacky below')).to.equal(false);
  });

  it('as last time is the same paint and the same way, and what is laid now lies on top', async () => {
    const last = log.lastOf(area('bench'))!;
    expect(last.laid).to.deep.equal({ how: 'normal' });
    expect(last.additions.map(({ ml }) => ml)).to.deep.equal(
      area('bench')
        .deeds.findLast(({ kind }) => kind === 'laid')!
        .additions.map(({ ml }) => ml),
    );
    const before = passage('bench').own.length;
    expect(await log.make([log.deed(area('bench').id, 'laid', last)], 'Laid the bench again')).to.equal(true);
    await log.load();
    expect(passage('bench').own.length).to.equal(before + 1);
    expect(passage('bench').answers[0]!.may.stands).to.equal('wet');
  });

  it('a sitting goes on while something is done in it, and is over once it is ended', async () => {
    expect(log.current).to.not.equal(undefined);
    expect(await log.changeSitting(log.current!.row, { closedAt: later(MORNING, 0, 1) }, 'Ended the day')).to.equal(true);
    expect(log.current).to.equal(undefined);
  });
});
