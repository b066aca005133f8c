// One main thing a screen: the largest, whole, in reach without scrolling; and one filled key.
import { expect } from 'chai';
import { Sitting, soon } from './studio.ts';

/** Shares of the window that the picture, or on a phone the room it is given, has at least. */
const SIZES = [
  { name: 'a laptop', width: 1280, height: 800, share: 0.35, of: '.picture canvas' },
  { name: 'a tablet, upright', width: 820, height: 1180, share: 0.3, of: '.picture canvas' },
  // A picture half as wide again as it is high is whole at three tenths of a phone; its room is larger.
  { name: 'a phone', width: 390, height: 844, share: 0.35, of: '.stage .box' },
  { name: 'a laptop at twice its size', width: 640, height: 400, share: 0.15, of: '.stage .box' },
] as const;
const PICTURES = ['Oil can and twine by window and lamp', 'Courtyard, washing day'] as const;
const POINTS = Array.from({ length: 15 }, (_, i) => [0.07 + ((i * 0.37) % 0.88), 0.06 + ((i * 0.61) % 0.88)] as const);

describe('one main thing', () => {
  let sitting: Sitting;
  before(async () => {
    sitting = await Sitting.begin();
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  /** Foot of what is above the ledge, px. */
  const foot = async (): Promise<number> => (await sitting.page.locator('.ledge').boundingBox())!.y;
  /** Does something and waits until the recipe has followed. */
  async function followed(what: () => Promise<void>): Promise<void> {
    const count = () => sitting.page.evaluate(() => performance.getEntriesByName('recipe follows').length);
    const before = await count();
    await what();
    await sitting.page.waitForFunction((n) => performance.getEntriesByName('recipe follows').length > n, before);
  }
  const box = async (selector: string) => (await sitting.page.locator(selector).filter({ visible: true }).first().boundingBox())!;

  for (const title of PICTURES)
    it(`in Reference is the picture, with its recipe and the key that keeps it whole beside it: ${title}`, async () => {
      const { page } = sitting;
      await sitting.openReference(title);
      for (const { name, width, height, share, of } of SIZES) {
        // The ledge keeps still under a hand, also while the window becomes another.
        await page.mouse.move(200, 60);
        await page.setViewportSize({ width, height });
        await sitting.quiet();
        const stage = await box(of);
        expect((stage.width * stage.height) / (width * height), `${name}: its share`).to.be.at.least(share);
        const end = await foot();
        for (const [x, y] of POINTS) {
          await followed(() => sitting.pointAt(x, y));
          const recipe = width < 700 ? '[data-test=recipe-line]' : '[data-test=recipe]';
          await page.locator(recipe).filter({ visible: true }).waitFor();
          for (const selector of [recipe, '.keep']) {
            const one = await box(selector);
            const says = `${name}, ${selector} at ${x.toFixed(2)}, ${y.toFixed(2)}`;
            expect(one.y, says).to.be.at.least(0);
            expect(one.y + one.height, says).to.be.at.most(end + 1);
          }
        }
      }
      await page.setViewportSize({ width: 1280, height: 800 });
    });

  it('is done by one filled key, above the ledge, among the piles, in one that is planned and one that is mixed', async () => {
    const { page } = sitting;
    await sitting.openReference();
    const { paintingId } = sitting;
    const piles = (await sitting.rows(paintingId)).piles!;
    const planned = piles.find(({ name }) => name === 'copper, body')!;
    const mixed = piles.find(({ name }) => name === 'wall near the lamp')!;
    for (const path of ['', `/${planned.id}`, `/${mixed.id}`]) {
      await sitting.open(`painting/${paintingId}/mixing${path}`);
      await page.locator('.main-key').first().waitFor();
      for (const { name, width, height } of SIZES) {
        await page.setViewportSize({ width, height });
        await sitting.quiet();
        const keys = page.locator('main .main-key').filter({ visible: true });
        await soon(async () => (await keys.count()) === 1, `one filled key: ${path || 'the piles'}, ${name}`);
        // Upright what to add stands below what the knife's half is nudged by.
        if (path === `/${mixed.id}` && width < 1000) continue;
        // What is worked out meanwhile may lay the key anew.
        const feet: number[] = [];
        await soon(async () => {
          const box = await keys
            .first()
            .boundingBox({ timeout: 500 })
            .catch(() => null);
          if (box) feet.push(box.y + box.height);
          return box !== null;
        }, 'the key has a place');
        expect(feet[0], `${path || 'the piles'}, ${name}: it is in reach`).to.be.at.most((await foot()) + 1);
      }
    }
  });

  it('among cards are their colours: eighteen stand at once on a laptop', async () => {
    const { page } = sitting;
    await page.setViewportSize({ width: 1280, height: 800 });
    const { piles } = await sitting.rows((await sitting.rows()).paintings![0]!.id);
    const [pile] = piles!;
    await sitting.elsewhere(
      ...Array.from({ length: 24 }, (_, i) => ({ do: 'card.add', id: crypto.randomUUID(), pileId: pile!.id, name: `one more ${i}` })),
    );
    await sitting.open('cards');
    await page.locator('[data-test=card]').nth(24).waitFor();
    await page.locator('[data-test=card]').nth(5).click();
    await page.locator('[data-test=open-card]').waitFor();
    const end = await foot();
    const boxes = await Promise.all((await page.locator('[data-test=card]').all()).map((one) => one.boundingBox()));
    expect(boxes.filter((one) => one && one.y + one.height <= end).length).to.be.at.least(18);
  });
});

describe('the picture beside the mixing', () => {
  let sitting: Sitting;
  before(async () => {
    sitting = await Sitting.begin();
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const rows = async () => (await sitting.rows(sitting.paintingId)).piles!;
  const press = async (x: number, y: number): Promise<void> => {
    const stage = (await sitting.page.locator('.picture-beside [role=application]').boundingBox())!;
    await sitting.page.mouse.click(stage.x + x * stage.width, stage.y + y * stage.height);
  };

  it('opens the pile that serves where it is pressed, by its mark or by its colour', async () => {
    const { page } = sitting;
    await sitting.goTo('Mixing');
    await page.locator('.picture-beside [data-test=mark]').first().waitFor();
    await page
      .locator('.picture-beside')
      .getByRole('button', { name: /^twine in the light/ })
      .click();
    await page.getByRole('heading', { name: 'Pile twine in the light' }).waitFor();
    await page.locator('[data-test=place-large]').waitFor();
    await page.goBack();
    // Another place of the wall by the window.
    await page.locator('.picture-beside [role=application]').waitFor();
    await press(0.72, 0.08);
    await page.getByRole('heading', { name: /^Pile wall/ }).waitFor();
  });

  it('moves what an open pile is meant for, which can be taken back', async () => {
    const { page } = sitting;
    const before = (await rows()).find(({ name }) => name === 'copper, body')!;
    await sitting.openPile(/^copper, body/);
    await page.locator('.picture-beside [role=application]').waitFor();
    await press(0.5, 0.62);
    const now = async () => (await rows()).find(({ id }) => id === before.id)!;
    await soon(async () => (await now()).version !== before.version, 'it is meant for another place');
    expect((await now()).target!.lab).to.not.deep.equal(before.target!.lab);
    expect((await now()).plan).to.not.deep.equal(before.plan);
    await page.keyboard.press('Control+z');
    await soon(async () => JSON.stringify((await now()).plan) === JSON.stringify(before.plan), 'taken back');
    expect((await now()).target).to.deep.equal(before.target);
  });

  it('leaves the arrows to a pile that was opened from the ledge', async () => {
    const { page } = sitting;
    await sitting.openPile(/^wall near the lamp/);
    await page.waitForFunction(() => document.activeElement?.tagName === 'MAIN');
    const at = page.url();
    await page.keyboard.press('ArrowRight');
    // The first look by eye asks for the white of the paper; on the ledge another dab would have the focus.
    await page.getByRole('dialog').waitFor();
    await page.keyboard.press('Escape');
    expect(page.url()).to.equal(at);
  });

  it('is sent away and asked back, and stays away', async () => {
    const { page } = sitting;
    await page.getByRole('button', { name: 'send it away' }).click();
    await page.locator('.picture-beside [role=application]').waitFor({ state: 'detached' });
    await page.reload();
    await page.getByRole('button', { name: 'Show the picture' }).click();
    await page.locator('.picture-beside [role=application]').waitFor();
  });

  it('stands at the easel, where what is gone past is mixed, and can be taken back', async () => {
    const { page } = sitting;
    const { paintingId } = sitting;
    await sitting.go(`painting/${paintingId}/easel`);
    await page.locator('.easel .picture-beside [role=application]').waitFor();
    const stage = (await page.locator('.easel .picture-beside').boundingBox())!;
    expect((stage.width * stage.height) / (1280 * 800)).to.be.at.most(1 / 3);
    const unmixed = async () => (await rows()).filter(({ stages }) => stages.length === 0).length;
    const before = await unmixed();
    for (let i = 0; i < 12 && (await unmixed()) === before; i++) {
      await page.keyboard.press(' ');
      await sitting.quiet();
    }
    expect(await unmixed()).to.equal(before - 1);
    await page
      .locator('.easel')
      .getByText(/^Mixed “/)
      .waitFor();
    await page.locator('.easel').getByRole('button', { name: 'Undo' }).click();
    await page
      .locator('.easel')
      .getByText(/^Taken back/)
      .waitFor();
    expect(await unmixed()).to.equal(before);
  });
});
