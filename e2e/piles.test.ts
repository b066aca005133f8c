import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Sitting } from './studio.ts';

const ledgeCount = (page: Page, n: number) => page.waitForFunction((want) => document.querySelectorAll('.ledge a.pile').length === want, n);

describe('a kept pile', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('opens from the ledge with recipe, beads, target and prediction, and alternatives', async () => {
    await sitting.openPile(/^copper, body/);
    await page.locator('[data-test=kept-recipe]').waitFor();
    expect(await page.getByLabel('Name of the pile').inputValue()).to.equal('copper, body');
    const steps = page.locator('[data-test=kept-recipe] ol li');
    expect(await steps.count()).to.be.at.least(2);
    await page.locator('[data-test=alternative]').first().waitFor();
    expect(await page.locator('[data-test=alternative]').count()).to.be.within(1, 3);
    const halves = page.locator('.halves .half');
    const [wanted, planned] = [(await halves.nth(0).boundingBox())!, (await halves.nth(1).boundingBox())!];
    expect(wanted.x + wanted.width, 'the halves touch').to.be.closeTo(planned.x, 0.01);
  });

  it('says how far it may be trusted, and how it looks under other lamps', async () => {
    await page.getByText('how sure').first().click();
    await page
      .getByText(/nine of ten such piles come out .*\(\d/)
      .first()
      .waitFor();
    const lamps = page.getByRole('radiogroup', { name: 'The lamp that chips are seen by' });
    expect(await lamps.getByRole('radio').allInnerTexts()).to.include('filament lamp');
    const colours = await lamps.locator('.lamp').evaluateAll((all) => all.map((l) => getComputedStyle(l).backgroundColor));
    expect(new Set(colours).size).to.be.above(1);
  });

  it('has beads at one scale that is said, true where they have room, and that grow with the amount', async () => {
    const kept = page.locator('[data-test=kept-recipe]');
    const drawn = async () => {
      const says = await kept.locator('[data-test=bead-scale]').innerText();
      const smaller = Number(/1 : (\d+)/.exec(says)?.[1] ?? 1);
      const mm = (await kept.locator('ol .step:has(.bead:not(.tip)) .parts').allInnerTexts()).map(parseFloat);
      const widths = await kept.locator('ol .bead:not(.tip)').evaluateAll((all) => all.map((bead) => bead.getBoundingClientRect().width));
      const room = await kept.evaluate((recipe) => recipe.getBoundingClientRect().width);
      widths.forEach((width, i) => {
        // Lengths are written in whole millimetres from ten on.
        expect((width / mm[i]!) * smaller, says).to.be.closeTo(96 / 25.4, 0.12 + (0.5 / mm[i]!) * (96 / 25.4));
        expect(width).to.be.below(room);
      });
      return mm[0]!;
    };
    await page.locator('[data-test=measure-beads]').click();
    await kept.locator('[data-test=bead-scale]').waitFor();
    const small = await drawn();
    await page.getByRole('button', { name: 'Larger pile' }).click();
    await page.getByText('is to be 6 ml').waitFor();
    expect((await drawn()) / small).to.be.closeTo(6 / 4, 0.15);
    await page.getByRole('button', { name: 'How you see' }).click();
    const bar = page.getByRole('slider', { name: 'Length of the bar' });
    await bar.focus();
    for (let i = 0; i < 12; i++) await bar.press('ArrowRight');
    await page.getByText('This screen was checked.').waitFor();
    await page.keyboard.press('Escape');
    const perMm = await page.evaluate(() => parseFloat(document.documentElement.style.getPropertyValue('--mm')));
    expect(perMm).to.be.above(96 / 25.4 + 0.1);
    const width = await kept
      .locator('ol .bead')
      .first()
      .evaluate((bead) => bead.getBoundingClientRect().width);
    const smaller = Number(/1 : (\d+)/.exec(await kept.locator('[data-test=bead-scale]').innerText())?.[1] ?? 1);
    const mm = parseFloat(await kept.locator('ol .parts').first().innerText());
    expect((width / mm) * smaller, 'true on this very screen').to.be.closeTo(perMm, 0.12 + (0.5 / mm) * perMm);
  });

  it('is renamed where its name stands', async () => {
    const name = page.getByLabel('Name of the pile');
    await name.fill('copper in halftone');
    await name.press('Enter');
    await page.getByRole('link', { name: /^copper in halftone/ }).waitFor();
    await page.reload();
    await name.waitFor();
    expect(await name.inputValue()).to.equal('copper in halftone');
  });

  it('offers what suits what the painter minds, and the way this painter dulls colours', async () => {
    const offered = () => page.locator('[data-test=alternative]').allInnerTexts();
    await page.locator('[data-test=alternative]').first().waitFor();
    const before = await offered();
    await page.locator('[data-test=wishes] summary').click();
    await sitting.choose('minding', 'letting light through');
    await page.waitForFunction((was) => {
      const now = [...document.querySelectorAll<HTMLElement>('[data-test=alternative]')].map((e) => e.innerText);
      return now.length > 0 && now.join() !== was;
    }, before.join());
    await sitting.choose('minding', 'little work');
    await page.waitForFunction(
      (was) => [...document.querySelectorAll<HTMLElement>('[data-test=alternative]')].map((e) => e.innerText).join() === was,
      before.join(),
    );
    await page.getByRole('button', { name: 'How you see' }).click();
    await page.getByRole('radio', { name: 'by earths and black' }).check();
    await page.getByRole('radio', { name: '± 25 %' }).check();
    await page.getByRole('button', { name: 'Done', exact: true }).click();
    const { rows } = (await page.evaluate(async () => (await fetch('/api/studio')).json())) as {
      rows: { settings: { knife: number; dulling: string }[] };
    };
    expect(rows.settings[0]).to.include({ knife: 0.25, dulling: 'earths' });
    await page.locator('[data-test=alternative]').first().waitFor();
  });

  it('takes an alternative instead', async () => {
    await page.locator('[data-test=alternative]').first().waitFor();
    const recipe = () => page.locator('[data-test=kept-recipe] ol').innerText();
    const before = await recipe();
    await page.locator('[data-test=alternative]').first().getByRole('button', { name: /^Take/ }).click();
    await page.waitForFunction((was) => (document.querySelector('[data-test=kept-recipe] ol') as HTMLElement).innerText !== was, before);
  });

  it('steps through at the easel by space, tap and a step back', async () => {
    await page.getByRole('link', { name: 'At the easel' }).click();
    const count = page.locator('.count');
    await count.waitFor();
    expect(await count.innerText()).to.match(/1 of/);
    expect(await page.locator('.easel').innerText()).to.match(/wanted[\s\S]+mixed[\s\S]+the pile then[\s\S]+Lay out/);
    await page.keyboard.press(' ');
    expect(await count.innerText()).to.match(/2 of/);
    await page.getByRole('button', { name: 'A step back' }).click();
    expect(await count.innerText()).to.match(/1 of/);
    await page.mouse.click(600, 400);
    expect(await count.innerText()).to.match(/2 of/);
    await page.keyboard.press('ArrowLeft');
    expect(await count.innerText()).to.match(/1 of/);
    await page.keyboard.press('Escape');
    await page.getByLabel('Name of the pile').waitFor();
  });

  it('holds the screen awake at the easel and lets go of it after', async () => {
    // As text, since what is passed as a function carries names that the page does not know.
    await page.evaluate(`
      window.lock = { held: 0 };
      const sentinel = { release: async () => void window.lock.held--, addEventListener: () => {}, removeEventListener: () => {} };
      Object.defineProperty(navigator, 'wakeLock', { configurable: true, value: { request: async () => (window.lock.held++, sentinel) } });
    `);
    const held = () => page.evaluate(() => (window as unknown as { lock: { held: number } }).lock.held);
    await page.getByRole('link', { name: 'At the easel' }).click();
    await page.locator('.easel').waitFor();
    await page.waitForFunction(() => (window as unknown as { lock: { held: number } }).lock.held === 1);
    await page.keyboard.press('Escape');
    await page.getByLabel('Name of the pile').waitFor();
    await page.waitForFunction(() => (window as unknown as { lock: { held: number } }).lock.held === 0);
    expect(await held()).to.equal(0);
  });

  it('is put away and brought back', async () => {
    const before = await page.locator('.ledge a.pile').count();
    await sitting.more('Put this pile away');
    await ledgeCount(page, before - 1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await ledgeCount(page, before);
  });

  it('shows both names when another window changed the one under the hand', async () => {
    await sitting.openPile(/^copper in halftone/);
    const name = page.getByLabel('Name of the pile');
    const id = page.url().split('/').at(-1)!;
    const { version } = (await sitting.rows(sitting.paintingId)).piles!.find((p) => p.id === id)!;
    await name.fill('named here');
    await sitting.elsewhere({ do: 'pile.change', id, version, name: 'named elsewhere' });
    await page
      .getByRole('link', { name: /named elsewhere/ })
      .first()
      .waitFor();
    expect(await name.inputValue(), 'what is under the hand stays').to.equal('named here');
    await name.press('Enter');
    const conflict = page.locator('[data-test=conflict]');
    await page.locator('[data-test=waits]', { hasText: '1 to choose' }).click();
    await conflict.getByText('changed in another window').waitFor();
    expect(await conflict.locator('[data-test=mine]').innerText()).to.equal('named here');
    await conflict.getByRole('button', { name: 'Keep theirs' }).click();
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Name of the pile"]') as HTMLInputElement).value === 'named elsewhere',
    );
  });
});

