import { reflectance } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

const LAPTOP = { width: 1280, height: 800 };
const UPRIGHT = { width: 820, height: 1180 };
/** A tube of one's own, as an operation. */
const own1 = (name: string, pigment: string): Operation => ({
  do: 'tube.add',
  id: crypto.randomUUID(),
  name,
  pigments: [pigment],
  maker: 'mine',
});

describe('the painter’s own tubes', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.open('tubes');
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const own = async () => (await sitting.rows()).tubes!.filter(({ maker, deletedAt }) => maker === 'mine' && deletedAt === null);

  const tube = async (name: string) => (await sitting.rows()).tubes!.find((one) => one.name === name && one.deletedAt === null)!;

  it('are added as they are said, eighteen of them in three actions', async () => {
    const said =
      'ti white, zinc white, ult blue, cobalt blue, cerulean, prussian, y ochre, raw s, burnt s, raw umber, burnt umber, cad red, cad yellow, alizarin crimson, quin rose, viridian, sap green, ivory black';
    const hand = new Hand(page);
    await page.getByRole('heading', { name: 'Tubes' }).waitFor();
    await hand.key('n');
    await page.locator('[data-test=tubes-said] textarea').first().fill(said);
    hand.actions++;
    await page.locator('[data-test=tube-said]').nth(17).waitFor();
    await hand.press('Add 18 tubes');
    await soon(async () => (await own()).length === 18, 'eighteen tubes');
    expect(hand.actions).to.equal(3);
    const pigments = (await own()).map(({ pigment }) => pigment);
    for (const slug of ['titanium-white', 'ultramarine-blue', 'yellow-ochre', 'burnt-sienna', 'viridian', 'ivory-black'])
      expect(pigments).to.include(slug);
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await own()).length === 0, 'taken back at once');
  });

  it('that are not known are said to be so, and told by hand what they are like; a table brings makers and sizes', async () => {
    await page.keyboard.press('n');
    const field = page.locator('[data-test=tubes-said] textarea').first();
    await field.fill('moonlight 7');
    await page.getByText('not known: choose what it is like').first().waitFor();
    expect(await page.locator('[data-test=add-tubes]').isDisabled()).to.equal(true);
    await field.fill('Name,Pigment,Maker,Size\n"Sky, deep",PB35,Harrow & Pell,37\n');
    await page.getByText('Harrow & Pell, 37 ml').waitFor();
    await page.locator('[data-test=add-tubes]').click();
    await soon(async () => {
      const tube = (await sitting.rows()).tubes!.find(({ name }) => name === 'Sky, deep');
      return tube?.maker === 'Harrow & Pell' && tube.sizeMl === 37 && tube.pigment === 'cerulean-blue';
    }, 'added as the table says');
  });

  it('are taught by one photo: before, after, what looks wrong; dated, taken back, undone', async () => {
    await page.setViewportSize(LAPTOP);
    await sitting.elsewhere(...['Sienna', 'Old sienna'].map((name) => own1(name, 'burnt-sienna')), own1('Grass', 'viridian'));
    await sitting.open('tubes');
    await page
      .locator('h3 a')
      .filter({ hasText: /^Sienna$/ })
      .click();
    await page.locator('[data-test=tube-page]').waitFor();
    const hand = new Hand(page);
    await hand.key('t');
    await hand.click(page.locator('[data-test=stand-in-camera]'));
    await page.locator('[data-test=taught-sum]').waitFor();
    expect(await page.locator('[data-test=swatch]').count()).to.equal(4);
    const [, before, after] = /off by ([\d.]+) before, ([\d.]+) after/.exec(await page.locator('[data-test=taught-sum]').innerText())!;
    expect(Number(after)).to.be.below(Number(before));
    // A patch that a hand moves onto the bare card is read anew, and does not fit any more.
    const ring = (await page.locator('.ring').nth(3).boundingBox())!;
    await page.mouse.move(ring.x + ring.width / 2, ring.y + ring.height / 2);
    await page.mouse.down();
    await page.mouse.move(ring.x + ring.width / 2, ring.y + ring.height / 2 + 90, { steps: 4 });
    await page.mouse.up();
    await page.locator('[data-test=taught-wrong]').first().waitFor();
    await page.getByRole('button', { name: 'Another photo' }).click();
    await page.locator('[data-test=stand-in-camera]').click();
    await page.locator('[data-test=taught-sum]').waitFor();
    await hand.click(page.locator('[data-test=keep-taught]'));
    expect(hand.actions).to.equal(3);
    await soon(async () => (await tube('Sienna')).basis === 'fitted', 'it is fitted');
    await page.locator('[data-test=taught]').nth(3).waitFor();
    await page.locator('[data-test=taught]').first().getByRole('button', { name: 'Take back' }).click();
    await soon(async () => (await page.locator('[data-test=taught]').count()) === 3, 'one swatch less');
    expect((await tube('Sienna')).basis).to.equal('fitted');
    await page.locator('[data-test=more]').click();
    await page.locator('[data-test=forget]').click();
    await soon(async () => (await tube('Sienna')).basis === 'typical', 'as it was');
  });

  it('are taught by a file of readings, and a file that holds none is refused in a sentence', async () => {
    await page.keyboard.press('t');
    await page.getByRole('radio', { name: 'a reader' }).check({ force: true });
    const file = page.getByLabel('Readings, CGATS text or CSV');
    await file.setInputFiles({ name: 'notes.csv', mimeType: 'text/csv', buffer: Buffer.from('hello') });
    await page.getByText(/holds no spectra/).waitFor();
    const nm = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
    const { curves } = await tube('Sienna');
    const spectrum = reflectance({ K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) });
    await file.setInputFiles({
      name: 'sienna.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`name,${nm.join()}\nsienna,${[...spectrum].map((v) => (100 * v).toFixed(3)).join()}\n`),
    });
    await page.locator('[data-test=swatch]').waitFor();
    await page.locator('[data-test=keep-taught]').click();
    await soon(async () => (await tube('Sienna')).basis === 'fitted', 'it is fitted');
    await page.getByText('read by a reader').waitFor();
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await tube('Sienna')).basis === 'typical', 'taken back');
  });

  it('that are alike are told, on the rack and on their own page; another of one paint is one press, put away and brought back', async () => {
    await page
      .getByText(/is the same pigment, alike within what an eye sees/)
      .first()
      .waitFor();
    await sitting.open('tubes');
    await page.locator('[data-test=alike]').getByText('are one pigment, alike within what an eye sees').first().waitFor();
    await page
      .locator('h3 a')
      .filter({ hasText: /^Grass$/ })
      .click();
    await page.locator('[data-test=more]').click();
    await page.locator('[data-test=another]').click();
    await soon(async () => (await sitting.rows()).tubes!.filter(({ name }) => name === 'Grass').length === 2, 'two of them');
    await page.locator('[data-test=more]').click();
    await page.locator('[data-test=put-away]').click();
    await page.getByRole('radio', { name: 'put away' }).check({ force: true });
    await page
      .locator('h3 a')
      .filter({ hasText: /^Grass$/ })
      .click();
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await soon(
      async () => (await sitting.rows()).tubes!.filter(({ name, deletedAt }) => name === 'Grass' && deletedAt === null).length === 2,
      'it is back',
    );
  });
});

