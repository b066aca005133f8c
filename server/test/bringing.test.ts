import { expect } from 'chai';
import { checkCard, deltaE00, type Card, type CardSet } from '@dusk/core';
import { labOfDto, type Answer, type CardsFound, type FilePreview, type PaletteDto } from '@dusk/wire';
import { cardsFile, foreignCard, foreignCards, foreignTube, sendCards, sendFile } from './cardFiles.ts';
import { aPainting, aPile, change, idOf, newId, openBench, read, refused, send, undo, type Bench } from './studio.ts';

describe('cards of another studio', () => {
  let bench: Bench;
  beforeEach(async () => {
    bench = await openBench();
  });
  afterEach(() => bench.close());

  const found = async (): Promise<CardsFound> => (await bench.http.get('/api/cards-found').expect(200)).body as CardsFound;
  const sets = async (): Promise<Answer['rows']> => ((await bench.http.get('/api/sets').expect(200)).body as Answer).rows;
  const bring = (fileId: string, more: object = {}) => change(bench, { do: 'bringing.add', id: newId(), fileId, ...more });

  it('are shown before they are brought, and nothing is stored until then', async () => {
    const cards = foreignCards(12);
    const preview = await sendCards(bench, cards);
    expect(preview).to.include({ fresh: 12, known: 0, both: 0, back: 0, sets: 0, palettes: 0, name: 'cards.json' });
    expect(preview.tubes.map(({ pigment, cards: n, standsIn }) => [pigment, n, standsIn!.by])).to.deep.equal([
      ['titanium-white', 12, 'tube'],
      ['ultramarine-blue', 12, 'tube'],
      ['cadmium-red', 12, 'tube'],
    ]);
    expect((await found()).of).to.equal(0);
    await bring(preview.fileId);
    expect((await found()).of).to.equal(12);
    const { cards: here } = await found();
    const then = cards.find(({ id }) => id === here[0]!.id)!;
    expect(deltaE00(labOfDto(here[0]!.predicted), then.predicted)).to.be.below(0.01);
    expect(here[0]!.stands).to.deep.equal(Object.fromEntries(then.tubes.map(({ pigment }, i) => [`t${i + 1}`, idOf(bench, pigment)])));
    expect(here[0]).to.include({ createdAt: then.madeAt, painting: 'Pond', pileId: null });
  });

  it('add nothing when they come twice, are taken back as one step, and come again', async () => {
    const cards = foreignCards(130);
    const { fileId } = await sendCards(bench, cards);
    const id = newId();
    await send(bench, [{ do: 'bringing.add', id: newId(), fileId }], id).expect(201);
    const again = await sendCards(bench, cards);
    expect(again).to.include({ fileId, fresh: 0, known: 130 });
    await refused(send(bench, [{ do: 'bringing.add', id: newId(), fileId }]), 409);
    expect((await found()).of).to.equal(130);
    await undo(bench, id).expect(201);
    expect((await found()).of).to.equal(0);
    expect(await sendCards(bench, cards)).to.include({ fresh: 0, back: 130 });
    await bring(fileId);
    expect((await found()).of).to.equal(130);
  });

  it('of very many come in pieces, are taken back as one step, and are known again by their file', async () => {
    const cards = foreignCards(900);
    const { fileId } = await sendCards(bench, cards);
    const id = newId();
    await send(bench, [{ do: 'bringing.add', id: newId(), fileId }], id).expect(201);
    const all = async (n: number): Promise<void> => {
      for (const late = AbortSignal.timeout(20_000); (await found()).of !== n;) {
        if (late.aborted) throw new Error(`not ${n} of them`);
        await new Promise((next) => setTimeout(next, 30));
      }
    };
    await all(900);
    expect(await sendCards(bench, cards)).to.include({ fileId, fresh: 0, known: 900 });
    await undo(bench, id).expect(201);
    await all(0);
    expect(await sendCards(bench, cards)).to.include({ fresh: 0, back: 900 });
    // A crash between two pieces: the rest comes at the next start.
    const more = foreignCards(700, 'rush');
    const { fileId: other } = await sendCards(bench, more);
    await bring(other);
    await bench.running.studio.look((db) => db.query('SELECT 1'));
    bench = await bench.restart();
    await all(700);
    expect((await found()).cards.every(({ name }) => name.startsWith('rush'))).to.equal(true);
  });

  it('that are written otherwise here come to stand beside, once', async () => {
    const [mine] = foreignCards(1) as [Card];
    await bring((await sendCards(bench, [mine])).fileId);
    await change(bench, { do: 'card.change', id: mine.id, version: 1, note: 'mine' });
    const theirs = { ...mine, note: 'theirs' };
    const preview = await sendCards(bench, [theirs]);
    expect(preview).to.include({ fresh: 0, both: 1, known: 0 });
    await bring(preview.fileId);
    expect((await found()).cards.map(({ note }) => note)).to.have.members(['mine', 'theirs']);
    expect(await sendCards(bench, [theirs])).to.include({ fresh: 0, both: 0, known: 1 });
  });

  it('bring their sets and palettes, of one’s own tubes, and take them away again', async () => {
    const cards = foreignCards(3).map((card, i) => ({ ...card, id: `their card ${i}` }));
    const set: CardSet = { id: 'row', name: 'the reeds', kind: 'string', note: '', cards: [cards[2]!.id, cards[0]!.id] };
    const palette = {
      id: 'theirs',
      name: 'Pond palette',
      tubes: [foreignTube('titanium-white'), foreignTube('ultramarine-blue', 'Deep blue')],
    };
    const file = cardsFile(cards, { sets: [set], palettes: [palette] });
    const preview = (await sendFile(bench, file).expect(201)).body as FilePreview;
    expect(preview).to.include({ fresh: 3, sets: 1, palettes: 1 });
    const id = newId();
    await send(bench, [{ do: 'bringing.add', id: newId(), fileId: preview.fileId }], id).expect(201);
    const here = (await found()).cards;
    const named = (await sets()).sets![0]!.cardIds.map((one) => here.find((card) => card.id === one)!.name);
    expect(named).to.deep.equal(['reed 3', 'reed 1']);
    const brought = (await read(bench)).rows.palettes!.find(({ name }) => name === 'Pond palette') as PaletteDto;
    expect(brought.tubeIds).to.deep.equal([idOf(bench, 'titanium-white'), idOf(bench, 'ultramarine-blue')]);
    await undo(bench, id).expect(201);
    expect([(await found()).of, (await sets()).sets!.length]).to.deep.equal([0, 0]);
    expect((await read(bench)).rows.palettes!.map(({ name }) => name)).to.not.include('Pond palette');
  });

  it('keep a palette that is painted from', async () => {
    const file = cardsFile(foreignCards(1), { palettes: [{ id: 'theirs', name: 'Theirs', tubes: [foreignTube('titanium-white')] }] });
    const preview = (await sendFile(bench, file).expect(201)).body as FilePreview;
    const id = newId();
    await send(bench, [{ do: 'bringing.add', id: newId(), fileId: preview.fileId }], id).expect(201);
    const palette = (await read(bench)).rows.palettes!.find(({ name }) => name === 'Theirs')!;
    const painting = await aPainting(bench);
    await change(bench, { do: 'painting.change', id: painting.id, version: 1, paletteId: palette.id });
    await refused(undo(bench, id), 409);
    expect((await found()).of).to.equal(1);
  });

  it('stand with the tubes the painter chose', async () => {
    const odd = foreignCard('slate', [4, 1, 1], {}, ['titanium-white', 'ivory-black', 'cadmium-red']);
    const card = { ...odd, tubes: odd.tubes.map((tube) => (tube.key === 'ivory-black' ? { ...tube, pigment: '', name: 'Night' } : tube)) };
    const preview = await sendCards(bench, [card]);
    const night = preview.tubes.find(({ name }) => name === 'Night')!;
    expect(night.standsIn).to.include({ by: 'colour' });
    const tubeId = idOf(bench, 'ultramarine-blue');
    await bring(preview.fileId, { stands: [{ tube: night.tube, tubeId }] });
    const [slate] = (await found()).cards;
    expect(slate!.stands[slate!.tubes.find(({ name }) => name === 'Night')!.key]).to.equal(tubeId);
    await refused(
      send(bench, [{ do: 'bringing.add', id: newId(), fileId: preview.fileId, stands: [{ tube: night.tube, tubeId: newId() }] }]),
      409,
    );
  });

  it('are refused whole where the file is damaged, newer or none; nothing is kept', async () => {
    const whole = cardsFile(foreignCards(2));
    const deep = `{"format":"auburn-dusk-cards","version":1,"cards":${'['.repeat(200_000)}`;
    for (const [text, says] of [
      [whole.slice(0, whole.length / 2), /not whole/],
      ['', /not whole/],
      ['name,value\n1,2', /not whole/],
      [Buffer.from(whole, 'utf16le'), /no file of cards|not whole|UTF-8/],
      [Buffer.concat([Buffer.from('{"format":"'), Buffer.from([0xff, 0xfe, 0xe9])]), /UTF-8/],
      [whole.replace('"version": 1', '"version": 2'), /newer/],
      [whole.replace(/"parts":[\d.]+/, '"parts":1e999'), /parts/],
      [deep, /not whole|deep/],
      [`{"format":"auburn-dusk-cards","version":1,"cards":${deep}${']'.repeat(200_000)}}`, /not whole|written/],
    ] as const)
      await refused(
        sendFile(bench, text).expect(({ body }) => {
          const { detail } = body as { detail: string };
          if (!says.test(detail) || !/Nothing of this file was taken/.test(detail))
            throw new Error(`${String(text).slice(0, 40)}: ${detail}`);
        }),
        422,
      );
    await refused(bench.http.post('/api/card-files').send({}), 422);
    await refused(sendFile(bench, Buffer.alloc(33 * 1024 * 1024, 0x20)), 413);
    expect(await bench.running.studio.look((db) => db.query('SELECT count(*) AS n FROM "card_file"'))).to.deep.equal([{ n: 0 }]);
    await refused(send(bench, [{ do: 'bringing.add', id: newId(), fileId: 'f'.repeat(64) }]), 404);
    const strange = (await sendFile(bench, whole.replace('"cards"', '"mood": "calm", "cards"')).expect(201)).body as FilePreview;
    expect(strange.notes[0]).to.match(/mood/);
  });

  it('that were looked at and not brought are let go after a while; those that were brought stay', async () => {
    const brought = await sendCards(bench, foreignCards(1, 'brought'));
    await bring(brought.fileId);
    const old = `INSERT INTO "card_file" ("id", "name", "bytes", "createdAt") VALUES ('old', 'old', x'00', '2026-01-01T00:00:00Z')`;
    await bench.running.studio.change((db) => db.query(old));
    const { fileId } = await sendCards(bench, foreignCards(1, 'next'));
    const kept = await bench.running.studio.look((db) => db.query<{ id: string }[]>('SELECT "id" FROM "card_file"'));
    expect(kept.map(({ id }) => id)).to.have.members([brought.fileId, fileId]);
  });

  it('stand for themselves once they are here', async () => {
    await bring((await sendCards(bench, foreignCards(4))).fileId);
    for (const card of (await found()).cards)
      checkCard({
        ...card,
        madeAt: card.createdAt,
        target: undefined,
        seen: undefined,
        dab: undefined,
        predicted: labOfDto(card.predicted),
        tubes: card.tubes.map((tube) => ({ ...tube, K: Float64Array.from(tube.K), S: Float64Array.from(tube.S) })),
      });
  });
});