describe('a pile out of reach', () => {
  it('tells the nearest in value, in hue and overall, and which tube would help', async () => {
    const sitting = await Sitting.begin();
    const { page } = sitting;
    await sitting.openReference('Courtyard, washing day');
    const { paintingId } = sitting;
    const palette = (await sitting.rows()).palettes!.find((p) => p.name.startsWith('Courtyard'))!;
    await sitting.elsewhere({
      do: 'pile.add',
      id: crypto.randomUUID(),
      paintingId,
      name: 'a green beyond it',
      target: { kind: 'absolute', lab: { L: 60, a: -75, b: 45 } },
      plan: { form: 1, heaps: [{ ingredients: [{ tube: palette.tubeIds[0], parts: 1 }] }] },
      ml: 4,
    });
    await page.reload();
    await page.getByRole('link', { name: /^a green beyond it/ }).click();
    await page.getByText('Out of reach of this palette').waitFor();
    for (const kind of ['nearest in value', 'nearest in hue', 'nearest overall']) await page.getByText(kind).waitFor();
    await page.getByText(/One tube more: .+\((a match|close|near|not with these tubes)\)/).waitFor();
    expect(sitting.faults).to.deep.equal([]);
    await sitting.end();
  });
});

describe('the palette', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('shows its tubes by masstone and tint', async () => {
    await page.getByRole('link', { name: 'Palettes' }).click();
    const tubes = page.locator('section.open .tubes').first().locator('article');
    await tubes.first().waitFor();
    expect(await tubes.count()).to.equal(6);
    expect(await tubes.first().locator('.chip').count()).to.equal(2);
    await page.getByText('on the table for').waitFor();
  });

  it('changes the live recipe when a tube is taken away', async () => {
    await sitting.openReference();
    await sitting.pointAt(0.53, 0.56);
    const recipe = page.locator('[data-test=recipe]');
    await recipe.waitFor();
    expect(await recipe.innerText()).to.include('Viridian');
    await page.getByRole('link', { name: 'Palettes' }).click();
    await page.getByRole('button', { name: 'Take Viridian away' }).click();
    await page.getByText('Changed “').first().waitFor();
    await sitting.openReference();
    await sitting.pointAt(0.53, 0.56);
    await recipe.waitFor();
    expect(await recipe.innerText()).to.not.include('Viridian');
  });

  it('is made anew from the catalogue, and put to use', async () => {
    await page.getByRole('link', { name: 'Palettes' }).click();
    await page.getByRole('button', { name: 'New palette' }).click();
    const search = page.getByRole('textbox', { name: 'Name, pigment or character' });
    for (const [wanted, name] of [
      ['terre verte', 'Add Terre verte, generic'],
      ['PBk9 ivory', 'Add Ivory black, generic'],
    ] as const) {
      await search.fill(wanted);
      await page.getByRole('button', { name }).click();
      await page.getByRole('button', { name }).waitFor({ state: 'detached' });
    }
    const name = page.getByLabel('Name of the palette');
    await name.fill('Nearly nothing');
    await name.press('Enter');
    await page.getByRole('link', { name: 'Nearly nothing' }).waitFor();
    await page.getByRole('button', { name: /^Paint “/ }).click();
    await page.getByText('on the table for').waitFor();
    await sitting.openReference();
    await sitting.pointAt(0.53, 0.56);
    const recipe = page.locator('[data-test=recipe]');
    await recipe.waitFor();
    expect(await recipe.innerText()).to.not.match(/Viridian|Ultramarine|Yellow oxide/);
  });

  it('that a painting needs is not put away', async () => {
    await page.getByRole('link', { name: 'Palettes' }).click();
    await page.getByRole('link', { name: 'Nearly nothing' }).click();
    await page.getByRole('button', { name: 'Put this palette away' }).click();
    await page.getByText('is painted from this palette').waitFor();
  });
});
