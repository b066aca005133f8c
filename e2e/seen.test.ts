import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Sitting, soon } from './studio.ts';

/** Sheets that are opened by a press, and what to press. */
const SHEETS: readonly (readonly [label: string, open: (sitting: Sitting) => Promise<void>])[] = [
  ['A new pile', ({ page }) => page.getByRole('button', { name: /A new pile/ }).click()],
  ['Print', ({ page }) => page.keyboard.press('p')],
  ['A tube that is forgotten', (sitting) => sitting.more('A tube forgotten')],
  ['How you see', ({ page }) => page.getByRole('button', { name: 'How you see' }).click()],
  ['Keys', ({ page }) => page.getByRole('button', { name: 'Keys', exact: true }).click()],
];

describe('where the focus is', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const cards = async (): Promise<number> =>
    ((await (await fetch(`${sitting.running.address}api/cards-found`)).json()) as { of: number }).of;
  const focused = () => page.evaluate(() => document.activeElement?.closest('[data-sheet], .field, form') !== null);

  it('is in every sheet, however often it is opened, and at its top', async () => {
    await page.getByRole('link', { name: 'Mixing' }).click();
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    const before = await cards();
    for (const [label, open] of SHEETS)
      for (let time = 0; time < 2; time++) {
        await open(sitting);
        // Letters that come at once are the sheet's, not the place's behind it.
        await page.keyboard.press('c');
        const dialog = page.locator('[data-sheet]');
        await dialog.waitFor();
        await soon(focused, `${label}: the focus is in it, opening ${time + 1}`);
        expect(await dialog.evaluate((sheet) => sheet.scrollTop), `${label} begins at its top`).to.equal(0);
        await page.keyboard.press('Escape');
        await dialog.waitFor({ state: 'detached' }).catch(() => page.keyboard.press('Escape'));
        await page.locator('[data-sheet]').waitFor({ state: 'detached' });
      }
    expect(await cards(), 'no card was made by a letter').to.equal(before);
  });

  it('is in the field for tubes each time it comes, where results are seen and the best name is first', async () => {
    await page.getByRole('link', { name: 'Palettes' }).click();
    const before = await cards();
    const field = page.getByLabel('Name, pigment or character; Enter adds the first');
    const at = page.url();
    const focused = () => soon(() => field.evaluate((one) => one === document.activeElement).catch(() => false), 'the field has the focus');
    for (let time = 0; time < 2; time++) {
      await page.getByRole('button', { name: 'Add a tube' }).click();
      await focused();
      await page.keyboard.type('cobalt');
      await soon(async () => (await field.inputValue()) === 'cobalt', 'what was typed is in the field');
      await page.getByRole('button', { name: 'Done', exact: true }).click();
    }
    await page.getByRole('button', { name: 'New palette' }).click();
    await page.waitForURL((url) => url.href !== at);
    await field.waitFor();
    await focused();
    await sitting.quiet();
    await page.keyboard.type('cad yel');
    await soon(async () => (await field.inputValue()) === 'cad yel', 'in the field of a new palette');
    expect(await cards(), 'no card was made by typing').to.equal(before);
    const found = page.locator('[data-test=tubes-found]');
    const ledge = (await page.locator('.ledge').boundingBox())!;
    const box = (await found.boundingBox())!;
    expect(box.y + Math.min(box.height, 100), 'results are above the ledge').to.be.below(ledge.y);
    expect(await found.innerText()).to.match(/^Cadmium yellow\n/);
    await field.press('Enter');
    await soon(async () => {
      const { palettes, tubes } = await sitting.rows();
      const palette = palettes!.find(({ name }) => name === 'New palette')!;
      return palette.tubeIds.some((id) => tubes!.find((tube) => tube.id === id)!.name === 'Cadmium yellow');
    }, 'cadmium yellow is on it');
    expect((await field.boundingBox())!.y, 'the field has not slid away').to.be.within(0, 400);
  });
});

