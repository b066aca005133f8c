// npm run screenshots: one picture of each main view, from the sample studio, into docs/screenshots.
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Sitting } from './studio.ts';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
mkdirSync(FOLDER, { recursive: true });

const sitting = await Sitting.begin();
const { page } = sitting;
const shoot = async (name: string): Promise<void> => {
  await page.waitForTimeout(700);
  await page.screenshot({ path: `${FOLDER}${name}.png` });
  console.log(name);
};
const pointAt = async (x: number, y: number): Promise<void> => {
  await sitting.pointAt(x, y);
  await sitting.pointAt(x + 0.001, y);
  await page.locator('[data-test=recipe]').waitFor();
};

await sitting.open('paintings');
await shoot('paintings');
await sitting.open('tubes');
await shoot('tubes');
await sitting.openReference();
await pointAt(0.31, 0.5);
await shoot('reference');
await page.keyboard.press('v');
await shoot('reference-values');
await page.keyboard.press('v');
await page.keyboard.press('e');
await shoot('reference-edges');
await page.keyboard.press('e');
await page.setViewportSize({ width: 820, height: 1180 });
await page.waitForTimeout(400);
await pointAt(0.31, 0.5);
await shoot('reference-upright');
await page.setViewportSize({ width: 1280, height: 800 });
await sitting.openPile(/^copper, body/);
await page.locator('[data-test=alternative]').first().waitFor();
await shoot('mixing');
await page.getByRole('link', { name: 'At the easel' }).click();
await page.locator('.easel').waitFor();
await page.keyboard.press(' ');
await shoot('easel');
await page.keyboard.press('Escape');
await sitting.openPile(/^wall near the lamp/);
await page.locator('[data-test=addition]').first().waitFor();
await shoot('correcting');
await page.setViewportSize({ width: 820, height: 1180 });
await shoot('correcting-upright');
await page.setViewportSize({ width: 1280, height: 800 });
await page.getByRole('link', { name: 'Mixing' }).click();
await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
await shoot('piles');
await page.getByRole('link', { name: 'Palettes' }).click();
await shoot('palettes');
await sitting.openReference('Courtyard, washing day');
await pointAt(0.33, 0.55);
await shoot('courtyard');
await page.getByRole('tab', { name: 'Key' }).click();
await page.keyboard.press('p');
await shoot('reference-key');
await sitting.end();
