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

  it('says how soon each recipe dries, where that is what is minded', async () => {
    await sitting.openPile(/^copper, body/);
    await page.locator('[data-test=minding]').selectOption('fast');
    await page.locator('[data-test=dries]').waitFor();
    expect(await page.locator('[data-test=dries]').innerText()).to.match(/touch-dry in about \d+ to \d+ days/);
    await page
      .locator('[data-test=alternative]', { hasText: /touch-dry in about/ })
      .first()
      .waitFor();
    await page.locator('[data-test=minding]').selectOption('usual');
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
