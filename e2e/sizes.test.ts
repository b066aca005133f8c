import { expect } from 'chai';
import sharp from 'sharp';
import { Sitting, soon } from './studio.ts';

const SIZES = [
  { name: 'a laptop, 1280 × 800', width: 1280, height: 800, hasTouch: false },
  { name: 'a tablet upright, 820 × 1180', width: 820, height: 1180, hasTouch: true },
  { name: 'a phone, 390 × 844', width: 390, height: 844, hasTouch: true },
  { name: 'a window at twice its size, 640 × 400', width: 640, height: 400, hasTouch: false },
] as const;

/** What can be pressed and is cut, covered, or beyond the window; what is scrolled away in its own place can be scrolled to. */
const faultsOfGeometry = (): string[] => {
  const faults: string[] = [];
  const { innerWidth, innerHeight } = window;
  if (document.documentElement.scrollWidth > innerWidth) faults.push(`the page is ${document.documentElement.scrollWidth} wide`);
  for (const element of document.querySelectorAll<HTMLElement>('a[href], button, select, input:not([type=file]), [role=application]')) {
    // Dabs and marks may lie on one another: what a press means there has tests of its own.
    if (
      element.matches('.ledge .pile, [data-test=mark], :disabled') ||
      !element.checkVisibility({ opacityProperty: false, visibilityProperty: true })
    )
      continue;
    const name = element.getAttribute('aria-label') ?? element.innerText ?? element.id;
    const { left, top, right, bottom, width, height } = element.getBoundingClientRect();
    if (width === 0 || height === 0) continue;
    const [x, y] = [(left + right) / 2, (top + bottom) / 2];
    let holder = element.parentElement;
    let isScrolledAway = false;
    while (holder) {
      const box = holder.getBoundingClientRect();
      if (
        /auto|scroll/.test(getComputedStyle(holder).overflow) &&
        (x < box.left || x > box.right || y <= box.top + 1 || y >= box.bottom - 1)
      )
        isScrolledAway = true;
      holder = holder.parentElement;
    }
    if (isScrolledAway) continue;
    if (x < 0 || y < 0 || x > innerWidth || y > innerHeight) faults.push(`“${name}” is off the screen`);
    else {
      const on = document.elementFromPoint(x, y);
      let isFree = on !== null && (element === on || element.contains(on) || !!on.closest('label')?.contains(element));
      // What keys that stay in sight lie over is free once it is scrolled to.
      let over: Element | null = on;
      while (over && getComputedStyle(over).position !== 'sticky') over = over.parentElement;
      if (!isFree && over && !over.contains(element)) {
        let scroller = element.parentElement;
        while (scroller && scroller.scrollHeight <= scroller.clientHeight + 1) scroller = scroller.parentElement;
        const from = scroller?.scrollTop ?? 0;
        element.scrollIntoView({ block: 'center' });
        const box = element.getBoundingClientRect();
        const then = document.elementFromPoint((box.left + box.right) / 2, (box.top + box.bottom) / 2);
        isFree = then !== null && (element === then || element.contains(then) || !!then.closest('label')?.contains(element));
        if (scroller) scroller.scrollTop = from;
      }
      if (!isFree) faults.push(`“${name}” lies under <${on?.tagName.toLowerCase()} class="${on?.className}">`);
    }
  }
  return faults;
};

for (const { name, width, height, hasTouch } of SIZES)
  describe(`on ${name}`, () => {
    let sitting: Sitting;
    before(async () => (sitting = await Sitting.begin(true, { viewport: { width, height }, hasTouch })));
    after(() => sitting.end());
    afterEach(() => expect(sitting.faults).to.deep.equal([]));

    const isSeen = async (selector: string): Promise<void> => {
      const box = (await sitting.page.locator(selector).first().boundingBox())!;
      expect(box.y, `${selector} begins on the screen`).to.be.at.least(0);
      const foot = await sitting.page.locator('.ledge').boundingBox();
      expect(box.y + box.height, `${selector} ends above the ledge`).to.be.at.most((foot?.y ?? height) + 1);
    };

    it('nothing that can be pressed is covered or off the screen, in every place, with a notice up', async () => {
      const { page } = sitting;
      await sitting.openReference();
      const { paintingId } = sitting;
      const { piles } = await sitting.rows(paintingId);
      const mixed = piles!.find((pile) => pile.there > 0)!;
      const planned = piles!.find((pile) => pile.stages.length === 0)!;
      const at = `painting/${paintingId}`;
      const card = crypto.randomUUID();
      await sitting.elsewhere(
        { do: 'card.add', id: card, pileId: mixed.id },
        { do: 'card.add', id: crypto.randomUUID(), pileId: planned.id },
      );
      for (const place of [
        'paintings',
        'tubes',
        'palettes',
        `${at}/reference`,
        `${at}/mixing`,
        `${at}/mixing/${mixed.id}`,
        `${at}/mixing/${planned.id}`,
        'cards',
        `cards/${card}`,
      ]) {
        await sitting.open(place);
        await page.waitForTimeout(400);
        expect(await page.evaluate(faultsOfGeometry), place).to.deep.equal([]);
      }
      await page.goto(`${sitting.running.address}${at}/easel/${planned.id}`);
      await page.getByRole('button', { name: 'Leave the easel' }).waitFor();
      expect(await page.evaluate(faultsOfGeometry), 'the easel').to.deep.equal([]);
      await sitting.open(`${at}/reference`);
      await page.locator('.picture canvas').waitFor();
      await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
      await sitting.pointAt(0.36, 0.4);
      if (hasTouch) {
        const box = (await page.locator('[role=application]').boundingBox())!;
        await page.touchscreen.tap(box.x + box.width * 0.36, box.y + box.height * 0.4);
      }
      await page.locator('[data-test=recipe]').waitFor();
      await isSeen('.picture canvas');
      await isSeen('.keep');
      await page.locator('.keep').click();
      await page.getByRole('button', { name: 'Undo', exact: true }).waitFor();
      expect(await page.evaluate(faultsOfGeometry), 'with a notice').to.deep.equal([]);
      // A second press where the first was does not undo it.
      await page.locator('.keep').click();
      await soon(async () => (await sitting.rows(paintingId)).piles!.length === piles!.length + 1, 'kept once, and not undone');
    });

    it('sixty piles stand at their values and each can be pressed', async () => {
      const { page } = sitting;
      await sitting.openReference();
      const { paintingId } = sitting;
      const { piles } = await sitting.rows(paintingId);
      const { plan, target, ml } = piles!.find((pile) => pile.target !== null)!;
      const ids = Array.from({ length: 60 }, () => crypto.randomUUID());
      await sitting.elsewhere(
        ...ids.map((id, i) => ({
          do: 'pile.add',
          id,
          paintingId,
          name: `pile ${i}`,
          target: { ...target, lab: { L: 20 + ((i * 37) % 61), a: ((i * 13) % 40) - 15, b: ((i * 29) % 60) - 20 } },
          plan,
          ml,
        })),
      );
      await page.reload();
      await soon(async () => (await page.locator('.ledge a.pile').count()) >= 60, 'sixty piles on the ledge');
      await page.mouse.move(width / 2, height / 4);
      await page.waitForTimeout(200);
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
      for (const { x, y, href } of links.filter((_, i) => i % 7 === 0)) {
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
      await soon(async () => (await search.inputValue()) === '', 'the search is clear for the next');
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
