import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Answer } from '@dusk/wire';
import { expect } from 'chai';
import sharp from 'sharp';
import { testClock } from '../server/test/clock.ts';
import { PAGES, Sitting, soon } from './studio.ts';
import { startServer, STUDIO_FILE } from '@dusk/server';
import { scriptOf, start } from '../server/test/program.ts';

/** A studio that does not answer is said so in the console, too. */
const ours = (faults: readonly string[]): string[] =>
  faults.filter((fault) => !/ERR_CONNECTION|ERR_INCOMPLETE|ERR_EMPTY|Failed to fetch|network error/i.test(fault));

describe('while the studio is away', () => {
  let sitting: Sitting;
  let port: number;
  beforeEach(async () => {
    sitting = await Sitting.begin();
    port = Number(new URL(sitting.running.address).port);
    await sitting.openReference();
  });
  afterEach(async () => {
    expect(ours(sitting.faults)).to.deep.equal([]);
    await sitting.end();
  });
  const stop = () => sitting.running.stop();
  const startAgain = () => sitting.startServer();
  const pilesThere = async () => (await sitting.rows(sitting.paintingId)).piles!;
  const discs = () => sitting.page.locator('.ledge a.pile').count();

  async function keepAt(x: number, y: number): Promise<void> {
    const before = await discs();
    await sitting.pointAt(x, y);
    await sitting.page.locator('[data-test=recipe]').waitFor();
    await sitting.quiet();
    await sitting.page.keyboard.press('k');
    await soon(async () => (await discs()) === before + 1, 'a pile more on the ledge');
  }

  it('piles and names are kept in the browser, shown, and arrive once it is back, each once', async () => {
    const { page } = sitting;
    const before = (await pilesThere()).length;
    await stop();
    await keepAt(0.3, 0.5);
    await keepAt(0.55, 0.56);
    await page.getByText(/waits in this browser/).waitFor();
    await keepAt(0.45, 0.7);
    await sitting.openPile(/^copper, body/);
    await page.getByLabel('Name of the pile').fill('copper, as I see it');
    await page.getByLabel('Name of the pile').press('Enter');
    await page.getByRole('button', { name: '4 waiting' }).click();
    await page.getByText('Called it “copper, as I see it”').first().waitFor();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await startAgain();
    await soon(async () => (await pilesThere()).length === before + 3, 'three piles more in the studio');
    await soon(async () => (await pilesThere()).some((p) => p.name === 'copper, as I see it'), 'the name in the studio');
    await page.locator('[data-test=waits]').waitFor({ state: 'detached' });
    await soon(async () => (await page.getByText(/waits in this browser/).count()) === 0, 'trouble that is over leaves');
    await sitting.quiet();
    expect(await pilesThere()).to.have.length(before + 3);
  });

  it('what waits outlives the window, and a change that rests on another takes its version from the answer', async () => {
    const before = (await pilesThere()).length;
    const { paintingId } = sitting;
    await stop();
    await keepAt(0.3, 0.5);
    await sitting.openPile(/^copper, body/);
    const name = sitting.page.getByLabel('Name of the pile');
    for (const text of ['first', 'second', 'third']) {
      await name.fill(text);
      await name.press('Enter');
      await sitting.quiet();
    }
    await sitting.page.close();
    await startAgain();
    sitting.page = await sitting.context.newPage();
    await sitting.open('paintings');
    const there = async () => (await sitting.rows(paintingId)).piles!;
    await soon(async () => (await there()).length === before + 1, 'the pile');
    await soon(async () => (await there()).some((p) => p.name === 'third'), 'the last of three names');
    await sitting.page.locator('[data-test=waits]').waitFor({ state: 'detached' });
  });

  it('taking back what waits takes it out of the queue', async () => {
    const before = (await pilesThere()).length;
    const lying = await discs();
    await stop();
    await keepAt(0.3, 0.5);
    await sitting.page.keyboard.press('Control+z');
    await sitting.page.getByText(/^Taken back: Kept/).waitFor();
    expect(await discs()).to.equal(lying);
    await startAgain();
    // What is heard from elsewhere says that the studio is reached again; whatever waits goes before that.
    const [one] = await pilesThere();
    await sitting.elsewhere({ do: 'pile.change', id: one!.id, version: one!.version, name: 'from elsewhere' });
    await sitting.page
      .getByRole('link', { name: /^from elsewhere/ })
      .first()
      .waitFor();
    await sitting.quiet();
    expect(await pilesThere()).to.have.length(before);
  });

  it('what the studio breaks over is kept and tried again, not dropped', async () => {
    const { page } = sitting;
    let broken = 0;
    await page.route('**/api/changes', async (route) => {
      if (broken++ < 2) {
        const problem = { type: 'about:blank', title: 'Something broke', status: 500, detail: 'Something went wrong here.' };
        return route.fulfill({ status: 500, contentType: 'application/problem+json', body: JSON.stringify(problem) });
      }
      return route.continue();
    });
    await sitting.openPile(/^copper, body/);
    await page.getByLabel('Name of the pile').fill('copper at dusk');
    await page.getByLabel('Name of the pile').press('Enter');
    await page.getByText(/waits in this browser/).waitFor();
    expect(await page.getByLabel('Name of the pile').inputValue()).to.equal('copper at dusk');
    await page.evaluate(() => window.dispatchEvent(new Event('online')));
    await soon(async () => (await pilesThere()).some((p) => p.name === 'copper at dusk'), 'it arrives by itself');
    await page.locator('[data-test=waits]').waitFor({ state: 'detached' });
    expect(broken).to.be.at.least(3);
    sitting.faults.splice(0);
  });

  it('what waits is for the studio it was done in, whichever answers at its address meanwhile', async () => {
    const { page, paintingId } = sitting;
    const before = (await pilesThere()).length;
    await stop();
    await keepAt(0.3, 0.5);
    const other = mkdtempSync(join(tmpdir(), 'dusk-other-'));
    const stranger = await startServer(other, port, PAGES, testClock);
    // The window sees that this is another studio, and shows what is in it: nothing yet.
    await soon(
      async () =>
        !(await page
          .locator('.ledge')
          .isVisible()
          .catch(() => false)),
      'the other studio is shown',
    );
    const { rows } = (await (await fetch(`${stranger.address}api/studio`)).json()) as Answer;
    expect(rows.paintings).to.deep.equal([]);
    expect(await page.locator('[data-test=waits]').count()).to.equal(0);
    await stranger.stop();
    rmSync(other, { recursive: true, force: true });
    await startAgain();
    // The other studio has no such painting, so that the window may have left its address.
    await soon(async () => (await sitting.rows(paintingId)).piles!.length === before + 1, 'what waited is where it was done');
  });

  it('an older copy that is put under an open window shows what is in it, and nothing else', async () => {
    const { page, paintingId } = sitting;
    await stop();
    const studio = join(sitting.folder, STUDIO_FILE);
    const older = readFileSync(studio);
    await startAgain();
    await page.locator('[data-test=waits]').waitFor({ state: 'detached' });
    const before = await discs();
    const there = (await pilesThere()).length;
    await keepAt(0.3, 0.5);
    await keepAt(0.55, 0.56);
    await soon(async () => (await pilesThere()).length === there + 2, 'two more in the studio');
    await stop();
    writeFileSync(studio, older);
    await startAgain();
    // As many changes again, so that the log is as long as the window knows it.
    const [pile] = (await sitting.rows(paintingId)).piles!;
    for (let version = pile!.version; version < pile!.version + 3; version++)
      await sitting.elsewhere({ do: 'pile.change', id: pile!.id, version, note: `note ${version}` });
    await soon(async () => (await discs()) === before, 'the piles of the copy and no others');
  });

  it('a picture that is brought is seen at once, and goes ahead of the change that speaks of it', async () => {
    const { page, paintingId } = sitting;
    const references = async () => (await sitting.rows()).references!.filter((one) => one.paintingId === paintingId);
    const before = (await references()).length;
    await stop();
    const buffer = await sharp({ create: { width: 320, height: 200, channels: 3, background: '#5a6b8f' } })
      .png()
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'dusk.png', mimeType: 'image/png', buffer });
    await page.getByText(/waits in this browser/).waitFor();
    await soon(async () => {
      await sitting.pointAt(0.5, 0.5);
      const chip = page.locator('aside [data-chip=target]');
      return (await chip.count()) === 1 && (await chip.evaluate((c) => getComputedStyle(c).backgroundColor)) === 'rgb(90, 107, 143)';
    }, 'the picture under the pointer');
    await keepAt(0.5, 0.5);
    await startAgain();
    await soon(async () => (await references()).length === before + 1, 'the picture in the studio');
    const { pictureId } = (await references()).at(-1)!;
    const response = await fetch(`${sitting.running.address}api/pictures/${pictureId}`);
    expect(Buffer.from(await response.arrayBuffer()).equals(buffer), 'the very picture').to.equal(true);
    await page.reload();
    await page.locator('.picture canvas').waitFor();
  });

  for (const [choice, ends] of [
    ['Keep mine', 'mine'],
    ['Keep theirs', 'theirs'],
    ['Keep both', 'theirs / mine'],
  ] as const)
    it(`a name that was changed on both sides is shown on both, and the painter chooses: ${choice.toLowerCase()}`, async () => {
      const { page } = sitting;
      await sitting.openPile(/^copper, body/);
      const id = page.url().split('/').at(-1)!;
      const pile = async () => (await pilesThere()).find((p) => p.id === id)!;
      const { version } = await pile();
      await stop();
      await page.getByLabel('Name of the pile').fill('mine');
      await page.getByLabel('Name of the pile').press('Enter');
      await page.getByText(/waits in this browser/).waitFor();
      await startAgain();
      await sitting.elsewhere({ do: 'pile.change', id, version, name: 'theirs' });
      const conflict = page.locator('[data-test=conflict]');
      const toChoose = page.locator('[data-test=waits]', { hasText: '1 to choose' });
      await toChoose.waitFor();
      await sitting.quiet();
      expect(await page.locator('.v-dialog.v-overlay--active').count(), 'nothing opens over a hand at work').to.equal(0);
      await toChoose.click();
      await conflict.waitFor();
      expect(await conflict.locator('[data-test=mine]').innerText()).to.equal('mine');
      expect(await conflict.locator('[data-test=theirs]').innerText()).to.equal('theirs');
      expect((await pile()).name).to.equal('theirs');
      await conflict.getByRole('button', { name: choice }).click();
      await soon(async () => (await pile()).name === ends, `the name is ${ends}`);
      await conflict.waitFor({ state: 'detached' });
      await soon(async () => (await page.getByLabel('Name of the pile').inputValue()) === ends, 'the name here, too');
    });
});

