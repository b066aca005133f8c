import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import type { CardsFound, Operation, PaletteDto, TubeDto } from '@dusk/wire';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

const cardsOf = async ({ running }: Sitting): Promise<CardsFound> =>
  (await (await fetch(`${running.address}api/cards-found?wanted={"most":100}`)).json()) as CardsFound;

/** Day 9: twelve cards and a palette carried over in a file; the friend has four of the tubes and others like them. */
describe('a friend’s studio', () => {
  let mine: Sitting;
  let hers: Sitting;
  let file: string;
  let palette: PaletteDto;
  const COUNT = 12;
  before(async () => {
    mine = await Sitting.begin();
    await mine.withoutCards();
    // She has no tubes of her own here: what is in her studio are the generic ones.
    hers = await Sitting.begin(false);
  });
  after(async () => {
    await mine.end();
    await hers.end();
  });
  afterEach(() => expect([...mine.faults, ...hers.faults]).to.deep.equal([]));

  it('gets twelve cards and a palette in one file', async () => {
    await mine.openReference('Courtyard, washing day');
    const { page } = mine;
    const rows = await mine.rows();
    const piles = (await mine.rows(mine.paintingId)).piles!.slice(0, COUNT);
    palette = rows.palettes!.find(({ id }) => id === rows.paintings!.find(({ id: own }) => own === mine.paintingId)!.paletteId)!;
    const cards = piles.map(({ id }): Operation => ({ do: 'card.add', id: crypto.randomUUID(), pileId: id }));
    while (cards.length < COUNT)
      cards.push({
        do: 'card.add',
        id: crypto.randomUUID(),
        pileId: piles[cards.length % piles.length]!.id,
        name: `again ${cards.length}`,
      });
    await mine.elsewhere(...cards);
    await page.getByRole('link', { name: 'Cards' }).click();
    await page.locator('[data-test=card]').first().click();
    await mine.more('The card to a file', /^More with this card/);
    await page.getByLabel('every card, set and palette').check();
    const loading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Cards, to a file' }).click();
    file = await (await loading).path();
  });

  it('sees what the file would do, which of her tubes stand for mine, and chooses another', async () => {
    const { page } = hers;
    await hers.open('cards');
    await page.getByText('No cards yet').waitFor();
    await page.getByRole('button', { name: 'Bring cards' }).click();
    await page.getByLabel('File of cards').setInputFiles(file);
    await page.locator('[data-test=news]', { hasText: `${COUNT} cards are new` }).waitFor();
    expect(await page.locator('[data-test=news]').innerText()).to.match(/palettes come along/);
    expect((await cardsOf(hers)).of, 'nothing is kept yet').to.equal(0);
    const lines = await page.locator('[data-test=file-tube]').allInnerTexts();
    expect(lines.some((line) => /same pigment, |the same/.test(line))).to.equal(true);
    const ochre = page.getByLabel('What stands for Raw sienna').first();
    const other =
      (await hers.rows()).tubes!.find(({ pigment }) => pigment === 'alizarin-permanent') ??
      (await hers.rows()).tubes!.find(({ name }) => /rose|crimson|magenta/i.test(name))!;
    await hers.chooseIn(ochre, `${other.name}, ${other.maker || 'generic'}`);
    await page.getByRole('button', { name: 'Bring them' }).click();
    await page.locator('[data-test=found]', { hasText: `${COUNT} of ${COUNT}` }).waitFor();
    const chosen = (await cardsOf(hers)).cards.flatMap(({ stands }) => Object.values(stands));
    expect(chosen).to.include(other.id);
  });

  it('opens them with her tubes, each saying what changed', async () => {
    const { page } = hers;
    for (let i = 0; i < COUNT; i++) {
      await page.locator('[data-test=card]').nth(i).click();
      await page.locator('[data-test=card][aria-current=true]').waitFor();
      const today = await page.locator('[data-test=today]').innerText();
      expect(today).to.match(/With today’s tubes/);
    }
    const tubes = new Map((await hers.rows()).tubes!.map((tube): [string, TubeDto] => [tube.id, tube]));
    for (const { stands, tubes: theirs } of (await cardsOf(hers)).cards)
      for (const { key } of theirs) expect(tubes.has(stands[key]!), 'a tube of hers').to.equal(true);
    const here = (await hers.rows()).palettes!.find(({ name }) => name === palette.name)!;
    expect(here.tubeIds.every((id) => tubes.has(id))).to.equal(true);
  });

  it('brings the same file again and nothing is added; takes the whole back as one step', async () => {
    const { page } = hers;
    await page.keyboard.press('b');
    await page.getByLabel('File of cards').setInputFiles(file);
    await page.getByText('Everything in it is here already').waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    await page.keyboard.press('Control+z');
    await soon(async () => (await cardsOf(hers)).of === 0, 'all of it is taken back');
    expect((await hers.rows()).palettes!.some(({ name }) => name === palette.name)).to.equal(false);
    // The page has heard of it, too: only then is there something to do again.
    await page.locator('[title^="Do again: "]').waitFor();
    await page.keyboard.press('Control+Shift+z');
    await soon(async () => (await cardsOf(hers)).of === COUNT, 'and done again');
  });

  it('is told in a sentence that a file is damaged, and nothing is kept', async () => {
    const { page } = hers;
    const broken = join(hers.folder, 'half.json');
    writeFileSync(broken, '{"format":"auburn-dusk-cards","version":1,"cards":[{"id":');
    await page.keyboard.press('b');
    await page.getByLabel('File of cards').setInputFiles(broken);
    await page.getByRole('alert').filter({ hasText: 'not whole' }).waitFor();
    await page.getByRole('button', { name: 'Not now' }).click();
    expect((await cardsOf(hers)).of).to.equal(COUNT);
  });

  it('lays her own dab beside a printed card at true size', async () => {
    const { page } = hers;
    await page.locator('[data-test=card]').first().click();
    await page.locator('[data-test=open-card]').waitFor();
    const hand = new Hand(page);
    await hand.key('p');
    const opening = hers.context.waitForEvent('page');
    await hand.press('Card on A6');
    await (await opening).close();
    expect(hand.actions).to.equal(2);
  });
});

