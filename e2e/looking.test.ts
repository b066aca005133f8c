import { expect } from 'chai';
import { deltaE00 } from '@dusk/core';
import { labOfDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { Hand } from './hand.ts';
import { Sitting, SOMEWHERE, soon } from './studio.ts';

/** What the canvas shows at a place, in shares of the picture: red, green, blue. */
const shownAt = (page: Page, x: number, y: number): Promise<number[]> =>
  page.locator('.picture canvas').evaluate(
    (canvas, [u, v]) => {
      const surface = canvas as HTMLCanvasElement;
      const at = surface.getContext('2d')!.getImageData(Math.floor(u! * surface.width), Math.floor(v! * surface.height), 1, 1).data;
      return [at[0]!, at[1]!, at[2]!];
    },
    [x, y],
  );
const isGrey = ([r, g, b]: number[]): boolean => Math.max(r!, g!, b!) - Math.min(r!, g!, b!) <= 2;

describe('a picture looked at', () => {
  let sitting: Sitting;
  let page: Page;
  let hand: Hand;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    hand = new Hand(page);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const line = () => page.locator('[data-test=look-line]').innerText();
  const becomes = (holds: (rgb: number[]) => boolean, what: string, x = 0.5, y = 0.85) =>
    soon(async () => holds(await shownAt(page, x, y)), what);

  for (const [name, key, says] of [
    ['Values', 'v', /5 steps/],
    ['Warm · cool', 'w', /warmer, hatched blue cooler than neutral grey: \d+ % warm/],
    ['Brightness', 'c', /The lighter, the brighter/],
    ['Edges', 'e', /Edges after the squint: \d+ % hard/],
  ] as const)
    it(`turns to ${name} with one press, and back by key; neither the picture nor a tool moves for it`, async () => {
      const places = () =>
        page.locator('.picture, .under button').evaluateAll((all) =>
          all.flatMap((one) => {
            const { x, y, width, height } = one.getBoundingClientRect();
            return [x, y, width, height];
          }),
        );
      const before = await places();
      hand.actions = 0;
      await hand.press(name);
      expect(hand.actions).to.equal(1);
      await soon(async () => says.test(await line()), name);
      // The name that is on is in bold, and a little wider.
      const moved = (await places()).map((at, i) => Math.abs(at - before[i]!));
      expect(Math.max(...moved), `px that something moved by for ${name}`).to.be.at.most(4);
      expect(await page.getByRole('button', { name, exact: true }).getAttribute('aria-pressed')).to.equal('true');
      if (key !== 'w') await becomes(isGrey, `${name} is without hue`);
      await page.keyboard.press(key);
      await becomes((rgb) => !isGrey(rgb), 'the colours are back');
    });

  it('is cut into as many steps as is wanted, at boundaries that are moved', async () => {
    await page.keyboard.press('v');
    await page.getByRole('button', { name: 'Fewer steps' }).click();
    await soon(async () => /4 steps/.test(await line()), 'four steps');
    await page.keyboard.press(']');
    await soon(async () => /5 steps/.test(await line()), 'five again');
    const bound = page.getByRole('slider', { name: 'Boundary 2' });
    const was = Number(await bound.getAttribute('aria-valuenow'));
    await bound.focus();
    await page.keyboard.press('ArrowRight');
    await soon(async () => Number(await bound.getAttribute('aria-valuenow')) > was + 0.05, 'the boundary moved');
    const shares = (await page.locator('.strip .step').allInnerTexts()).map(Number);
    expect(shares.reduce((a, b) => a + b, 0)).to.be.within(97, 103);
    await page.keyboard.press('v');
  });

  it('is swept for what is out of reach, which is hatched and counted', async () => {
    await page.keyboard.press('r');
    await soon(async () => /Hatched is out of reach of this palette: (<1|\d+) %/.test(await line()), 'the sweep');
    await page.keyboard.press('r');
  });

  it('is squinted at by an amount, the words staying sharp', async () => {
    await page.keyboard.press('s');
    const squint = async () => Number(await page.locator('[data-squint]').getAttribute('data-squint'));
    await soon(async () => (await squint()) === 8, 'the squint');
    await page.getByRole('button', { name: 'Squint more' }).click();
    await soon(async () => (await squint()) === 11, 'more of it');
    await page.keyboard.press('s');
  });

  it('has its key fitted in two actions; what is seen and what is painted are both told', async () => {
    hand.actions = 0;
    await hand.door('Key');
    await page.getByRole('radio', { name: 'Fitted to paint' }).check();
    hand.actions++;
    expect(hand.actions).to.be.at.most(2);
    await page.getByText('Held back for highlights').waitFor();
    await page.locator('[data-test=key-strip]').waitFor();
    await hand.door('Colour');
    await sitting.pointAt(0.6, 0.1);
    await page.locator('[data-test=through-key]').waitFor();
    const seen = Number(/seen (\d+\.\d)/.exec(await page.locator('[data-test=through-key]').innerText())![1]);
    const paint = Number(/(\d+\.\d)/.exec(await page.locator('[data-test=seen]').innerText())![1]);
    expect(paint, 'a light wall is lifted towards paint white').to.be.above(seen);
    await page.keyboard.press('k');
    await page.getByText(/^Kept “/).waitFor();
    const { samples } = await sitting.rows(sitting.paintingId);
    const sample = samples!.at(-1)!;
    expect(deltaE00(labOfDto(sample.seen), labOfDto(sample.paint))).to.be.above(1);
    await page.keyboard.press('Escape');
    await page.keyboard.press('f');
    await page.locator('[data-test=through-key]').waitFor({ state: 'detached' });
  });

  it('is lined by a grid whose squares are so large on the canvas', async () => {
    await page.keyboard.press('n');
    await page.locator('[data-test=grid]').waitFor();
    await hand.door('Frame');
    expect(await page.locator('[data-test=square]').innerText()).to.match(/7\.5 × 7\.5 cm/);
    await page.getByRole('button', { name: 'More squares across' }).click();
    await page.getByText('6.4 × 7.5 cm').waitFor();
    const across = async () => (await sitting.rows()).references!.find((r) => r.paintingId === sitting.paintingId)!.view.grid?.across;
    await soon(async () => (await across()) === 7, 'kept');
    await page.keyboard.press('n');
    await page.locator('[data-test=grid]').waitFor({ state: 'detached' });
  });

  it('is prepared by parameters that are taken back one by one', async () => {
    const view = async () => (await sitting.rows()).references!.find((r) => r.paintingId === sitting.paintingId)!.view;
    const before = await view();
    await page.getByRole('button', { name: 'Turn right' }).click();
    await soon(async () => (await view()).turn === 1, 'turned');
    await page.getByRole('slider', { name: 'More or less light' }).focus();
    await page.keyboard.press('ArrowRight');
    await soon(async () => ((await view()).exposure ?? 0) > 0, 'lighter');
    await page.getByLabel('Width of the canvas in cm').fill('40');
    await page.getByLabel('Height of the canvas in cm').fill('40');
    await page.getByRole('button', { name: 'Frame it so' }).click();
    await soon(async () => (await view()).crop !== undefined, 'cropped');
    const box = (await page.locator('[role=application]').boundingBox())!;
    expect(box.width / box.height).to.be.closeTo(1, 0.01);
    expect(await page.locator('[data-test=square]').innerText()).to.match(/cm on the canvas/);
    // What was cut out turns along; the whole has other proportions than the canvas, and no centimetres.
    await page.getByRole('button', { name: 'Turn right' }).click();
    await soon(async () => (await view()).turn === 2 && (await view()).crop !== undefined, 'the crop turned along');
    await page.getByRole('button', { name: 'All of it' }).click();
    await page.getByText('has no size on it until it is framed').waitFor();
    await page.getByRole('button', { name: 'Frame it as the canvas' }).waitFor();
    await page.keyboard.press('Control+z');
    await soon(async () => (await view()).crop !== undefined, 'the crop is back');
    await page.keyboard.press('Control+z');
    await soon(async () => (await view()).turn === 1, 'turned back');
    await page.locator('main').focus();
    for (const gone of ['crop', 'canvas', 'exposure', 'turn'] as const) {
      await page.keyboard.press('Control+z');
      if (gone === 'canvas') {
        await page.getByText(/^Taken back: Changed “Oil can/).waitFor();
        continue;
      }
      await soon(async () => (await view())[gone] === undefined || (await view())[gone] === before[gone], `${gone} taken back`);
    }
    expect(await view()).to.deep.equal(before);
  });

  it('has the colour taken out of its light by a place that is white or grey', async () => {
    await hand.door('Colour');
    await sitting.dwellAt(0.05, 0.3);
    await hand.door('Frame');
    await page.getByRole('button', { name: 'The point is white or grey' }).click();
    await becomes(isGrey, 'the wall by the lamp is neutral', 0.05, 0.3);
    await page.getByRole('button', { name: 'Light as it was' }).click();
    await hand.door('Colour');
  });

  it('is pointed at where it was after a reload', async () => {
    const remembered = () => page.evaluate(() => localStorage.getItem('dusk.points'));
    const before = await remembered();
    await sitting.pointAt(0.4, 0.62);
    await soon(async () => (await remembered()) !== before, 'the place is remembered');
    await page.reload();
    await page.locator('.ring').waitFor();
    const ring = (await page.locator('.ring').boundingBox())!;
    const box = (await page.locator('[role=application]').boundingBox())!;
    expect((ring.x + ring.width / 2 - box.x) / box.width).to.be.closeTo(0.4, 0.01);
    expect((ring.y + ring.height / 2 - box.y) / box.height).to.be.closeTo(0.62, 0.01);
  });

  it('does not run to the end of the area’s size by the small ticks of a trackpad', async () => {
    const area = async () => Number(await page.locator('[data-test=area]').getAttribute('data-radius'));
    await sitting.pointAt(0.4, 0.4);
    const before = await area();
    for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -4);
    await sitting.quiet();
    expect(await area()).to.equal(before);
    for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -4);
    await soon(async () => (await area()) > before, 'one step');
    await page.getByRole('button', { name: 'Smaller area' }).click();
  });

  it('is followed by a window of its own', async () => {
    const opening = sitting.context.waitForEvent('page');
    await sitting.more('The picture alone, in a window of its own');
    const alone = await opening;
    await alone.locator('.picture canvas').waitFor();
    expect(await alone.locator('.rail, .ledge').count()).to.equal(0);
    await page.bringToFront();
    await page.keyboard.press('v');
    await soon(async () => isGrey(await shownAt(alone, 0.5, 0.85)), 'it follows the look');
    await page.keyboard.press('v');
    await soon(async () => !isGrey(await shownAt(alone, 0.5, 0.85)), 'and back');
    await alone.close();
  });

  it('is followed in another browser, which keeps its own place', async () => {
    const other = await sitting.browser.newContext({ ...SOMEWHERE, viewport: { width: 820, height: 1180 } });
    const alone = await other.newPage();
    await alone.goto(`${sitting.running.address}painting/${sitting.paintingId}/picture`);
    await alone.locator('.picture canvas').waitFor();
    await page.bringToFront();
    await sitting.dwellAt(0.3, 0.4);
    await page.keyboard.press('v');
    await soon(async () => isGrey(await shownAt(alone, 0.5, 0.85)), 'it follows the look');
    const ring = async () => {
      const at = (await alone
        .locator('.ring')
        .boundingBox({ timeout: 500 })
        .catch(() => null))!;
      const box = (await alone.locator('[role=application], .picture canvas').first().boundingBox())!;
      return at && Math.hypot((at.x + at.width / 2 - box.x) / box.width - 0.3, (at.y + at.height / 2 - box.y) / box.height - 0.4);
    };
    await soon(async () => ((await ring()) ?? 1) < 0.02, 'and the place');
    await page.keyboard.press('v');
    await soon(async () => !isGrey(await shownAt(alone, 0.5, 0.85)), 'and back');
    await other.close();
  });
});

