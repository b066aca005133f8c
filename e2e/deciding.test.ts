import { expect } from 'chai';
import { deltaE00, lightOf, photographedCanvas, STANDS, valueOfLightness, type Lab } from '@dusk/core';
import { labOfDto, type PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

/** Bytes of a place of what a canvas shows, by shares of its sides. */
const shownAt = (page: Page, x: number, y: number): Promise<readonly number[]> =>
  page.evaluate(
    ([x, y]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('.picture .canvas')!;
      const context = canvas.getContext('2d')!;
      return [...context.getImageData(Math.round(x * canvas.width), Math.round(y * canvas.height), 1, 1).data].slice(0, 3);
    },
    [x, y] as const,
  );
const isGrey = ([r, g, b]: readonly number[]): boolean => Math.max(r!, g!, b!) - Math.min(r!, g!, b!) <= 2;

for (const [where, viewport] of [
  ['on a laptop', { width: 1280, height: 800 }],
  ['on a tablet upright', { width: 820, height: 1180 }],
] as const)
  describe(`from seeing to deciding, ${where}`, () => {
    let sitting: Sitting;
    let page: Page;
    before(async () => {
      sitting = await Sitting.begin();
      ({ page } = sitting);
      await page.setViewportSize(viewport);
      await sitting.openReference();
    });
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));

    const rows = () => sitting.rows(sitting.paintingId);
    const piles = async (): Promise<readonly PileDto[]> => (await rows()).piles!;
    const reference = async () => (await sitting.rows()).references!.find(({ paintingId }) => paintingId === sitting.paintingId)!;

    it('eight colours that matter are eight piles in three actions, each sampled where it is seen', async () => {
      const before = new Set((await piles()).map(({ id }) => id));
      const hand = new Hand(page);
      await hand.key('q');
      await page.locator('[data-test=proposed]').nth(7).waitFor();
      const says = await page.locator('[data-test=proposed]').allInnerTexts();
      expect(says[0]).to.match(/the darkest/);
      expect(says.at(-1)).to.match(/the lightest/);
      await hand.click(page.locator('[data-test=keep-proposed]'));
      await soon(async () => (await piles()).length >= before.size + 8, 'eight piles');
      expect(hand.actions).to.be.at.most(3);
      const made = (await piles()).filter(({ id }) => !before.has(id));
      const sampled = made.filter(({ sampleId }) => sampleId !== null);
      expect(sampled).to.have.length(8);
      expect(made.length - sampled.length).to.be.at.most(1);
      // What they share is a pile that others take from.
      for (const shared of made.filter(({ sampleId }) => sampleId === null))
        expect(
          sampled.filter(({ plan }) =>
            plan.heaps.some(({ ingredients }) => ingredients.some((one) => 'pile' in one && one.pile === shared.id)),
          ).length,
        ).to.be.at.least(3);
      const samples = new Map((await rows()).samples!.map((sample) => [sample.id, sample]));
      for (const { sampleId, predicted, target } of sampled) {
        expect(samples.get(sampleId!)!.outline).to.not.equal(null);
        expect(deltaE00(labOfDto(predicted.lab), labOfDto(target!.lab))).to.be.below(6);
      }
      await page.keyboard.press('ControlOrMeta+z');
      await soon(async () => (await piles()).length === before.size, 'all of it undone at once');
    });

    it('one is refused and one moved before they are made', async () => {
      const before = (await piles()).length;
      await page.keyboard.press('q');
      await page.locator('[data-test=proposed]').nth(7).waitFor();
      await page.locator('[data-test=proposed]').nth(1).click();
      const mark = page.locator('[data-test=proposed-mark]').nth(7);
      const was = await mark.getAttribute('aria-label');
      const box = (await mark.boundingBox())!;
      await page.mouse.move(box.x + 22, box.y + 22);
      await page.mouse.down();
      const picture = (await page.locator('.picture').boundingBox())!;
      await page.mouse.move(picture.x + 0.2 * picture.width, picture.y + 0.85 * picture.height, { steps: 5 });
      await page.mouse.up();
      expect(await mark.getAttribute('aria-label')).to.not.equal(was);
      await page.getByLabel('What they share is mixed once').uncheck();
      await page.getByRole('button', { name: 'Make 7 piles of them' }).click();
      await soon(async () => (await piles()).length === before + 7, 'seven piles');
      await page.keyboard.press('ControlOrMeta+z');
      await soon(async () => (await piles()).length === before, 'undone');
    });

    it('five steps of value are dressed in five piles in six actions, and the picture is theirs, live', async () => {
      const hand = new Hand(page);
      await hand.key('m');
      const parts = page.locator('[data-test=part]');
      await parts.nth(4).waitFor();
      for (const i of [0, 1, 2, 3, 4]) expect(await parts.nth(i).getAttribute('aria-label')).to.match(/no pile$/);
      const onLedge = page.locator('.ledge a.pile');
      for (const i of [0, 1, 2, 3, 4]) {
        hand.actions++;
        const from = (await onLedge.nth(i).boundingBox())!;
        const to = (await parts.nth(i).boundingBox())!;
        await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
        await page.mouse.down();
        await page.mouse.move(to.x + to.width / 2, to.y + 20, { steps: 6 });
        await page.mouse.up();
        await page.locator(`[data-test=part][data-part="${i}"]:not(.bare)`).waitFor();
      }
      expect(hand.actions).to.equal(6);
      await soon(async () => (await reference()).view.dress?.filter((one) => one !== '').length === 5, 'kept with the picture');
      // The lightest wall is of the pile for the lightest step.
      const dress = (await reference()).view.dress!;
      const lightest = (await piles()).find(({ id }) => id === dress[4])!;
      await soon(async () => {
        const { css } = await page.evaluate(() => ({
          css: getComputedStyle(document.querySelectorAll('[data-test=part]')[4]!).backgroundColor,
        }));
        const wanted = (css.match(/[\d.]+/g) ?? []).slice(0, 3).map(Number);
        const seen = await shownAt(page, 0.7, 0.1);
        return seen.every((v, c) => Math.abs(v - wanted[c]!) <= 2);
      }, `the wall in ${lightest.name}`);
      // A pile that looks otherwise is seen so at once.
      const before = await shownAt(page, 0.7, 0.1);
      const lab: Lab = [60, 30, 30];
      await sitting.elsewhere({
        do: 'pile.change',
        id: lightest.id,
        version: lightest.version,
        target: { kind: 'absolute', lab: { L: lab[0], a: lab[1], b: lab[2] } },
      });
      await page.getByRole('button', { name: /from the ledge/ }).click();
      await soon(async () => (await reference()).view.dress!.every((one) => one !== ''), 'dressed by value');
      expect(before).to.have.length(3);
      // What has none is offered one.
      await parts.nth(2).click();
      await page.getByText('nothing yet').last().click();
      await page.locator('[data-test=part][data-part="2"].bare').waitFor();
      const count = (await piles()).length;
      await page.locator('[data-test=mix-bare]').click();
      await soon(async () => (await piles()).length === count + 1, 'a pile for the bare one');
      await page.locator('[data-test=part][data-part="2"]:not(.bare)').waitFor();
      await page.keyboard.press('m');
    });

    it('a pile that is picked up lights every place that it serves; so does an open one', async () => {
      const onLedge = page.locator('.ledge a.pile');
      const from = (await onLedge.last().boundingBox())!;
      await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
      await page.mouse.down();
      await page.mouse.move(from.x + 60, from.y - 60, { steps: 4 });
      await page.locator('[data-test=lit]').waitFor();
      await soon(async () => isGrey(await shownAt(page, 0.3, 0.9)), 'the table is pale grey');
      await page.mouse.up();
      await page.locator('[data-test=lit]').waitFor({ state: 'detached' });
      await soon(async () => !isGrey(await shownAt(page, 0.3, 0.9)), 'as seen');
      await sitting.openPile(/^copper, body/);
      const key = page.getByRole('button', { name: 'where else' });
      await key.click();
      await soon(async () => isGrey(await shownAt(page, 0.3, 0.9)), 'only the copper is lit');
      expect(await key.getAttribute('aria-pressed')).to.equal('true');
      await key.click();
      await sitting.openReference();
    });

    it('a study in flat shapes becomes the plan, and its shapes become piles', async () => {
      await page.keyboard.press('l');
      await page.locator('[data-test=study]').click();
      await page.locator('[data-test=part]').first().waitFor();
      const { shapes } = (await reference()).view;
      expect(shapes!.length).to.be.within(2, 20);
      const count = (await piles()).length;
      await page.locator('[data-test=mix-bare]').click();
      await soon(async () => (await piles()).length >= count + shapes!.length, 'a pile for each shape');
      await soon(async () => (await reference()).view.shapes!.every(({ pileId }) => pileId !== undefined), 'dressed in them');
      await page.keyboard.press('m');
    });
  });

