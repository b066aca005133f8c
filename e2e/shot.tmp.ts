import { Sitting } from './studio.ts';
const s = await Sitting.begin();
const { page } = s;
const shoot = async (n: string) => {
  await page.waitForTimeout(600);
  await page.screenshot({ path: `/tmp/shots/${n}.png` });
};
await s.openReference();
await page
  .getByRole('link', { name: /^wall, further off/ })
  .first()
  .click();
await page.locator('[data-test=standing]').waitFor();
await page.keyboard.press('ArrowDown');
await shoot('white');
await page.getByRole('button', { name: 'It looks like the paper' }).click();
for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown');
for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
await page.locator('[data-test=addition]').first().waitFor();
await shoot('correcting');
await page.keyboard.press('Space');
await page.waitForTimeout(800);
await shoot('after');
await page.setViewportSize({ width: 820, height: 1180 });
for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp');
await shoot('upright');
console.log(s.faults);
await s.end();
