import { expect } from 'chai';
import { deltaE00, valueOfLightness } from '@dusk/core';
import { labOfDto, type PileDto } from '@dusk/wire';
import type { Page } from 'playwright-core';
import { Hand } from './hand.ts';
import { Sitting, soon } from './studio.ts';

const plannedFrom = (child: PileDto, mother: PileDto): boolean =>
  child.plan.heaps.some(({ ingredients }) => ingredients.some((one) => 'pile' in one && one.pile === mother.id));

describe('piles and their kin, on the page', () => {
  let sitting: Sitting;
  let page: Page;
  before(async () => {
    sitting = await Sitting.begin();
    ({ page } = sitting);
    await sitting.openReference();
  });
  after(() => sitting.end());
  afterEach(() => expect(sitting.faults).to.deep.equal([]));

  const piles = async (): Promise<readonly PileDto[]> => (await sitting.rows(sitting.paintingId)).piles!;
  const named = async (name: string | RegExp): Promise<PileDto> =>
    (await piles()).find((p) => (typeof name === 'string' ? p.name === name : name.test(p.name)))!;
  async function open(name: string): Promise<PileDto> {
    const pile = await named(name);
    await sitting.go(`painting/${sitting.paintingId}/mixing/${pile.id}`);
    await page.getByRole('heading', { name: `Pile ${name}` }).waitFor();
    await page.locator('[data-test=alternative]').first().or(page.locator('[data-test=standing]')).first().waitFor();
    return pile;
  }
  const valueOf = (pile: PileDto): number => valueOfLightness(pile.predicted.lab.L);
  const panelIs = (name: RegExp) => page.locator('[data-test=door][aria-pressed=true]', { hasText: name }).waitFor();

  it('a relative is had in three actions: its panel, a step, keep', async () => {
    const mother = await open('copper, body');
    const hand = new Hand(page);
    // However quickly they follow one another.
    await hand.key('2');
    await hand.key('ArrowUp');
    await hand.key('Enter');
    await soon(async () => (await named(/^copper, body, /)) !== undefined, 'the child is kept');
    const child = await named(/^copper, body, /);
    expect(hand.actions).to.equal(3);
    expect(valueOf(child) - valueOf(mother)).to.be.within(0.3, 0.7);
    expect(plannedFrom(child, mother), 'it takes from its mother').to.equal(true);
    expect(child.target).to.deep.include({ kind: 'relative', pileId: mother.id });
    await page.locator('[data-test=family]').getByText(child.name).waitFor();
  });

  it('a change to a mother asks what becomes of her children, and each answer does what it says', async () => {
    const mother = await open('copper, body');
    const child = await named(/^copper, body, /);
    const take = async (): Promise<void> => {
      await page.locator('[data-test=alternative]').first().getByRole('button', { name: /^Take/ }).click();
      await page.locator('[data-test=mother-asks]').waitFor();
    };
    await take();
    await page.getByRole('button', { name: /Leave it/ }).click();
    expect((await named('copper, body')).version).to.equal(mother.version);
    await take();
    await page.getByRole('button', { name: /They keep their colours/ }).click();
    await soon(async () => (await named('copper, body')).version > mother.version, 'the mother is another');
    const held = await named(/^copper, body, /);
    expect(deltaE00(labOfDto(held.predicted.lab), labOfDto(child.target!.lab))).to.be.below(2);
    await page.keyboard.press('Control+z');
    await soon(async () => JSON.stringify((await named('copper, body')).plan) === JSON.stringify(mother.plan), 'taken back as one');
    expect((await named(/^copper, body, /)).plan).to.deep.equal(child.plan);
    await take();
    await page.getByRole('button', { name: /They stand by themselves/ }).click();
    await soon(async () => !plannedFrom(await named(/^copper, body, /), mother), 'the child stands by itself');
    const alone = await named(/^copper, body, /);
    expect(deltaE00(labOfDto(alone.predicted.lab), labOfDto(child.predicted.lab)), 'the same paint').to.be.below(1e-6);
    await page.keyboard.press('Control+z');
    await soon(async () => plannedFrom(await named(/^copper, body, /), mother), 'and it is a child again');
  });

  it('that takes more of a pile than lies there asks, and is made of what there is', async () => {
    const mother = (await piles()).find(({ stages, there }) => stages.length > 0 && there > 1)!;
    const id = crypto.randomUUID();
    const heaps = [
      {
        ingredients: [
          { pile: mother.id, parts: 3 },
          { tube: (await sitting.rows()).tubes![0]!.id, parts: 1 },
        ],
      },
    ];
    await sitting.elsewhere({ do: 'pile.add', id, paintingId: sitting.paintingId, name: 'far too much', plan: { form: 1, heaps }, ml: 50 });
    await soon(async () => (await named('far too much')) !== undefined, 'it is there');
    await open('far too much');
    await page.keyboard.press(' ');
    const asks = page.locator('[data-test=short-asks]');
    await asks.waitFor();
    expect(await asks.innerText()).to.match(/It takes 37\.5 ml of .+; [\d.]+ ml of it lies there/);
    expect((await named('far too much')).stages).to.have.length(0);
    await asks.getByRole('button', { name: /^Make [\d.]+ ml of this/ }).click();
    await soon(async () => (await named('far too much')).stages.length === 1, 'it is mixed');
    const made = await named('far too much');
    expect(made.there).to.be.within(0.5 * mother.there, (4 / 3) * mother.there + 0.01);
    // What it took goes back.
    await page.keyboard.press('Control+z');
    await soon(async () => (await named('far too much')).stages.length === 0, 'not mixed');
    await sitting.elsewhere({ do: 'pile.delete', id, version: (await named('far too much')).version });
    expect((await piles()).find((one) => one.id === mother.id)!.there).to.be.closeTo(mother.there, 1e-6);
  });

  it('a recipe without one of its tubes is had in two actions', async () => {
    const pile = await open('twine in the light');
    await page.locator('[data-test=alternative]').first().waitFor();
    const { tubes } = await sitting.rows();
    const inIt = pile.plan.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? one.tube : [])));
    const unwanted = tubes!.find(({ id, name }) => inIt.includes(id) && !/white/i.test(name))!;
    const hand = new Hand(page);
    // What is taken is the answer to this press, not what stood there before.
    await hand.press(unwanted.name);
    await hand.key('t');
    await soon(async () => (await named('twine in the light')).version > pile.version, 'taken');
    const now = await named('twine in the light');
    expect(JSON.stringify(now.plan)).not.to.contain(unwanted.id);
    expect(hand.actions).to.equal(2);
    // What must be in it is in it.
    await page.getByRole('button', { name: unwanted.name, exact: false }).first().click();
    await page.getByRole('button', { name: `with ${unwanted.name} in it` }).click();
    await soon(async () => {
      const all = await page.locator('[data-test=alternative]').allTextContents();
      return all.length > 0 && all.every((text) => text.includes(unwanted.name) || / mix\b|weakened/.test(text));
    }, 'every other recipe has it');
  });

  it('two piles into one: dropped on one another, kept', async () => {
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    const dab = (name: RegExp) => page.locator('.ledge').getByRole('link', { name }).first();
    const middle = async (name: RegExp) => {
      const box = (await dab(name).boundingBox())!;
      return [box.x + box.width / 2, box.y + box.height / 2] as const;
    };
    const hand = new Hand(page);
    const [fromX, fromY] = await middle(/^bench in the light/);
    const [toX, toY] = await middle(/^wall near the lamp/);
    await page.mouse.move(fromX, fromY);
    await page.mouse.down();
    await page.mouse.move((fromX + toX) / 2, fromY - 10, { steps: 4 });
    await page.mouse.move(toX, toY, { steps: 4 });
    await page.locator('.lifted .into').getByText('into one with wall near the lamp').waitFor();
    await page.mouse.up();
    hand.actions++;
    await page.getByText('into one').first().waitFor();
    await panelIs(/From it/);
    await page.locator('[data-test=kin-recipe]').waitFor();
    await hand.key('Enter');
    await soon(async () => (await named('wall near the lamp and bench in the light')) !== undefined, 'the two in one');
    expect(hand.actions).to.equal(2);
    const both = await named('wall near the lamp and bench in the light');
    expect(both.plan.heaps.at(-1)!.ingredients.map((one) => ('pile' in one ? one.parts : 0))).to.deep.equal([1, 1]);
    const [light, dark] = [await named('wall near the lamp'), await named('bench in the light')].map(
      (p) => p.stages.at(-1)!.looks.at(-1)!.lab.L,
    );
    expect(both.predicted.lab.L).to.be.within(dark!, light!);
  });

  it('two held together show what a brush makes of them', async () => {
    const mother = await named('wall by the window');
    const other = await named('under the bowl');
    await sitting.go(`painting/${sitting.paintingId}/mixing/${mother.id}?with=${other.id}`);
    await page.locator('[data-test=blend] span').nth(8).waitFor();
    expect(await page.locator('[data-test=blend-says]').innerText()).to.match(/^Joined by a brush, wet/);
    await page.keyboard.press('Escape');
  });

  it('a little of one goes into all, seen before, kept in one step and taken back in one', async () => {
    const before = await piles();
    const tie = await open('twine in the light');
    const dab = (await page.locator(`.ledge a.pile[href*="${tie.id}"]`).boundingBox())!;
    const ledge = (await page.locator('.ledge').boundingBox())!;
    const line = (await page.locator('.ledge .line').boundingBox())!;
    await page.mouse.move(dab.x + dab.width / 2, dab.y + dab.height / 2);
    await page.mouse.down();
    await page.mouse.move(ledge.x + ledge.width * 0.45, line.y - 30, { steps: 4 });
    await page.mouse.move(ledge.x + ledge.width * 0.15, line.y, { steps: 4 });
    await page.mouse.up();
    const sheet = page.getByRole('dialog', { name: /A little of twine in the light into all/ });
    await sheet.waitFor();
    const into = sheet.locator('[data-test=into]');
    const count = await into.count();
    expect(count).to.be.above(2);
    await into.first().click();
    await sheet.locator('[data-test=keep-tied]').click();
    await soon(async () => (await piles()).length === before.length + count - 1, 'all but one are tied');
    const tied = (await piles()).filter(({ name }) => name.endsWith(', tied'));
    expect(tied).to.have.length(count - 1);
    for (const one of tied) expect(plannedFrom(one, tie), one.name).to.equal(true);
    expect((await named('twine in the light')).ml, 'planned larger by what is taken').to.be.above(tie.ml);
    await sheet.waitFor({ state: 'hidden' });
    await page.keyboard.press('Control+z');
    await soon(async () => (await piles()).length === before.length, 'taken back as one');
  });

  it('a row is begun from the fewest piles that a brush can join', async () => {
    await open('under the bowl');
    await page.keyboard.press('3');
    await page
      .locator('.right')
      .getByRole('button', { name: /wall by the window/ })
      .first()
      .click();
    await page.getByRole('button', { name: '9', exact: true }).click();
    await page.getByRole('radio', { name: 'the brush does the rest' }).click();
    await page
      .locator('[data-test=string-says]')
      .getByText(/the brush does the rest of 9 steps/)
      .waitFor();
    expect(await page.locator('[data-test=string-plan] .chip').count()).to.equal(9);
    const count = Number(/^(\d+) piles/.exec(await page.locator('[data-test=string-says]').innerText())![1]);
    expect(count).to.be.below(7);
    // Enter keeps it although a radio has the focus, and it is taken back.
    const before = (await piles()).length;
    await page.keyboard.press('Enter');
    await soon(async () => (await piles()).length > before, 'the row is kept');
    await page.keyboard.press('Control+z');
    await soon(async () => (await piles()).length === before, 'and taken back');
    await open('under the bowl');
    await page.keyboard.press('3');
    await page.getByRole('radio', { name: 'one row' }).click();
    await page.keyboard.press('1');
  });

  it('a string that jumps says how many piles would not, and has them in one press', async () => {
    await open('under the bowl');
    await page.keyboard.press('3');
    await page
      .locator('.right')
      .getByRole('button', { name: / wall by the window$/ })
      .click();
    await page.getByRole('button', { name: '5', exact: true }).click();
    const plan = page.locator('[data-test=string-plan]');
    const more = page.locator('[data-test=more-piles]');
    await soon(async () => /a jump to the next/.test(await plan.innerText()), 'a jump is named');
    const count = Number(/\d+/.exec(await more.innerText())![0]);
    expect(count).to.be.above(5);
    await more.click();
    await soon(async () => (await plan.locator('.chip').count()) === count, 'so many');
    expect(await plan.innerText()).to.not.match(/a jump/);
    expect(await more.count()).to.equal(0);
    // Warm beside cool is a jump that more piles do not mend.
    await page.getByRole('button', { name: '5', exact: true }).click();
    await page.getByRole('radio', { name: 'warm and cool by turns' }).check();
    await soon(async () => (await plan.locator('.chip').count()) === 5, 'five again');
    expect(await more.count()).to.equal(0);
    await page.getByRole('radio', { name: 'one row' }).check();
  });

  it('a pile that is changed itself says what it grows to', async () => {
    const pile = (await piles()).find(({ there, stages }) => there > 0 && stages.length > 0)!;
    await open(pile.name);
    await page.keyboard.press('2');
    await page.keyboard.press('ArrowDown');
    const grows = page.locator('[data-test=grows]');
    await grows.waitFor();
    const [from, to] = [...(await grows.innerText()).matchAll(/([\d.]+) ml/g)].map(([, ml]) => Number(ml));
    expect(from).to.be.closeTo(pile.there, 0.1);
    expect(to).to.be.above(from!);
    await page.keyboard.press('Escape');
  });

  it('a string of nine between two piles in four actions, of few measurings, even in value', async () => {
    await open('under the bowl');
    const hand = new Hand(page);
    await hand.key('3');
    await hand.press(/ wall by the window$/);
    await hand.press('9');
    await page.locator('[data-test=string-plan] .chip').nth(8).waitFor();
    const said = (await page.locator('[data-test=string-says]').textContent())!;
    await hand.key('Enter');
    await soon(async () => (await piles()).filter(({ string }) => string).length === 9, 'nine stand in it');
    expect(hand.actions).to.equal(4);
    const string = (await piles()).filter((p) => p.string).sort((a, b) => a.string!.at - b.string!.at);
    expect(new Set(string.map((p) => p.string!.id)).size).to.equal(1);
    expect([string[0]!.name, string[8]!.name]).to.deep.equal(['under the bowl', 'wall by the window']);
    const values = string.map(valueOf);
    const even = (values[8]! - values[0]!) / 8;
    values.slice(1, -1).forEach((value, i) => expect(Math.abs(value - values[0]! - (i + 1) * even), `pile ${i + 2}`).to.be.below(0.15));
    const measured = string.slice(1, -1).reduce((sum, p) => sum + p.plan.heaps.reduce((n, h) => n + h.ingredients.length, 0), 0);
    expect(Number(/(\d+) things to measure/.exec(said)![1])).to.equal(measured);
  });

  it('a child that is mixed has its mothers mixed before it', async () => {
    const string = (await piles()).filter(({ string: at, stages }) => at && stages.length === 0);
    const child = string.find((p) => string.some((other) => other !== p && plannedFrom(p, other)))!;
    await open(child.name);
    await page.keyboard.press('Space');
    // Of what lies there other tests have taken.
    const enough = page.getByRole('button', { name: 'There was enough' });
    await soon(async () => (await enough.count()) > 0 || (await named(child.name)).stages.length === 1, 'it is mixed, or asked about');
    if ((await enough.count()) > 0) await enough.click();
    await soon(async () => (await named(child.name)).stages.length === 1, 'it is mixed');
    const mothers = string.filter((other) => other !== child && plannedFrom(child, other));
    for (const { name } of mothers) expect((await named(name)).stages.length, name).to.equal(1);
    const now = await named(child.name);
    expect(deltaE00(labOfDto(now.stages[0]!.predicted!), labOfDto(child.predicted.lab))).to.be.below(0.5);
  });

  it('a pile is remade from other tubes in three actions, its difference by each lamp told before', async () => {
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    const hand = new Hand(page);
    hand.actions++;
    await sitting.openPile(/^wall near the lamp, /);
    await page.locator('[data-test=standing]').waitFor();
    await hand.key('r');
    const sheet = page.getByRole('dialog', { name: /Remake/ });
    await sheet.locator('[data-test=remade]').first().waitFor();
    expect(await sheet.locator('[data-test=remade]').first().textContent()).to.match(
      /daylight: .*filament lamp: .*LED \(modelled\): .*shop light: /s,
    );
    hand.actions++;
    await sheet
      .getByRole('button', { name: /^Remake it as/ })
      .first()
      .click();
    await soon(async () => (await named('wall near the lamp, remade')) !== undefined, 'it is kept');
    expect(hand.actions).to.equal(3);
    const [remade, original] = [await named('wall near the lamp, remade'), await named('wall near the lamp')];
    expect(remade.remakeOfId).to.equal(original.id);
    // And without one of the tubes.
    await open('wall near the lamp');
    await page.keyboard.press('r');
    await sheet.getByRole('button', { name: 'Viridian', exact: true }).click();
    await soon(async () => {
      const all = await sheet.locator('[data-test=remade]').allTextContents();
      return all.length > 0 && all.every((text) => !text.includes('Viridian'));
    }, 'every one is without it');
    await page.keyboard.press('Escape');
  });

  it('a colour that is in no picture is said, or dialled', async () => {
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    await page.keyboard.press('n');
    const sheet = page.getByRole('dialog', { name: 'A new pile' });
    // Half-written it is no mistake; written to its end it is. Asked in the window itself, before a pause could end it.
    const alerts = await sheet.locator('[data-test=said-colour]').evaluate(async (field: HTMLInputElement) => {
      field.value = 'greenish whatnot';
      field.dispatchEvent(new Event('input', { bubbles: true }));
      await new Promise((done) => requestAnimationFrame(done));
      return document.querySelectorAll('[role=dialog] [role=alert]').length;
    });
    expect(alerts).to.equal(0);
    await sheet.locator('[data-test=said-colour]').blur();
    await sheet
      .getByRole('alert')
      .getByText(/not a word for a colour|Say a colour/)
      .waitFor();
    // What isn't understood has no chip, no recipe and no key, whatever its first words meant.
    const keep = sheet.getByRole('button', { name: 'Keep this pile' });
    const field = sheet.locator('[data-test=said-colour]');
    await field.fill('');
    await field.pressSequentially('dark green, nearly whatnot');
    await field.blur();
    await sheet.getByRole('alert').waitFor();
    expect(await keep.isDisabled()).to.equal(true);
    expect(await sheet.getByText(/^Mixed:/).count()).to.equal(0);
    expect(await sheet.locator('.pair').count()).to.equal(0);
    const count = (await sitting.rows(sitting.paintingId)).piles!.length;
    await sheet.getByLabel('Name').press('Enter');
    await sitting.quiet();
    expect((await sitting.rows(sitting.paintingId)).piles!).to.have.length(count);
    await field.fill('dull warm green, value 4');
    await sheet.getByText('Mixed: same value').waitFor();
    await sheet.getByLabel('Name').fill('leaves');
    await sheet.getByRole('button', { name: 'Keep this pile' }).click();
    await soon(async () => (await named('leaves')) !== undefined, 'it is kept');
    const leaves = await named('leaves');
    expect(valueOfLightness(leaves.target!.lab.L)).to.be.closeTo(4, 0.05);
    expect(leaves.target!.lab.a).to.be.below(-4);
  });

  it('the tube that is forgotten is named, or what to look at to tell', async () => {
    // A mixture of three tubes; its viridian is forgotten.
    const glaze = await named('glaze, halftone');
    await sitting.go(`painting/${sitting.paintingId}/mixing`);
    await page.getByRole('heading', { name: 'Piles, dark to light' }).waitFor();
    await page.keyboard.press('q');
    const sheet = page.getByRole('dialog', { name: 'A tube that is forgotten' });
    await sheet.getByRole('button', { name: 'Titanium white', exact: true }).click();
    await sheet.getByRole('button', { name: 'Yellow oxide', exact: true }).click();
    await sitting.chooseIn(sheet.getByLabel('or as'), glaze.name);
    await sheet.locator('[data-test=suspect]').first().waitFor();
    const names = await sheet.locator('[data-test=suspect]').allTextContents();
    expect(
      names.some((text) => /Viridian/.test(text)),
      names.join(' | '),
    ).to.equal(true);
    expect(await sheet.locator('[data-test=recall-advice]').textContent()).to.match(/is the likely one|read a tint|any of them remakes it/);
    await page.keyboard.press('Escape');
  });

  it('what a pile is for is said, shown beside it, and holds while its kin are stepped', async () => {
    const pile = await open('blanket, front');
    await page.keyboard.press('4');
    await page.locator('[data-test=pile-thing]').fill('blanket fold');
    await page.locator('[data-test=pile-thing]').press('Enter');
    await soon(async () => (await named('blanket, front')).purpose.thing === 'blanket fold', 'thing');
    await sitting.choose('neighbour-1', 'wall by the window');
    await soon(async () => (await named('blanket, front')).purpose.neighbours?.length === 1, 'a neighbour');
    await page.locator('[data-reading=beside]').getByText('wall by the window').waitFor();
    await page.getByLabel('Least difference').fill('24');
    await page.getByLabel('Least difference').press('Enter');
    await soon(async () => (await named('blanket, front')).purpose.neighbours?.[0]?.least === 24, 'clear of it');
    await page.getByLabel('leave it broken').check();
    await page.getByLabel('Titanium white shows').check();
    await page.locator('[data-test=pile-note]').fill('knife only');
    await page.locator('[data-test=pile-note]').blur();
    await sitting.choose('pile-layer', '2');
    await soon(async () => (await named('blanket, front')).layer === 2, 'layer');
    await page.getByText('Left broken: Titanium white.').waitFor();
    await page.locator('.ledge .other').getByText('').first().waitFor({ state: 'attached' });
    await page.keyboard.press('2');
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowUp');
    await page.getByText('Keeps its distance.').waitFor();
    await page
      .locator('[data-test=apart]')
      .getByText(/\d\.\d (lighter|darker), .*told apart by (2[3-9]|[3-9]\d)\.\d, beside wall by the window/)
      .waitFor();
    await page.getByRole('button', { name: 'start over' }).click();
    // A quarter of a value, as a figure.
    const figure = page.locator('[data-test=by-value] input');
    await figure.fill('-0.25');
    await figure.press('Enter');
    await page
      .locator('[data-test=kin-steps]')
      .getByText(/0\.25 darker/)
      .waitFor();
    await page.getByRole('button', { name: 'start over' }).click();
    expect((await named('blanket, front')).note).to.equal('knife only');
    expect(pile.layer).to.equal(1);
  });

  it('chips are seen by another lamp, which says so', async () => {
    await open('wall near the lamp');
    const chip = () => page.locator('[data-chip=mixed]').evaluate((one) => getComputedStyle(one).backgroundColor);
    const day = await chip();
    await page.getByRole('radio', { name: 'filament lamp' }).click();
    await page.locator('[data-test=by-lamp]').getByText('By filament lamp').waitFor();
    expect(await chip()).not.to.equal(day);
    await page.getByRole('radio', { name: 'daylight' }).click();
    expect(await chip()).to.equal(day);
  });

  it('a string at the easel goes by keys, a clicker, ticks and a tap; what is done is mixed', async () => {
    const string = (await piles()).find((p) => p.string && p.stages.length === 0)!.string!;
    await sitting.go(`painting/${sitting.paintingId}/easel?string=${string.id}`);
    await page.locator('[data-test=count]', { hasText: /^1 of/ }).waitFor();
    const count = async () => Number(/^(\d+) of/.exec((await page.locator('[data-test=count]').textContent())!.trim())![1]);
    await page.keyboard.press('PageDown');
    expect(await count()).to.equal(2);
    await page.keyboard.press('PageUp');
    expect(await count()).to.equal(1);
    await page.locator('.step').click();
    expect(await count()).to.equal(2);
    await page.keyboard.press('ArrowLeft');
    const unmixed = async () => (await piles()).filter((p) => p.string?.id === string.id && p.stages.length === 0).length;
    const left = await unmixed();
    for (let i = 0; i < 12 && (await unmixed()) === left; i++) {
      await page.keyboard.press('Enter');
      await sitting.quiet();
    }
    expect(await unmixed()).to.equal(left - 1);
    await page.keyboard.press('Escape');
  });

  it('all of it is there after a restart', async () => {
    const before = await piles();
    await sitting.restartServer();
    await page.reload();
    const after = await piles();
    expect(after.map(({ id, plan, purpose, string, layer, note }) => ({ id, plan, purpose, string, layer, note }))).to.deep.equal(
      before.map(({ id, plan, purpose, string, layer, note }) => ({ id, plan, purpose, string, layer, note })),
    );
  });
});