describe('without a picture', () => {
  let sitting: Sitting;
  let page: Page;
  const paintingId = crypto.randomUUID();
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    const { palettes } = await sitting.rows();
    await sitting.elsewhere({
      do: 'painting.add',
      id: paintingId,
      title: 'The quarry road',
      paletteId: palettes![0]!.id,
      ground: '#b08a60',
    });
    await sitting.elsewhere({ do: 'painting.change', id: paintingId, version: 1, canvas: { widthMm: 600, heightMm: 300 } });
    await sitting.open(`painting/${paintingId}/reference`);
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const rows = () => sitting.rows(paintingId);
  const shapes = async () => (await sitting.rows()).references!.find((one) => one.paintingId === paintingId)?.view.shapes ?? [];

  it('a value plan lies on a canvas of the painting’s proportions; a target in words is two actions', async () => {
    await page.getByText('A thumbnail sketch of your own').waitFor();
    await page.locator('[data-test=begin-plan]').click();
    const stage = page.locator('[data-test=plan-stage]');
    await stage.waitFor();
    const box = (await stage.boundingBox())!;
    expect(box.width / box.height).to.be.closeTo(2, 0.02);
    const said = page.locator('[data-test=said-colour]');
    const draw = async (corners: readonly (readonly [number, number])[]): Promise<void> => {
      await page.mouse.move(box.x + corners[0]![0] * box.width, box.y + corners[0]![1] * box.height);
      await page.mouse.down();
      for (const [x, y] of corners.slice(1)) await page.mouse.move(box.x + x * box.width, box.y + y * box.height, { steps: 8 });
      await page.mouse.up();
    };
    const words = ['light blue grey', 'purple grey', 'a little darker than shape 2', 'peach'] as const;
    const hand = new Hand(page);
    for (const [i, word] of words.entries()) {
      hand.actions = 0;
      const [x, y] = [0.05 + 0.22 * i, 0.1 + 0.1 * i];
      hand.actions++;
      await draw([
        [x, y],
        [x + 0.18, y],
        [x + 0.18, y + 0.3],
        [x, y + 0.3],
      ]);
      await page.locator('[data-test=shape]').nth(i).waitFor();
      hand.actions++;
      if (i === 2) await said.fill('a little darker than the purple ground');
      else await said.fill(word);
      if (i === 2) {
        await page.getByRole('alert').waitFor();
        await said.fill('dark purple grey');
      }
      await soon(async () => (await shapes())[i]?.lab.L !== 50, `${word} is kept`);
      expect(hand.actions).to.equal(2);
      if (i === 1) {
        await page.getByLabel('What it is').fill('the wall');
        await page.getByLabel('What it is').press('Enter');
        await soon(async () => (await shapes())[1]?.thing === 'the wall', 'named');
      }
    }
    await said.fill('a little darker than the wall');
    await soon(async () => {
      const [, wall, , last] = await shapes();
      const off = wall && last ? valueOfLightness(wall.lab.L) - valueOfLightness(last.lab.L) : 0;
      return off > 0.2 && off < 1;
    }, 'darker than the wall');
    // The picture is the plan: what is pointed at has the shape's colour.
    await page.getByRole('button', { name: 'Make 4 piles of them' }).click();
    await soon(async () => (await shapes()).every(({ pileId }) => pileId !== undefined), 'each has a pile');
    const piles = (await rows()).piles!;
    expect(piles.filter(({ sampleId }) => sampleId !== null)).to.have.length(4);
    expect(piles.some(({ name }) => name === 'the wall')).to.equal(true);
    await page.locator('[data-test=part]').nth(3).waitFor();
  });

  it('a dim scene has a darkest and a lightest, within which colours that are said stay', async () => {
    await sitting.elsewhere({ do: 'painting.change', id: paintingId, version: 2, between: { darkest: 2, lightest: 6 } });
    await sitting.goTo('Mixing');
    // A key is the place's once the place is there.
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    await page.keyboard.press('n');
    await page.locator('[data-test=said-colour]').fill('white');
    await page.getByText('how light this painting may get').waitFor();
    const target = page.locator('[data-chip=target]').first();
    await target.waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    await page.getByRole('link', { name: 'Reference' }).click();
    await page.getByRole('button', { name: 'As seen' }).click();
    await page.locator('[data-test=door]', { hasText: 'Key' }).click();
    await page.getByText('It keeps between 2').waitFor();
    const thumb = page.locator('[data-test=between] [role=slider]').last();
    await thumb.focus();
    await page.keyboard.press('ArrowRight');
    await soon(
      async () => (await sitting.rows()).paintings!.find(({ id }) => id === paintingId)!.between?.lightest === 6.5,
      'a little lighter',
    );
  });

  it('field notes are said one after another with the time and the light, and become piles', async () => {
    await sitting.goTo('Mixing');
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    const before = (await rows()).piles!.length;
    await page.keyboard.press('j');
    const said = page.locator('[data-test=said-colour]');
    for (const words of ['warm pale grey', 'dull blue green', 'light peach']) {
      await said.fill(words);
      await said.press('Enter');
      await page.locator('[data-test=noted]', { hasText: words }).waitFor();
    }
    const notes = (await rows()).samples!.filter(({ referenceId }) => referenceId === null);
    expect(notes).to.have.length(3);
    expect(notes.every(({ light }) => light === 'sun')).to.equal(true);
    await page.locator('[data-test=note-piles]').click();
    await soon(async () => (await rows()).piles!.length >= before + 3, 'three piles');
    const made = (await rows()).piles!;
    for (const note of notes) expect(made.some(({ sampleId }) => sampleId === note.id)).to.equal(true);
  });
});