describe('what is seen', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('keeps its colours where a system puts its own on pages', async () => {
    const colours = () =>
      page
        .locator('[data-chip], .blob, .bead, .swatch, .chip, .dab, .half')
        .evaluateAll((all) => all.map((one) => getComputedStyle(one).backgroundColor));
    const { paintingId } = sitting;
    for (const path of [`painting/${paintingId}/reference`, `painting/${paintingId}/mixing`, 'palettes', 'tubes', 'cards']) {
      await page.goto(`${sitting.running.address}${path}`);
      await page.locator('.ledge .blob').first().waitFor();
      // A long list goes on being laid, a slice at a time.
      let there = 0;
      const isLaid = async (): Promise<boolean> => {
        const before = there;
        there = (await colours()).length;
        return there > 5 && there === before;
      };
      await soon(isLaid, `${path} shows colours`);
      const plain = new Set(await colours());
      await page.emulateMedia({ forcedColors: 'active' });
      const forced = new Set(await colours());
      await page.emulateMedia({ forcedColors: 'none' });
      expect(
        [...forced].filter((colour) => !plain.has(colour)),
        path,
      ).to.deep.equal([]);
      expect(forced.size, path).to.be.above(3);
    }
  });

  it('is the first nudge, after the white of the screen is asked for', async () => {
    await sitting.openReference();
    await sitting.openPile(/^copper, body/);
    await page.keyboard.press(' ');
    await page.getByText('What did you get?').waitFor();
    await page.keyboard.press('ArrowUp');
    const sheet = page.locator('[data-sheet]');
    await sheet.waitFor();
    await sheet
      .getByRole('button', { name: /outshines|cannot|paper/i })
      .last()
      .click();
    await sheet.waitFor({ state: 'detached' });
    await soon(async () => /lighter/.test(await page.locator('[data-reading=mixed]').innerText()), 'it is lighter');
    await page.keyboard.press('m');
    await page.locator('[data-test=as-wanted]').waitFor();
    await page.reload();
    await page.locator('[data-test=as-wanted]').waitFor();
    expect(await page.locator('[data-test=addition]').count(), 'nothing is to be added').to.equal(0);
  });

  it('is the row that was kept, and the way to the card that was made', async () => {
    await sitting.openReference('Courtyard, washing day');
    await sitting.openPile(/^door/);
    await page.keyboard.press('c');
    await page.locator('[data-test=its-card]').click();
    await page.locator('[data-test=open-card]').waitFor();
    await page.goBack();
    await page.locator('[data-test=standing]').waitFor();
    await page.keyboard.press('3');
    const dark = page.getByRole('button', { name: /dark and light|light and dark|to dark/i }).first();
    if ((await dark.count()) > 0) await dark.click();
    await page.locator('[data-test=string-plan]').waitFor();
    await page.locator('main').focus();
    await page.keyboard.press('Enter');
    // The strip goes with the pile it stands in, and the first of the new piles opens.
    await soon(async () => (await page.locator('[data-test=string-strip] a').count()) >= 3, 'the row stands');
  });

  it('is the whole at twice its size: the recipe, the key that keeps, the amounts at the easel', async () => {
    await page.setViewportSize({ width: 640, height: 400 });
    await sitting.openReference();
    await sitting.openPile(/^glaze, halftone/);
    const ledge = () => page.locator('.ledge').boundingBox();
    const step = (await page.locator('[data-test=kept-recipe]').boundingBox())!;
    expect(step.y, 'the recipe begins above the ledge').to.be.below((await ledge())!.y);
    await page.getByRole('link', { name: 'At the easel', exact: true }).click();
    await page.locator('[data-test=done-this]').waitFor();
    const done = (await page.locator('[data-test=done-this]').boundingBox())!;
    for (const amount of await page.locator('.easel .amount').all()) {
      const box = (await amount.boundingBox())!;
      const isOver =
        box.x < done.x + done.width && done.x < box.x + box.width && box.y < done.y + done.height && done.y < box.y + box.height;
      expect(isOver, 'no key lies on an amount').to.equal(false);
    }
    await page.keyboard.press('Escape');
  });

  for (const [width, height] of [
    [390, 844],
    [820, 1180],
    [640, 400],
  ] as const)
    it(`is Keep, whole above the ledge, also once a mark was touched (${width} x ${height})`, async () => {
      await page.setViewportSize({ width, height });
      await sitting.openReference();
      for (let i = 0; i < 6; i++) {
        const stage = (await page.locator('[role=application]').boundingBox())!;
        await page.mouse.click(stage.x + stage.width * (0.15 + 0.13 * i), stage.y + stage.height * (0.2 + 0.1 * i));
        await page.locator('[data-test=held]').waitFor();
        const keep = page.getByRole('button', { name: /Keep this pile/ });
        await keep.waitFor();
        const box = (await keep.boundingBox())!;
        const ledge = (await page.locator('.ledge').boundingBox())!;
        expect(box.y + box.height, `point ${i}`).to.be.at.most(ledge.y + 0.5);
        const hit = await page.evaluate(
          ([x, y]) => document.elementFromPoint(x!, y!)?.closest('button')?.className ?? '',
          [box.x + box.width / 2, box.y + box.height / 2],
        );
        expect(hit, `point ${i}: nothing lies on it`).to.match(/keep/);
      }
    });
});
