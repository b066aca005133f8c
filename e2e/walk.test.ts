// One walk through every place: nothing covered at any size, nothing serious that axe finds, in a dark room and a light one.
// Each place is gone to once; sizes, touch and the other room are tried where it stands.
import AxeBuilder from '@axe-core/playwright';
import { expect } from 'chai';
import { faultsOfGeometry } from './geometry.ts';
import { Sitting, soon } from './studio.ts';

interface Place {
  readonly name: string;
  readonly go: (sitting: Sitting) => Promise<void>;
}

const openCard = async ({ page }: Sitting): Promise<void> => {
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Cards' }).click();
  await page.locator('[data-test=card]').first().click();
  await page.locator('[data-test=open-card]').waitFor();
};

const byKeyOnCard = (key: string, dialog: RegExp) => async (sitting: Sitting) => {
  await openCard(sitting);
  await sitting.page.keyboard.press(key);
  await sitting.page.getByRole('dialog', { name: dialog }).waitFor();
};

const openPlanned = async (sitting: Sitting): Promise<void> => {
  const { piles } = await sitting.rows(sitting.paintingId);
  const planned = piles!.find((pile) => pile.stages.length === 0)!;
  await sitting.open(`painting/${sitting.paintingId}/mixing/${planned.id}`);
  await sitting.page.locator('[data-test=standing]').waitFor();
};

