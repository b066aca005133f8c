import { expect } from 'chai';
import type { AreaDto, LogDto, PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import { later } from './clock.ts';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

const LAPTOP = { width: 1280, height: 800 };
const UPRIGHT = { width: 820, height: 1180 };

/** A sitting at a moment, with what the log says of it. */
async function begun(at: string, viewport = LAPTOP) {
  const sitting = await Sitting.begin();
  const { page } = sitting;
  await page.setViewportSize(viewport);
  await sitting.setClock(at);
  const log = async (): Promise<LogDto> => (await (await fetch(`${sitting.running.address}api/log`)).json()) as LogDto;
  const areasOf = async (): Promise<readonly AreaDto[]> =>
    (await log()).rows.areas!.filter(({ paintingId }) => paintingId === sitting.paintingId);
  return { sitting, page, log, areasOf };
}
const answers = (page: Page, area: string) =>
  page
    .locator('[data-test=passage]')
    .filter({ has: page.locator(`[data-area="${area}"]`) })
    .locator('[data-test=answer]');
const goToLog = async (sitting: Sitting): Promise<void> => {
  await sitting.goTo('Log');
  await sitting.page.locator('[data-test=lay]').waitFor();
};

describe('the copper can, three sittings: layers and days', () => {
  const FIRST = '2026-11-30T17:00:00.000Z';
  let sitting: Sitting;
  let page: Page;
  let hand: Hand;
  let log: () => Promise<LogDto>;
  let areasOf: () => Promise<readonly AreaDto[]>;
  before(async () => {
    ({ sitting, page, log, areasOf } = await begun(FIRST));
    await sitting.openReference();
  });
  beforeEach(() => (hand = new Hand(page)));
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const can = async (): Promise<AreaDto | undefined> => (await areasOf()).find(({ name }) => name === 'can');
  const deeds = async () => (await can())?.deeds ?? [];

  it('a layer on a new passage is four actions and its name; it says at once when it is dry', async () => {
    await goToLog(sitting);
    await hand.click(page.locator('[data-test=lay]'));
    await page.locator('[data-test=lay-where][aria-pressed=true]').click();
    await page.locator('[data-test=new-area] input').fill('can');
    await hand.click(page.locator('[data-test=lay-pile]').first());
    await hand.click(page.locator('.choice label', { hasText: 'thin' }));
    expect(await page.locator('[data-test=lay-dries]').innerText()).to.match(/Dry to the touch (tomorrow|in|[A-Z])/);
    await hand.click(page.locator('[data-test=laid]'));
    await soon(async () => (await deeds()).length === 1, 'it is laid');
    expect(hand.actions).to.equal(4);
    await answers(page, 'can').first().filter({ hasText: 'wet' }).waitFor();
    expect((await log()).laid.some(({ parts }) => parts.length > 1)).to.equal(true);
  });

  it('the day ends in five actions, with what is next and the rags; the studio is started anew', async () => {
    const left = async () => ((await sitting.rows(sitting.paintingId)).piles as PileDto[]).filter(({ there }) => there > 0.05);
    expect((await left()).length).to.be.above(2);
    await hand.click(page.locator('[data-test=end-day]'));
    await hand.click(page.locator('[data-test=cover-all]'));
    await page.locator('[data-test=whats-next] input').fill('the bowl, darker');
    expect(await page.locator('[data-test=rags]').innerText()).to.match(/rags can ignite/);
    await hand.click(page.locator('[data-test=day-over]'));
    await soon(
      async () => (await log()).rows.sittings!.some(({ closedAt, note }) => closedAt !== null && note === 'the bowl, darker'),
      'it is over',
    );
    expect(hand.actions).to.be.at.most(5);
    expect((await left()).every(({ purpose }) => purpose.covered === true)).to.equal(true);
    await sitting.restartServer();
  });

  it('days later it says where it stands; a finger is two actions, and moves the answer', async () => {
    await sitting.setClock(later(FIRST, 1));
    await page.reload();
    await page.locator('[data-test=passage]').first().waitFor();
    expect(await page.locator('[data-test=last-time]').innerText()).to.match(/yesterday.*bowl, darker/s);
    const first = await answers(page, 'can').first().innerText();
    expect(first).to.not.include('yes');
    await hand.click(page.locator('[data-area=can]'));
    await hand.click(page.locator('[data-test=felt-dry]'));
    await answers(page, 'can').first().filter({ hasText: 'yes' }).waitFor();
    expect(hand.actions).to.equal(2);
    expect((await deeds()).at(-1)).to.include({ kind: 'touched', touch: 'dry' });
  });

  it('the next layer as last time is two actions; what is leaner is said, and may be laid all the same', async () => {
    await sitting.elsewhere({
      do: 'deed.add',
      id: crypto.randomUUID(),
      areaId: (await can())!.id,
      kind: 'laid',
      laid: { how: 'glaze', with: 'oil' },
      additions: (await deeds())[0]!.additions.map(({ stageId, ml }) => ({ id: crypto.randomUUID(), stageId, ml, low: ml, high: ml })),
    });
    await sitting.setClock(later(FIRST, 40));
    await page.reload();
    await page.locator('[data-area=can]').click();
    await page.locator('[data-test=lay]').click();
    await page.locator('[data-test=lay-pile]').first().click();
    await sitting.choose('lay-with', 'nothing');
    await page.locator('.choice label', { hasText: 'normal' }).click();
    await page.locator('[data-test=lay-advice]', { hasText: 'drops of oil' }).first().waitFor();
    await page.locator('[data-test=laid]', { hasText: 'all the same' }).click();
    await soon(async () => (await deeds()).at(-1)!.laid?.against === 'leaner than below', 'it was overruled, and that is kept');
    await sitting.setClock(later(FIRST, 120));
    await page.reload();
    await page.locator('[data-area=can]').click();
    hand.actions = 0;
    const before = (await deeds()).length;
    await hand.click(page.locator('[data-test=as-last-time]'));
    await soon(async () => (await deeds()).length === before + 1, 'as last time');
    expect(hand.actions).to.be.at.most(2);
    // Back to mixing what is in it: one more.
    await page.locator('[data-test=mix-again]').click();
    await page.locator('.easel').waitFor();
    await page.keyboard.press('Escape');
  });

  it('what was wiped back, or felt in error, is taken back by undo; two windows agree', async () => {
    await goToLog(sitting);
    await page.locator('[data-area=can]').click();
    const other = await sitting.context.newPage();
    await other.goto(page.url());
    await other.locator('[data-area=can]').click();
    const before = (await deeds()).length;
    await page.locator('[data-test="did-wiped back"]').click();
    await other.locator('[data-test=deed]', { hasText: 'wiped back' }).first().waitFor();
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await deeds()).length === before, 'taken back');
    await other.locator('[data-test=deed]', { hasText: 'wiped back' }).first().waitFor({ state: 'detached' });
    await other.close();
  });

  it('its days are there, a forgotten sitting among them; the lesson and what dries when are two actions, on paper', async () => {
    await page.locator('[data-test=log-days]').click();
    await page.locator('[data-test=sitting]').nth(2).waitFor();
    // A time to stop is a choice of half hours.
    await sitting.choose('stop-at', 'no time');
    const { sittings, rows } = await log();
    expect(sittings.length).to.be.at.least(4);
    // Nobody ended the later ones; each day is a sitting of its own all the same.
    const days = rows.sittings!.filter(({ openedAt }) => openedAt > later(FIRST, 0.5)).map(({ openedAt }) => openedAt.slice(0, 10));
    expect(days).to.have.length(3);
    expect(new Set(days).size).to.equal(3);
    hand.actions = 0;
    const opened = page.context().waitForEvent('page');
    await hand.click(page.locator('[data-test=log-end]'));
    await hand.click(page.locator('[data-test=lesson]'));
    const lesson = await opened;
    expect(hand.actions).to.equal(2);
    const { searchParams } = new URL(lesson.url().startsWith('http') ? lesson.url() : page.url());
    await lesson.close();
    for (const sheet of ['lesson', 'drying']) {
      const wanted = JSON.stringify({ sheet, paper: 'A4', paintingId: sitting.paintingId, zone: 'Europe/Berlin' });
      const response = await fetch(`${sitting.running.address}api/sheets?wanted=${encodeURIComponent(wanted)}`);
      expect(response.status, `${sheet} ${searchParams.size}`).to.equal(200);
      expect(
        Buffer.from(await response.arrayBuffer())
          .subarray(0, 4)
          .toString(),
      ).to.equal('%PDF');
    }
  });
});

