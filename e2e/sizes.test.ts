import { expect } from 'chai';
import sharp from 'sharp';
import { Sitting, soon } from './studio.ts';

const SIZES = [
  { name: 'a laptop, 1280 × 800', width: 1280, height: 800, hasTouch: false },
  { name: 'a tablet upright, 820 × 1180', width: 820, height: 1180, hasTouch: true },
  { name: 'a phone, 390 × 844', width: 390, height: 844, hasTouch: true },
  { name: 'a window at twice its size, 640 × 400', width: 640, height: 400, hasTouch: false },
] as const;

for (const hasTouch of [false, true])
  describe(`sixty piles, ${hasTouch ? 'by touch' : 'by mouse'}`, () => {
    let sitting: Sitting;
    before(async () => {
      sitting = await Sitting.begin(true, { viewport: SIZES.find((one) => one.hasTouch === hasTouch)!, hasTouch });
      await sitting.openReference();
      const { paintingId } = sitting;
      const { plan, target, ml } = (await sitting.rows(paintingId)).piles!.find((pile) => pile.target !== null)!;
      await sitting.elsewhere(
        ...Array.from({ length: 60 }, (_, i) => ({
          do: 'pile.add',
          id: crypto.randomUUID(),
          paintingId,
          name: `pile ${i}`,
          target: { ...target, lab: { L: 20 + ((i * 37) % 61), a: ((i * 13) % 40) - 15, b: ((i * 29) % 60) - 20 } },
          plan,
          ml,
        })),
      );
      await soon(async () => (await sitting.page.locator('.ledge a.pile').count()) >= 60, 'sixty piles on the ledge');
    });
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));

    for (const { name, width, height } of SIZES.filter((one) => one.hasTouch === hasTouch))
      it(`stand at their values and each can be pressed, on ${name}`, async () => {
        const { page } = sitting;
        await page.setViewportSize({ width, height });
        await page.mouse.move(width / 2, height / 4);
        await sitting.quiet();
        const strip = (await page.locator('.ledge').boundingBox())!;
        expect(strip.height).to.be.at.most(height * 0.31 + 90);
        const links = await page.locator('.ledge a.pile').evaluateAll((all) =>
          all.map((link) => {
            const { left, top, width: w, height: h } = link.getBoundingClientRect();
            return { x: left + w / 2, y: top + h / 2, says: link.getAttribute('aria-label')!, href: link.getAttribute('href')! };
          }),
        );
        for (const { x, says } of links) {
          const value = Number(/value ([\d.]+)/.exec(says)![1]);
          // The label says tenths; a twentieth of a step is half of one.
          expect(Math.abs((x - strip.x) / strip.width - (0.03 + 0.094 * value)) / 0.094, says).to.be.at.most(0.101);
        }
        for (const { x, y, href } of links.filter((_, i) => i % 11 === 0)) {
          const before = page.url();
          await (hasTouch ? page.touchscreen.tap(x, y) : page.mouse.click(x, y));
          const fan = page.getByRole('navigation', { name: 'Piles that share this place' });
          const one = fan.locator(`a[href="${href}"]`);
          await soon(async () => page.url().endsWith(href) || (await one.count()) === 1, `the pile ${href}`);
          if ((await fan.count()) > 0) {
            expect(page.url(), 'nothing is opened before it is clear which').to.equal(before);
            await one.click();
          }
          await soon(async () => page.url().endsWith(href), `the pile ${href} is open`);
        }
        // By key: one stop for Tab, arrows from dark to light, Home and End.
        const held = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
        await page.locator('.ledge a.pile[tabindex="0"]').focus();
        await page.keyboard.press('Home');
        await soon(async () => (await held()) === links[0]!.says, 'the darkest pile has the focus');
        await page.keyboard.press('ArrowRight');
        await page.keyboard.press('ArrowRight');
        await soon(async () => (await held()) === links[2]!.says, 'two piles lighter');
        await page.keyboard.press('Enter');
        await soon(async () => page.url().endsWith(links[2]!.href), 'opened by key');
      });
  });

