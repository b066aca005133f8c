import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

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
  /** A sample is in the record, and the page has heard so. */
  const kept = async (count: number): Promise<void> => {
    await soon(async () => (await samples()).length === count, `${count} are kept`);
    await sitting.quiet();
  };
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
    await sitting.choose('zone', 'halftone');
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
    expect(await page.locator('[data-test=beside]').innerText()).to.match(/\(\+\d\.\d, told apart by \d/);
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

  it('stay what was dwelt on while the hand walks to the panel', async () => {
    const seen = async () => (await page.locator('[data-test=seen]').innerText()).replace(/\s+/g, ' ');
    await sitting.pointAt(0.62, 0.12);
    await page.locator('[data-test=recipe]').waitFor();
    const wall = await seen();
    await sitting.dwellAt(0.36, 0.85);
    await soon(async () => (await seen()) !== wall, 'the bench is read');
    const bench = await seen();
    const ring = async () => (await page.locator('.ring').boundingBox())!;
    const { x, y } = await ring();
    const panel = (await page.locator('aside.panel').boundingBox())!;
    await page.mouse.move(panel.x + 60, panel.y + 300, { steps: 25 });
    await soon(async () => Math.hypot((await ring()).x - x, (await ring()).y - y) < 1, 'the ring is back where the hand dwelt');
    await soon(async () => (await seen()) === bench, 'and so is the reading');
  });

  it('give the light of the place that was dwelt on, not of what was passed over', async () => {
    await page.locator('[data-test=door]', { hasText: 'Frame' }).click();
    const white = (await samples()).length;
    await sitting.dwellAt(0.62, 0.12);
    const button = (await page.getByRole('button', { name: 'The point is white or grey' }).boundingBox())!;
    await page.mouse.move(button.x + 20, button.y + 20, { steps: 25 });
    await page.mouse.down();
    await page.mouse.up();
    await soon(async () => (await sitting.rows()).references!.some(({ view }) => view.neutral !== undefined), 'the light');
    const { view } = (await sitting.rows()).references!.find((one) => one.view.neutral)!;
    const there = await page.evaluate(() => document.querySelector('.ring')!.getBoundingClientRect().x);
    const picture = (await page.locator('[role=application]').boundingBox())!;
    expect((there - picture.x) / picture.width).to.be.closeTo(0.62, 0.05);
    expect(view.neutral!.L).to.be.above(60);
    await page.keyboard.press('Control+z');
    await soon(async () => (await sitting.rows()).references!.every((one) => one.view.neutral === undefined), 'the light as it was');
    expect((await samples()).length).to.equal(white);
    await page.locator('[data-test=door]', { hasText: 'Colour' }).click();
  });

  it('belong to a thing that is said of each, not of all that follow', async () => {
    await page.keyboard.press('Escape');
    await sitting.dwellAt(0.2, 0.2);
    const before = (await samples()).length;
    await page.getByRole('button', { name: /Keep this pile/ }).click();
    await kept(before + 1);
    await page.locator('[data-test=thing]').fill('face');
    await page.locator('[data-test=thing]').press('Enter');
    await soon(async () => (await samples()).at(-1)!.thing === 'face', 'the face');
    const { piles } = await sitting.rows(sitting.paintingId);
    expect(piles!.find((pile) => pile.sampleId !== null && pile.name.endsWith('face'))).to.not.equal(undefined);
    await press(0.3, 0.3);
    await soon(async () => (await samples()).at(-1)!.thing === '', 'another is of no thing');
    expect(await page.locator('[data-test=thing]').inputValue()).to.equal('');
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
    await kept(before + 1);
    const { outline } = (await samples()).at(-1)!;
    expect(outline!.points!.length).to.be.at.least(8);
    await page.keyboard.press('d');
    await page.keyboard.press('Escape');
  });

  it('let the hand go on while one of them is being kept', async () => {
    await page.keyboard.press('Escape');
    const before = (await samples()).length;
    let letGo!: () => void;
    const answered = new Promise<void>((done) => (letGo = done));
    await page.route('**/api/changes', async (route) => {
      await answered;
      await route.continue();
    });
    await sitting.dwellAt(0.7, 0.3);
    await page.locator('[data-test=recipe]').waitFor();
    await page.keyboard.press('k');
    await sitting.dwellAt(0.25, 0.35);
    letGo();
    await kept(before + 1);
    await page.locator('[data-test=held]').waitFor();
    const ring = (await page.locator('.ring.meant').boundingBox())!;
    const box = (await page.locator('[role=application]').boundingBox())!;
    expect((ring.x + ring.width / 2 - box.x) / box.width).to.be.closeTo(0.25, 0.01);
    await page.unroute('**/api/changes');
    await page.keyboard.press('Escape');
  });

  it('are of values alone where the painting takes no more from its pictures', async () => {
    await page.keyboard.press('Escape');
    await page.locator('[data-test=door]', { hasText: 'Key' }).click();
    const painting = async () => (await sitting.rows()).paintings!.find(({ id }) => id === sitting.paintingId)!;
    await page.getByRole('radio', { name: 'its values alone' }).check();
    await soon(async () => (await painting()).valueOnly, 'values alone');
    await page.getByRole('radio', { name: 'its colours' }).check({ trial: true });
    await page.locator('[data-test=door-back], [data-test=door][aria-pressed=true]').first().click();
    await sitting.dwellAt(0.4, 0.45);
    await page.getByText('value only; hue of grey').waitFor();
    await sitting.elsewhere({ do: 'painting.change', id: sitting.paintingId, version: (await painting()).version, valueOnly: false });
    await page.getByRole('button', { name: 'value only', exact: true }).waitFor();
  });

  it('may be of a value alone', async () => {
    await sitting.dwellAt(0.45, 0.47);
    await page.locator('[data-test=recipe]').waitFor();
    await page.getByRole('button', { name: 'value only' }).click();
    await page.getByText('value only; hue of grey').waitFor();
    // What is to be painted is a grey, and its recipe is there.
    const chip = (which: string) =>
      page
        .locator(`aside [data-chip=${which}]`)
        .evaluate((one) => getComputedStyle(one).backgroundColor, undefined, { timeout: 500 })
        .catch(() => '');
    const isGrey = (colour: string): boolean => new Set(colour.match(/\d+/g)).size === 1;
    await soon(async () => isGrey(await chip('target')) && (await chip('mixed')) !== '', 'a grey to paint');
    await sitting.quiet();
    await page.keyboard.press('k');
    await soon(async () => (await samples()).at(-1)!.valueOnly, 'of a value alone');
    const sample = (await samples()).at(-1)!;
    expect(Math.hypot(sample.paint.a, sample.paint.b)).to.be.below(0.5);
    expect(Math.hypot(sample.seen.a, sample.seen.b)).to.be.above(10);
    expect((await rows()).piles!.find((pile) => pile.sampleId === sample.id)!.target!.kind).to.equal('value');
    // The next place is a colour again.
    await page.keyboard.press('Escape');
    await sitting.pointAt(0.3, 0.7);
    await page.getByRole('button', { name: 'value only', exact: true }).waitFor();
  });

  it('become of a value alone while their mark is held, and their pile with them', async () => {
    const before = (await samples()).length;
    await press(0.52, 0.52);
    await kept(before + 1);
    const { id } = (await samples()).at(-1)!;
    const pile = async () => (await rows()).piles!.find((one) => one.sampleId === id)!;
    const coloured = await pile();
    await page.keyboard.press('b');
    await soon(async () => (await samples()).find((one) => one.id === id)!.valueOnly, 'of a value alone');
    await soon(async () => (await pile()).target!.kind === 'value', 'its pile too');
    expect(Math.hypot((await pile()).target!.lab.a, (await pile()).target!.lab.b)).to.be.below(0.5);
    expect((await pile()).plan).to.not.deep.equal(coloured.plan);
    await page.keyboard.press('b');
    await soon(async () => (await pile()).target!.kind === 'absolute', 'a colour again');
    await page.keyboard.press('Escape');
  });

  it('are each reached where their marks lie on one another: a press on the held means the next', async () => {
    const before = (await samples()).length;
    for (const x of [0.12, 0.125]) {
      await sitting.pointAt(x, 0.12);
      await page.locator('[data-test=recipe]').waitFor();
      await page.keyboard.press('k');
      await kept(before + (x > 0.12 ? 2 : 1));
      await page.keyboard.press('Escape');
    }
    const marks = page.locator('[data-test=mark]');
    const count = await marks.count();
    const heldIs = async (one: number) => (await marks.nth(one).getAttribute('aria-pressed')) === 'true';
    const middle = (await marks.nth(count - 1).boundingBox())!;
    for (const one of [count - 1, count - 2, count - 1]) {
      await page.mouse.click(middle.x + middle.width / 2, middle.y + middle.height / 2);
      await soon(() => heldIs(one), `mark ${one} is held`);
    }
    await page.keyboard.press('Escape');
  });

  it('are mixed without a tube that is left out', async () => {
    await sitting.dwellAt(0.53, 0.5);
    const recipe = page.locator('[data-test=recipe]');
    await soon(async () => /Viridian/.test(await recipe.innerText()), 'viridian is in it');
    await page.getByRole('button', { name: /^Viridian,.*Leave it out/ }).click();
    await soon(async () => !/Viridian/.test(await recipe.innerText()), 'and no longer');
    await page.getByRole('button', { name: /^Viridian,.*Leave it out/ }).click();
    await soon(async () => /Viridian/.test(await recipe.innerText()), 'it is back');
  });
});