describe('a family by knowledge', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const piles = async (): Promise<readonly PileDto[]> => (await sitting.rows(sitting.paintingId)).piles!;

  it('of light and shadow is four actions, its members relatives of one base that do not meet in value', async () => {
    const before = new Set((await piles()).map(({ id }) => id));
    const hand = new Hand(page);
    await sitting.openPile(/^copper, body/);
    hand.actions++;
    await hand.key('2');
    await hand.click(page.locator('[data-test=whole-family]'));
    await page.locator('[data-test=relative]').nth(3).waitFor();
    await hand.click(page.locator('[data-test=keep-family]'));
    await soon(async () => (await piles()).length === before.size + 4, 'four relatives');
    expect(hand.actions).to.be.at.most(4);
    const all = await piles();
    const base = all.find(({ name }) => name === 'copper, body')!;
    const made = all.filter(({ id }) => !before.has(id));
    for (const pile of made) expect(pile.target).to.include({ kind: 'relative', pileId: base.id });
    const value = (pile: PileDto): number => valueOfLightness(pile.target!.lab.L);
    const of = (word: string): PileDto => made.find(({ name }) => name.endsWith(word))!;
    expect(value(of('reflected light'))).to.be.below(value(of('halftone')));
    expect(of('in shadow').purpose.zone).to.equal('shadow');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await piles()).length === before.size, 'undone at once');
  });

  it('is changed where the painter’s differs, stays so, and says when light and shadow meet', async () => {
    await page.locator('[data-test=whole-family]').click();
    const lighter = page.getByRole('button', { name: 'reflected light: lighter' });
    for (let i = 0; i < 6; i++) await lighter.click();
    await page.locator('[data-test=family-said]').waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    await page.reload();
    await page.getByRole('heading', { name: /^Pile copper, body/ }).waitFor();
    await page.keyboard.press('2');
    await page.locator('[data-test=whole-family]').click();
    await page.locator('[data-test=family-said]').waitFor();
    await page.getByRole('button', { name: 'As it was' }).click();
    await page.locator('[data-test=family-said]').waitFor({ state: 'detached' });
    await page.getByRole('radio', { name: 'A face, by regions' }).click();
    await page.locator('[data-test=relative]', { hasText: 'forehead' }).waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
  });

  it('says of a thing whose light is darker than its shadow that it is so', async () => {
    const all = await piles();
    const [light, shadow] = ['under the bowl', 'twine in the light'].map((name) => all.find((pile) => pile.name === name)!);
    for (const [pile, zone] of [
      [light!, 'light'],
      [shadow!, 'shadow'],
    ] as const)
      await sitting.elsewhere({
        do: 'pile.change',
        id: pile.id,
        version: pile.version,
        purpose: { ...pile.purpose, thing: 'the keeper', zone },
      });
    await sitting.openPile(/^under the bowl/);
    await page.keyboard.press('4');
    await page.getByText('The light of the keeper is darker than its shadow').waitFor();
  });
});

