import { Sitting } from './studio.ts';
const s = await Sitting.begin();
const { page } = s;
page.setDefaultTimeout(5000);
const shoot = async (n: string) => {
  await page.waitForTimeout(400);
  await page.screenshot({ path: `/tmp/shots/${n}.png` });
};
await s.openReference();
try {
  await s.openPile(/^wall, further off/);
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: 'It looks like the paper' }).click();
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('-');
  await page.locator('[data-test=addition]').first().waitFor();
  await page.keyboard.press('Enter');
  await page.waitForTimeout(800);
  console.log('lines', await page.locator('[data-test=addition]').count(), 'others', await page.locator('[data-test=other-way]').count());
  await page.locator('[data-test=addition]').first().getByRole('button').click();
  await page.waitForTimeout(800);
  await shoot('step');
  console.log('done', await page.locator('.line.done').count(), await page.locator('.line').count());
  await page.keyboard.press(' ');
  await page.waitForTimeout(800);
  await shoot('step2');
  await page.getByRole('button', { name: 'or a photo' }).click();
  await page.getByLabel('Photo of the pile').waitFor();
  await page.waitForTimeout(500);
  const photo = await page.evaluate(async () => {
    const c = new OffscreenCanvas(400, 200);
    const x = c.getContext('2d')!;
    x.fillStyle = 'rgb(225, 222, 210)';
    x.fillRect(0, 0, 200, 200);
    x.fillStyle = 'rgb(120, 96, 70)';
    x.fillRect(200, 0, 200, 200);
    return [...new Uint8Array(await (await c.convertToBlob({ type: 'image/png' })).arrayBuffer())];
  });
  await page.getByLabel('Photo of the pile').setInputFiles({ name: 'pile.png', mimeType: 'image/png', buffer: Buffer.from(photo) });
  await page.waitForTimeout(500);
  await shoot('photo');
} catch (e) {
  console.log(String(e).slice(0, 400));
  await shoot('err');
}
console.log(s.faults);
await s.end();
