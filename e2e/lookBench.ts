import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { Sitting } from './studio.ts';

/** Something that was timed several times, ms. */
export type Timed = readonly [what: string, times: readonly number[], asked: string];

/** A photo of some size, as a camera makes them: a scene with grain. */
async function photo(width: number, height: number): Promise<Buffer> {
  const grain = await sharp({
    create: { width, height, channels: 3, background: '#808080', noise: { type: 'gaussian', mean: 128, sigma: 12 } },
  })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(new URL('../demo/pictures/courtyard.jpg', import.meta.url).pathname)
    .resize(width, height, { fit: 'fill' })
    .composite([{ input: grain, blend: 'soft-light' }])
    .jpeg({ quality: 92 })
    .toBuffer();
}

/** How long looks take as the browser draws them, how long a sweep, and how long it is until a large photo is seen. */
export async function lookTimes(): Promise<Timed[]> {
  const sitting = await Sitting.begin();
  const folder = mkdtempSync(join(tmpdir(), 'dusk-photos-'));
  const { page } = sitting;
  await sitting.openReference();
  const found: Timed[] = [];
  const drawn = () => page.evaluate(() => performance.getEntriesByName('look drawn').map((entry) => entry.duration));
  for (const [name, key] of [
    ['values', 'v'],
    ['warm and cool', 'w'],
    ['strength', 'c'],
    ['edges', 'e'],
    ['squint', 's'],
  ] as const) {
    const times: number[] = [];
    for (let i = 0; i < 8; i++) {
      await page.evaluate(() => performance.clearMeasures('look drawn'));
      await page.keyboard.press(key);
      await page.waitForFunction(() => performance.getEntriesByName('look drawn').length > 0);
      await page.waitForTimeout(120);
      if (i >= 2) times.push((await drawn())[0]!);
      await page.keyboard.press(key);
      await page.waitForTimeout(120);
    }
    found.push([`a look at the picture as large as it is shown: ${name}`, times, '≤ 100 ms']);
  }
  for (const [width, height, asked] of [
    [4240, 2827, '≤ 2,000 ms'],
    [8660, 5773, '≤ 6,000 ms'],
  ] as const) {
    const buffer = await photo(width, height);
    const times: number[] = [];
    for (let i = 0; i < 3; i++) {
      const before = await page.locator('[data-test=door]', { hasText: ' of ' }).count();
      // Chosen from the disk, as a painter does; handed over by the driver a large file would take its time.
      const file = join(folder, `photo ${width} ${i}.jpg`);
      writeFileSync(file, Buffer.concat([buffer, Buffer.alloc(i)]));
      const from = performance.now();
      await page.locator('input[type=file]').setInputFiles(file);
      const of = `${(before ? Number((await page.locator('[data-test=door]', { hasText: ' of ' }).innerText()).split(' of ')[1]) : 1) + 1}`;
      await page.locator('[data-test=door]', { hasText: `of ${of}` }).waitFor();
      await page.locator('.picture canvas').waitFor();
      times.push(performance.now() - from);
      await page.waitForTimeout(500);
    }
    found.push([`a JPEG of ${Math.round((width * height) / 1e6)} megapixels, from choosing it to seeing it`, times, asked]);
    if (width > 5000) continue;
    const sweeps: number[] = [];
    for (let i = 0; i < 4; i++) {
      const from = performance.now();
      await page.keyboard.press('r');
      await page.getByText(/Hatched is out of reach/).waitFor();
      sweeps.push(performance.now() - from);
      await page.keyboard.press('r');
      await page.waitForTimeout(100);
    }
    found.push(['what is out of reach, swept and hatched, 12 megapixels', sweeps, '≤ 1,000 ms']);
  }
  await sitting.end();
  rmSync(folder, { recursive: true, force: true });
  return found;
}
