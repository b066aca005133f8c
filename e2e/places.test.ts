import { expect } from 'chai';
import { allHasCome, weigh } from './firstSecond.ts';
import { Sitting } from './studio.ts';

const KB = 1024;

describe('the window', () => {
  let sitting: Sitting;
  before(async () => {
    sitting = await Sitting.begin();
  });
  after(() => sitting.end());

  it('is light: the first place comes in 220 KB, and all that is fetched ahead in forty requests', async () => {
    const weight = await weigh(sitting);
    await sitting.open('paintings');
    await sitting.page.locator('.place h1').waitFor();
    expect(weight.bytes).to.be.within(50 * KB, 220 * KB);
    expect(weight.requests).to.be.at.most(25);
    await allHasCome(sitting);
    expect(weight.bytes).to.be.at.most(620 * KB);
    expect(weight.requests).to.be.at.most(40);
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
