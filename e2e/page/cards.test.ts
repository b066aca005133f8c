import { expect } from 'chai';
import { labOfDto } from '@dusk/wire';
import { useCards } from '../../web/src/stores/cards.ts';
import { usePiles } from '../../web/src/stores/piles.ts';
import { useDesk } from '../../web/src/stores/useDesk.ts';
import { useTubes } from '../../web/src/stores/tubes.ts';
import { useStudio } from '../../web/src/studio/useStudio.ts';
import { Page } from './page.ts';

describe('cards and today’s tubes', () => {
  let page: Page;
  let cards: ReturnType<typeof useCards>;
  let piles: ReturnType<typeof usePiles>;
  let desk: ReturnType<typeof useDesk>;
  let tubes: ReturnType<typeof useTubes>;
  let studio: ReturnType<typeof useStudio>;
  before(async () => {
    page = await Page.open();
    await page.openPainting('Oil can and twine by window and lamp');
    [cards, piles, desk, tubes, studio] = page.within(() => [useCards(), usePiles(), useDesk(), useTubes(), useStudio()]);
  });
  after(() => page.end());
  const cardOf = async (name: string) => {
    const id = await cards.make(piles.list.find((one) => one.name === name)!);
    return studio.rows.cards.get(id!)!;
  };

  it('a card of a pile is made today of the very tubes it was made of, and looks as it did', async () => {
    const card = await cardOf('bench in the light');
    const stands = cards.standIns(card);
    expect([...stands.keys()]).to.have.members(card.tubes.map(({ key }) => key));
    for (const [key, { tubeId }] of stands) expect(tubes.byId.get(tubeId)!.name).to.equal(card.tubes.find((one) => one.key === key)!.name);
    expect(cards.offPalette(card)).to.deep.equal([]);
    const now = cards.today(card)!;
    expect(now.lab.map((v) => Math.round(v))).to.deep.equal(labOfDto(card.predicted).map((v) => Math.round(v)));
  });

  it('a tube that was chosen stands, whatever is likest; one that does not lie on the palette is named', async () => {
    const card = await cardOf('wall by the window');
    const lies = new Set(desk.paletteTubes.map(({ id }) => id));
    const other = tubes.all.find(({ id }) => !lies.has(id))!;
    const { key } = card.tubes[0]!;
    expect(await cards.change(card, { stands: [{ key, tubeId: other.id }] }, 'Another tube for it')).to.equal(true);
    const changed = studio.rows.cards.get(card.id)!;
    expect(cards.standIns(changed).get(key)).to.deep.include({ tubeId: other.id, by: 'chosen' });
    expect(cards.offPalette(changed)).to.include(other.name);
  });

  it('is used in a painting as a pile of today’s tubes, of the amount that is wanted', async () => {
    const card = await cardOf('bench in the light');
    page.taken();
    expect(await cards.use(card, 7)).to.equal(true);
    const made = page.taken().find(({ do: what }) => what === 'pile.add') as unknown as { id: string };
    const pile = studio.rows.piles.get(made.id)!;
    expect(pile).to.deep.include({ cardId: card.id, ml: 7, name: card.name });
  });

  it('many at once are a set; its cards stay when it is put away', async () => {
    const some = piles.list.slice(0, 3);
    const set = await cards.makeSet(some, 'chosen', 'Three of them');
    const row = cards.sets.find((one) => one.id === set)!;
    expect(row.cardIds).to.have.length(3);
    expect(await cards.removeSet(row)).to.equal(true);
    expect(cards.sets.some((one) => one.id === set)).to.equal(false);
    for (const cardId of row.cardIds) expect(studio.rows.cards.get(cardId)?.deletedAt ?? null).to.equal(null);
  });
});
