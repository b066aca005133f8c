import { expect } from 'chai';
import { DISPLAY_P3, deltaE00, hexToLab, linearToLab } from '@dusk/core';
import { tagPng } from '@dusk/server/pictures/tag';
import { labOfDto } from '@dusk/wire';
import sharp from 'sharp';
import type { Page } from 'playwright-core';
import { Sitting, soon } from './studio.ts';

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
  /** The colour that is read; nothing while one picture is exchanged for another. */
  const chip = () =>
    page
      .locator('aside [data-chip=target]')
      .evaluate((one) => getComputedStyle(one).backgroundColor, undefined, { timeout: 500 })
      .catch(() => '');
  /** Points at the picture, if there is one: it may just be exchanged for another. */
  const points = async (x: number): Promise<boolean> => {
    if (
      (await page
        .locator('.picture canvas')
        .boundingBox({ timeout: 500 })
        .catch(() => null)) === null
    )
      return false;
    await sitting.pointAt(x, 0.5);
    return true;
  };
  let nearby = 0.5;
  const seesColour = (rgb: string) =>
    soon(async () => {
      // Each time a place beside the last: the pointer must move to be seen.
      if (!(await points((nearby = nearby === 0.5 ? 0.505 : 0.5)))) return false;
      return (await chip()) === rgb;
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
    await page.locator('[data-test=door]', { hasText: /of 3/ }).click();
    await page.getByRole('button', { name: 'Look at dropped' }).click();
    await page.locator('[data-test=door]', { hasText: 'Colour' }).click();
    await seesColour('rgb(138, 107, 79)');
  });

  it('that this browser cannot read are seen once the studio has them', async () => {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'scan.tiff', mimeType: 'image/tiff', buffer: await flat('#6a7f55').tiff({ compression: 'lzw' }).toBuffer() });
    await seesColour('rgb(106, 127, 85)');
  });

  it('are read in their own pixels once the hand is still', async () => {
    // Lines a pixel wide, larger than any copy: what is read must blend as light does, not as codes do.
    const [width, height] = [4800, 3200];
    const line = Buffer.from(Array.from({ length: width }, (_, x) => (x % 2 === 0 ? [250, 240, 235] : [20, 30, 60])).flat());
    const raw = Buffer.concat(Array.from({ length: height }, () => line));
    const buffer = await sharp(raw, { raw: { width, height, channels: 3 } })
      .png({ compressionLevel: 1 })
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'lines.png', mimeType: 'image/png', buffer });
    await soon(() => points(0.42), 'the new picture is pointed at');
    await soon(async () => {
      const said = await page.locator('aside .warning').allTextContents();
      return said.some((one) => /^Not one colour/.test(one));
    }, 'two colours, told apart only in the picture’s own pixels');
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
    await page.locator('[data-test=door]', { hasText: /of \d/ }).click();
    const choosing = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Replace it' }).click();
    await (
      await choosing
    ).setFiles({ name: 'larger.png', mimeType: 'image/png', buffer: await flat('#406040').resize(180, 120).png().toBuffer() });
    await soon(async () => (await references()).at(-1)!.pictureId !== chosen.pictureId, 'another picture');
    expect((await references()).at(-1)).to.include({ id: chosen.id, width: 90, height: 60 });
    await page.locator('[data-test=door]', { hasText: 'Colour' }).click();
    await seesColour('rgb(64, 96, 64)');
    expect(await page.locator('[data-test=mark]').count()).to.equal(marks);
  });

  it('keep where they are from, and what may be done with them', async () => {
    await page.locator('[data-test=door]', { hasText: /of \d/ }).click();
    await page.getByLabel('Where it is from').fill('my own, by the weir');
    await page.getByLabel('Where it is from').press('Enter');
    await sitting.choose('passing', 'to look at only, never passed on');
    await soon(async () => {
      const { source, passing } = (await references()).at(-1)!;
      return source === 'my own, by the weir' && passing === 'no';
    }, 'kept with it');
    await page.locator('[data-test=door]', { hasText: 'Colour' }).click();
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
