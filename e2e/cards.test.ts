import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import type { CardDto, CardsFound, SetDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

describe('cards, on the page', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.withoutCards();
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const kept = async (): Promise<readonly CardDto[]> =>
    ((await (await fetch(`${sitting.running.address}api/cards-found`)).json()) as CardsFound).cards;
  const sets = async (): Promise<readonly SetDto[]> =>
    ((await (await fetch(`${sitting.running.address}api/sets`)).json()) as { rows: { sets: SetDto[] } }).rows.sets;
  const found = (says: string) => page.locator('[data-test=found]', { hasText: says }).waitFor();
  const place = () => page.getByRole('link', { name: 'Cards' }).click();
  const lines = () => page.locator('[data-test=card]');
  const openCard = () => page.locator('[data-test=open-card]');

  it('say what they are for while there are none', async () => {
    await place();
    await page.getByText('No cards yet').waitFor();
    await page.goBack();
  });

  it('are made of an open pile with one key', async () => {
    for (const [name, count] of [
      ['copper, body', 1],
      ['wall near the lamp', 2],
    ] as const) {
      await sitting.openPile(new RegExp(`^${name}`));
      const hand = new Hand(page);
      await hand.key('c');
      await soon(async () => (await kept()).length === count, `a card of ${name}`);
      expect(hand.actions).to.equal(1);
    }
    const [dark, light] = await kept();
    expect(dark!.name).to.equal('copper, body');
    expect(light!.seen, 'how it looked').to.not.equal(null);
  });

  it('are found by value first, by words, by temperature and by tubes', async () => {
    await place();
    await found('2 of 2');
    expect(await lines().allInnerTexts()).to.satisfy((all: string[]) => /copper/.test(all[0]!) && /wall/.test(all[1]!));
    await page.locator('[data-test=values] [role=slider]').first().focus();
    await page.keyboard.press('End');
    await found('0 of 2');
    await page.keyboard.press('Home');
    await found('2 of 2');
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('value 5 to 10');
    await found('1 of 2');
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('oxide copper');
    await soon(async () => (await lines().count()) === 1, 'by tube and thing');
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('nowhere');
    await found('0 of 2');
    await page.getByRole('button', { name: 'Look at all of them' }).first().click();
    await found('2 of 2');
    await sitting.more('More ways to find', /^More with these cards/);
    await page.getByText('tubes in and out').click();
    await page.getByRole('button', { name: 'Titanium white' }).click();
    await found('1 of 2');
    await page.getByRole('button', { name: 'with Titanium white' }).click();
    await soon(async () => /copper/.test(await lines().first().innerText()), 'without white');
    await page.getByRole('button', { name: 'without Titanium white' }).click();
    await found('2 of 2');
    await page.getByLabel('but for one').check();
    await found('0 of 2');
    await page.getByLabel('any tubes').check();
    await found('2 of 2');
  });

  it('are found by pointing at a colour, in two actions', async () => {
    await sitting.openReference();
    await sitting.pointAt(0.3, 0.5);
    await sitting.pointAt(0.301, 0.5);
    await page.locator('[data-test=recipe]').waitFor();
    const hand = new Hand(page);
    // One to point where there is no hover, one to ask.
    hand.actions++;
    await hand.key('/');
    await page.locator('[data-test=near]').waitFor();
    await found('2 of 2');
    expect(hand.actions).to.equal(2);
    expect(await lines().first().innerText()).to.match(/copper/);
    await page.getByRole('button', { name: 'Near no colour' }).click();
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('5Y 7/2');
    await soon(async () => /wall/.test(await lines().first().innerText()), 'near what was written');
    await page.getByRole('button', { name: 'Look at all of them' }).first().click();
  });

  it('are used in another painting in two actions, from today’s tubes, and say where', async () => {
    await sitting.openReference('Courtyard, washing day');
    const { paintingId } = sitting;
    const before = (await sitting.rows(paintingId)).piles!.length;
    await place();
    const hand = new Hand(page);
    hand.actions++;
    await lines().first().click();
    await openCard().waitFor();
    await hand.press('Use copper, body in the painting on the easel');
    await page.getByRole('heading', { name: 'Pile copper, body' }).waitFor();
    expect(hand.actions).to.equal(2);
    await soon(async () => (await sitting.rows(paintingId)).piles!.length === before + 1, 'a pile is planned');
    const [card] = await kept();
    const pile = (await sitting.rows(paintingId)).piles!.find(({ name }) => name === 'copper, body')!;
    expect(pile.cardId).to.equal(card!.id);
    expect(pile.plan.heaps.map(({ ingredients }) => ingredients.map(({ parts }) => parts))).to.deep.equal(
      card!.recipe.heaps.map(({ ingredients }) => ingredients.map(({ parts }) => parts)),
    );
    expect(Math.abs(pile.predicted.lab.L - card!.predicted.L)).to.be.below(3);
    await page.goBack();
    await openCard().getByRole('link', { name: 'copper, body, Courtyard, washing day' }).waitFor();
  });

  it('are used from the very tubes they were made of, and name what is not on the palette beside the key', async () => {
    await sitting.openReference('Courtyard, washing day');
    const { paintingId } = sitting;
    // Generic tubes beside a maker's of the same pigment: the palette has the generic ones.
    const { tubes, paintings, palettes } = await sitting.rows();
    const generic = (pigment: string) => tubes!.find((tube) => tube.pigment === pigment && tube.maker === '')!.id;
    const [white, red] = [generic('titanium-white'), generic('cadmium-red')];
    const palette = palettes!.find(({ id }) => id === paintings!.find((one) => one.id === paintingId)!.paletteId)!;
    await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: palette.version, tubeIds: [white, red] });
    const plan = {
      form: 1,
      heaps: [
        {
          ingredients: [
            { tube: white, parts: 3 },
            { tube: red, parts: 1 },
          ],
        },
      ],
    };
    const id = crypto.randomUUID();
    await sitting.elsewhere({ do: 'card.add', id, name: 'rose red', of: { plan, ml: 4 } });
    await sitting.go(`cards/${id}`);
    await openCard().waitFor();
    expect(await openCard().locator('[data-test=off-palette]').count()).to.equal(0);
    await page.getByRole('button', { name: 'Use rose red in the painting on the easel' }).click();
    await page.getByRole('heading', { name: 'Pile rose red' }).waitFor();
    const pile = (await sitting.rows(paintingId)).piles!.find(({ name }) => name === 'rose red')!;
    expect(pile.plan.heaps[0]!.ingredients.map((one) => [(one as { tube?: string }).tube, one.parts])).to.deep.equal([
      [white, 3],
      [red, 1],
    ]);
    const now = (await sitting.rows()).palettes!.find((one) => one.id === palette.id)!;
    await sitting.elsewhere({ do: 'palette.change', id: palette.id, version: now.version, tubeIds: palette.tubeIds });
    await page.goBack();
    expect(await openCard().locator('[data-test=off-palette]').innerText()).to.equal('Not on this palette: Titanium white, Cadmium red.');
    await sitting.elsewhere({ do: 'card.delete', id, version: 1 });
    await sitting.elsewhere({ do: 'pile.delete', id: pile.id, version: pile.version });
    await place();
    await lines().first().click();
  });

  it('without a painting say that there is none, instead of looking for ever', async () => {
    const alone = await Sitting.begin(false);
    try {
      const { tubes } = await alone.rows();
      const tube = tubes!.find(({ pigment }) => pigment === 'yellow-ochre')!.id;
      const id = crypto.randomUUID();
      await alone.elsewhere({
        do: 'card.add',
        id,
        name: 'ochre',
        of: { plan: { form: 1, heaps: [{ ingredients: [{ tube, parts: 1 }] }] }, ml: 4 },
      });
      await alone.open(`cards/${id}`);
      await alone.page.locator('[data-test=open-card]').waitFor();
      await alone.page.keyboard.press('r');
      await alone.page.locator('[data-test=no-palette]').waitFor();
      await alone.page.getByRole('button', { name: 'Not now' }).click();
      // Grey is on and says so, wherever one is.
      await alone.page.keyboard.press('g');
      await alone.page.locator('[data-test=sight]').waitFor();
      await alone.page.locator('[data-test=sight]').click();
      await alone.page.locator('[data-test=sight]').waitFor({ state: 'detached' });
      expect(alone.faults).to.deep.equal([]);
    } finally {
      await alone.end();
    }
  });

  it('are mixed from the palette on the easel, and part under each lamp as is told', async () => {
    await openCard().waitFor();
    await page.keyboard.press('r');
    const first = page.locator('[data-test=remade]').first();
    await first.waitFor();
    expect(await first.innerText()).to.match(/a match|close|near|plainly another/);
    await first.getByRole('button', { name: /^Remake it as/ }).click();
    await page.getByRole('heading', { name: 'Pile copper, body' }).waitFor();
    await page.goBack();
  });

  it('print in two actions', async () => {
    await openCard().waitFor();
    const hand = new Hand(page);
    await hand.key('p');
    const opening = sitting.context.waitForEvent('page');
    await hand.press('Card on A6');
    const url = (await opening).url();
    expect(hand.actions).to.equal(2);
    await (await opening).close();
    const wanted = JSON.parse(
      new URL(url.startsWith('http') ? url : `${sitting.running.address}x`).searchParams.get('wanted') ?? '{}',
    ) as object;
    if (url.startsWith('http')) expect(wanted).to.include({ sheet: 'cards', paper: 'A6' });
  });

  it('and a lesson of the piles that are chosen, with the readers’ own tubes', async () => {
    await page.getByRole('link', { name: 'Mixing' }).click();
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    await page.keyboard.press('p');
    await page.getByText('all piles; choose some').click();
    const dialog = page.getByRole('dialog', { name: /^Print/ });
    await dialog.getByRole('button', { name: 'door' }).click();
    await sitting.chooseIn(dialog.getByLabel('their tubes'), 'Window and lamp');
    const asked = sitting.context.waitForEvent('request', (request) => request.url().includes('/api/sheets'));
    await dialog.getByRole('button', { name: 'A lesson on A4' }).click();
    const wanted = JSON.parse(new URL((await asked).url()).searchParams.get('wanted')!) as {
      sheet: string;
      pileIds: string[];
      paletteId: string;
    };
    expect(wanted.sheet).to.equal('lesson');
    expect(wanted.pileIds).to.have.length(1);
    expect((await sitting.rows()).palettes!.map(({ id }) => id)).to.include(wanted.paletteId);
    for (const other of sitting.context.pages().filter((one) => one !== page)) await other.close();
    await place();
    await lines().first().click();
  });

  it('take a real dab by nudging, and stay as they were', async () => {
    await openCard().waitFor();
    const [card] = await kept();
    await page.keyboard.press('d');
    await page
      .getByRole('group', { name: /right half/ })
      .getByRole('button', { name: 'lighter' })
      .click();
    await page.getByRole('button', { name: 'That is it' }).click();
    await page.locator('[data-chip="your dab"]').waitFor();
    const [now] = await kept();
    expect(now!.dab!.lab.L).to.be.above(card!.predicted.L);
    expect(now!.predicted).to.deep.equal(card!.predicted);
    expect(now!.recipe).to.deep.equal(card!.recipe);
  });

  it('are kept together as a set, of a layer and of a palette', async () => {
    await page.getByRole('link', { name: 'Mixing' }).click();
    await sitting.more('Cards of this layer');
    await soon(async () => (await sets()).some(({ kind }) => kind === 'layer'), 'a set of the layer');
    await page.getByLabel('Name of the set').waitFor();
    const [layer] = await sets();
    await found(`${layer!.cardIds.length} of`);
    await page.getByRole('link', { name: 'Palettes' }).click();
    await page.getByRole('button', { name: 'Cards of every pair' }).click();
    await soon(async () => (await sets()).some(({ kind }) => kind === 'palette'), 'a set of the palette');
    const set = (await sets()).find(({ kind }) => kind === 'palette')!;
    expect(set.cardIds).to.have.length(21);
    await page.getByRole('button', { name: 'Put the set away; its cards stay' }).click();
    await soon(async () => (await sets()).length === 1, 'put away');
  });

  it('are put into a set, and taken out again', async () => {
    await place();
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('wall near');
    await soon(async () => /wall near/.test(await lines().first().innerText()), 'the wall first');
    await lines().first().click();
    const [layer] = await sets();
    await sitting.choose('into-set', layer!.name);
    await soon(async () => (await sets())[0]!.cardIds.length === layer!.cardIds.length + 1, 'put in');
    await page.getByRole('button', { name: `Take it out of ${layer!.name}` }).click();
    await soon(async () => (await sets())[0]!.cardIds.length === layer!.cardIds.length, 'taken out');
    await page.getByRole('button', { name: 'Look at all of them' }).first().click();
  });

  it('go to a file that holds them', async () => {
    await place();
    await page.getByRole('button', { name: /layer 1/ }).click();
    await page.getByRole('button', { name: 'The set to a file' }).click();
    const loading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Cards, to a file' }).click();
    const file = await (await loading).path();
    const json = JSON.parse(readFileSync(file, 'utf8')) as { format: string; cards: object[]; sets: object[] };
    expect(json.format).to.equal('auburn-dusk-cards');
    expect(json.sets).to.have.length(1);
    expect(json.cards).to.have.length((await sets())[0]!.cardIds.length);
  });

  it('open by their address, though forty others stand before them', async () => {
    const tube = (await sitting.rows()).tubes!.find(({ pigment }) => pigment === 'yellow-ochre')!.id;
    const white = (await sitting.rows()).tubes!.find(({ pigment }) => pigment === 'titanium-white')!.id;
    const made = Array.from({ length: 45 }, (_, i) => ({
      do: 'card.add',
      id: crypto.randomUUID(),
      name: `step ${i + 1}`,
      of: {
        plan: {
          form: 1,
          heaps: [
            {
              ingredients: [
                { tube, parts: 1 },
                { tube: white, parts: 1 + i },
              ],
            },
          ],
        },
        ml: 3,
      },
    }));
    await sitting.elsewhere(...made);
    const last = made.at(-1)!;
    const other = await sitting.context.newPage();
    await other.goto(`${sitting.running.address}cards/${last.id}`);
    await other.getByText(/more: narrow the values/).waitFor();
    await other.locator('[data-test=open-card]').getByLabel('Name of the card').waitFor();
    expect(await other.getByLabel('Name of the card').inputValue()).to.equal('step 45');
    await other.goto(`${sitting.running.address}cards/${crypto.randomUUID()}`);
    await other.locator('[data-test=no-such-card]').waitFor();
    await other.close();
    await sitting.elsewhere(...made.map(({ id }) => ({ do: 'card.delete', id, version: 1 })));
  });

  it('are put away, and come back', async () => {
    await page.getByRole('button', { name: 'Look at all of them' }).first().click();
    await page.locator('[data-test=find-words]').getByRole('textbox').fill('wall near');
    await soon(async () => /wall near/.test(await lines().first().innerText()), 'the wall first');
    await lines().first().click();
    const before = (await kept()).length;
    await sitting.more('Put the card away', /^More with this card/);
    await soon(async () => (await kept()).length === before - 1, 'put away');
    await page.keyboard.press('Control+z');
    await soon(async () => (await kept()).length === before, 'back');
  });
});