describe('five paintings, one weekend', () => {
  /** A Friday evening. */
  const NOW = '2026-12-04T17:00:00.000Z';
  for (const [size, viewport] of [
    ['a laptop', LAPTOP],
    ['a tablet upright', UPRIGHT],
  ] as const)
    it(`what is possible tonight, tomorrow and on Sunday, and the last day of each layer, on ${size}`, async () => {
      const { sitting, page, log } = await begun(NOW, viewport);
      try {
        await sitting.openReference();
        const { tubes, palettes, paintings } = await sitting.rows();
        const tube = (pigment: string) => tubes!.find((one) => one.pigment === pigment && one.maker !== '')!;
        const laid = (areaId: string, pigment: string, how: string, daysAgo: number) => ({
          do: 'deed.add',
          id: crypto.randomUUID(),
          areaId,
          kind: 'laid',
          laid: { how },
          at: later(NOW, -daysAgo),
          additions: [{ id: crypto.randomUUID(), tubeId: tube(pigment).id, stateId: tube(pigment).stateId, ml: 1, low: 1, high: 1 }],
        });
        const three = ['Boats', 'Onions', 'Stairs'].map((title) => ({ title, id: crypto.randomUUID(), areaId: crypto.randomUUID() }));
        for (const { title, id, areaId } of three)
          await sitting.elsewhere(
            { do: 'painting.add', id, title, paletteId: palettes![0]!.id },
            { do: 'area.add', id: areaId, paintingId: id, name: title === 'Boats' ? 'thick sky' : 'the whole' },
          );
        await sitting.elsewhere(laid(three[0]!.areaId, 'titanium-white', 'loaded', 4));
        await sitting.elsewhere(laid(three[1]!.areaId, 'venetian-red', 'thin', 30));
        await sitting.elsewhere(laid(three[2]!.areaId, 'transparent-oxide-red', 'normal', 4));
        await goToLog(sitting);
        await page.locator('[data-test=log-all]').click();
        await soon(async () => (await page.locator('[data-test=board-painting]').count()) === 5, 'all five');
        const of = (title: string) => page.locator('[data-test=board-painting]', { hasText: title });
        const heads = await of('Boats').locator('thead th').allInnerTexts();
        expect(heads.slice(1, 4)).to.deep.equal(['tonight', 'tomorrow, Saturday', 'on Sunday']);
        const said = async (title: string) => (await of(title).locator('[data-test=answer]').allInnerTexts()).map((one) => one.trim());
        expect(await said('Onions')).to.deep.equal(['yes', 'yes', 'yes']);
        expect((await said('Boats')).every((one) => one !== 'yes')).to.equal(true);
        expect((await said('Stairs'))[2]).to.match(/not yet|touch it first/);
        // It must hang in five weeks, varnished; then in five days, and cannot.
        await of('Boats').getByRole('button', { name: /Boats/ }).click();
        await page.locator('[data-area="thick sky"]').waitFor();
        await page.locator('[data-test=log-end]').click();
        await page.locator('[data-test=due] input').fill('2027-02-20');
        await page.locator('[data-test=due] input').dispatchEvent('change');
        await sitting.choose('varnish', 'one that breathes, soon');
        await page.locator('[data-test=last-day]').first().waitFor();
        await page.getByText(/Varnish by/).waitFor();
        await page.locator('[data-test=due] input').fill('2026-12-10');
        await page.locator('[data-test=due] input').dispatchEvent('change');
        await page.locator('[data-test=too-late]').waitFor();
        const ways = await page.locator('[data-test=last-day] ul li').allInnerTexts();
        expect(ways.some((way) => way.includes('alkyd'))).to.equal(true);
        expect(ways.some((way) => way.includes('thin'))).to.equal(true);
        await soon(
          async () => (await sitting.rows()).paintings!.find(({ title }) => title === 'Boats')!.about.dueOn === '2026-12-10',
          'it is kept',
        );
        expect((await log()).rows.areas!.length).to.be.at.least(5);
        expect(paintings).to.have.length(2);
        expect(sitting.faults).to.deep.equal([]);
      } finally {
        await sitting.end();
      }
    });
});