const PLACES: readonly Place[] = [
  { name: 'paintings', go: (sitting) => sitting.open('paintings') },
  { name: 'tubes', go: (sitting) => sitting.goTo('Tubes') },
  { name: 'palettes', go: (sitting) => sitting.goTo('Palettes') },
  {
    name: 'reference',
    go: async (sitting) => {
      await sitting.goTo('Reference');
      await sitting.page.locator('.picture canvas').waitFor();
      await sitting.page.getByText('Laying the palette out').waitFor({ state: 'detached' });
      await sitting.pointAt(0.3, 0.5);
      await sitting.page.locator('[data-test=recipe]').waitFor();
    },
  },
  {
    name: 'colours that matter',
    go: async ({ page }) => {
      await page.keyboard.press('q');
      await page.locator('[data-test=proposed]').nth(4).waitFor();
    },
  },
  {
    name: 'a plan in flat shapes',
    go: async ({ page }) => {
      await page.keyboard.press('l');
      await page.locator('[data-test=study]').waitFor();
      await page.locator('[data-test=plan-stage]').waitFor();
    },
  },
  {
    name: 'a change that is tried',
    go: async ({ page }) => {
      await page.keyboard.press('j');
      await page.getByText('Draw round what you would change').waitFor();
    },
  },
  {
    name: 'the canvas beside its picture',
    go: async ({ page }) => {
      await page.keyboard.press('z');
      await page.locator('[data-test=flip], [data-test=bring-canvas]').waitFor();
      if (await page.locator('[data-test=bring-canvas]').isVisible()) await page.locator('[data-test=stand-in]').click();
      await page.locator('[data-test=miss]').first().waitFor();
    },
  },
  {
    name: 'the picture in one’s own piles',
    go: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.keyboard.press('m');
      await page.locator('[data-test=part]').nth(4).waitFor();
    },
  },
  { name: 'mixing', go: (sitting) => sitting.goTo('Mixing') },
  {
    name: 'field notes',
    go: async ({ page }) => {
      await page.keyboard.press('j');
      await page.locator('[data-test=note]').waitFor();
    },
  },
  {
    name: 'an open pile',
    go: async (sitting) => {
      await sitting.page.keyboard.press('Escape');
      await sitting.page.getByRole('dialog').waitFor({ state: 'detached' });
      await sitting.openPile(/^copper, body/);
      await sitting.page.locator('[data-test=kept-recipe]').waitFor();
    },
  },
  {
    name: 'a pile and its kin',
    go: async ({ page }) => {
      await page.keyboard.press('2');
      await page.keyboard.press('ArrowDown');
      await page.locator('[data-test=kin-recipe]').waitFor();
    },
  },
  {
    name: 'a family of a pile',
    go: async ({ page }) => {
      await page.locator('[data-test=whole-family]').click();
      await page.locator('[data-test=relative]').first().waitFor();
    },
  },
  {
    name: 'what a pile is for',
    go: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await page.keyboard.press('4');
      await page.locator('[data-test=pile-note]').waitFor();
    },
  },
  {
    name: 'how a pile is laid',
    go: async ({ page }) => {
      await page.keyboard.press('5');
      await page.locator('[data-test=over-ground]').waitFor();
    },
  },
  { name: 'a pile that is only planned', go: openPlanned },
  {
    name: 'a pile being put right',
    go: async (sitting) => {
      await sitting.openPile(/^wall near the lamp/);
      await sitting.page.locator('[data-test=addition]').first().waitFor();
    },
  },
  {
    name: 'out of doors',
    go: async (sitting) => {
      await sitting.goTo('Mixing');
      await sitting.more(/^Out of doors/);
      await sitting.page.getByRole('dialog', { name: 'Out of doors' }).waitFor();
    },
  },
  {
    name: 'the day',
    go: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await page.keyboard.press('d');
      await page.locator('[data-test=day-step]').first().waitFor();
    },
  },
  {
    name: 'a photo of the palette',
    go: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await page.keyboard.press('f');
      await page.locator('[data-test=stand-in]').click();
      await page.locator('[data-test=photo-row]').first().waitFor();
    },
  },
  {
    name: 'the easel',
    go: async (sitting) => {
      await sitting.page.keyboard.press('Escape');
      await sitting.openPile(/^copper, body/);
      await sitting.page.getByRole('link', { name: 'At the easel' }).click();
      await sitting.page.getByRole('button', { name: 'Leave the easel' }).waitFor();
    },
  },
  {
    name: 'cards',
    go: async (sitting) => {
      const { page, paintingId } = sitting;
      const { piles } = await sitting.rows(paintingId);
      const mixed = piles!.find((pile) => pile.there > 0)!;
      const planned = piles!.find((pile) => pile.stages.length === 0)!;
      await sitting.elsewhere(...[mixed, planned].map(({ id }) => ({ do: 'card.add', id: crypto.randomUUID(), pileId: id })));
      await page.keyboard.press('Escape');
      await page.getByRole('link', { name: 'Cards' }).click();
      await page.locator('[data-test=card]').first().waitFor();
    },
  },
  { name: 'an open card', go: openCard },
  { name: 'a card to be printed', go: byKeyOnCard('p', /^Print/) },
  { name: 'a dab on a card', go: byKeyOnCard('d', /^Your dab/) },
  {
    name: 'cards that are brought',
    go: async (sitting) => {
      const { page, running } = sitting;
      await openCard(sitting);
      const all = encodeURIComponent('{"all":true}');
      const file = await (await fetch(`${running.address}api/cards-out?wanted=${all}`)).text();
      const theirs = file
        .replaceAll(/"id":"[^"]*"/g, () => `"id":"${crypto.randomUUID()}"`)
        .replaceAll('"pigment":"viridian"', '"pigment":""');
      await page.keyboard.press('b');
      const buffer = Buffer.from(JSON.stringify({ ...(JSON.parse(theirs) as object), sets: [] }));
      await page.getByLabel('File of cards').setInputFiles({ name: 'theirs.json', mimeType: 'application/json', buffer });
      await page.locator('[data-test=news]').waitFor();
    },
  },
];

/** By mouse first; what is tried by touch comes after it. */
const SIZES = [
  { name: 'a laptop', width: 1280, height: 800, hasTouch: false },
  { name: 'a window at twice its size', width: 640, height: 400, hasTouch: false },
  { name: 'a tablet upright', width: 820, height: 1180, hasTouch: true },
  { name: 'a phone', width: 390, height: 844, hasTouch: true },
] as const;

