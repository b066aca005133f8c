import { expect } from 'chai';
import { Sitting, soon } from './studio.ts';

/** What the first column of a recipe holds in each way of measuring. */
const TOLD = {
  eye: /^(mostly|half|much|some|a little|a touch|a speck|all of it|(two|three|four|five|six) touches)$/,
  parts: /^(\d+|a touch|a speck|(two|three|four|five|six) touches)$/,
  beads: /^([\d.]+ mm|a touch|a speck|(two|three|four|five|six) touches)$/,
  scale: /^([\d.]+ g|[\d.]+ mm|a touch|a speck|(two|three|four|five|six) touches)$/,
} as const;
const WAYS = ['eye', 'parts', 'beads', 'scale'] as const;

for (const [size, viewport] of [
  ['a laptop, 1280 × 800', { width: 1280, height: 800 }],
  ['a tablet upright, 820 × 1180', { width: 820, height: 1180 }],
] as const)
  describe(`the painter’s way of measuring, on ${size}`, () => {
    let sitting: Sitting;
    before(async function () {
      this.timeout(60_000);
      sitting = await Sitting.begin(true, { viewport });
      await sitting.openReference();
    });
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));

    const amounts = async (where: string): Promise<string[]> => sitting.page.locator(`${where} ol .parts`).allInnerTexts();
    async function toldEverywhere(where: string): Promise<void> {
      for (const way of WAYS) {
        await sitting.page.locator(`[data-test=measure-${way}]`).first().click();
        await soon(async () => {
          const said = await amounts(where);
          // By scale some is weighed: else these may still be the beads of before.
          return said.length > 0 && said.every((one) => TOLD[way].test(one)) && (way !== 'scale' || said.some((one) => one.endsWith(' g')));
        }, `told ${way}`);
      }
    }

    it('tells the recipe under the pointer in four ways, by switch and by key', async () => {
      const { page } = sitting;
      await sitting.pointAt(0.45, 0.62);
      await page.locator('[data-test=recipe]').waitFor();
      await toldEverywhere('[data-test=recipe]');
      await page.locator('main').focus();
      await page.keyboard.press('y');
      await soon(async () => (await sitting.rows()).settings![0]!.measure === 'eye', 'round again to by eye');
      await soon(async () => (await amounts('[data-test=recipe]')).every((one) => TOLD.eye.test(one)), 'told by eye');
    });

    it('tells an open pile and the easel the same way, and remembers it', async () => {
      const { page } = sitting;
      await sitting.openPile(/^twine in the light/);
      await page.locator('[data-test=kept-recipe]').waitFor();
      expect((await amounts('[data-test=kept-recipe]')).every((one) => TOLD.eye.test(one))).to.equal(true);
      await toldEverywhere('[data-test=kept-recipe]');
      await page.reload();
      await page.locator('[data-test=kept-recipe]').waitFor();
      expect((await amounts('[data-test=kept-recipe]')).every((one) => TOLD.scale.test(one))).to.equal(true);
      await page.getByRole('link', { name: 'At the easel' }).click();
      await page.locator('.easel .line strong').first().waitFor();
      expect(await page.locator('.easel .line strong').first().innerText()).to.match(TOLD.scale);
      await page.locator('.easel [data-test=measure-eye]').click();
      await soon(async () => TOLD.eye.test(await page.locator('.easel .line strong').first().innerText()), 'the easel too');
      await page.keyboard.press('Escape');
    });
  });