describe('cards that go out', () => {
  let bench: Bench;
  let other: Bench;
  before(async () => {
    bench = await openBench();
    other = await openBench();
  });
  after(async () => {
    await bench.close();
    await other.close();
  });
  const out = (wanted: object, as = 'json') => bench.http.get('/api/cards-out').query({ wanted: JSON.stringify(wanted), as });

  it('come into another studio as they were, with their set and palette, and come home as nothing new', async () => {
    const painting = await aPainting(bench);
    const pile = await aPile(bench, painting.id);
    const ids = [newId(), newId()];
    await change(bench, { do: 'card.add', id: ids[0]!, pileId: pile.id }, { do: 'card.add', id: ids[1]!, pileId: pile.id, name: 'again' });
    await change(bench, { do: 'set.add', id: newId(), name: 'Both', kind: 'layer', cardIds: [ids[1]!, ids[0]!] });
    const [{ id: setId } = { id: '' }] = ((await bench.http.get('/api/sets')).body as Answer).rows.sets!;
    const { text } = await out({ setId, paletteIds: [painting.paletteId] })
      .expect(200)
      .expect('Content-Disposition', /cards\.json/);
    const preview = (await sendFile(other, text).expect(201)).body as FilePreview;
    expect(preview).to.include({ fresh: 2, sets: 1, palettes: 1 });
    await change(other, { do: 'bringing.add', id: newId(), fileId: preview.fileId });
    const there = (await other.http.get('/api/cards-found')).body as CardsFound;
    const here = (await bench.http.get('/api/cards-found')).body as CardsFound;
    const bare = ({ cards }: CardsFound) =>
      cards
        // Which tube of its own studio one was says nothing elsewhere.
        .map(({ pileId: _, bringingId: _b, stands: _s, tubes, ...card }) => ({
          ...card,
          tubes: tubes.map(({ tubeId: _t, ...tube }) => tube),
        }))
        .sort((a, b) => a.id.localeCompare(b.id));
    // A file writes colours to four digits.
    const rounded = (rows: unknown): unknown =>
      JSON.parse(JSON.stringify(rows, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(4)) : v)));
    expect(rounded(bare(there))).to.deep.equal(rounded(bare(here)));
    const [set] = ((await other.http.get('/api/sets')).body as Answer).rows.sets!;
    expect(set).to.include({ name: 'Both', kind: 'layer' });
    expect(set!.cardIds).to.deep.equal([ids[1], ids[0]]);
    const { text: back } = await other.http
      .get('/api/cards-out')
      .query({ wanted: JSON.stringify({ all: true }) })
      .expect(200);
    expect((await sendFile(bench, back).expect(201)).body).to.include({ fresh: 0, both: 0, known: 2, sets: 0 });
  });

  it('go as a table, and as spectra', async () => {
    const csv = await out({ all: true }, 'csv').expect(200).expect('Content-Type', /csv/);
    expect(csv.text.trim().split('\r\n')).to.have.length(3);
    const cgats = await out({ all: true }, 'cgats').expect(200);
    expect(cgats.text)
      .to.match(/^CGATS\.17\n/)
      .and.match(/NUMBER_OF_SETS\t2/);
  });

  it('say no in a sentence to what is not there', async () => {
    await refused(out({}), 404);
    await refused(out({ cardIds: [newId()] }), 404);
    await refused(out({ cardIds: 'all' }), 422);
    await refused(out({ all: true }, 'xlsx'), 422);
  });
});
