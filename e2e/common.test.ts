import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

describe('one heap for several piles, on the page', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('is offered in the list, seen before, taken in two actions, mixed first, and taken back in one', async () => {
    const hand = new Hand(page);
    const { paintingId } = sitting;
    const piles = async () => (await sitting.rows(paintingId)).piles!;
    const { tubes } = await sitting.rows();
    const of = (pigment: string, parts: number) => {
      const { id, stateId } = tubes!.find((tube) => tube.pigment === pigment)!;
      return { tube: id, state: stateId, parts };
    };
    const darks = [0, 1, 2, 4].map((white) => ({
      id: crypto.randomUUID(),
      heaps: [
        {
          ingredients: [...(white > 0 ? [of('titanium-white', white)] : []), of('transparent-oxide-red', 3), of('ultramarine-blue', 2)],
        },
      ],
    }));
    await sitting.elsewhere(
      ...darks.map(({ id, heaps }, i) => ({ do: 'pile.add', id, paintingId, name: `dark ${i}`, plan: { form: 1, heaps }, ml: 4 })),
    );
    await sitting.open(`painting/${paintingId}/mixing`);
    const offer = page.locator('[data-test=common]');
    await offer.waitFor();
    expect(await offer.innerText()).to.match(/would do for [3-6] of these/);
    const before = await piles();
    await hand.press('See it');
    const kept = page.locator('[data-test=keep-common]');
    await kept.waitFor();
    const count = await page.locator('[data-test=into]').count();
    expect(count).to.be.at.least(3);
    await kept.click();
    hand.actions++;
    expect(hand.actions).to.equal(2);
    await soon(async () => (await piles()).length === before.length + 1, 'the heap is planned');
    const now = await piles();
    const heap = now.find(({ id }) => !before.some((pile) => pile.id === id))!;
    const takers = now.filter(({ plan }) => JSON.stringify(plan).includes(heap.id));
    expect(takers.length).to.equal(count);
    // There is enough of it, and at the easel it comes before what takes of it.
    expect(heap.ml).to.be.above(1);
    await page.getByRole('link', { name: /^Mix all .* at the easel/ }).click();
    await page.getByRole('button', { name: 'Leave the easel' }).waitFor();
    const text = await page.locator('main').innerText();
    expect(text).to.include(heap.name);
    await page.getByRole('button', { name: 'Leave the easel' }).click();
    await offer.waitFor({ state: 'detached' });
    await page.keyboard.press('Control+z');
    await soon(async () => (await piles()).length === before.length, 'taken back');
    for (const { id } of darks)
      expect((await piles()).find((pile) => pile.id === id)!.plan).to.deep.equal(before.find((pile) => pile.id === id)!.plan);
  });
});
