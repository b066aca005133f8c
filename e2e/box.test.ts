import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

/** The inherited box: twenty-three tubes, three of one pigment, two ready mixed, one that nobody knows. */
const BOX = [
  'ti white',
  'zinc white',
  'cad yellow',
  'y ochre',
  'raw s',
  'burnt s',
  'burnt sienna',
  'old sienna PBr7',
  'raw umber',
  'burnt umber',
  'venetian red',
  'cad red',
  'alizarin',
  'quin rose',
  'ult blue',
  'cobalt blue',
  'cerulean',
  'prussian',
  'viridian',
  'ivory black',
  'Meadow PY43 PG18',
  'Dusk PB29 PBk9',
  'no label',
].join('\n');

describe('an inherited box', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await page.setViewportSize({ width: 1280, height: 800 });
  });
  after(() => sitting.end());
  const own = async () =>
    (await sitting.rows()).tubes!.filter(({ maker, deletedAt }) => maker !== '' && maker !== 'Harrow Lane Colours' && deletedAt === null);

  it('is in the rack, taught in part, and a palette of five for the picture, in few actions', async () => {
    await sitting.openReference('Courtyard, washing day');
    await sitting.goTo('Tubes');
    const hand = new Hand(page);
    await hand.key('n');
    await page.locator('[data-test=tubes-said] textarea').first().fill(BOX);
    hand.actions++;
    // The one without a label begins like a tube that is chosen.
    const unknown = page.locator('[data-test=tube-said]').filter({ hasText: 'No label' });
    await sitting.chooseIn(unknown.locator('input').first(), 'Raw umber, PBr7');
    hand.actions += 2;
    await hand.press('Add 23 tubes');
    await soon(async () => (await own()).length === 23, 'twenty-three tubes');
    expect(hand.actions).to.equal(5);
    const tubes = await own();
    expect(tubes.find(({ name }) => name === 'Meadow')!.pigments).to.deep.equal(['yellow-ochre', 'viridian']);
    expect(tubes.find(({ name }) => name === 'No label')!.pigments).to.deep.equal(['No label']);

    // What is there twice, and what others make.
    const told = page.locator('[data-test=alike]');
    await told.waitFor();
    expect(await told.innerText()).to.match(/are one pigment, alike within what an eye sees/);
    await page
      .locator('h3 a')
      .filter({ hasText: /^Meadow$/ })
      .click();
    await page.locator('[data-test=ready-made]').waitFor();
    expect(await page.locator('[data-test=ready-made]').innerText()).to.match(
      /viridian and \d+ yellow ochre|yellow ochre and \d+ viridian/,
    );

    // Its colour comes back from the tubes on the palette.
    await page.keyboard.press('m');
    await page.locator('[data-test=standing]').waitFor();
    await soon(
      async () => (await sitting.rows(sitting.paintingId)).piles!.some(({ name }) => name === 'Meadow, mixed'),
      'a pile of it from others',
    );

    // Four by one card.
    await sitting.goTo('Tubes');
    await page
      .locator('h3 a')
      .filter({ hasText: /^Viridian$/ })
      .first()
      .click();
    hand.actions++;
    await hand.key('t');
    for (const name of ['Cobalt blue', 'Quinacridone rose', 'Prussian blue']) {
      await sitting.chooseIn(page.locator('.ask .pick').filter({ hasText: 'also on it' }).locator('input'), name);
      hand.actions += 2;
    }
    await hand.click(page.locator('[data-test=stand-in-camera]'));
    await page.locator('[data-test=taught-sum]').nth(3).waitFor();
    expect(await page.locator('[data-test=swatch]').count()).to.equal(16);
    await hand.click(page.locator('[data-test=keep-taught]'));
    // Four, and the one of the sample studio.
    await soon(
      async () => (await sitting.rows()).tubes!.filter(({ basis, learnt }) => (learnt?.basis ?? basis) === 'fitted').length === 5,
      'four are taught',
    );

    // Five for the picture, with what each of the others would add.
    await sitting.goTo('Palettes');
    await hand.click(page.locator('[data-test=view-picture]'));
    await hand.click(page.locator('[data-test=choose-few]'));
    await page.locator('[data-test=few]').waitFor({ timeout: 60_000 });
    // What a tube more would bring is told where it brings something, and no other is offered.
    for (const more of await page.getByText(/One more would be/).allInnerTexts()) expect(more).not.to.match(/nothing/);
    await hand.click(page.locator('[data-test=lay-few]'));
    await soon(
      async () => (await sitting.rows()).palettes!.some(({ name, tubeIds }) => name.startsWith('Few for') && tubeIds.length === 5),
      'laid out',
    );
    expect(hand.actions).to.be.at.most(22);
    expect(sitting.faults).to.deep.equal([]);
  });
});