describe('a picture looked at by touch, upright', () => {
  let sitting: Sitting;
  before(async () => (sitting = await Sitting.begin(true, { viewport: { width: 820, height: 1180 }, hasTouch: true })));
  after(() => sitting.end());

  it('is pointed at, looked at in every way, sampled, and its marks held, by a finger alone', async () => {
    const { page } = sitting;
    await sitting.openReference();
    const box = (await page.locator('[role=application]').boundingBox())!;
    const tap = (x: number, y: number) => page.touchscreen.tap(box.x + box.width * x, box.y + box.height * y);
    await tap(0.36, 0.85);
    await page.locator('[data-test=recipe]').waitFor();
    for (const look of ['Grey', 'Squint', 'Values', 'Warm · cool', 'Brightness', 'Edges', 'Reach']) {
      const key = page.getByRole('button', { name: look, exact: true });
      await key.tap();
      expect(await key.getAttribute('aria-pressed'), look).to.equal('true');
      await key.tap();
      expect(await key.getAttribute('aria-pressed'), `${look} again`).to.equal('false');
    }
    const before = (await sitting.rows(sitting.paintingId)).samples!.length;
    await page.locator('.keep').tap();
    await soon(async () => (await sitting.rows(sitting.paintingId)).samples!.length === before + 1, 'kept');
    await page.locator('[data-test=mark]').first().tap();
    await page.locator('[data-test=held]').waitFor();
    for (const door of ['Frame', 'Key', 'Pictures', 'Colour']) await page.locator('[data-test=door]', { hasText: door }).tap();
    expect(sitting.faults).to.deep.equal([]);
  });
});

