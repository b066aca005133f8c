import { expect } from 'chai';
import { strengthOf, temperature, valueOfLightness, type Lab } from '@dusk/core';
import { labOfDto, type PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { Sitting, soon } from './studio.ts';

/** A greenhouse in rain, as flat as a chart: glass and sky, greens behind them, a bench. */
const PATCHES = ['#2c302f', '#7d8484', '#c4c9c6', '#56633f', '#7f8f52', '#a3ab84', '#6a4a37', '#8f7d66'] as const;
const ACROSS = 4;

describe('a painting from an own picture, from its first pile to a restart', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin(false);
    ({ page } = sitting);
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  const piles = async (): Promise<readonly PileDto[]> => (await sitting.rows(sitting.paintingId)).piles!;
  const labOf = (pile: PileDto): Lab => labOfDto(pile.predicted.lab);
  const valueOf = (pile: PileDto): number => valueOfLightness(pile.predicted.lab.L);
  const kept: string[] = [];
  const at = async (patch: number): Promise<PileDto> => (await piles()).find(({ id }) => id === kept[patch])!;
  async function open(pile: PileDto): Promise<void> {
    await sitting.go(`painting/${sitting.paintingId}/mixing/${pile.id}`);
    await page.getByRole('heading', { name: `Pile ${pile.name}` }).waitFor();
  }
  /** Takes a child by some keys of the panel Kin. @returns it */
  async function child(of: PileDto, ...keys: readonly string[]): Promise<PileDto> {
    const before = new Set((await piles()).map(({ id }) => id));
    await open(of);
    await page.keyboard.press('2');
    for (const key of keys) await page.keyboard.press(key);
    await page.locator('[data-test=kin-recipe]').waitFor();
    // The page keeps the recipe of the last step, also where it is still being reckoned.
    await page.keyboard.press('Enter');
    await soon(async () => (await piles()).length === before.size + 1, 'a child is kept');
    return (await piles()).find(({ id }) => !before.has(id))!;
  }

  it('eight piles are kept from it', async () => {
    await sitting.open();
    await page.getByRole('button', { name: 'Begin a painting' }).click();
    await page.getByLabel('Title').fill('Greenhouse in rain');
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await page.getByText('Bring a picture to paint from').waitFor();
    const patches = await Promise.all(
      PATCHES.map(async (background, i) => ({
        input: await sharp({ create: { width: 150, height: 200, channels: 3, background } })
          .png()
          .toBuffer(),
        left: 150 * (i % ACROSS),
        top: 200 * Math.floor(i / ACROSS),
      })),
    );
    const buffer = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#000' } })
      .composite(patches)
      .png()
      .toBuffer();
    await page.locator('input[type=file]').setInputFiles({ name: 'greenhouse.png', mimeType: 'image/png', buffer });
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
    for (let i = 0; i < PATCHES.length; i++) {
      await sitting.pointAt(((i % ACROSS) + 0.5) / ACROSS, (Math.floor(i / ACROSS) + 0.5) / 2);
      await page.locator('[data-test=recipe]').waitFor();
      await page.keyboard.press('k');
      await soon(async () => (await piles()).length === i + 1, `pile ${i + 1}`);
      kept.push((await piles()).find(({ id }) => !kept.includes(id))!.id);
    }
  });

  it('two families grow: a leaf darker and warmer, the bench in shadow and further off', async () => {
    const leaf = await at(3);
    const darker = await child(leaf, 'ArrowDown');
    const warmer = await child(leaf, 'ArrowRight');
    expect(valueOf(darker)).to.be.below(valueOf(leaf) - 0.3);
    expect(temperature(labOf(warmer))).to.be.above(temperature(labOf(leaf)) + 1);
    const bench = await at(7);
    const shaded = await child(bench, 'i', 'i');
    await child(bench, 'f', 'f');
    expect(valueOf(shaded)).to.be.below(valueOf(bench) - 0.8);
    expect(shaded.purpose.zone).to.equal('shadow');
    await open(leaf);
    await page.keyboard.press('2');
    // What is mixed anew from the same tubes takes nothing of it.
    const ofIt = [darker, warmer].filter(({ plan }) =>
      plan.heaps.some(({ ingredients }) => ingredients.some((one) => 'pile' in one && one.pile === leaf.id)),
    );
    expect(ofIt.length).to.be.above(0);
    expect(await page.locator('[data-test=family] li').count()).to.equal(1 + ofIt.length);
    expect(await page.locator('[data-test=flat]').textContent()).to.match(/\d %/);
  });

  it('one is corrected twice', async () => {
    const pile = await at(6);
    await open(pile);
    await page.keyboard.press(' ');
    await page.getByText('What did you get?').waitFor();
    const field = page.getByLabel('Colour as typed');
    for (const off of [
      [7, 3, 4],
      [-4, -1, 3],
    ] as const) {
      const now = (await piles()).find(({ id }) => id === pile.id)!;
      const [L, a, b] = labOfDto(now.target!.lab);
      await field.fill(`${(L + off[0]).toFixed(1)} ${(a + off[1]).toFixed(1)} ${(b + off[2]).toFixed(1)}`);
      await field.press('Enter');
      await field.evaluate((one) => (one as HTMLElement).blur());
      await page.locator('[data-test=addition]').first().waitFor();
      const count = now.stages.length;
      await page.keyboard.press(' ');
      await soon(async () => (await piles()).find(({ id }) => id === pile.id)!.stages.length === count + 1, 'added');
    }
    expect((await piles()).find(({ id }) => id === pile.id)!.stages.map(({ kind }) => kind)).to.deep.equal(['mixed', 'added', 'added']);
  });

  it('nine greys through three stops land on each, even in value between them to a tenth, warm and cool by turns', async () => {
    await open(await at(0));
    await page.keyboard.press('3');
    const stops = page.getByRole('group', { name: 'Through, in the order of pressing' });
    for (const patch of [1, 2]) {
      const stop = await at(patch);
      // Others may have the same words in their names.
      await stops
        .getByRole('button', { name: `${valueOf(stop).toFixed(1)} ${stop.name}`, exact: true })
        .first()
        .click();
    }
    await page.getByRole('button', { name: '9', exact: true }).click();
    await page.getByRole('radio', { name: 'warm and cool by turns' }).check();
    await soon(async () => (await page.locator('[data-test=string-plan] .chip').count()) === 9, 'nine');
    await page.locator('[data-test=keep-string]').click();
    await soon(async () => (await piles()).filter(({ string }) => string).length === 9, 'kept');
    const string = (await piles()).filter((p) => p.string).sort((one, other) => one.string!.at - other.string!.at);
    const values = string.map(valueOf);
    const middle = valueOf(await at(1));
    const place = values.findIndex((value) => Math.abs(value - middle) <= 0.05);
    expect(place, 'the stop in the middle is one of them').to.be.within(1, 7);
    const even = (i: number): number =>
      i <= place
        ? values[0]! + (i / place) * (values[place]! - values[0]!)
        : values[place]! + ((i - place) / (8 - place)) * (values[8]! - values[place]!);
    values.forEach((value, i) => expect(Math.abs(value - even(i)), `pile ${i + 1}`).to.be.at.most(0.1));
    const warmth = string.map((p) => temperature(labOf(p)));
    for (let i = 2; i < 8; i++) expect(Math.sign(warmth[i]! - warmth[i - 1]!), `pile ${i + 1}`).to.equal(i % 2 === 1 ? 1 : -1);
  });

  it('two greys of one value are told apart by temperature', async () => {
    const grey = await at(1);
    const warm = await child(grey, 'ArrowRight', 'ArrowRight');
    const cool = await child(grey, 'ArrowLeft', 'ArrowLeft');
    expect(Math.abs(valueOf(warm) - valueOf(cool))).to.be.below(0.15);
    expect(temperature(labOf(warm)) - temperature(labOf(cool))).to.be.above(7);
  });

  it('every green is held under a ceiling of strength, and what is above it shows on the ledge', async () => {
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    await sitting.choose('ceiling', 'no brighter than 3');
    await page.locator('.ledge .above').first().waitFor();
    const above = (await piles()).filter((p) => strengthOf(labOf(p)) > 3.05).length;
    expect(await page.locator('.ledge .above').count()).to.be.within(above - 1, above + 1);
    const held = await child(await at(4), '+', '+');
    expect(strengthOf(labOfDto(held.target!.lab))).to.be.at.most(3.1);
  });

  it('a pile is remade without one of its tubes', async () => {
    const pile = await at(5);
    const { tubes } = await sitting.rows();
    await open(pile);
    await page.keyboard.press('r');
    const sheet = page.getByRole('dialog', { name: /Remake/ });
    await sheet.locator('[data-test=remade]').first().waitFor();
    const inIt = pile.plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? one.tube : [])));
    const empty = tubes!.find(({ id, name }) => inIt.includes(id) && !/white/i.test(name))!;
    await sheet.getByRole('button', { name: empty.name, exact: true }).click();
    await soon(async () => {
      const all = await sheet.locator('[data-test=remade]').allTextContents();
      return all.length > 0 && all.every((text) => !text.includes(empty.name));
    }, 'without it');
    await sheet
      .getByRole('button', { name: /^Remake it as/ })
      .first()
      .click();
    await soon(async () => (await piles()).some(({ remakeOfId }) => remakeOfId === pile.id), 'kept');
    const remade = (await piles()).find(({ remakeOfId }) => remakeOfId === pile.id)!;
    expect(JSON.stringify(remade.plan)).not.to.contain(empty.id);
  });

  it('a missing tube is named', async () => {
    const pile = await at(4);
    const { tubes } = await sitting.rows();
    const inIt = new Set(pile.plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? one.tube : []))));
    const names = tubes!.filter(({ id }) => inIt.has(id)).map(({ name }) => name);
    const missing = names.find((name) => !/white/i.test(name))!;
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    await page.keyboard.press('q');
    const sheet = page.getByRole('dialog', { name: 'A tube that is forgotten' });
    for (const name of names.filter((one) => one !== missing)) await sheet.getByRole('button', { name, exact: true }).first().click();
    await sitting.chooseIn(sheet.getByLabel('or as'), pile.name);
    await sheet.locator('[data-test=suspect]').first().waitFor();
    const advice = (await sheet.locator('[data-test=recall-advice]').textContent())!;
    const suspects = await sheet.locator('[data-test=suspect]').allTextContents();
    // Either it is among those named, or it says what to look at to tell.
    expect(
      suspects.some((text) => text.includes(missing)) || /read a tint/.test(advice),
      `${missing}: ${advice} ${suspects.join(' | ')}`,
    ).to.equal(true);
    await page.keyboard.press('Escape');
  });

  it('and after a restart all of it is there', async () => {
    const before = await piles();
    expect(before.length).to.be.at.least(8 + 4 + 6 + 2 + 2);
    await sitting.restartServer();
    await page.reload();
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    expect(await piles()).to.deep.equal(before);
  });
});
