import { expect } from 'chai';
import { DISPLAY_P3, deltaE00, hexToLab, linearToLab } from '@dusk/core';
import { tagPng } from '@dusk/server/pictures/tag';
import { labOfDto } from '@dusk/wire';
import sharp from 'sharp';
import type { Page } from 'playwright-core';
import { Sitting, soon } from './studio.ts';

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

/** Counts what a hand does. */
class Hand {
  actions = 0;
  constructor(private readonly page: Page) {}
  async press(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page
      .getByRole('button', { name, exact: typeof name === 'string' })
      .first()
      .click();
  }
  async tab(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page.getByRole('tab', { name }).click();
  }
  async key(key: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(key);
  }
}

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
    ['Strength', 'c', /The lighter, the stronger/],
    ['Edges', 'e', /Edges after the squint: \d+ % hard/],
  ] as const)
    it(`turns to ${name} with one press, and back by key`, async () => {
      hand.actions = 0;
      await hand.press(name);
      expect(hand.actions).to.equal(1);
      await soon(async () => says.test(await line()), name);
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
    await soon(async () => /squint 8 px/.test(await line()), 'the squint');
    await page.getByRole('button', { name: 'Squint more' }).click();
    await soon(async () => /squint 11 px/.test(await line()), 'more of it');
    await page.keyboard.press('s');
  });

  it('has its key fitted in two actions; what is seen and what is painted are both told', async () => {
    hand.actions = 0;
    await hand.tab('Key');
    await page.getByRole('radio', { name: 'Fitted to paint' }).check();
    hand.actions++;
    expect(hand.actions).to.be.at.most(2);
    await page.getByText('Held back for highlights').waitFor();
    await page.locator('[data-test=key-curve]').waitFor();
    await hand.tab('Colour');
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
    await hand.tab('Prepare');
    expect(await page.locator('[data-test=square]').innerText()).to.match(/7\.5 × 7\.5 cm/);
    await page.getByRole('button', { name: 'More squares across' }).click();
    await page.getByText('6.4 × 7.5 cm').waitFor();
    await page.keyboard.press('n');
    await page.locator('[data-test=grid]').waitFor({ state: 'detached' });
  });

  it('is prepared by parameters that are taken back one by one', async () => {
    const view = async () => (await sitting.rows()).references!.find((r) => r.paintingId === sitting.paintingId)!.view;
    const before = await view();
    await page.getByRole('button', { name: 'Turn right' }).click();
    await soon(async () => (await view()).turn === 1, 'turned');
    await page.getByRole('slider', { name: 'Exposure' }).focus();
    await page.keyboard.press('ArrowRight');
    await soon(async () => ((await view()).exposure ?? 0) > 0, 'lighter');
    await page.getByLabel('Width of the canvas in cm').fill('40');
    await page.getByLabel('Height of the canvas in cm').fill('40');
    await page.getByRole('button', { name: 'Crop to it' }).click();
    await soon(async () => (await view()).crop !== undefined, 'cropped');
    const box = (await page.locator('[role=application]').boundingBox())!;
    expect(box.width / box.height).to.be.closeTo(1, 0.01);
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
    await hand.tab('Colour');
    await sitting.pointAt(0.05, 0.3);
    await page.locator('[data-test=recipe]').waitFor();
    await hand.tab('Prepare');
    await page.getByRole('button', { name: 'The point is white or grey' }).click();
    await becomes(isGrey, 'the wall by the lamp is neutral', 0.05, 0.3);
    await page.getByRole('button', { name: 'Light as it was' }).click();
    await hand.tab('Colour');
  });

  it('is pointed at where it was after a reload', async () => {
    await sitting.pointAt(0.4, 0.62);
    await page.waitForTimeout(700);
    await page.reload();
    await page.locator('.ring').waitFor();
    const ring = (await page.locator('.ring').boundingBox())!;
    const box = (await page.locator('[role=application]').boundingBox())!;
    expect((ring.x + ring.width / 2 - box.x) / box.width).to.be.closeTo(0.4, 0.01);
    expect((ring.y + ring.height / 2 - box.y) / box.height).to.be.closeTo(0.62, 0.01);
  });

  it('does not run to the end of the area’s size by the small ticks of a trackpad', async () => {
    const area = async () => Number(/\d+/.exec(await page.locator('[data-test=area]').innerText())![0]);
    await sitting.pointAt(0.4, 0.4);
    const before = await area();
    for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -4);
    await page.waitForTimeout(200);
    expect(await area()).to.equal(before);
    for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -4);
    await soon(async () => (await area()) > before, 'one step');
    await page.getByRole('button', { name: 'Smaller area' }).click();
  });

  it('is followed by a window of its own', async () => {
    const opening = sitting.context.waitForEvent('page');
    await page.getByRole('button', { name: 'The picture alone, in a window of its own' }).click();
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
});