for (const [where, viewport] of [
  ['on a laptop', { width: 1280, height: 800 }],
  ['on a tablet upright', { width: 820, height: 1180 }],
] as const)
  describe(`the canvas beside its reference, ${where}`, () => {
    let sitting: Sitting;
    let page: Page;
    before(async () => {
      sitting = await Sitting.begin();
      ({ page } = sitting);
      await page.setViewportSize(viewport);
      await sitting.openReference();
    });
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));
    const canvases = async () => (await sitting.rows()).references!.filter(({ view }) => view.canvas !== undefined);

    it('is found in its photo and compared in four actions, what is off first to last, each with what would mend it', async () => {
      // The picture with a place far too light, as a camera before the canvas sees it.
      const { data, info } = await sharp('demo/pictures/workbench.jpg')
        .resize({ width: 360 })
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const { width, height } = info;
      const painted = lightOf({ data: new Uint8ClampedArray(data), width, height });
      for (let y = Math.floor(0.7 * height); y < 0.95 * height; y++)
        for (let x = Math.floor(0.05 * width); x < 0.3 * width; x++)
          for (let c = 0; c < 3; c++) painted.rgb[3 * (y * width + x) + c] = Math.min(1, 2.2 * painted.rgb[3 * (y * width + x) + c]!);
      const photo = photographedCanvas(painted, { light: 'lamp', paper: true, glare: false, seed: 5 });
      const png = await sharp(Buffer.from(photo.data), { raw: { width: photo.width, height: photo.height, channels: 4 } })
        .png()
        .toBuffer();
      const hand = new Hand(page);
      await hand.key('z');
      await page.locator('[data-test=bring-canvas]').waitFor();
      hand.actions += 2;
      await page
        .getByLabel('A photo of the canvas', { exact: true })
        .setInputFiles({ name: 'canvas.png', mimeType: 'image/png', buffer: png });
      const first = page.locator('[data-test=miss]').first();
      await first.waitFor();
      expect(hand.actions).to.be.at.most(4);
      expect(await first.innerText()).to.match(/lighter/);
      const [kept] = await canvases();
      STANDS.forEach((v, i) => expect(kept!.view.canvas!.corners[i]).to.be.closeTo(v, 0.05));
      await page.getByText('Its light is taken from the white beside it').waitFor();
    });

    it('flips against the picture; what is meant so stays so in the next photo', async () => {
      await page.locator('[data-test=flip]').click();
      await page.locator('[data-test=canvas-over] canvas').waitFor();
      await page.keyboard.press('Space');
      await page.locator('[data-test=canvas-over] canvas').waitFor({ state: 'detached' });
      const first = page.locator('[data-test=miss]').first();
      const said = await first.innerText();
      await first.getByRole('button', { name: 'is meant so' }).click();
      await soon(async () => (await canvases())[0]!.view.canvas!.meant?.length === 1, 'kept');
      await soon(async () => (await page.locator('[data-test=miss]').first().innerText()) !== said, 'it is not the first any more');
      await page.getByRole('button', { name: 'More of the canvas' }).click();
      await page.locator('[data-test=stand-in]').click();
      await soon(async () => (await canvases()).length === 2, 'another photo');
      expect((await canvases())[1]!.view.canvas!.meant).to.have.length(1);
      await page.locator('.thumbs button').nth(1).click();
      await soon(
        async () => (await page.locator('[data-test=miss] [aria-pressed=true]').count()) === 1,
        'the earlier photo with what is meant so',
      );
    });

    it('has its corners put right by hand, and its white given', async () => {
      await page.getByRole('button', { name: 'More of the canvas' }).click();
      await page.locator('[data-test=corners]').click();
      await page.locator('[data-test=corners-stage] canvas').first().waitFor();
      await page.getByRole('slider', { name: /^Upper left/ }).focus();
      await page.keyboard.press('ArrowRight');
      await page.getByRole('radio', { name: 'what is white' }).check();
      const box = (await page.locator('[data-test=corners-stage]').boundingBox())!;
      await page.mouse.click(box.x + 0.045 * box.height * (900 / 700), box.y + 0.52 * box.height);
      await page.getByRole('button', { name: 'Compare so' }).click();
      await page.getByText('Its light is taken from the white that was pressed').waitFor();
      // It is no picture to paint from.
      await page.locator('[data-test=door]', { hasText: /Colour/ }).click();
      await page
        .locator('[data-test=door]', { hasText: /^Pictures?/ })
        .first()
        .waitFor();
    });
  });

