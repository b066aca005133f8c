import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import type { Outing } from '@dusk/core';
import supertest from 'supertest';
import { makeApp } from '../src/index.ts';
import { aPainting, aPile, change, mixed, newId, openBench, refused, type Bench } from './studio.ts';

const NASTY = 'Pond </script><script>alert(1)</script> <!-- & "quoted"';

describe('a painting out of doors', () => {
  let bench: Bench;
  let pages: string;
  let paintingId: string;
  before(async () => {
    bench = await openBench();
    pages = mkdtempSync(join(tmpdir(), 'dusk-pages-'));
    mkdirSync(join(pages, 'outing'));
    writeFileSync(join(pages, 'outing', 'outing.js'), 'const ends = "</script>", begins = "<!--";');
    writeFileSync(join(pages, 'outing', 'outing.css'), 'p{content:"</style>"}');
    ({ id: paintingId } = await aPainting(bench));
    const pile = await aPile(bench, paintingId);
    await change(bench, { do: 'painting.change', id: paintingId, version: 1, title: NASTY });
    await change(bench, { do: 'pile.change', id: pile.id, version: 1, name: '</script> light blue', note: 'thin\nand lean' });
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }));
    await aPile(bench, paintingId);
  });
  after(async () => {
    rmSync(pages, { recursive: true, force: true });
    await bench.close();
  });
  const get = (id: string, folder: string | undefined = pages) =>
    supertest(makeApp(bench.running.studio, folder)).get(`/api/paintings/${id}/outing`);

  it('is one file whose words cannot become anything else, with all it shows in it', async () => {
    const { text } = await get(paintingId)
      .expect(200)
      .expect('Content-Type', /html/)
      .expect('Content-Disposition', /attachment/);
    expect(text.match(/<script/g)).to.have.length(2);
    expect(text.match(/<\/script>/g)).to.have.length(2);
    expect(text.match(/<\/style>/g)).to.have.length(1);
    expect(text).to.not.contain('<!--');
    const data = /<script type="application\/json" id="outing">([\s\S]*?)<\/script>/.exec(text)![1]!;
    const outing = JSON.parse(data) as Outing;
    expect(outing).to.include({ title: NASTY, paintingId });
    expect(outing.piles.map(({ isMixed }) => isMixed).sort()).to.deep.equal([false, true]);
    const planned = outing.piles.find(({ isMixed }) => !isMixed)!;
    expect(planned.heaps[0]!.steps.map(({ name }) => name)).to.have.members(['Titanium white', 'Ultramarine blue']);
    expect(planned.at).to.be.closeTo(Number(planned.value) / 10, 0.02);
    expect(outing.tubes.join()).to.match(/Titanium white/);
    expect(outing.cautions.join()).to.match(/rags/i);
  });

  it('says in a sentence what is missing', async () => {
    await refused(get(newId()), 404);
    await refused(get('x'), 404);
    await refused(get(paintingId, join(pages, 'nowhere')), 503);
    const { id } = await aPainting(bench);
    await refused(get(id), 422);
  });
});