describe('a studio without anything in it', () => {
  it('says in each place what comes next, all of it in the window, on a phone too; one of ours is looked at in one press', async () => {
    const sitting = await Sitting.begin(false, { viewport: { width: 390, height: 844 }, hasTouch: true });
    const { page } = sitting;
    const expectWithin = async (place: string, title: string): Promise<void> => {
      await page.getByRole('heading', { level: 1, name: title }).waitFor();
      const wide = await page.locator('main h1, main p, main button, main a').evaluateAll((all) =>
        all
          .map((one) => one.getBoundingClientRect())
          .filter(({ width }) => width > 0)
          .map(({ right }) => right),
      );
      expect(Math.max(...wide), place).to.be.at.most(390);
    };
    await sitting.open();
    await expectWithin('paintings', 'Nothing on the easel yet');
    await page.locator('[data-test=look-at-ours]').tap();
    await page.locator('.picture canvas').waitFor();
    const { paintings, references } = await sitting.rows();
    expect(paintings).to.have.length(1);
    expect(references!.map(({ paintingId }) => paintingId)).to.deep.equal([paintings![0]!.id]);
    await page.goBack();
    await page.getByRole('button', { name: 'Begin a painting' }).tap();
    await page.getByLabel('Title').fill('The pear');
    await page.getByRole('button', { name: 'Begin', exact: true }).tap();
    await page.getByRole('button', { name: 'Choose a picture' }).waitFor();
    await expectWithin('reference', 'Bring a picture to paint from');
    for (const [place, title] of [
      ['Mixing', 'No piles yet'],
      ['Log', 'The pear'],
      ['Cards', 'No cards yet'],
    ] as const) {
      await page.getByRole('link', { name: place, exact: true }).tap();
      await expectWithin(place, title);
    }
    expect(sitting.faults).to.deep.equal([]);
    await sitting.end();
  });
});

describe('a stranger’s first minute', () => {
  for (const { name, width, height, hasTouch } of SIZES.slice(0, 3))
    it(`keeps a first recipe from an own picture in five presses and a name, on ${name}`, async () => {
      const sitting = await Sitting.begin(false, { viewport: { width, height }, hasTouch });
      const { page } = sitting;
      let presses = 0;
      const press = async (what: ReturnType<typeof page.getByRole>): Promise<void> => {
        presses++;
        await (hasTouch ? what.tap() : what.click());
      };
      await sitting.open();
      await press(page.getByRole('button', { name: 'Begin a painting' }));
      // Leaving leaves nothing behind.
      await page.getByRole('button', { name: 'Not now' }).click();
      expect((await sitting.rows()).palettes).to.deep.equal([]);
      presses = 0;
      await press(page.getByRole('button', { name: 'Begin a painting' }));
      await page.getByText('Titanium white, Yellow ochre, Venetian red').waitFor();
      await page.getByLabel('Title').fill('The pear');
      await press(page.getByRole('button', { name: 'Begin', exact: true }));
      const chooser = page.waitForEvent('filechooser');
      await press(page.getByRole('button', { name: 'Choose a picture' }));
      const buffer = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#8a7b4f' } })
        .png()
        .toBuffer();
      await (await chooser).setFiles({ name: 'pear.png', mimeType: 'image/png', buffer });
      await page.locator('.picture canvas').waitFor();
      await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
      const box = (await page.locator('[role=application]').boundingBox())!;
      presses++;
      if (hasTouch) {
        await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2);
        await press(page.getByRole('button', { name: 'Keep this pile' }));
      } else await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
      await soon(async () => (await sitting.rows(sitting.paintingId)).piles?.length === 1, 'the first pile');
      expect(presses).to.be.at.most(5);
      expect(sitting.faults).to.deep.equal([]);
      await sitting.end();
    });

  it('six tubes are chosen and eight colours kept in forty actions at most; a painting is renamed', async () => {
    const sitting = await Sitting.begin();
    const { page } = sitting;
    let actions = 0;
    const act = async (what: Promise<void>): Promise<void> => {
      actions++;
      await what;
    };
    await sitting.openReference();
    const { paintingId } = sitting;
    const before = (await sitting.rows(paintingId)).piles!.length;
    await act(page.getByRole('link', { name: 'Palettes' }).click());
    await act(page.getByRole('button', { name: 'New palette' }).click());
    const search = page.getByLabel('Name, pigment or character');
    for (const tube of ['ochre', 'PB29', 'burnt umber', 'venetian', 'viridian']) {
      await act(search.fill(tube));
      await act(search.press('Enter'));
      expect(await search.inputValue(), 'the search is clear for the next at once').to.equal('');
    }
    await act(page.getByRole('button', { name: 'Done', exact: true }).click());
    await act(page.getByRole('button', { name: /^Paint “.*” with it$/ }).click());
    await act(page.getByRole('link', { name: 'Reference' }).click());
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
    const box = (await page.locator('[role=application]').boundingBox())!;
    for (let i = 0; i < 8; i++) {
      await act(page.mouse.click(box.x + box.width * (0.15 + 0.09 * i), box.y + box.height * (0.33 + 0.05 * i)));
      await soon(async () => (await sitting.rows(paintingId)).piles!.length === before + i + 1, `colour ${i + 1}`);
    }
    expect(actions).to.be.at.most(40);
    const { palettes, paintings } = await sitting.rows();
    const palette = palettes!.find((one) => one.id === paintings!.find((p) => p.id === paintingId)!.paletteId)!;
    expect(palette.tubeIds).to.have.length(6);
    await page.getByRole('link', { name: 'Paintings' }).click();
    await page.getByRole('button', { name: /^Change “Oil can/ }).click();
    await page.getByLabel('Title').fill('A can, and twine');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByRole('heading', { name: 'A can, and twine' }).waitFor();
    expect(sitting.faults).to.deep.equal([]);
    await sitting.end();
  });
});
