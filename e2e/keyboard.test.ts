// A stranger's first day by the keyboard alone, every key counted; a line that is written is one.
import { expect } from 'chai';
import { photo } from './photo.ts';
import { Sitting, soon } from './studio.ts';

describe('a stranger’s first day, by the keyboard alone', () => {
  let sitting: Sitting;
  before(async () => (sitting = await Sitting.begin(false)));
  after(() => sitting.end());

  it('is done in 120 keys', async () => {
    const { page } = sitting;
    let keys = 0;
    const key = async (...names: readonly string[]): Promise<void> => {
      for (const name of names) {
        keys++;
        await page.keyboard.press(name);
      }
    };
    const write = async (text: string): Promise<void> => {
      keys++;
      await page.keyboard.insertText(text);
    };
    const focused = () =>
      page.evaluate(() => {
        const at = document.activeElement;
        return at?.matches('a, button, input, [role]') ? (at.getAttribute('aria-label') ?? at.textContent.trim()) : '';
      });
    /** Goes on by Tab until what is meant has the focus. */
    const tabTo = async (says: RegExp, most = 40): Promise<void> => {
      for (let i = 0; i < most; i++) {
        if (says.test(await focused())) return;
        await key('Tab');
      }
      throw new Error(`Nothing like ${String(says)} within ${most} tabs; it is at “${await focused()}”.`);
    };
    const piles = async () => (await sitting.rows(sitting.paintingId)).piles!;

    await sitting.open();
    await page.getByText('Nothing on the easel yet').waitFor();
    await key('F6');
    await tabTo(/Begin a painting/);
    await key('Enter');
    await page.getByLabel('Title').waitFor();
    await soon(async () => page.evaluate(() => document.activeElement?.tagName === 'INPUT'), 'the title has the focus');
    await write('The yard');
    await key('Enter');
    await page.getByText('Bring a picture to paint from').waitFor();
    await page.waitForFunction(() => document.activeElement?.tagName === 'MAIN');
    await sitting.quiet();
    await tabTo(/Choose a picture/);
    const chooser = page.waitForEvent('filechooser');
    await key('Enter');
    await (await chooser).setFiles({ name: 'yard.jpg', mimeType: 'image/jpeg', buffer: await photo() });
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });

    await key('a');
    await page.getByLabel('Name, pigment or character').waitFor();
    await soon(async () => page.evaluate(() => document.activeElement?.tagName === 'INPUT'), 'the search has the focus');
    await write('viridian');
    await key('Enter');
    await soon(async () => (await sitting.rows()).palettes!.some(({ tubeIds }) => tubeIds.length === 6), 'six tubes');
    await key('Escape');
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
    await key('F6');
    for (let i = 0; i < 2 && !/^Reference/.test(await focused()); i++) await key('F6');

    const way = ['Right', 'Right', 'Right', 'Down', 'Left', 'Left', 'Left'];
    for (let i = 0; i < 8; i++) {
      const to = i === 0 ? undefined : way[i - 1]!;
      if (to) for (let n = 0; n < (to === 'Down' ? 5 : 3); n++) await key(`Shift+Arrow${to}`);
      else await key('Shift+ArrowUp', 'Shift+ArrowLeft');
      await page.locator('[data-test=recipe]').waitFor();
      await key('k');
      await soon(async () => (await piles()).length === i + 1, `colour ${i + 1}`);
    }

    // From the picture to the ledge, and a pile opened there.
    const before = keys;
    await key('F6');
    await page.waitForFunction(() => document.activeElement?.closest('.ledge') !== null);
    expect(keys - before, 'from the picture to the ledge').to.be.at.most(5);
    await key('ArrowRight', 'Enter');
    await page.locator('[data-test=kept-recipe]').waitFor();
    await key(' ');
    const id = page.url().split('/').at(-1)!;
    const own = async () => (await piles()).find((pile) => pile.id === id)!;
    await soon(async () => (await own()).stages.length > 0, 'mixed');
    await tabTo(/^a good deal darker/);
    await key('Enter');
    await page.locator('[data-test=addition]').first().waitFor();
    await key('F6', 'F6', 'F6');
    await key(' ');
    await soon(async () => (await own()).stages.some(({ kind }) => kind === 'added'), 'put right');
    await key('2', 'ArrowDown');
    await page.locator('[data-test=kin-recipe]').waitFor();
    await key('Enter');
    await soon(async () => (await piles()).length >= 9, 'the darker one');
    await sitting.quiet();
    await key('3');
    await page.locator('.stops button').first().waitFor();
    await tabTo(/^[\d.]+ /);
    await key('Space');
    await page.locator('[data-test=keep-string]').waitFor();
    await key('F6', 'F6', 'F6');
    await key('Enter');
    await soon(async () => (await piles()).some(({ string }) => string !== null), 'a row of steps');
    await sitting.quiet();
    await key('1', 'c');
    await page.locator('[data-test=its-card]').waitFor();
    await key('/');
    await page.locator('[data-test=card]').first().waitFor();
    await key('ArrowDown');
    await page.locator('[data-test=open-card]').waitFor();
    await key('p');
    await page.getByRole('dialog', { name: /^Print/ }).waitFor();
    const printed = page.waitForEvent('popup');
    await tabTo(/Card on A6/);
    await key('Enter');
    await (await printed).close();
    console.log(`      ${keys} keys`);
    expect(keys).to.be.at.most(120);
    expect(sitting.faults).to.deep.equal([]);
  });
});