describe('a look', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const isOn = async (name: string): Promise<boolean> =>
    (await page.getByRole('button', { name, exact: true }).first().getAttribute('aria-pressed')) === 'true';

  it('belongs to its picture: another painting is seen as it is, and the first as it was looked at', async () => {
    await sitting.openReference();
    await page.getByRole('button', { name: 'In my piles', exact: true }).click();
    await page.keyboard.press('x');
    await soon(() => isOn('In my piles'), 'in its piles');
    await sitting.openReference('Courtyard, washing day');
    await soon(() => isOn('As seen'), 'the other as it is');
    expect(await isOn('In my piles')).to.equal(false);
    await sitting.openReference();
    await soon(() => isOn('In my piles'), 'the first in its piles');
  });

  it('is not on a picture that is brought, though everything was grey and squinted at', async () => {
    for (const name of ['Grey', 'Squint']) await page.getByRole('button', { name, exact: true }).click();
    const buffer = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#a04030' } })
      .png()
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'brick.png', mimeType: 'image/png', buffer });
    await soon(() => isOn('As seen'), 'as it is');
    await soon(async () => !isGrey(await shownAt(page, 0.5, 0.5)), 'in its colours');
  });
});

describe('the place that is mixed for', () => {
  it('is shown large as it is: not stretched, and what is under the ring is what was sampled', async () => {
    const sitting = await Sitting.begin();
    const { page } = sitting;
    try {
      await sitting.openReference();
      // A spot of red on grey, its middle at 0.72 and 0.3.
      const spot =
        '<svg width="1200" height="800"><rect width="1200" height="800" fill="#808080"/><circle cx="864" cy="240" r="14" fill="#c03020"/></svg>';
      const buffer = await sharp(Buffer.from(spot)).png().toBuffer();
      await page.locator('input[type=file]').setInputFiles({ name: 'spot.png', mimeType: 'image/png', buffer });
      await becomesRed(page);
      await sitting.pointAt(0.72, 0.3);
      await sitting.quiet();
      const { paintingId } = sitting;
      const before = (await sitting.rows(paintingId)).piles!.length;
      await page.keyboard.press('k');
      await soon(async () => (await sitting.rows(paintingId)).piles!.length === before + 1, 'kept');
      const pile = (await sitting.rows(paintingId)).piles!.at(-1)!;
      await sitting.go(`painting/${paintingId}/mixing/${pile.id}`);
      const large = page.locator('[data-test=place-large]');
      const under = () =>
        large.evaluate((box) => {
          const canvas = box.querySelector('canvas')!;
          const ring = box.querySelector('circle')?.getBoundingClientRect();
          const at = canvas.getBoundingClientRect();
          if (!ring || canvas.width < 10) return undefined;
          const [x, y] = [ring.x + ring.width / 2 - at.x, ring.y + ring.height / 2 - at.y];
          const [r, g, b] = canvas
            .getContext('2d')!
            .getImageData((x * canvas.width) / at.width, (y * canvas.height) / at.height, 1, 1).data;
          return { rgb: [r!, g!, b!], stretch: canvas.width / at.width / (canvas.height / at.height), height: at.height };
        });
      await soon(async () => (await under()) !== undefined, 'the place is drawn');
      const seen = (await under())!;
      expect(seen.height).to.be.above(40);
      expect(seen.stretch).to.be.closeTo(1, 0.03);
      expect(seen.rgb[0]! - seen.rgb[1]!, `what is under the ring: ${seen.rgb.join()}`).to.be.above(90);
      expect(sitting.faults).to.deep.equal([]);
    } finally {
      await sitting.end();
    }
  });
  const becomesRed = (page: Page) =>
    soon(async () => {
      const [r, g] = await shownAt(page, 0.72, 0.3);
      return r! - g! > 90;
    }, 'the spot is seen');
});
