import { expect } from 'chai';
import { labOf, mixCurves, reflectance } from '@dusk/core';
import { useTubes } from '../../web/src/stores/tubes.ts';
import { useTeaching } from '../../web/src/tubes/useTeaching.ts';
import { soon } from '../soon.ts';
import { Page } from './page.ts';

describe('a tube that is taught by swatches', () => {
  let page: Page;
  let tubes: ReturnType<typeof useTubes>;
  let teaching: ReturnType<typeof useTeaching>;
  let tubeId: string;
  before(async () => {
    page = await Page.open();
    tubes = page.within(() => useTubes());
    tubeId = tubes.all.find(({ pigment, maker }) => pigment === 'ultramarine-blue' && maker !== '')!.id;
    teaching = page.within(() => useTeaching(() => tubes.byId.get(tubeId)));
  });
  beforeEach(() => teaching.begin());
  after(() => page.end());
  const tube = () => tubes.byId.get(tubeId)!;
  /** What a swatch of a tube with parts of white looks like, as somebody would type it. */
  const typed = (white: number, stronger = 1): string => {
    const { K, S } = tube().base;
    const own = { K: K.map((k) => k * stronger), S };
    const paints = [{ paint: own, parts: 1 }, ...(white > 0 ? [{ paint: teaching.white.value.base, parts: white }] : [])];
    const [L, a, b] = labOf(reflectance(mixCurves(paints)));
    return `lab ${L.toFixed(2)} ${a.toFixed(2)} ${b.toFixed(2)}`;
  };

  it('its white is one of one’s own', () => {
    expect(teaching.white.value.maker).to.not.equal('');
    expect(teaching.whites.value.map(({ id }) => id)).to.include(teaching.white.value.id);
  });

  it('words that are no colour are told, and nothing is taken of them', async () => {
    await teaching.type('no such colour', 4);
    expect(teaching.failure.value).to.match(/colour/i);
    expect(teaching.told.value).to.have.length(0);
  });

  it('what is typed of a stronger tube makes it stronger, and each swatch nearer to what was seen', async () => {
    await teaching.type(typed(0, 1.4), 0);
    await teaching.type(typed(4, 1.4), 4);
    await teaching.type(typed(16, 1.4), 16);
    expect(teaching.failure.value).to.equal('');
    await soon(() => teaching.fitted.value.has(tubeId), 'it is fitted');
    const looks = teaching.looksOf(tubeId);
    expect(looks).to.have.length(3);
    for (const { off } of looks) expect(off).to.be.below(1.5);
    expect(teaching.wrong.value).to.deep.equal([]);
  });

  it('two swatches that were exchanged are named', async () => {
    await teaching.type(typed(0), 0);
    await teaching.type(typed(16), 4);
    await teaching.type(typed(4), 16);
    await soon(() => teaching.wrong.value.length > 0, 'it is told');
    expect(teaching.wrong.value[0]!.text).to.match(/look exchanged/);
    expect(teaching.wrong.value[0]!.isBad).to.equal(true);
  });

  it('is kept as one look with a reading for each swatch, and the tube is another then', async () => {
    const before = tube().stateId;
    await teaching.type(typed(0, 1.3), 0);
    await teaching.type(typed(8, 1.3), 8);
    await soon(() => teaching.fitted.value.has(tubeId), 'it is fitted');
    page.taken();
    expect(await teaching.keep()).to.equal(true);
    const kinds = page.taken().map(({ do: what }) => what);
    expect(kinds).to.deep.equal(['sighting.add', 'reading.add', 'reading.add']);
    await soon(() => tube().stateId !== before, 'what it is reckoned with');
  });

  it('a swatch can be taken back before it is kept', async () => {
    await teaching.type(typed(0), 0);
    await teaching.type(typed(4), 4);
    teaching.drop(teaching.told.value[0]!.key);
    expect(teaching.told.value.map(({ white }) => white)).to.deep.equal([4]);
  });
});
