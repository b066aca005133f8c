import { randomUUID } from 'node:crypto';
import { operationsToMix, type Operation } from '@dusk/wire';
import type { Timed } from './lookBench.ts';
import { Sitting } from './studio.ts';

/** Millilitres taken from each tube for a pile. */
const TUBE_ML = [3, 0.4, 0.3, 0.2];
const PILES = 8;

/** What a hand in the place Mixing waits for, with eight tubes and eight piles as ingredients; and the page's longest task meanwhile. */
export async function kinTimes(): Promise<{ readonly timed: readonly Timed[]; readonly longest: number }> {
  const sitting = await Sitting.begin();
  const { page } = sitting;
  await sitting.openReference();
  const { paintingId } = sitting;
  const { palettes, paintings, tubes } = await sitting.rows();
  const palette = palettes!.find(({ id }) => id === paintings!.find((one) => one.id === paintingId)!.paletteId)!;
  const more = tubes!.filter((t) => t.maker !== '' && !palette.tubeIds.includes(t.id)).slice(0, 8 - palette.tubeIds.length);
  const tubeIds = [...palette.tubeIds, ...more.map((t) => t.id)];
  const known = new Map(tubes!.map((t) => [t.id, t]));
  const mix = (i: number): Operation[] => {
    const id = randomUUID();
    const plan = {
      form: 1,
      heaps: [{ ingredients: TUBE_ML.map((parts, k) => ({ tube: tubeIds[(k * (i + 1)) % tubeIds.length]!, parts })) }],
    };
    const heaps = [{ ingredients: [...new Map(plan.heaps[0]!.ingredients.map((one) => [one.tube, one])).values()] }];
    const table = {
      paintingId,
      newId: () => randomUUID(),
      stateOf: (tube: string) => known.get(tube)!.stateId,
      stageOf: () => '',
      handlingOf: () => ({ density: 1.5, nozzleMm: 6 }),
      nameOf: () => 'a heap',
    };
    return [
      { do: 'pile.add', id, paintingId, name: `lying ${i + 1}`, plan: { form: 1, heaps }, ml: 8 } as unknown as Operation,
      ...operationsToMix(id, { heaps }, 8, table),
    ];
  };
  await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: palette.version, tubeIds });
  const lying = (await sitting.rows(paintingId)).piles!.filter(({ there }) => there > 0);
  await sitting.elsewhere(...Array.from({ length: PILES - lying.length }, (_, i) => mix(i)).flat());
  const target = (await sitting.rows(paintingId)).piles!.find(({ name }) => name === 'twine in the light')!;
  await page.goto(`${sitting.running.address}painting/${paintingId}/mixing/${target.id}`);
  await page.locator('[data-test=alternative]').first().waitFor();
  await page.evaluate(() => {
    (window as unknown as { longest: number }).longest = 0;
    new PerformanceObserver((list) => {
      const own = window as unknown as { longest: number };
      for (const { duration } of list.getEntries()) own.longest = Math.max(own.longest, duration);
    }).observe({ type: 'longtask' });
  });
  const measured = (name: string) => page.evaluate((n) => performance.getEntriesByName(n).map((entry) => entry.duration), name);
  const clear = () => page.evaluate(() => performance.clearMeasures());
  const timed: Timed[] = [];

  await page.locator('[data-test=wishes] summary').click();
  await sitting.choose('from', 'tubes and piles here');
  await page.waitForTimeout(1500);
  const keys = page.locator('[data-test=tube-key]');
  const count = await keys.count();
  for (let round = 0; round < 5; round++) {
    if (round === 1) await clear();
    for (let i = 0; i < count; i++) {
      await keys.nth(i).click();
      await page.waitForTimeout(110);
      await keys.nth(i).click();
      await page.waitForTimeout(110);
    }
  }
  timed.push(['other recipes after a tube is left out, 8 tubes and 8 piles', await measured('alternatives follow'), '≤ 50 ms']);

  await page.keyboard.press('2');
  for (let i = 0; i < 80; i++) {
    if (i === 16) await clear();
    await page.keyboard.press(['ArrowDown', 'ArrowRight', '-', 'ArrowUp', 'ArrowUp', 'ArrowLeft', '+', 'i'][i % 8]!);
    await page.waitForTimeout(110);
  }
  timed.push(['what to add for a relative, after a step', await measured('kin follows'), '≤ 50 ms']);

  await page.keyboard.press('3');
  await clear();
  await page.getByRole('button', { name: '9', exact: true }).click();
  for (const name of ['under the bowl', 'wall by the window', 'bench in the light', 'blanket, front']) {
    const before = (await measured('string follows')).length;
    await page
      .locator('.right')
      .getByRole('button', { name: new RegExp(` ${name}$`) })
      .click();
    await page.waitForFunction((n) => performance.getEntriesByName('string follows').length > n, before);
  }
  timed.push(['a string of nine, over two to five stops', await measured('string follows'), '≤ 1,000 ms']);
  const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
  await sitting.end();
  return { timed, longest };
}