for (const [where, viewport] of [
  ['on a laptop', { width: 1280, height: 800 }],
  ['on a tablet upright', { width: 820, height: 1180 }],
] as const)
  describe(`a change that is tried, ${where}`, () => {
    let sitting: Sitting;
    let page: Page;
    before(async () => {
      sitting = await Sitting.begin();
      ({ page } = sitting);
      await page.setViewportSize(viewport);
      await sitting.openReference();
    });
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));
    const view = async () => (await sitting.rows()).references!.find(({ paintingId }) => paintingId === sitting.paintingId)!.view;
    const lightness = async (x: number, y: number): Promise<number> => (await shownAt(page, x, y)).reduce((sum, v) => sum + v / 3, 0);
    async function drawRound(x0: number, y0: number, x1: number, y1: number): Promise<void> {
      const { x, y, width, height } = (await page.locator('.picture').boundingBox())!;
      const corners = [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
        [x0, y0],
      ] as const;
      await page.mouse.move(x + x0 * width, y + y0 * height);
      await page.mouse.down();
      for (const [cx, cy] of corners.slice(1)) await page.mouse.move(x + cx * width, y + cy * height, { steps: 6 });
      await page.mouse.up();
    }

    it('is three actions: its key, an outline, darker; the picture shows it, and says what it does', async () => {
      const before = await lightness(0.7, 0.15);
      const hand = new Hand(page);
      await hand.key('j');
      await page.getByText('Draw round what you would change').waitFor();
      hand.actions++;
      await drawRound(0.55, 0.03, 0.95, 0.3);
      await hand.press('darker');
      expect(hand.actions).to.equal(3);
      await soon(async () => (await lightness(0.7, 0.15)) < before - 8, 'the wall is darker there');
      await page.locator('[data-test=tried]').first().waitFor();
      expect((await view()).trials).to.have.length(1);
      for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'darker', exact: true }).click();
      await page.getByText(/Steps of value, dark to light: (.+) % become (?!\1 %)/).waitFor();
    });

    it('lies beside others and the picture as it is; of a colour that is said, of a pile, elsewhere', async () => {
      await page.getByRole('button', { name: 'Another trial' }).click();
      await page.getByText('Draw round what is to change.').waitFor();
      await drawRound(0.55, 0.03, 0.95, 0.3);
      await page.getByRole('button', { name: 'another colour' }).click();
      await page.locator('[data-test=said-colour]').fill('dark slate blue');
      await soon(async () => {
        const [r, , b] = await shownAt(page, 0.7, 0.15);
        return b! > r! + 10;
      }, 'blue');
      await soon(async () => (await page.locator('[data-test=trial]').count()) === 3, 'as it is and two trials');
      await sitting.choose('try-pile', 'copper, body');
      await soon(async () => {
        const [r, , b] = await shownAt(page, 0.7, 0.15);
        return r! > b! + 40;
      }, 'of copper');
      await page.locator('[data-test=trial]').first().click();
      await soon(async () => {
        const [r, g, b] = await shownAt(page, 0.7, 0.15);
        return r! > 150 && Math.abs(r! - b!) < 30 && g! > 150;
      }, 'the picture as it is');
      await page.locator('[data-test=trial]').nth(2).click();
      await page.getByRole('heading', { name: 'Try a change' }).click();
      for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown');
      await soon(async () => (await view()).trials![1]!.changes[0]!.moveY === 0.1, 'moved');
      await page.getByRole('button', { name: 'Take this trial away' }).click();
      await soon(async () => (await view()).trials!.length === 1, 'away');
      await page.keyboard.press('ControlOrMeta+z');
      await soon(async () => (await view()).trials!.length === 2, 'and back');
    });
  });