/** Day 7: six weeks later a colour of a card is wanted again, and one of its tubes is empty. */
describe('six weeks later', () => {
  let sitting: Sitting;
  before(async () => {
    sitting = await Sitting.begin();
    await sitting.withoutCards();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  it('the bowl’s green is mixed from a card, without the tube that is empty, and is told to part by lamp', async () => {
    const { page } = sitting;
    await sitting.openReference();
    const bowl = (await sitting.rows(sitting.paintingId)).piles!.find(({ name }) => /^glaze/.test(name))!;
    await sitting.elsewhere({ do: 'card.add', id: crypto.randomUUID(), pileId: bowl.id });
    await page.getByRole('link', { name: 'Cards' }).click();
    await page.locator('[data-test=card]').first().click();
    await page.locator('[data-test=open-card]').waitFor();
    await page.keyboard.press('r');
    await page.locator('[data-test=remade]').first().waitFor();
    const before = await page.locator('[data-test=remade]').first().innerText();
    await page.locator('[data-sheet] [data-test=tube-key]', { hasText: 'Viridian' }).click();
    await soon(async () => {
      const now = await page
        .locator('[data-test=remade]')
        .first()
        .innerText()
        .catch(() => before);
      return now !== before && !/Viridian/.test(now);
    }, 'without the empty tube');
    const says = await page.locator('[data-test=remade]').first().innerText();
    expect(says).to.match(/a match|close|near|plainly another/);
    expect(says).to.match(/holds under every lamp|parts by/);
    await page
      .locator('[data-test=remade]')
      .first()
      .getByRole('button', { name: /^Remake/ })
      .click();
    await page.getByRole('heading', { name: /^Pile glaze/ }).waitFor();
    const piles = (await sitting.rows(sitting.paintingId)).piles!;
    const made = piles.filter(({ cardId }) => cardId !== null);
    expect(made).to.have.length(1);
    const tubes = new Map((await sitting.rows()).tubes!.map((tube) => [tube.id, tube.pigment]));
    const used = made[0]!.plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? tubes.get(one.tube) : [])));
    expect(used).to.not.include('viridian');
  });
});
