import AxeBuilder from '@axe-core/playwright';
import { expect } from 'chai';
import { Sitting } from './studio.ts';

describe('every place', () => {
  let sitting: Sitting;
  let reference: string;
  before(async () => {
    sitting = await Sitting.begin();
    await sitting.openReference();
    reference = new URL(sitting.page.url()).pathname.slice(1);
  });
  after(() => sitting.end());

  const settle = () => sitting.page.waitForTimeout(400);
  const openCard = async (): Promise<void> => {
    await sitting.page.keyboard.press('Escape');
    await sitting.page.getByRole('link', { name: 'Cards' }).click();
    await sitting.page.locator('[data-test=card]').first().click();
    await sitting.page.locator('[data-test=open-card]').waitFor();
  };
  const PLACES: readonly (readonly [name: string, go: () => Promise<void>])[] = [
    ['paintings', () => sitting.open('paintings')],
    ['tubes', () => sitting.open('tubes')],
    ['palettes', () => sitting.open('palettes')],
    [
      'reference',
      async () => {
        await sitting.openReference();
        await sitting.pointAt(0.3, 0.5);
        await sitting.page.locator('[data-test=recipe]').waitFor();
      },
    ],
    ['mixing', () => sitting.open(reference.replace('reference', 'mixing'))],
    [
      'an open pile',
      async () => {
        await sitting.openPile(/^copper, body/);
        await sitting.page.locator('[data-test=kept-recipe]').waitFor();
      },
    ],
    [
      'a pile and its kin',
      async () => {
        await sitting.openPile(/^copper, body/);
        await sitting.page.keyboard.press('2');
        await sitting.page.keyboard.press('ArrowDown');
        await sitting.page.locator('[data-test=kin-recipe]').waitFor();
      },
    ],
    [
      'what a pile is for',
      async () => {
        await sitting.openPile(/^copper, body/);
        await sitting.page.keyboard.press('4');
        await sitting.page.locator('[data-test=pile-note]').waitFor();
      },
    ],
    [
      'cards',
      async () => {
        const { piles } = await sitting.rows(sitting.paintingId);
        await sitting.elsewhere({ do: 'card.add', id: crypto.randomUUID(), pileId: piles![0]!.id });
        await sitting.page.getByRole('link', { name: 'Cards' }).click();
        await sitting.page.locator('[data-test=card]').first().waitFor();
      },
    ],
    ['an open card', openCard],
    [
      'a card to be printed',
      async () => {
        await openCard();
        await sitting.page.keyboard.press('p');
        await sitting.page.getByRole('dialog', { name: /^Print/ }).waitFor();
      },
    ],
    [
      'a dab on a card',
      async () => {
        await openCard();
        await sitting.page.keyboard.press('d');
        await sitting.page.getByRole('dialog', { name: /^Your dab/ }).waitFor();
      },
    ],
    [
      'cards that are brought',
      async () => {
        await openCard();
        const all = encodeURIComponent('{"all":true}');
        const file = await (await fetch(`${sitting.running.address}api/cards-out?wanted=${all}`)).text();
        const theirs = file
          .replaceAll(/"id":"[^"]*"/g, () => `"id":"${crypto.randomUUID()}"`)
          .replaceAll('"pigment":"viridian"', '"pigment":""');
        await sitting.page.keyboard.press('b');
        const json = JSON.parse(theirs) as { sets: object[] };
        await sitting.page
          .getByLabel('File of cards')
          .setInputFiles({ name: 'theirs.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify({ ...json, sets: [] })) });
        await sitting.page.locator('[data-test=news]').waitFor();
      },
    ],
    [
      'out of doors',
      async () => {
        await sitting.page.keyboard.press('Escape');
        await sitting.page.getByRole('link', { name: 'Mixing' }).click();
        await sitting.page.getByRole('button', { name: /^Out of doors/ }).click();
        await sitting.page.getByRole('dialog', { name: 'Out of doors' }).waitFor();
      },
    ],
    [
      'a pile being put right',
      async () => {
        await sitting.page.keyboard.press('Escape');
        await sitting.openPile(/^wall near the lamp/);
        await sitting.page.locator('[data-test=addition]').first().waitFor();
      },
    ],
    [
      'the easel',
      async () => {
        await sitting.openPile(/^copper, body/);
        await sitting.page.getByRole('link', { name: 'At the easel' }).click();
        await sitting.page.locator('.easel').waitFor();
      },
    ],
  ];

  for (const room of ['dark', 'light'] as const)
    for (const [name, go] of PLACES)
      it(`${name}, room ${room}: no serious finding of axe`, async () => {
        const { page } = sitting;
        const [settings] = (await sitting.rows()).settings!;
        if (settings!.room !== room) {
          await sitting.elsewhere({ do: 'settings.change', version: settings!.version, room });
          await page.reload();
        }
        if (await page.locator('.easel').count()) await page.keyboard.press('Escape');
        await go();
        await settle();
        const axe = new AxeBuilder({ page });
        // The rooms differ by their colours alone.
        if (room === 'light') axe.withRules(['color-contrast']);
        const { violations } = await axe.analyze();
        const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
        expect(
          serious.map((v) => `${v.id}: ${v.nodes.map((n) => `${n.target.join(' ')} ${n.any[0]?.message ?? ''}`).join(' | ')}`),
        ).to.deep.equal([]);
      });

  it('says in its own words what a wrong request in the built page is', async () => {
    const { page } = sitting;
    await sitting.open('paintings');
    const answer = await page.evaluate(async () => {
      const response = await fetch('/api/changes', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({
          id: crypto.randomUUID(),
          device: 'x',
          ops: [{ do: 'palette.add', id: crypto.randomUUID(), name: '', tubeIds: [] }],
        }),
      });
      return { status: response.status, type: response.headers.get('content-type'), body: await response.text() };
    });
    expect(answer.status).to.equal(422);
    expect(answer.type).to.include('application/problem+json');
    expect(answer.body).to.include('The tubes of a palette are 1 to 24');
  });

  it('keeps errors of its workers typed', async () => {
    const { page } = sitting;
    await sitting.openReference();
    const [palette] = (await sitting.rows()).palettes!;
    const { tubes } = await sitting.rows();
    expect(tubes!.length).to.be.above(palette!.tubeIds.length);
    // A tube whose curves are broken makes a palette that cannot be worked with: told in the painter's words, not thrown.
    await page.route('**/api/studio', async (route) => {
      const response = await route.fetch();
      const body = (await response.json()) as { rows: { tubes: { id: string; curves: { S: number[] } }[] } };
      body.rows.tubes.find((t) => t.id === palette!.tubeIds[0])!.curves.S[3] = -1;
      await route.fulfill({ response, json: body });
    });
    await page.reload();
    await page.getByText(/The curves of the tube .+ are broken/).waitFor();
    await page.unroute('**/api/studio');
    expect(sitting.faults).to.deep.equal([]);
  });

  it('leads back to the paintings from an address that is none', async () => {
    await sitting.open('painting/00000000-0000-4000-8000-000000000000/reference');
    await sitting.page.getByRole('heading', { name: 'On the easel' }).waitFor();
  });

  it('asks nothing of the network but its own server', async () => {
    const { page } = sitting;
    const foreign: string[] = [];
    page.on('request', (request) => {
      const { hostname, protocol } = new URL(request.url());
      if (hostname !== '127.0.0.1' && protocol !== 'blob:' && protocol !== 'data:') foreign.push(request.url());
    });
    await sitting.openReference();
    expect(foreign).to.deep.equal([]);
  });
});
