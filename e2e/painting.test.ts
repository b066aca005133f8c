import { expect } from 'chai';
import sharp from 'sharp';
import type { Locator } from 'playwright-core';
import { Sitting, soon } from './studio.ts';

const text = async (locator: Locator): Promise<string> => (await locator.innerText()).replace(/\s+/g, ' ').trim();

describe('a painter at the reference', () => {
  let sitting: Sitting;
  before(async () => (sitting = await Sitting.begin()));
  after(() => sitting.end());
  beforeEach(() => sitting.openReference());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('reads colour, value, temperature and recipe under the pointer, live', async () => {
    const { page } = sitting;
    const recipe = page.locator('[data-test=recipe]');
    await sitting.pointAt(0.3, 0.55);
    await recipe.waitFor();
    const copper = await text(page.locator('aside'));
    expect(copper).to.match(/value \d\.\d/);
    expect(copper).to.match(/warm|cool|neutral/);
    expect(copper).to.match(/a match|close|near/);
    const firstRecipe = await text(recipe);
    await sitting.pointAt(0.53, 0.56);
    await soon(async () => (await text(recipe)) !== firstRecipe, 'another recipe');
  });

  it('sets the two colours edge to edge on a strictly neutral surround', async () => {
    const { page } = sitting;
    await sitting.pointAt(0.3, 0.55);
    const seen = page.locator('aside [data-chip=target]');
    const mixed = page.locator('aside [data-chip=mixed]');
    await mixed.waitFor();
    const [a, b] = [(await seen.boundingBox())!, (await mixed.boundingBox())!];
    expect(a.x + a.width).to.be.closeTo(b.x, 0.01);
    const style = await mixed.evaluate((chip) => {
      const own = getComputedStyle(chip);
      return {
        shadow: own.boxShadow,
        border: own.borderWidth,
        image: own.backgroundImage,
        around: getComputedStyle(chip.closest('.judging')!).backgroundColor,
      };
    });
    expect(style).to.include({ shadow: 'none', border: '0px', image: 'none' });
    const [r, g, bl] = style.around.match(/\d+/g)!.map(Number) as [number, number, number];
    expect(new Set([r, g, bl]).size).to.equal(1);
  });

  it('changes the area by wheel and by keys', async () => {
    const { page } = sitting;
    await sitting.pointAt(0.4, 0.4);
    const ring = page.locator('.ring');
    await ring.waitFor();
    const width = async () => (await ring.boundingBox())!.width;
    const first = await width();
    await page.mouse.wheel(0, -120);
    await page.waitForFunction((was) => document.querySelector('.ring')!.getBoundingClientRect().width > was, first);
    const larger = await width();
    await page.keyboard.press('-');
    await page.waitForFunction((was) => document.querySelector('.ring')!.getBoundingClientRect().width < was, larger);
  });

  it('changes the area by one step a key, also while the picture has the focus', async () => {
    const { page } = sitting;
    await sitting.pointAt(0.4, 0.4);
    await page.locator('.ring').waitFor();
    const radius = () => page.evaluate(() => Number(localStorage.getItem('dusk.areaRadius')));
    await page.keyboard.press('-');
    const unfocused = await radius();
    await page.locator('[role=application]').focus();
    await page.keyboard.press('+');
    expect(await radius()).to.equal(Math.round(unfocused * 1.25) + 1);
  });

  it('keeps a pile with one press; it lies on the ledge after a reload and a restart', async () => {
    const { page } = sitting;
    const piles = page.locator('.ledge a.pile');
    const before = await piles.count();
    await sitting.pointAt(0.72, 0.62);
    await page.locator('[data-test=recipe]').waitFor();
    await page.mouse.down();
    await page.mouse.up();
    await page.getByText(/^Kept “/).waitFor();
    await page.waitForFunction((n) => document.querySelectorAll('.ledge a.pile').length === n, before + 1);
    const names = async () => (await piles.evaluateAll((all) => all.map((a) => a.getAttribute('aria-label')))).sort();
    const kept = await names();
    await page.reload();
    await piles.first().waitFor();
    expect(await names()).to.deep.equal(kept);
    await sitting.restartServer();
    await page.reload();
    await piles.first().waitFor();
    expect(await names()).to.deep.equal(kept);
  });

  it('points with a finger without keeping, and keeps with the button', async () => {
    const { page } = sitting;
    const before = await page.locator('.ledge a.pile').count();
    await page.locator('[role=application]').evaluate((picture) => {
      const box = picture.getBoundingClientRect();
      const at = { clientX: box.x + box.width * 0.45, clientY: box.y + box.height * 0.85, bubbles: true };
      picture.dispatchEvent(new PointerEvent('click', { ...at, pointerType: 'touch' }));
    });
    await page.locator('[data-test=recipe]').waitFor();
    expect(await page.locator('.ledge a.pile').count()).to.equal(before);
    await page.getByRole('button', { name: /^Keep this pile/ }).click();
    await page.waitForFunction((n) => document.querySelectorAll('.ledge a.pile').length === n, before + 1);
  });

  it('lays piles left to right by value, warm above and cool below', async () => {
    const { page } = sitting;
    const spots = await page.locator('.ledge a.pile').evaluateAll((all) =>
      all.map((a) => {
        const box = a.getBoundingClientRect();
        return { label: a.getAttribute('aria-label')!, x: box.x + box.width / 2, y: box.y + box.height / 2 };
      }),
    );
    const ledge = (await page.locator('.ledge').boundingBox())!;
    expect(spots.length).to.be.above(4);
    const values = spots.map((s) => Number(/value (\d+\.\d)/.exec(s.label)![1]));
    spots.forEach((s, i) => {
      if (i > 0 && values[i]! > values[i - 1]! + 0.05) expect(s.x).to.be.above(spots[i - 1]!.x);
      if (/ warm|fairly warm/.test(s.label)) expect(s.y, s.label).to.be.below(ledge.y + ledge.height / 2 + 1);
      if (/ cool/.test(s.label)) expect(s.y, s.label).to.be.above(ledge.y + ledge.height / 2 - 1);
    });
  });

  it('takes back a kept pile with undo', async () => {
    const { page } = sitting;
    const before = await page.locator('.ledge a.pile').count();
    await sitting.pointAt(0.2, 0.8);
    await page.locator('[data-test=recipe]').waitFor();
    await page.keyboard.press('k');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.waitForFunction((n) => document.querySelectorAll('.ledge a.pile').length === n, before);
  });

  it('is worked by keyboard alone, from the paintings to a kept pile', async () => {
    const { page } = sitting;
    await sitting.open('paintings');
    const focused = () =>
      page.evaluate(() => (document.activeElement instanceof HTMLAnchorElement ? document.activeElement.innerText : ''));
    for (let i = 0; i < 30 && !(await focused()).includes('Oil can'); i++) await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await page.locator('[role=application]').waitFor();
    const role = () => page.evaluate(() => document.activeElement?.getAttribute('role') ?? '');
    for (let i = 0; i < 30 && (await role()) !== 'application'; i++) await page.keyboard.press('Tab');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Shift+ArrowDown');
    await page.locator('[data-test=recipe]').waitFor();
    const before = await page.locator('.ledge a.pile').count();
    await page.keyboard.press('Enter');
    await page.waitForFunction((n) => document.querySelectorAll('.ledge a.pile').length === n, before + 1);
  });

  it('turns everything grey and back, and squints', async () => {
    const { page } = sitting;
    const filterOf = (selector: string) =>
      page
        .locator(selector)
        .first()
        .evaluate((one) => getComputedStyle(one).filter);
    await sitting.pointAt(0.4, 0.4);
    await page.locator('aside .chips').waitFor();
    expect(await filterOf('.frame')).to.equal('none');
    await page.keyboard.press('g');
    expect(await filterOf('.frame')).to.include('sight-grey');
    await page.keyboard.press('s');
    expect(await filterOf('aside .chips')).to.include('sight-squint');
    expect(await filterOf('[data-test=recipe]'), 'words stay sharp').to.equal('none');
    await page.keyboard.press('g');
    await page.keyboard.press('s');
    expect(await filterOf('.frame')).to.equal('none');
    expect(await filterOf('aside .chips')).to.equal('none');
  });

  it('answers every place the pointer comes to rest at, however fast it came', async () => {
    const { page } = sitting;
    for (let i = 0; i < 60; i++) await sitting.pointAt(0.5 + 0.45 * Math.cos(i / 3), 0.5 + 0.4 * Math.sin(i / 2));
    await sitting.pointAt(0.3, 0.55);
    await page.waitForFunction(() => {
      const ring = document.querySelector('.ring')!.getBoundingClientRect();
      const picture = document.querySelector('[role=application]')!.getBoundingClientRect();
      return Math.abs((ring.x + ring.width / 2 - picture.x) / picture.width - 0.3) < 0.01;
    });
    // What is told once the hand is still moves what stands below it.
    const sure = page.getByText(/nine of ten such piles come out .*\(\d/);
    await sure.waitFor({ state: 'attached' });
    await sitting.quiet();
    await page.getByText('how sure').click();
    await sure.waitFor();
  });
});

describe('one press, one pile', () => {
  let sitting: Sitting;
  before(async () => (sitting = await Sitting.begin()));
  after(() => sitting.end());
  beforeEach(() => sitting.openReference());

  const count = async () => (await sitting.rows(sitting.paintingId)).piles!.length;
  const settled = async (): Promise<number> => {
    await sitting.quiet();
    return count();
  };
  const atPlace = async (x: number, y: number) => {
    await sitting.pointAt(x, y);
    await sitting.page.locator('[data-test=recipe]').waitFor();
  };

  it('keeps one while k is held', async () => {
    const before = await count();
    await atPlace(0.21, 0.72);
    for (let i = 0; i < 6; i++) await sitting.page.keyboard.down('k');
    await sitting.page.keyboard.up('k');
    await soon(async () => (await count()) > before, 'it is kept');
    expect(await settled()).to.equal(before + 1);
  });

  it('keeps one of a double press', async () => {
    const before = await count();
    await atPlace(0.52, 0.62);
    const box = (await sitting.page.locator('[role=application]').boundingBox())!;
    await sitting.page.mouse.dblclick(box.x + box.width * 0.52, box.y + box.height * 0.62);
    await soon(async () => (await count()) > before, 'it is kept');
    expect(await settled()).to.equal(before + 1);
  });

  it('keeps none at the end of a drag, nor behind a dialog', async () => {
    const before = await count();
    await atPlace(0.4, 0.3);
    await sitting.page.mouse.down();
    await sitting.pointAt(0.6, 0.35);
    await sitting.page.mouse.up();
    expect(await settled()).to.equal(before);
    await sitting.page.keyboard.press('?');
    await sitting.page.getByRole('heading', { name: 'Keys, one hand each' }).waitFor();
    await sitting.page.keyboard.press('k');
    expect(await settled()).to.equal(before);
    await sitting.page.keyboard.press('Escape');
  });

  it('keeps what was pointed at when it was pressed, within a frame of a jump too', async () => {
    const { page } = sitting;
    const before = await count();
    await atPlace(0.1, 0.15);
    const wall = (await page.locator('[data-test=seen]').innerText()).replace(/\s+/g, ' ');
    const { x, y, radius } = await page.evaluate(async () => {
      const picture = document.querySelector('[role=application]')!;
      const box = picture.getBoundingClientRect();
      const at = { clientX: box.x + box.width * 0.53, clientY: box.y + box.height * 0.56, bubbles: true };
      picture.dispatchEvent(new PointerEvent('pointermove', at));
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', bubbles: true }));
      return { x: 0.53, y: 0.56, radius: Number(localStorage.getItem('dusk.areaRadius') ?? 8) };
    });
    // What was kept before may still be said.
    await soon(async () => (await count()) === before + 1, 'it is kept');
    await page
      .getByText(/^Kept “/)
      .first()
      .waitFor();
    const { samples } = await sitting.rows(sitting.paintingId);
    const { outline } = samples!.at(-1)!;
    const size = await page.evaluate(() => ({
      width: document.querySelector('canvas')!.width,
      height: document.querySelector('canvas')!.height,
    }));
    expect(outline!.x / outline!.y).to.be.closeTo((x * size.width) / (y * size.height), 0.02);
    expect(outline!.radius).to.equal(radius);
    expect(wall).to.not.equal('');
    const [kept] = (await sitting.rows(sitting.paintingId)).piles!.slice(-1);
    expect(kept!.name, 'the bowl, not the wall').to.match(/green/);
  });

  it('keeps once at one spot, however often it is pressed in turn', async () => {
    const before = await count();
    await atPlace(0.72, 0.6);
    for (let i = 0; i < 3; i++) {
      await sitting.page.keyboard.press('k');
      await sitting.quiet();
    }
    expect(await settled()).to.equal(before + 1);
  });
});

describe('a painter with a picture of their own', () => {
  let sitting: Sitting;
  before(async () => (sitting = await Sitting.begin(false)));
  after(() => sitting.end());

  it('begins a painting in an empty studio, brings a picture and reads it', async () => {
    const { page } = sitting;
    await sitting.open();
    await page.getByText('Nothing on the easel yet').waitFor();
    await page.getByRole('button', { name: 'Begin a painting' }).click();
    await page.getByLabel('Title').fill('Two halves');
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await page.getByText('Bring a picture to paint from').waitFor();
    const half = await sharp({ create: { width: 300, height: 400, channels: 3, background: '#355070' } })
      .png()
      .toBuffer();
    const picture = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#8a6b4f' } })
      .composite([{ input: half, left: 300, top: 0 }])
      .png()
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'halves.png', mimeType: 'image/png', buffer: picture });
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
    await sitting.pointAt(0.25, 0.5);
    const chip = page.locator('aside [data-chip=target]');
    await chip.waitFor();
    expect(await chip.evaluate((c) => getComputedStyle(c).backgroundColor)).to.equal('rgb(138, 107, 79)');
    await sitting.pointAt(0.75, 0.5);
    await page.waitForFunction(
      () => getComputedStyle(document.querySelector('aside [data-chip=target]')!).backgroundColor === 'rgb(53, 80, 112)',
    );
  });

  it('is told in a sentence when a file is no picture, and keeps what was there', async () => {
    const { page } = sitting;
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') });
    await page.getByText('not a whole JPEG, PNG').waitFor();
    expect(await page.locator('.picture canvas').count()).to.equal(1);
    expect(sitting.faults).to.deep.equal([]);
  });
});
