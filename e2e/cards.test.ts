import { expect } from 'chai';
import type { CardDto, CardsFound } from '@dusk/wire';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

describe('cards, on the page', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const kept = async (): Promise<readonly CardDto[]> =>
    ((await (await fetch(`${sitting.running.address}api/cards-found`)).json()) as CardsFound).cards;

  it('say what they are for while there are none', async () => {
    await page.getByRole('link', { name: 'Cards' }).click();
    await page.getByText('No cards yet').waitFor();
    await page.goBack();
  });

  it('are made of an open pile with one key', async () => {
    for (const [name, count] of [
      ['copper, body', 1],
      ['wall near the lamp', 2],
    ] as const) {
      await sitting.openPile(new RegExp(`^${name}`));
      const hand = new Hand(page);
      await hand.key('c');
      await soon(async () => (await kept()).length === count, `a card of ${name}`);
      expect(hand.actions).to.equal(1);
    }
    const [dark, light] = await kept();
    expect(dark!.name).to.equal('copper, body');
    expect(light!.seen, 'how it looked').to.not.equal(null);
  });

  it('are found by value first, and by words', async () => {
    await page.getByRole('link', { name: 'Cards' }).click();
    await page.locator('[data-test=card]').nth(1).waitFor();
    expect(await page.locator('[data-test=card] h2').allInnerTexts()).to.satisfy(
      (all: string[]) => /copper/.test(all[0]!) && /wall/.test(all[1]!),
    );
    await page.getByLabel('value from').fill('5');
    expect(await page.locator('[data-test=found]').innerText()).to.equal('1 of 2');
    await page.getByLabel('value from').fill('0');
    await page.locator('[data-test=find-words]').fill('viridian copper');
    await soon(async () => (await page.locator('[data-test=card]').count()) === 1, 'by tube and thing');
    await page.locator('[data-test=find-words]').fill('nowhere');
    await soon(async () => (await page.locator('[data-test=card]').count()) === 0, 'nothing');
    await page.locator('[data-test=find-words]').fill('');
  });

  it('are used in another painting in two actions, from today’s tubes', async () => {
    await sitting.openReference('Courtyard, washing day');
    const { paintingId } = sitting;
    const before = (await sitting.rows(paintingId)).piles!.length;
    const hand = new Hand(page);
    hand.actions++;
    await page.getByRole('link', { name: 'Cards' }).click();
    await hand.press('Use copper, body in the painting on the easel');
    await page.getByRole('heading', { name: 'Pile copper, body' }).waitFor();
    expect(hand.actions).to.equal(2);
    await soon(async () => (await sitting.rows(paintingId)).piles!.length === before + 1, 'a pile is planned');
    const [card] = await kept();
    const pile = (await sitting.rows(paintingId)).piles!.find(({ name }) => name === 'copper, body')!;
    expect(pile.plan.heaps.map(({ ingredients }) => ingredients.map(({ parts }) => parts))).to.deep.equal(
      card!.recipe.heaps.map(({ ingredients }) => ingredients.map(({ parts }) => parts)),
    );
    expect(Math.abs(pile.predicted.lab.L - card!.predicted.L)).to.be.below(3);
  });

  it('stay as they were, are put away, and come back', async () => {
    await page.getByRole('link', { name: 'Cards' }).click();
    await page.getByRole('button', { name: 'Put the card copper, body away' }).click();
    await soon(async () => (await kept()).length === 1, 'put away');
    await page.keyboard.press('Control+z');
    await soon(async () => (await kept()).length === 2, 'back');
  });
});
