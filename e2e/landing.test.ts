import { expect } from 'chai';
import {
  asLaid,
  deltaE00,
  hexToLab,
  labOf,
  labToHex,
  mixCurves,
  photographed,
  reflectance,
  smoothSpectrum,
  valueOfLightness,
  washOver,
  type Lab,
  type LaidHow,
} from '@dusk/core';
import { labOfDto, type PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

/** How a pile looks as far as is known. */
function lookOf({ stages, predicted }: PileDto): Lab {
  const newest = stages.at(-1);
  return labOfDto(newest?.looks.at(-1)?.lab ?? newest?.predicted ?? predicted.lab);
}

describe('where paint lands', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  const rows = () => sitting.rows(sitting.paintingId);
  const named = async (name: string): Promise<PileDto> => (await rows()).piles!.find((pile) => pile.name === name)!;
  const painting = async () => (await sitting.rows()).paintings!.find(({ id }) => id === sitting.paintingId)!;
  const reading = (chip: string): Promise<string> => page.locator(`[data-reading=${chip}]`).first().innerText();
  const tubes = async () =>
    new Map((await sitting.rows()).tubes!.map(({ id, curves: { K, S } }) => [id, { K: Float64Array.from(K), S: Float64Array.from(S) }]));
  /** What a pile's plan is, reckoned without the page: of tubes alone. */
  async function paintOf(pile: PileDto) {
    const byId = await tubes();
    const [heap] = pile.plan.heaps;
    expect(pile.plan.heaps, 'one heap').to.have.length(1);
    return mixCurves(heap!.ingredients.map((one) => ({ paint: byId.get((one as { tube: string }).tube)!, parts: one.parts })));
  }

  it('is said in two presses, and the recipe becomes the one that looks right there', async () => {
    await sitting.openPile(/^copper, body/);
    const before = await named('copper, body');
    const hand = new Hand(page);
    await hand.key('5');
    await hand.click(page.getByRole('radio', { name: 'glaze' }).locator('xpath=..'));
    await page.locator('[data-reading=mixed]').getByText('there: glaze over the ground').waitFor();
    expect(hand.actions, 'two presses').to.equal(2);
    await soon(async () => (await named('copper, body')).purpose.laid?.how === 'glaze', 'it is kept');
    const pile = await named('copper, body');
    expect(pile.plan, 'another recipe').to.not.deep.equal(before.plan);
    const { ground } = await painting();
    const seen = asLaid(await paintOf(pile), {
      so: { how: 'glaze' },
      below: { dry: smoothSpectrum(hexToLab(ground)) },
    });
    const target = labOfDto(pile.target!.lab);
    expect(deltaE00(seen, target), 'right there').to.be.below(deltaE00(labOfDto(pile.predicted.lab), target));
    expect(await reading('target')).to.match(/^wanted there/);
    expect(await reading('beside')).to.match(/^on the palette/);
    await page.locator('[data-test=covers]').waitFor();
    expect(await page.locator('[data-chip=drawn-out]').count(), 'over black, white and the ground').to.equal(3);
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await soon(async () => (await named('copper, body')).purpose.laid === undefined, 'taken back in one');
    expect((await named('copper, body')).plan).to.deep.equal(before.plan);
  });

  it('is thin over a pile that is dry in three actions, and into a wet dark with what that gives', async () => {
    await sitting.openPile(/^wall by the window/);
    const hand = new Hand(page);
    await hand.key('5');
    await hand.click(page.getByRole('radio', { name: 'thin', exact: true }).locator('xpath=..'));
    await hand.click(page.getByRole('button', { name: 'over copper, body' }));
    await page.locator('[data-reading=mixed], [data-reading=beside]').getByText('there: thin over copper, body').waitFor();
    expect(hand.actions).to.equal(3);
    await page.getByRole('radio', { name: 'still wet' }).check();
    await page.getByText('there: thin over wet copper, body').waitFor();
    await page.getByRole('radio', { name: 'a lot' }).check();
    await page
      .locator('[data-test=blend]')
      .getByText(/gap|light side first/)
      .waitFor();
    await soon(async () => (await named('wall by the window')).purpose.laid?.takes === 'a lot', 'how much is taken up is kept');
    await sitting.choose('pile-with', 'chalk');
    await page
      .locator('[data-test=laid-caution]')
      .getByText(/respirator/)
      .waitFor();
    await sitting.choose('pile-with', 'thinner');
    await page
      .locator('[data-test=laid-caution]')
      .getByText(/safety data sheet/)
      .waitFor();
    await sitting.choose('pile-brush', 'copper, body');
    await soon(async () => {
      const { laid, overId } = (await named('wall by the window')).purpose;
      return laid?.with === 'thinner' && laid.over === 'wet' && laid.brushId === overId;
    }, 'all of it is kept');
  });

  it('is enough for what is drawn round on the picture, in three actions; a size that is none is told', async () => {
    await sitting.elsewhere({
      do: 'painting.change',
      id: sitting.paintingId,
      version: (await painting()).version,
      canvas: { widthMm: 600, heightMm: 400 },
    });
    await sitting.openPile(/^copper, body/);
    const before = await named('copper, body');
    const hand = new Hand(page);
    await hand.key('5');
    await hand.click(page.locator('[data-test=draw-passage]'));
    const stage = page.locator('[data-test=outline-stage] canvas').first();
    await stage.waitFor();
    const box = (await stage.boundingBox())!;
    const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;
    await page.mouse.move(...at(0.1, 0.1));
    await page.mouse.down();
    for (const [x, y] of [
      [0.9, 0.1],
      [0.9, 0.6],
      [0.1, 0.6],
    ] as const)
      await page.mouse.move(...at(x, y), { steps: 6 });
    await page.mouse.up();
    const enough = page.locator('[data-test=enough]');
    await enough.waitFor();
    expect(hand.actions + 1).to.equal(3);
    await soon(async () => (await named('copper, body')).purpose.passage !== undefined, 'the passage is kept');
    const { passage } = (await named('copper, body')).purpose;
    // Four fifths by half of 60 x 40 cm.
    expect(passage!.cm2).to.be.within(900, 1020);
    expect(await enough.innerText()).to.match(/thumbs?’|tube/);
    expect((await named('copper, body')).ml, 'it is planned as large as it needs to be').to.be.above(before.ml);
    const words = page.locator('[data-test=passage-words] input');
    for (const said of ['the sky', '0', '90000 cm²']) {
      await words.fill(said);
      await words.press('Enter');
      await page.locator('[data-test=passage-refused]').waitFor();
      expect((await named('copper, body')).purpose.passage!.cm2).to.equal(passage!.cm2);
    }
    await words.fill('two hands');
    await words.press('Enter');
    await soon(async () => (await named('copper, body')).purpose.passage?.cm2 === 300, 'said in words');
    await sitting.choose('left-open', 'a quarter');
    await soon(async () => (await named('copper, body')).purpose.passage?.open === 0.25, 'what is left open');
  });

  it('goes by the painting’s habit, and what is kept then is for there', async () => {
    await sitting.choose('habit', 'thin darks, thick lights');
    await soon(async () => (await painting()).habit === 'thin darks, thick lights', 'the habit is kept');
    await sitting.openPile(/^glaze, halftone/);
    await page.getByText(/there: (thin|normal) over the ground/).waitFor();
  });

  it('is a ground of one of its tubes, in three actions, round the picture and on the ledge', async () => {
    await sitting.goTo('Reference');
    await page.locator('.picture canvas').waitFor();
    const hand = new Hand(page);
    await hand.click(page.locator('[data-test=door]', { hasText: 'Key' }));
    const wash = page.locator('[data-test=wash-of]').nth(3);
    await wash.waitFor();
    await hand.click(wash);
    expect(hand.actions).to.be.at.most(3);
    await soon(async () => (await painting()).groundOf !== null, 'the ground is kept');
    const { ground, groundOf } = await painting();
    const paint = (await tubes()).get(groundOf!.tubeId)!;
    expect(ground).to.equal(labToHex(labOf(washOver(paint, groundOf!.wiped))));
    expect(deltaE00(hexToLab(ground), labOf(reflectance(paint))), 'a wash is not the paint as it comes').to.be.above(10);
    await soon(
      async () => (await page.locator('.mat').evaluate((one) => getComputedStyle(one).backgroundColor)) !== 'rgb(143, 127, 106)',
      'round the picture',
    );
    await page.getByRole('radio', { name: 'wiped to a stain' }).check();
    await soon(async () => (await painting()).groundOf?.wiped === 'wiped to a stain', 'wiped back');
    expect(hexToLab((await painting()).ground)[0]).to.be.above(hexToLab(ground)[0]);
  });

  it('a day is planned for forty minutes in four actions, walked at the easel, and printed on one page', async () => {
    await sitting.openReference('Courtyard, washing day');
    await sitting.goTo('Mixing');
    await page.locator('.pile').first().waitFor();
    const all = (await rows()).piles!.filter(({ stages }) => stages.length === 0).length;
    const hand = new Hand(page);
    await hand.key('d');
    const steps = page.locator('[data-test=day-step]');
    await steps.first().waitFor();
    expect(await steps.count()).to.equal(all);
    const minutes = page.locator('[data-test=day-minutes] input');
    await minutes.fill('0');
    await minutes.press('Enter');
    await page.locator('[data-test=day-refused]').waitFor();
    await minutes.fill('12');
    await minutes.press('Enter');
    await soon(async () => (await steps.count()) < all, 'fewer piles');
    expect(await page.locator('[data-test=day-sum]').innerText()).to.match(/about (\d|1[0-2]) minutes$/);
    expect(await page.locator('[data-test=day-later], [data-test=day-left]').count()).to.be.above(0);
    await sitting.choose('day-order', 'lights first');
    await soon(async () => (await painting()).day?.order === 'lights first', 'the order is kept');
    const count = await steps.count();
    const first = (await steps.first().locator('b').innerText()).trim();
    const [sheet] = await Promise.all([page.context().waitForEvent('page'), page.locator('[data-test=print-day]').click()]);
    const wanted = new URL(sheet.url()).searchParams.get('wanted')!;
    expect((JSON.parse(wanted) as { day: { steps: unknown[] } }).day.steps).to.have.length(count);
    await sheet.close();
    await page.locator('[data-test=walk-day]').click();
    await page.locator('.easel').waitFor();
    expect(page.url()).to.contain('piles=');
    await page.locator('.easel').getByText(first).first().waitFor();
  });

  it('the sitting is recorded by one photo of the palette, in three actions; what is no palette is told', async () => {
    await sitting.openReference();
    await sitting.goTo('Mixing');
    await page.locator('.pile').first().waitFor();
    const before = (await rows()).piles!.filter(({ stages, there }) => stages.length === 0 || there > 0);
    const scene = {
      piles: [...before.map(lookOf), [58, -4, 38] as const],
      surface: [40, 6, 12] as const,
      light: 'lamp' as const,
      tilt: 0.5,
      glare: 0.3,
      seed: 11,
    };
    const { data, width, height } = photographed(scene);
    const buffer = await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
      .jpeg({ quality: 95 })
      .toBuffer();
    const grey = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#808080' } })
      .png()
      .toBuffer();
    const hand = new Hand(page);
    await hand.key('f');
    const field = page.locator('[data-sheet] input[type=file]');
    await field.setInputFiles({ name: 'grey.png', mimeType: 'image/png', buffer: grey });
    await page.locator('[data-test=photo-refused]').getByText('No paint').waitFor();
    hand.actions++;
    await field.setInputFiles({ name: 'palette.jpg', mimeType: 'image/jpeg', buffer });
    await page.locator('[data-test=photo-row]').first().waitFor();
    expect(await page.locator('[data-test=photo-row]').count()).to.equal(before.length);
    expect(await page.locator('[data-test=photo-unknown]').count()).to.equal(1);
    await hand.click(page.locator('[data-test=keep-photo]'));
    expect(hand.actions).to.equal(3);
    await page.locator('[data-sheet]').waitFor({ state: 'detached' });
    await soon(async () => (await rows()).piles!.length > before.length, 'what was not known is a pile');
    const after = (await rows()).piles!;
    for (const { id, name } of before) {
      const newest = after.find((pile) => pile.id === id)!.stages.at(-1)!;
      expect(newest.looks.at(-1)?.kind, name).to.equal('photo');
    }
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await soon(
      async () => (await rows()).piles!.every(({ stages }) => stages.every(({ looks }) => looks.every(({ kind }) => kind !== 'photo'))),
      'one step back',
    );
  });

  it('has one white for the lights and another for tints, where a palette says so', async () => {
    const all = (await sitting.rows()).tubes!;
    const zinc = all.find(({ pigment, learnt }) => pigment === 'zinc-white' && learnt === null)!;
    const { paletteId } = await painting();
    const palette = (await sitting.rows()).palettes!.find(({ id }) => id === paletteId)!;
    await sitting.elsewhere({ do: 'palette.change', id: paletteId, version: palette.version, tubeIds: [...palette.tubeIds, zinc.id] });
    await sitting.goTo('Palettes');
    await sitting.choose('lights-white', zinc.name);
    await soon(async () => (await sitting.rows()).palettes!.find(({ id }) => id === paletteId)!.lightsWhiteId === zinc.id, 'it is kept');
    await sitting.openPile(/^blanket, front/);
    await page.keyboard.press('5');
    const takes = async (how: string): Promise<readonly string[]> => {
      await page.getByRole('radio', { name: how, exact: true }).check();
      await soon(async () => (await named('blanket, front')).purpose.laid?.how === how, how);
      const { plan } = await named('blanket, front');
      return plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? one.tube : [])));
    };
    expect(await takes('loaded')).to.include(zinc.id);
    expect(await takes('thin')).to.not.include(zinc.id);
    await sitting.elsewhere({
      do: 'palette.change',
      id: paletteId,
      version: palette.version + 2,
      tubeIds: [...palette.tubeIds],
      lightsWhiteId: null,
    });
  });

  it('is a colour said as it stands to what is there, in two actions; a tube lies beside a pile; what is added in place is kept', async () => {
    await sitting.goTo('Mixing');
    await page.locator('.pile').first().waitFor();
    const hand = new Hand(page);
    await hand.key('n');
    hand.actions++;
    const said = page.locator('[data-test=said-colour]');
    await said.fill('a little darker than bench in the light');
    await said.press('Enter');
    await page.locator('[data-test=standing]').waitFor();
    expect(hand.actions).to.equal(2);
    const bench = await named('bench in the light');
    const pile = [...(await rows()).piles!].sort((one, other) => one.createdAt.localeCompare(other.createdAt)).at(-1)!;
    expect(valueOfLightness(pile.target!.lab.L)).to.be.closeTo(valueOfLightness(lookOf(bench)[0]) - 0.5, 0.02);
    await sitting.choose('tube-beside', 'Ultramarine blue');
    await page.locator('[data-reading=beside]', { hasText: 'Ultramarine blue' }).waitFor();
    await page.keyboard.press('5');
    await sitting.choose('in-place', 'Viridian');
    await page.locator('[data-test=added-in-place]').getByText('a touch Viridian').waitFor();
    await soon(async () => (await named(pile.name)).purpose.inPlace?.length === 1, 'it is kept with the pile');
  });

  it('is all there after a restart', async () => {
    await sitting.restartServer();
    await sitting.openReference();
    const pile = await named('copper, body');
    expect(pile.purpose.passage).to.deep.include({ cm2: 300, open: 0.25 });
    const { groundOf, habit } = await painting();
    expect(groundOf?.wiped).to.equal('wiped to a stain');
    expect(habit).to.equal('thin darks, thick lights');
    const how: LaidHow | undefined = (await named('wall by the window')).purpose.laid?.how;
    expect(how).to.equal('thin');
  });
});
