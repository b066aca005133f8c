import { seeded } from '@dusk/core/random';
import type { ShapeDto } from '@dusk/wire';
import { expect } from 'chai';
import { Sitting, soon } from './studio.ts';

/** Answers are held back so long, ms. */
const LEAST_MS = 400;
const MOST_MS = 2500;
/** Drawing a plan as a picture and keeping it in the browser takes a moment; no hand leaves sooner. */
const HAND_MS = 800;

const aMoment = (): Promise<void> => new Promise((done) => setTimeout(done, HAND_MS));

/** Walks that are tried; `SEEDS=3,9,27` tries others. */
const SEEDS = (process.env['SEEDS'] ?? '4').split(',').map(Number);

describe('while the studio is slow', () => {
  for (const seed of SEEDS)
    it(`no shape is lost, whatever place is gone to or loaded anew meanwhile; each pile is laid into its shape: walk ${seed}`, async () => {
      // Two streams, so that what is done does not hang on when it is answered.
      const [next, late] = [seeded(seed), seeded(seed + 1)];
      const sitting = await Sitting.begin();
      const { page } = sitting;
      const paintingId = '5c0e7a3e-0c1d-4f5e-9a4b-3f2f7f7d6b11';
      const { palettes, paintings } = await sitting.rows();
      const other = paintings![0]!.id;
      await sitting.elsewhere({
        do: 'painting.add',
        id: paintingId,
        title: 'The slow road',
        paletteId: palettes![0]!.id,
        ground: '#b08a60',
      });
      const shapes = async (): Promise<readonly ShapeDto[]> =>
        (await sitting.rows()).references!.find((one) => one.paintingId === paintingId)?.view.shapes ?? [];
      const there = `painting/${paintingId}/reference`;
      await sitting.open(there);
      await page.locator('[data-test=begin-plan]').click();
      await page.locator('[data-test=plan-stage]').waitFor();
      await page.route('**/api/changes', async (route) => {
        await new Promise((done) => setTimeout(done, LEAST_MS + late() * (MOST_MS - LEAST_MS)));
        await route.continue().catch(() => undefined);
      });
      const plan = async (): Promise<void> => {
        await page.locator('.picture canvas').first().waitFor();
        const stage = page.locator('[data-test=plan-stage]');
        if ((await stage.count()) === 0) await page.locator('[data-test=door]', { hasText: 'Plan' }).click();
        await stage.waitFor();
      };
      const drawn: number[] = [];
      const did: string[] = [];
      const draw = async (): Promise<void> => {
        const box = (await page.locator('[data-test=plan-stage]').boundingBox())!;
        const x = 0.04 + 0.11 * drawn.length;
        const at = (u: number, v: number) => [box.x + u * box.width, box.y + v * box.height] as const;
        await page.mouse.move(...at(x, 0.2));
        await page.mouse.down();
        for (const [u, v] of [
          [x + 0.08, 0.2],
          [x + 0.08, 0.6],
          [x, 0.6],
        ] as const)
          await page.mouse.move(...at(u, v), { steps: 4 });
        await page.mouse.up();
        drawn.push(x);
        await page
          .locator('[data-test=shape]')
          .nth(drawn.length - 1)
          .waitFor();
      };
      const MOVES = {
        draw,
        'go to the piles': async () => {
          await page.getByRole('link', { name: 'Mixing', exact: true }).click();
          await page.getByRole('link', { name: 'Reference', exact: true }).click();
          await plan();
        },
        'another painting': async () => {
          await page.getByRole('link', { name: 'Paintings', exact: true }).click();
          await page.getByRole('heading', { name: 'On the easel' }).waitFor();
          await sitting.goAtOnce(`painting/${other}/reference`);
          await page.locator('.picture canvas').first().waitFor();
          await sitting.goAtOnce(there);
          await plan();
        },
        'load anew': async () => {
          await aMoment();
          await page.reload();
          await page.getByRole('link', { name: 'Reference', exact: true }).waitFor();
          await plan();
        },
      };
      const names = Object.keys(MOVES) as (keyof typeof MOVES)[];
      const says = (): string => did.join(', ');
      await draw();
      while (drawn.length < 8) {
        const name = next() < 0.45 ? 'draw' : names[Math.floor(next() * names.length)]!;
        did.push(name);
        await MOVES[name]().catch((cause: unknown) => {
          throw new Error(`${says()}: ${String(cause)}`);
        });
      }

      await soon(async () => (await shapes()).length >= drawn.length, `all shapes are in the studio; ${says()}`);
      const kept = await shapes();
      expect(kept.length, says()).to.equal(drawn.length);
      for (const [i, x] of drawn.entries())
        expect(Math.min(...kept[i]!.points.filter((_, k) => k % 2 === 0)), says()).to.be.closeTo(x, 0.01);
      await page.getByRole('button', { name: 'Make 8 piles of them' }).click();
      await aMoment();
      await sitting.goAtOnce(`painting/${other}/reference`);
      await soon(async () => (await shapes()).every(({ pileId }) => pileId !== undefined), `each shape has its pile; ${says()}`);
      const piles = (await sitting.rows(paintingId)).piles!;
      expect(piles.map(({ id }) => id)).to.include.members((await shapes()).map(({ pileId }) => pileId!));
      expect(sitting.faults.filter((fault) => !/ERR_ABORTED|Failed to fetch/.test(fault))).to.deep.equal([]);
      await sitting.end();
    });
});
