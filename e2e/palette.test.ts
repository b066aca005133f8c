import { expect } from 'chai';
import type { PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import { Sitting, soon } from './studio.ts';

describe('a palette that becomes another', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const pile = async (name: string): Promise<PileDto> => (await sitting.rows(paintingId)).piles!.find((one) => one.name === name)!;
  let paintingId = '';

  it('names the piles that it strands, at once, in the head line, the list, the pile and on the ledge', async () => {
    ({ paintingId } = sitting);
    const { tubes, palettes, paintings } = await sitting.rows();
    const { paletteId } = paintings!.find(({ id }) => id === paintingId)!;
    const palette = palettes!.find(({ id }) => id === paletteId)!;
    const viridian = tubes!.find(({ name, id }) => name === 'Viridian' && palette.tubeIds.includes(id))!;
    expect(await page.locator('[data-test=stranded-head]').count()).to.equal(0);
    const rest = palette.tubeIds.filter((id) => id !== viridian.id);
    await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: palette.version, tubeIds: rest });
    const head = page.locator('[data-test=stranded-head]');
    await head.waitFor();
    expect(await head.innerText()).to.match(/Viridian gone: \d+ piles?/);
    await page
      .getByRole('link', { name: /not on this palette: Viridian/ })
      .first()
      .waitFor();
    await head.click();
    await page.getByRole('dialog', { name: 'These piles from another palette' }).getByRole('button', { name: 'Not now' }).click();
    const line = page.locator('[data-test=stranded]').first();
    expect(await line.innerText()).to.match(/not on this palette: Viridian/);
    await page.locator('a.pile:has([data-test=stranded])').first().click();
    await page.locator('[data-test=kept-recipe]').waitFor();
    expect(await page.locator('[data-test=stranded]').innerText()).to.match(/Viridian/);
    await page.getByRole('button', { name: 'Mix it from what is' }).click();
    await page.locator('[data-test=remade]').first().waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    // Back again, and nothing is stranded.
    const now = (await sitting.rows()).palettes!.find(({ id }) => id === palette.id)!;
    await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: now.version, tubeIds: palette.tubeIds });
    await head.waitFor({ state: 'detached' });
  });

  it('remakes them all in one step, two palettes beside one another, each with how near it comes', async () => {
    const { page } = sitting;
    const onEasel = async () => {
      const { palettes, paintings } = await sitting.rows();
      const { paletteId } = paintings!.find(({ id }) => id === paintingId)!;
      return palettes!.find(({ id }) => id === paletteId)!;
    };
    const { id: paletteId, version, tubeIds } = await onEasel();
    const viridian = (await sitting.rows()).tubes!.find(({ name, id }) => name === 'Viridian' && tubeIds.includes(id))!;
    await sitting.elsewhere({ do: 'palette.change', id: paletteId, version, tubeIds: tubeIds.filter((id) => id !== viridian.id) });
    const planned = async () => (await sitting.rows(paintingId)).piles!.filter(({ stages }) => stages.length === 0);
    await page.locator('[data-test=stranded-head]').click();
    const sheet = page.getByRole('dialog', { name: 'These piles from another palette' });
    await sheet.waitFor();
    const rows = sheet.locator('[data-test=remade-row]');
    expect(await rows.count()).to.equal((await planned()).length);
    const other = (await sitting.rows()).palettes!.find(({ id }) => id !== paletteId)!;
    await sitting.choose('palette-other', other.name);
    await soon(
      async () => (await rows.allInnerTexts()).every((text) => (text.match(/a match|close|near|not with these tubes/g) ?? []).length === 2),
      'both palettes answer',
    );
    const before = await planned();
    await sheet.locator('[data-test=remake-all]').click();
    await page.locator('[data-test=stranded-head]').waitFor({ state: 'detached' });
    const after = await planned();
    const lies = new Set((await onEasel()).tubeIds);
    for (const { plan } of after)
      for (const one of plan.heaps.flatMap(({ ingredients }) => ingredients)) if ('tube' in one) expect(lies.has(one.tube)).to.equal(true);
    // Keys are the place's once the sheet has gone.
    await sheet.waitFor({ state: 'hidden' });
    await page.keyboard.press('Control+z');
    await soon(
      async () => JSON.stringify((await planned()).map(({ plan }) => plan)) === JSON.stringify(before.map(({ plan }) => plan)),
      'as before, in one step',
    );
  });

  it('says how soon each recipe dries, where that is what is minded', async () => {
    await sitting.openPile(/^copper, body/);
    await page.locator('[data-test=wishes] summary').click();
    await sitting.choose('minding', 'drying fast');
    await page.locator('[data-test=dries]').waitFor();
    expect(await page.locator('[data-test=dries]').innerText()).to.match(/touch-dry in about \d+ to \d+ days/);
    await page
      .locator('[data-test=alternative]', { hasText: /touch-dry in about/ })
      .first()
      .waitFor();
    await sitting.choose('minding', 'little work');
  });

  it('brings a pile under the ceiling of strength in one press, and samples with it', async () => {
    const painting = (await sitting.rows()).paintings!.find(({ id }) => id === paintingId)!;
    await sitting.elsewhere({ do: 'painting.change', id: painting.id, version: painting.version, ceiling: 3 });
    const before = await pile('copper, body');
    const says = page.locator('[data-test=above-ceiling]');
    await says.waitFor();
    expect(await says.innerText()).to.match(/than it may get \(3\)/);
    await page.getByRole('button', { name: 'Bring it under' }).click();
    await says.waitFor({ state: 'detached' });
    const after = await pile('copper, body');
    expect(Math.hypot(after.target!.lab.a, after.target!.lab.b)).to.be.below(Math.hypot(before.target!.lab.a, before.target!.lab.b) - 5);
    expect(after.target!.lab.L).to.be.closeTo(before.target!.lab.L, 0.5);
    await sitting.openReference();
    await sitting.pointAt(0.29, 0.53);
    await page.locator('[data-test=under-ceiling]').waitFor();
    await page.keyboard.press('Control+z');
    await soon(async () => Math.abs((await pile('copper, body')).target!.lab.a - before.target!.lab.a) < 0.01, 'taken back');
  });

  it('tells what it does not understand of a colour that is said, without Enter', async () => {
    await page.getByRole('link', { name: 'Mixing' }).click();
    await page.getByRole('button', { name: /A new pile/ }).click();
    await page.locator('[data-test=said-colour]').pressSequentially('sap green hue');
    await page.getByText('“sap” is not a word for a colour that is known here.').waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
  });
});