describe('two windows', () => {
  it('agree: a pile kept in one lies in the other, a tube taken off is offered no more', async () => {
    const sitting = await Sitting.begin();
    await sitting.openReference();
    const { page } = sitting;
    const other = await sitting.context.newPage();
    await other.goto(page.url());
    await other.locator('.ledge a.pile').first().waitFor();
    const count = () => other.locator('.ledge a.pile').count();
    const before = await count();
    await sitting.pointAt(0.3, 0.5);
    await page.locator('[data-test=recipe]').waitFor();
    await page.keyboard.press('k');
    // Heard, not asked for: what a window asks for by itself comes only when it is opened.
    await soon(async () => (await count()) === before + 1, 'the pile in the other window');
    const { palettes, paintings } = await sitting.rows();
    const palette = palettes!.find((p) => p.id === paintings!.find((one) => one.id === sitting.paintingId)!.paletteId)!;
    await other.goto(`${sitting.running.address}palettes`);
    await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: palette.version, name: 'renamed elsewhere' });
    await other.getByText('renamed elsewhere').first().waitFor();
    expect(sitting.faults).to.deep.equal([]);
    await sitting.end();
  });
});

describe('a copy of everything', () => {
  it('is one button away, and put back shows the studio as it was after the file was ruined', async () => {
    const sitting = await Sitting.begin();
    const { page } = sitting;
    await sitting.openReference();
    const { paintingId } = sitting;
    const before = await sitting.rows(paintingId);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'How you see' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Save a copy of everything' }).click();
    const copy = join(sitting.folder, 'taken along.sqlite');
    await (await download).saveAs(copy);
    await sitting.running.stop();
    const studio = join(sitting.folder, STUDIO_FILE);
    writeFileSync(studio, readFileSync(studio).subarray(0, 50_000));
    const cannot = await sitting.startServer().catch((cause: Error) => cause.message);
    expect(cannot).to.match(/damaged/);
    const restored = await start(sitting.folder, { script: scriptOf('restore'), args: [copy] }).ended;
    expect(restored.said)
      .to.match(/holds \d+ paintings/)
      .and.to.match(/What was there lies in/);
    await sitting.startServer();
    expect((await sitting.rows(paintingId)).piles).to.deep.equal(before.piles);
    await page.reload();
    await page.locator('.ledge a.pile').first().waitFor();
    await sitting.end();
  });
});
