import type { PileDto } from '@dusk/wire';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { readPdf } from '../server/test/pdf.ts';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

/** A painting from memory: no picture, four tubes, colours said or got from the last, nothing counted. */
describe('the quarry road, from memory', () => {
  let sitting: Sitting;
  let page: Page;
  const paintingId = crypto.randomUUID();
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.open('paintings');
    const { tubes } = await sitting.rows();
    const tubeIds = ['titanium-white', 'raw-sienna', 'venetian-red', 'ultramarine-blue'].map(
      (pigment) => tubes!.find((tube) => tube.pigment === pigment)!.id,
    );
    const paletteId = crypto.randomUUID();
    await sitting.elsewhere(
      { do: 'palette.add', id: paletteId, name: 'Four from memory', tubeIds },
      { do: 'painting.add', id: paintingId, title: 'The quarry road', paletteId },
    );
    await sitting.go(`painting/${paintingId}/mixing`);
    await page.getByRole('heading', { name: 'No piles yet' }).waitFor();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));
  const piles = async (): Promise<readonly PileDto[]> => (await sitting.rows(paintingId)).piles!;

  async function said(hand: Hand, words: string): Promise<PileDto> {
    const before = (await piles()).map(({ id }) => id);
    await hand.key('n');
    const sheet = page.getByRole('dialog', { name: 'A new pile' });
    await sheet.locator('[data-test=said-colour]').fill(words);
    await sheet
      .getByText(/a match|close|near/)
      .first()
      .waitFor();
    await sheet.getByRole('button', { name: 'Keep this pile' }).click();
    hand.actions += 2;
    await soon(async () => (await piles()).length === before.length + 1, `${words} is kept`);
    return (await piles()).find(({ id }) => !before.includes(id))!;
  }

  /** From an earlier pile, by steps. */
  async function from(hand: Hand, mother: PileDto, ...keys: readonly string[]): Promise<PileDto> {
    const before = (await piles()).map(({ id }) => id);
    await sitting.go(`painting/${paintingId}/mixing/${mother.id}`);
    await page.locator('[data-test=door]', { hasText: 'From it' }).waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
    await hand.key('2');
    for (const key of keys) await hand.key(key);
    await page.locator('[data-test=keep-child]').waitFor();
    await hand.key('Enter');
    await soon(async () => (await piles()).length > before.length, `${mother.name}, ${keys.join()} is kept`);
    return (await piles()).find(({ id }) => !before.includes(id))!;
  }

  it('is eight piles, none of more than one heap, six of them got from an earlier one by what was in it or one thing more', async () => {
    const hand = new Hand(page);
    const road = await said(hand, 'warm grey, value 6');
    await sitting.go(`painting/${paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    const bank = await said(hand, 'dull orange, value 4');
    const children: PileDto[] = [];
    const rutted = await from(hand, road, 'ArrowDown', 'ArrowDown');
    children.push(rutted, await from(hand, rutted, 'ArrowDown', 'ArrowLeft'), await from(hand, road, 'ArrowUp', 'ArrowUp'));
    children.push(await from(hand, bank, 'ArrowUp', 'ArrowUp'), await from(hand, bank, 'ArrowDown'), await from(hand, road, 'ArrowLeft'));
    const all = await piles();
    expect(all).to.have.length(8);
    for (const { plan, name } of all) expect(plan.heaps.length, name).to.equal(1);
    // Own tubes of its mother, or one thing more.
    for (const child of children) {
      const mother = [road, bank, ...children].find(({ id }) => JSON.stringify(child.plan).includes(id));
      const inside = (pile: PileDto): string[] =>
        pile.plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? [one.tube] : [])));
      const above = mother
        ? [...inside(mother), ...inside([road, bank].find(({ id }) => JSON.stringify(mother.plan).includes(id)) ?? mother)]
        : inside(road);
      expect(inside(child).filter((tube) => !above.includes(tube)).length, child.name).to.be.at.most(1);
    }
    // Two said in three actions each, six in two to four.
    expect(hand.actions).to.be.at.most(2 * 3 + 6 * 4);
  });

  it('is told by eye wherever it is told, and as a lesson', async () => {
    await sitting.go(`painting/${paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    const { settings } = await sitting.rows();
    await sitting.elsewhere({ do: 'settings.change', version: settings![0]!.version, measure: 'eye' });
    const told = () => page.locator('.layers a.pile').evaluateAll((all) => all.map((one) => one.getAttribute('title') ?? ''));
    await soon(async () => (await told()).some((one) => /mostly|much|some/.test(one)), 'the chips tell words');
    for (const line of await told()) expect(line).to.not.match(/\d+ (Titanium|Raw|Venetian|Ultramarine)/);
    const wanted = encodeURIComponent(JSON.stringify({ sheet: 'lesson', paper: 'A4', paintingId }));
    const response = await fetch(`${sitting.running.address}api/sheets?wanted=${wanted}`);
    expect(response.status).to.equal(200);
    const { pages } = readPdf(Buffer.from(await response.arrayBuffer()));
    expect(pages).to.have.length(1);
    const text = pages.map((one) => one.text).join('\n');
    expect(text).to.match(/mostly|much|some/);
    expect(text).to.not.match(/\d+ +(Titanium|Raw|Venetian|Ultramarine)/);
  });
});