describe('palettes that reason', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  let paintingId: string;
  const palette = async (name: string) => (await sitting.rows()).palettes!.find((one) => one.name === name);

  it('begin with a usual one filled from the rack, are put in order by keys, and keep a guest for one sitting', async () => {
    await page.setViewportSize(LAPTOP);
    await sitting.openReference();
    ({ paintingId } = sitting);
    await sitting.goTo('Palettes');
    await page.locator('[data-test=start-from]').click();
    await page.getByText('Three and white').click();
    await soon(async () => (await palette('Three and white'))?.tubeIds.length === 4, 'four tubes');
    expect((await palette('Three and white'))!.mixedDarks).to.equal(true);
    const order = async () => (await palette('Three and white'))!.tubeIds;
    const [first, second] = (await order()) as [string, string];
    await page.locator(`[data-tube="${first}"]`).focus();
    await page.keyboard.press('Alt+ArrowRight');
    await soon(async () => (await order())[1] === first, 'it is the second');
    expect((await order())[0]).to.equal(second);
    const box = async (id: string) => (await page.locator(`[data-tube="${id}"] .chips`).boundingBox())!;
    const [from, to] = [await box(first), await box(second)];
    await page.mouse.move(from.x + 40, from.y + 30);
    await page.mouse.down();
    // A drag begins a moment after the hand has closed.
    await page.locator('.sortable-chosen').waitFor();
    await page.mouse.move(to.x + 60, to.y + 30, { steps: 12 });
    await page.mouse.move(to.x + 20, to.y + 30, { steps: 6 });
    await page.mouse.up();
    await soon(async () => (await order())[0] === first, 'dragged back');
    await page
      .locator(`[data-tube="${second}"]`)
      .getByRole('button', { name: /More of/ })
      .click();
    await page.getByText('For this sitting only').click();
    await page.locator('[data-test=guests]').getByRole('button').click();
    await soon(async () => (await order()).length === 3, 'the guest has gone');
  });

  for (const size of [LAPTOP, UPRIGHT])
    it(`show what their tubes make, live, any of it kept with one press, at ${size.width} px`, async () => {
      await page.setViewportSize(size);
      await page.getByRole('link', { name: 'Window and lamp' }).click();
      await page.locator('[data-test=view-made]').click();
      const chips = page.locator('[data-chip=made]');
      await chips.nth(20).waitFor();
      const all = await chips.count();
      await page
        .getByRole('group', { name: /Tubes in use/ })
        .getByRole('button', { name: 'Viridian' })
        .click();
      await page.getByText('Without Viridian.').waitFor();
      await soon(async () => (await chips.count()) < all, 'fewer chips');
      expect((await chips.evaluateAll((list) => list.map((one) => one.getAttribute('aria-label') ?? ''))).join()).to.not.match(/viridian/i);
      await page
        .getByRole('group', { name: /Tubes in use/ })
        .getByRole('button', { name: 'Viridian' })
        .click();
      await soon(async () => (await chips.count()) === all, 'as before');
      const piles = async () => (await sitting.rows(paintingId)).piles!.filter(({ deletedAt }) => deletedAt === null).length;
      const before = await piles();
      await chips.nth(12).click();
      await soon(async () => (await piles()) === before + 1, 'a pile of it');
      await page.keyboard.press('ControlOrMeta+z');
      await soon(async () => (await piles()) === before, 'undone');
      await page.getByRole('radio', { name: 'skins' }).check({ force: true });
      await soon(async () => (await chips.count()) > 20, 'skins');
      await page.getByRole('radio', { name: 'one value' }).check({ force: true });
      await page.getByLabel('Near a colour').fill('dusty blue');
      await page.locator('.chips .near').first().waitFor();
      await page.getByLabel('Near a colour').fill('');
    });

  it('lie beside one another on the same chips and targets, with what each cannot do', async () => {
    await page.setViewportSize(LAPTOP);
    await page.locator('[data-test=view-beside]').click();
    await page.locator('[data-test=chips]').nth(1).waitFor();
    await page
      .getByText(/of the picture matched/)
      .nth(1)
      .waitFor();
    const rows = await page.locator('.targets li').allInnerTexts();
    expect(rows.length).to.be.above(2);
    expect(rows.every((row) => /match|close|near|not with/.test(row))).to.equal(true);
  });

  it('say what they come to of the picture, who earns least, the one to add, and the best few', async () => {
    await page.locator('[data-test=view-picture]').click();
    await page.locator('[data-test=cover]').getByText('of the picture is matched').waitFor();
    await page.locator('[data-test=earns] li').first().waitFor();
    expect(await page.locator('[data-test=earns]').innerText()).to.match(/earns least/);
    await page.locator('[data-test=choose-few]').click();
    await page.locator('[data-test=few]').waitFor();
    expect(await page.locator('[data-test=few]').innerText()).to.match(/These 5 match \d+ %/);
    const before = (await sitting.rows()).palettes!.length;
    await page.locator('[data-test=lay-few]').click();
    await soon(async () => (await sitting.rows()).palettes!.length === before + 1, 'laid out');
    expect((await sitting.rows()).palettes!.at(-1)!.tubeIds).to.have.length(5);
  });

  it('of one tube say so, and nothing misleading', async () => {
    const [white] = (await sitting.rows()).tubes!;
    await sitting.elsewhere({ do: 'palette.add', id: crypto.randomUUID(), name: 'Alone', tubeIds: [white!.id] });
    await page.getByRole('link', { name: 'Alone' }).click();
    await page.locator('[data-test=view-made]').click();
    await page.getByText('These tubes make nothing of this value.').waitFor();
    await page.locator('[data-test=view-picture]').click();
    await page.locator('[data-test=cover]').getByText('of the picture is matched').waitFor();
  });
});