/** Runs in the page: every part that is dressed for one room is dressed for the other, as the theme does it. */
const dress = ({ from, to }: { from: string; to: string }): void => {
  for (const part of document.querySelectorAll(`.v-theme--${from}`)) part.classList.replace(`v-theme--${from}`, `v-theme--${to}`);
};

describe('every place', () => {
  let sitting: Sitting;
  let reference: string;
  let touch: (enabled: boolean) => Promise<unknown>;
  before(async () => {
    sitting = await Sitting.begin(true, { hasTouch: true });
    const session = await sitting.context.newCDPSession(sitting.page);
    touch = (enabled) => session.send('Emulation.setTouchEmulationEnabled', { enabled });
    await sitting.openReference();
    reference = new URL(sitting.page.url()).pathname.slice(1);
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  /** What axe finds that is serious, in one line each. */
  const seriousOf = async (rules?: string[]): Promise<string[]> => {
    // Nothing here is in frames of other origins; the way for those opens a window for each answer.
    const axe = new AxeBuilder({ page: sitting.page }).setLegacyMode();
    if (rules) axe.withRules(rules);
    const { violations } = await axe.analyze();
    return violations
      .filter((one) => one.impact === 'serious' || one.impact === 'critical')
      .map((one) => `${one.id}: ${one.nodes.map((n) => `${n.target.join(' ')} ${n.any[0]?.message ?? ''}`).join(' | ')}`);
  };

  for (const { name, go } of PLACES)
    it(name, async () => {
      const { page } = sitting;
      await go(sitting);
      await sitting.quiet();
      expect(await seriousOf(), 'dark').to.deep.equal([]);
      // The rooms differ by their colours alone.
      await page.evaluate(dress, { from: 'dark', to: 'light' });
      await sitting.quiet();
      expect(await seriousOf(['color-contrast']), 'light').to.deep.equal([]);
      await page.evaluate(dress, { from: 'light', to: 'dark' });
      for (const { hasTouch, name: size, ...viewport } of SIZES) {
        await touch(hasTouch);
        await page.setViewportSize(viewport);
        await sitting.quiet();
        expect(await page.evaluate(faultsOfGeometry), size).to.deep.equal([]);
      }
      await touch(false);
      await page.setViewportSize(SIZES[0]);
    });

  for (const { hasTouch, name: size, ...viewport } of SIZES)
    it(`a recipe is kept in sight, with a notice up, on ${size}`, async () => {
      const { page } = sitting;
      await touch(hasTouch);
      await page.setViewportSize(viewport);
      await sitting.open(reference);
      const { paintingId } = sitting;
      const { piles } = await sitting.rows(paintingId);
      await page.locator('.picture canvas').waitFor();
      await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
      await sitting.pointAt(0.36, 0.4);
      if (hasTouch) {
        const box = (await page.locator('[role=application]').boundingBox())!;
        await page.touchscreen.tap(box.x + box.width * 0.36, box.y + box.height * 0.4);
      }
      await page.locator('[data-test=recipe]').waitFor();
      for (const selector of ['.picture canvas', '.keep']) {
        const box = (await page.locator(selector).first().boundingBox())!;
        expect(box.y, `${selector} begins on the screen`).to.be.at.least(0);
        const foot = await page.locator('.ledge').boundingBox();
        expect(box.y + box.height, `${selector} ends above the ledge`).to.be.at.most((foot?.y ?? viewport.height) + 1);
      }
      await page.locator('.keep').click();
      await page.getByRole('button', { name: 'Undo', exact: true }).waitFor();
      expect(await page.evaluate(faultsOfGeometry), 'with a notice').to.deep.equal([]);
      // A second press where the first was does not undo it.
      await page.locator('.keep').click();
      await soon(async () => (await sitting.rows(paintingId)).piles!.length === piles!.length + 1, 'kept once, and not undone');
    });
});