describe('a day of eight piles', () => {
  it('is in the log with no action beyond mixing them', async () => {
    const { sitting, page, log } = await begun('2027-03-27T17:00:00.000Z');
    try {
      await sitting.openReference();
      await sitting.go(`painting/${sitting.paintingId}/easel`);
      await page.locator('.easel').waitFor();
      const ofDay = async () => {
        const { sittings, rows } = await log();
        return sittings.find(({ id }) => rows.sittings!.find((one) => one.id === id)!.openedAt.startsWith('2027-03-27'));
      };
      const mixed = async () => (await ofDay())?.piles.length ?? 0;
      const planned = (await sitting.rows(sitting.paintingId)).piles!.filter(({ stages }) => stages.length === 0).length;
      for (let i = 0; i < 80 && (await page.getByText('All of it is mixed').count()) === 0 && (await mixed()) < planned; i++) {
        await page.keyboard.press(' ');
        await sitting.quiet();
      }
      await soon(async () => (await mixed()) >= planned, 'all are in the log');
      expect(planned).to.be.at.least(4);
      // The night on which summer time begins: the next evening is another day, an hour sooner.
      await sitting.setClock('2027-03-28T16:00:00.000Z');
      await sitting.go(`painting/${sitting.paintingId}/log`);
      await page.locator('[data-test=lay]').waitFor();
      await page.locator('[data-test=last-time]', { hasText: 'yesterday' }).waitFor();
      expect(sitting.faults).to.deep.equal([]);
    } finally {
      await sitting.end();
    }
  });
});
