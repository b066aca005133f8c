import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import type { OutingReturn } from '@dusk/core';
import type { Page } from 'playwright-core';
import { Sitting, SOMEWHERE, soon } from './studio.ts';

/** The courtyard is taken out in one file, worked on with no server in reach, and brought home. */
describe('out of doors', () => {
  let sitting: Sitting;
  let page: Page;
  let outside: string;
  let home: string;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference('Courtyard, washing day');
    await page.getByRole('link', { name: 'Mixing' }).click();
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('goes along as one file that asks nothing of any server', async () => {
    await sitting.more(/^Out of doors/);
    const loading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Take it along' }).click();
    outside = join(sitting.folder, 'out.html');
    await (await loading).saveAs(outside);
    const text = readFileSync(outside, 'utf8');
    expect(text).to.not.match(/(src|href)="https?:|url\(https?:/);
    expect(text)
      .to.match(/data:image\/jpeg;base64/)
      .and.match(/data:font\/woff2/);
  });

  it('takes ticks, looks and notes with no network, and keeps them through a reload', async () => {
    const phone = await sitting.browser.newContext({
      ...SOMEWHERE,
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      offline: true,
      acceptDownloads: true,
    });
    const out = await phone.newPage();
    const asked: string[] = [];
    out.on('request', (request) => {
      if (!/^(file|data|blob):/.test(request.url())) asked.push(request.url());
    });
    out.on('pageerror', (error) => sitting.faults.push(error.message));
    await out.goto(`file://${outside}`);
    await out.getByRole('heading', { name: 'Courtyard, washing day' }).waitFor();
    expect(
      await out
        .locator('img')
        .first()
        .evaluate((img) => (img as HTMLImageElement).naturalWidth),
    ).to.be.above(400);
    await out.locator('article:not(.done) .head').first().click();
    const first = out.locator('article.open');
    const steps = await first.locator('input[type=checkbox]').count();
    for (let i = 0; i < steps; i++)
      await first
        .locator('input[type=checkbox]')
        .nth(0 + i)
        .check()
        .catch(() => undefined);
    const done = out.locator('article.done', { hasText: 'How it looks' }).first();
    await done.getByRole('button', { name: 'lighter' }).click();
    await done.locator('textarea').fill('the sun went behind a cloud');
    await out.reload();
    await out.locator('article.done', { hasText: 'mixed' }).first().waitFor();
    for (let i = 0; i < (await out.locator('article').count()) && (await out.locator('textarea').count()) === 0; i++) {
      await out.locator('.head').nth(i).click();
      if ((await out.locator('textarea').inputValue()) === '') await out.locator('.head').nth(i).click();
    }
    expect(await out.locator('textarea').evaluateAll((all) => all.map((one) => (one as HTMLTextAreaElement).value))).to.include(
      'the sun went behind a cloud',
    );
    const loading = out.waitForEvent('download');
    await out.getByRole('button', { name: /^Take it home/ }).click();
    home = join(sitting.folder, 'home.json');
    await (await loading).saveAs(home);
    expect(asked).to.deep.equal([]);
    await phone.close();
  });

  it('is read in the sun: black on white, within the screen, and sixty piles found by their value', async () => {
    const text = readFileSync(outside, 'utf8');
    const [, json] = /<script type="application\/json" id="outing">(.*?)<\/script>/s.exec(text)!;
    const outing = JSON.parse(json!) as { title: string; id: string; piles: { id: string; name: string; at: number; value: string }[] };
    const some = outing.piles;
    outing.id = crypto.randomUUID();
    outing.title = `Harbourmaster’s${'unbreakable'.repeat(9)}`;
    outing.piles = Array.from({ length: 60 }, (_, i) => ({
      ...some[i % some.length]!,
      id: crypto.randomUUID(),
      name: `pile number ${i}`,
      at: i / 60,
      value: (i / 6).toFixed(1),
    }));
    const many = join(sitting.folder, 'many.html');
    writeFileSync(
      many,
      text.replace(json!, () => JSON.stringify(outing).replace(/</g, '\\u003c')),
    );
    const phone = await sitting.browser.newContext({ ...SOMEWHERE, viewport: { width: 390, height: 844 }, hasTouch: true, offline: true });
    const out = await phone.newPage();
    await out.goto(`file://${many}`);
    await out.locator('article').nth(59).waitFor();
    const sizes = await out.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.scrollHeight]);
    expect(sizes[0], 'no wider than the phone').to.be.at.most(390);
    expect(sizes[1], 'a few screens high').to.be.below(7000);
    const colours = await out.locator('body *:not(.around *)').evaluateAll((all) =>
      all
        .filter((one) => [...one.childNodes].some((node) => node.nodeType === 3 && node.textContent!.trim() !== ''))
        .map((one) => {
          let under: Element | null = one;
          while (under && getComputedStyle(under).backgroundColor === 'rgba(0, 0, 0, 0)') under = under.parentElement;
          return `${getComputedStyle(one).color} on ${getComputedStyle(under!).backgroundColor} at ${getComputedStyle(one).opacity}`;
        }),
    );
    expect([...new Set(colours)]).to.have.members(['rgb(0, 0, 0) on rgb(255, 255, 255) at 1', 'rgb(255, 255, 255) on rgb(0, 0, 0) at 1']);
    expect(new Set(await out.locator('.dab').evaluateAll((all) => all.map((dab) => getComputedStyle(dab).opacity)))).to.have.all.keys('1');
    await out.getByRole('button', { name: '5.0', exact: true }).click();
    expect(await out.locator('article.open .name').innerText()).to.match(/pile number 30/);
    expect((await out.locator('article.open').boundingBox())!.y).to.be.within(-4, 60);
    await phone.close();
  });

  it('comes home seen before it is kept, as one step, and only once', async () => {
    const read = JSON.parse(readFileSync(home, 'utf8')) as OutingReturn & { format: string };
    expect(read.format).to.equal('auburn-dusk-outing');
    const [news] = read.news;
    const { paintingId } = sitting;
    const before = (await sitting.rows(paintingId)).piles!.find(({ id }) => id === news!.pileId)!;
    await page.getByLabel('File from out of doors').setInputFiles(home);
    const told = await page.locator('[data-test=home-news]').innerText();
    expect(told)
      .to.match(/a note: the sun went behind a cloud/)
      .and.match(/looked lighter|mixed as planned/);
    expect((await sitting.rows(paintingId)).piles!.find(({ id }) => id === news!.pileId)!.note).to.equal(before.note);
    await page.getByRole('button', { name: 'Keep it' }).click();
    const pile = async () => (await sitting.rows(paintingId)).piles!.find(({ id }) => id === news!.pileId)!;
    await soon(async () => (await pile()).note.includes('the sun went'), 'the note is here');
    expect((await pile()).stages.at(-1)!.looks.at(-1)!.kind).to.equal('words');
    await sitting.more(/^Out of doors/);
    await page.getByLabel('File from out of doors').setInputFiles(home);
    await page.getByText('All of it is here already').waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    await page.keyboard.press('Control+z');
    await soon(async () => !(await pile()).note.includes('the sun went'), 'taken back as one step');
  });

  it('says in a sentence what does not come home', async () => {
    await sitting.more(/^Out of doors/);
    for (const [text, says] of [
      ['{"format":', /not whole/],
      ['{"format":"recipes"}', /none that was taken out/],
      [
        readFileSync(home, 'utf8').replace(/"paintingId": "[^"]*"/, `"paintingId": "${crypto.randomUUID()}"`),
        /put that painting on the easel/,
      ],
    ] as const) {
      const file = join(sitting.folder, `bad ${crypto.randomUUID()}.json`);
      writeFileSync(file, text);
      await page.getByLabel('File from out of doors').setInputFiles(file);
      await page.getByRole('alert').filter({ hasText: says }).waitFor();
    }
    await page.getByRole('button', { name: 'Not now' }).click();
  });
});