describe('colours sampled from a picture', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const rows = () => sitting.rows(sitting.paintingId);
  const samples = async () => (await rows()).samples!;
  const press = async (x: number, y: number): Promise<void> => {
    const box = (await page.locator('[role=application]').boundingBox())!;
    await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
  };

  it('are kept with zone and thing in three actions', async () => {
    const hand = new Hand(page);
    const before = (await samples()).length;
    await press(0.36, 0.85);
    hand.actions++;
    await page.locator('[data-test=held]').waitFor();
    await page.locator('[data-test=zone]').selectOption('halftone');
    hand.actions++;
    await page.locator('[data-test=thing]').fill('bench');
    await page.locator('[data-test=thing]').press('Enter');
    hand.actions++;
    expect(hand.actions).to.be.at.most(3);
    await soon(async () => {
      const sample = (await samples()).at(-1)!;
      return (await samples()).length === before + 1 && sample.zone === 'halftone' && sample.thing === 'bench';
    }, 'zone and thing');
  });

  it('show a mark that leads to the pile, and the pile leads back', async () => {
    const id = (await samples()).at(-1)!.id;
    await page.locator('[data-test=held] a').click();
    await page.locator('[data-test=standing]').waitFor();
    await page.getByRole('link', { name: 'where it was seen' }).click();
    await page.locator('[data-test=mark].held').waitFor();
    expect((await rows()).piles!.some((pile) => pile.sampleId === id)).to.equal(true);
    await page.locator('[data-test=held]').waitFor();
  });

  it('are compared in words and figures: one held, another pointed at', async () => {
    await sitting.pointAt(0.6, 0.1);
    await soon(async () => /lighter/.test(await page.locator('[data-test=beside]').innerText()), 'lighter than the bench');
    expect(await page.locator('[data-test=beside]').innerText()).to.match(/\(\+\d\.\d, ΔE \d/);
  });

  it('move to where the point is, and are joined with it', async () => {
    const held = (await samples()).at(-1)!;
    await sitting.pointAt(0.4, 0.9);
    await page.locator('[data-test=beside]').waitFor();
    await page.keyboard.press('h');
    await soon(async () => Math.abs((await samples()).find((s) => s.id === held.id)!.outline!.x - held.outline!.x) > 20, 'moved');
    await sitting.pointAt(0.6, 0.92);
    await page.locator('[data-test=beside]').waitFor();
    await page.keyboard.press('u');
    await soon(async () => (await samples()).find((s) => s.id === held.id)!.outline!.more?.length === 1, 'joined');
    await page.keyboard.press('Control+z');
    await soon(async () => (await samples()).find((s) => s.id === held.id)!.outline!.more === undefined, 'taken back');
  });

  it('move by dragging their mark', async () => {
    const held = (await samples()).at(-1)!;
    const mark = page.locator('[data-test=mark].held');
    const box = (await mark.boundingBox())!;
    const picture = (await page.locator('[role=application]').boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(picture.x + picture.width * 0.2, picture.y + picture.height * 0.86, { steps: 6 });
    await page.mouse.up();
    await soon(async () => Math.abs((await samples()).find((s) => s.id === held.id)!.outline!.x / 960 - 0.2) < 0.02, 'dragged');
    await page.keyboard.press('Escape');
  });

  it('may be drawn round', async () => {
    const before = (await samples()).length;
    await page.keyboard.press('d');
    const box = (await page.locator('[role=application]').boundingBox())!;
    const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;
    await page.mouse.move(...at(0.48, 0.5));
    await page.mouse.down();
    for (const [x, y] of [
      [0.56, 0.5],
      [0.57, 0.58],
      [0.5, 0.6],
      [0.47, 0.55],
    ] as const)
      await page.mouse.move(...at(x, y), { steps: 4 });
    await page.mouse.up();
    await soon(async () => (await page.locator('svg.over path.light').count()) === 1, 'the outline');
    await page.keyboard.press('k');
    await soon(async () => (await samples()).length === before + 1, 'kept');
    const { outline } = (await samples()).at(-1)!;
    expect(outline!.points!.length).to.be.at.least(8);
    await page.keyboard.press('d');
    await page.keyboard.press('Escape');
  });

  it('may be of a value alone', async () => {
    await sitting.pointAt(0.45, 0.47);
    await page.locator('[data-test=recipe]').waitFor();
    await page.getByRole('button', { name: 'value only' }).click();
    await page.getByText('value only; hue of grey').waitFor();
    await page.waitForTimeout(300);
    await page.keyboard.press('k');
    await soon(async () => (await samples()).at(-1)!.valueOnly, 'of a value alone');
    const sample = (await samples()).at(-1)!;
    expect(Math.hypot(sample.paint.a, sample.paint.b)).to.be.below(0.5);
    expect(Math.hypot(sample.seen.a, sample.seen.b)).to.be.above(10);
    expect((await rows()).piles!.find((pile) => pile.sampleId === sample.id)!.target!.kind).to.equal('value');
    await page.keyboard.press('b');
    await page.keyboard.press('Escape');
  });

  it('are mixed without a tube that is left out', async () => {
    await sitting.pointAt(0.53, 0.5);
    const recipe = page.locator('[data-test=recipe]');
    await soon(async () => /Viridian/.test(await recipe.innerText()), 'viridian is in it');
    await page.getByRole('button', { name: /^Viridian,.*Leave it out/ }).click();
    await soon(async () => !/Viridian/.test(await recipe.innerText()), 'and no longer');
    await page.getByRole('button', { name: /^Viridian,.*Leave it out/ }).click();
    await soon(async () => /Viridian/.test(await recipe.innerText()), 'it is back');
  });
});

describe('pictures that are brought', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const references = async () => (await sitting.rows()).references!.filter((r) => r.paintingId === sitting.paintingId);
  const flat = (colour: string) => sharp({ create: { width: 90, height: 60, channels: 3, background: colour } });
  const chip = () => page.locator('aside [data-chip=target]').evaluate((one) => getComputedStyle(one).backgroundColor);
  const seesColour = (rgb: string) =>
    soon(async () => {
      if ((await page.locator('.picture canvas').count()) === 0) return false;
      await sitting.pointAt(0.5 + 0.01 * Math.random(), 0.5);
      return (await page.locator('aside [data-chip=target]').count()) === 1 && (await chip()) === rgb;
    }, rgb);
  /** A file as it comes with a drop or from the clipboard. */
  const carry = (kind: 'drop' | 'paste', bytes: Buffer, name: string, type: string) =>
    page.evaluate(
      ([how, data, called, mime]) => {
        const file = new File([Uint8Array.from(atob(data!), (c) => c.charCodeAt(0))], called!, { type: mime! });
        const carried = new DataTransfer();
        carried.items.add(file);
        if (how === 'drop')
          document
            .querySelector('.reference')!
            .dispatchEvent(new DragEvent('drop', { dataTransfer: carried, bubbles: true, cancelable: true }));
        else document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: carried, bubbles: true, cancelable: true }));
      },
      [kind, bytes.toString('base64'), name, type] as const,
    );

  it('may be dropped, or pasted', async () => {
    const before = (await references()).length;
    await carry('drop', await flat('#8a6b4f').png().toBuffer(), 'dropped.png', 'image/png');
    await soon(async () => (await references()).length === before + 1, 'dropped');
    await seesColour('rgb(138, 107, 79)');
    await carry('paste', await flat('#355070').webp({ lossless: true }).toBuffer(), 'pasted.webp', 'image/webp');
    await soon(async () => (await references()).length === before + 2, 'pasted');
    await seesColour('rgb(53, 80, 112)');
  });

  it('are each there again with one press', async () => {
    await page.keyboard.press(',');
    await seesColour('rgb(138, 107, 79)');
    await page.keyboard.press('.');
    await seesColour('rgb(53, 80, 112)');
    await page.getByRole('tab', { name: /of 3/ }).click();
    await page.getByRole('button', { name: 'Look at dropped' }).click();
    await page.getByRole('tab', { name: 'Colour' }).click();
    await seesColour('rgb(138, 107, 79)');
  });

  it('that this browser cannot read are seen once the studio has them', async () => {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'scan.tiff', mimeType: 'image/tiff', buffer: await flat('#6a7f55').tiff({ compression: 'lzw' }).toBuffer() });
    await seesColour('rgb(106, 127, 85)');
  });

  it('of wider colours are read for what they are', async () => {
    const raw = Buffer.from(Array.from({ length: 90 * 60 }, () => [230, 60, 50]).flat());
    const p3 = (await sharp(await flat('#000').withIccProfile('p3').png().toBuffer()).metadata()).icc!;
    const file = tagPng(
      await sharp(raw, { raw: { width: 90, height: 60, channels: 3 } })
        .png()
        .toBuffer(),
      p3,
    );
    await page.locator('input[type=file]').setInputFiles({ name: 'poppy.png', mimeType: 'image/png', buffer: file });
    await soon(async () => (await references()).at(-1)!.space === 'display-p3', 'kept as it is');
    await soon(
      async () => (await page.evaluate(() => document.querySelector<HTMLCanvasElement>('.picture canvas')?.width ?? 0)) > 0,
      'shown',
    );
    await page.reload();
    await page.locator('.picture canvas').waitFor();
    await sitting.pointAt(0.5, 0.5);
    await page.locator('[data-test=recipe]').waitFor();
    await page.keyboard.press('k');
    await page.getByText(/^Kept “/).waitFor();
    const { samples } = await sitting.rows(sitting.paintingId);
    const [r, g, b] = [230, 60, 50].map((v, i) => DISPLAY_P3.curves[i]!(v / 255)) as [number, number, number];
    expect(deltaE00(labOfDto(samples!.at(-1)!.seen), linearToLab(DISPLAY_P3, r, g, b))).to.be.below(0.5);
    expect(deltaE00(labOfDto(samples!.at(-1)!.seen), hexToLab('#e63c32')), 'not as if it were sRGB').to.be.above(1.5);
  });

  it('stand in the place of another, whose marks stay', async () => {
    const chosen = (await references()).at(-1)!;
    const marks = await page.locator('[data-test=mark]').count();
    await page.getByRole('tab', { name: /of 5/ }).click();
    const choosing = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Replace it' }).click();
    await (
      await choosing
    ).setFiles({ name: 'larger.png', mimeType: 'image/png', buffer: await flat('#406040').resize(180, 120).png().toBuffer() });
    await soon(async () => (await references()).at(-1)!.pictureId !== chosen.pictureId, 'another picture');
    expect((await references()).at(-1)).to.include({ id: chosen.id, width: 90, height: 60 });
    await page.getByRole('tab', { name: 'Colour' }).click();
    await seesColour('rgb(64, 96, 64)');
    expect(await page.locator('[data-test=mark]').count()).to.equal(marks);
  });

  it('keep where they are from, and what may be done with them', async () => {
    await page.getByRole('tab', { name: /of 5/ }).click();
    await page.getByLabel('Where it is from').fill('my own, by the weir');
    await page.getByLabel('Where it is from').press('Enter');
    await page.getByLabel('What may be done with it').selectOption('no');
    await soon(async () => {
      const { source, passing } = (await references()).at(-1)!;
      return source === 'my own, by the weir' && passing === 'no';
    }, 'kept with it');
    await page.getByRole('tab', { name: 'Colour' }).click();
  });

  it('that are none, or damaged, are told of by the format’s name; nothing of them stays', async () => {
    const before = (await references()).length;
    const whole = await flat('#777').jpeg().toBuffer();
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'half.jpg', mimeType: 'image/jpeg', buffer: whole.subarray(0, whole.length / 2) });
    await page
      .getByText(/This JPEG picture is damaged|not a whole JPEG/)
      .first()
      .waitFor();
    expect((await references()).length).to.equal(before);
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
    for (const look of ['Grey', 'Squint', 'Values', 'Warm · cool', 'Strength', 'Edges', 'Reach']) {
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
    for (const panel of ['Prepare', 'Key', 'Pictures', 'Colour']) await page.getByRole('tab', { name: panel }).tap();
    expect(sitting.faults).to.deep.equal([]);
  });
});