describe('a press of a still hand', () => {
  // Clicks are told in whole pixels; pointers on such screens, and of pens and tablets, are not.
  for (const deviceScaleFactor of [1, 1.25, 1.5, 2])
    it(`keeps what stood there, at a scale of ${deviceScaleFactor}`, async () => {
      const sitting = await Sitting.begin(true, { deviceScaleFactor });
      const { page } = sitting;
      try {
        await sitting.openReference();
        const box = (await page.locator('[role=application]').boundingBox())!;
        const samples = async () => (await sitting.rows(sitting.paintingId)).samples!;
        const recipe = page.locator('[data-test=recipe]').first();
        /** Parts that are told, but for touches. */
        const numbers = async (): Promise<number[]> => (await recipe.innerText()).match(/^\d+$/gm)?.map(Number) ?? [];
        let lastX = 0;
        for (const [across, down, more] of [
          [0.42, 0.31, 0.45],
          [0.55, 0.62, 0.8],
          [0.3, 0.7, 0.27],
        ] as const) {
          const before = (await samples()).length;
          const [x, y] = [Math.floor(box.x + box.width * across) + more, Math.floor(box.y + box.height * down) + more];
          await page.mouse.move(x, y);
          // Read once more in the picture's own pixels, once the hand is still.
          await sitting.quiet();
          await recipe.waitFor();
          // Where the hand rests is remembered, to a part of a pixel.
          let stood: { x: number; y: number } | undefined;
          await soon(async () => {
            const was = stood;
            stood = await page.evaluate(() =>
              Object.values(JSON.parse(localStorage.getItem('dusk.points') ?? '{}') as Record<string, { x: number; y: number }>).at(-1),
            );
            return stood !== undefined && stood.x === was?.x && stood.x !== lastX;
          }, 'the place is remembered');
          lastX = stood!.x;
          const shown = await numbers();
          await page.mouse.down();
          await page.mouse.up();
          await soon(async () => (await samples()).length === before + 1, 'it is kept');
          // Its own pixels may be read just then, and the recipe be another: what is kept is one of the two that stood there.
          const sample = (await samples()).at(-1)!;
          const { plan } = (await sitting.rows(sitting.paintingId)).piles!.find(({ sampleId }) => sampleId === sample.id)!;
          const parts = plan!.heaps.flatMap(({ ingredients }) => ingredients.map((one) => one.parts));
          const isKept = (told: readonly number[]): boolean => told.length > 0 && told.every((one) => parts.includes(one));
          expect([shown, await numbers()].some(isKept), `${shown.join()} stood there, ${parts.join()} is kept`).to.equal(true);
          const { outline } = sample;
          expect(outline!.x).to.be.closeTo(stood!.x, 1e-6);
          expect(outline!.y).to.be.closeTo(stood!.y, 1e-6);
        }
      } finally {
        await sitting.end();
      }
    });
});
