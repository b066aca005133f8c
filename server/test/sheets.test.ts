import { expect } from 'chai';
import fc from 'fast-check';
import { masstoneOf, paintOfCard, show, stepsOf, type Card, type Mixture } from '@dusk/core';
import type { PaletteDto, SheetWanted } from '@dusk/wire';
import { beadRows, partsOnPaper } from '../src/sheets/recipe.ts';
import { beadsInWords } from '../src/sheets/kit.ts';
import { foreignCard, sendCards } from './cardFiles.ts';
import { readPdf, type Pdf } from './pdf.ts';
import { aPainting, aPile, change, idOf, mixed, newId, openBench, refused, seen, type Bench } from './studio.ts';

/** How far a length on paper may be off, mm. */
const WITHIN = 0.2;
const LETDOWN: Mixture = {
  heaps: [
    {
      ingredients: [
        { tube: 'titanium-white', parts: 9 },
        { tube: 'ultramarine-blue', parts: 1 },
      ],
    },
    {
      ingredients: [
        { tube: 'titanium-white', parts: 4 },
        { heap: 0, parts: 3 },
        { tube: 'cadmium-red', parts: 1 },
      ],
    },
  ],
};

describe('beads on paper', () => {
  it('are as long together as they are to be, however they are cut', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 5000, noNaN: true }), fc.double({ min: 60, max: 190, noNaN: true }), (mm, room) => {
        const { rows, times } = beadRows(mm, room);
        expect(Math.max(...rows)).to.be.at.most(room + 1e-6);
        const whole = times === 1 ? rows.reduce((sum, row) => sum + row, 0) : rows[0]! * times + (rows[1] ?? 0);
        expect(whole).to.be.closeTo(mm, 0.06);
      }),
    );
  });
  it('are counted in beads of one length, and parts are written with letters that paper has', () => {
    expect(beadsInWords(80)).to.equal('2 beads');
    expect(beadsInWords(52)).to.match(/^1 bead and 12/);
    expect(beadsInWords(7)).to.equal('7 mm');
    expect(beadsInWords(0.4)).to.equal('a touch');
    expect(partsOnPaper(2 + 1 / 3)).to.equal('2 1/3');
    expect(partsOnPaper(1 / 8)).to.equal('1/8');
  });
});

describe('printed sheets', () => {
  let bench: Bench;
  let card: Card;
  let three: string[];
  before(async () => {
    bench = await openBench();
    const one = foreignCard('Kanne, jug ж Δ', [1, 1, 1], { note: 'laid with a knife', zone: 'shadow', thing: 'jug' });
    const recipe = LETDOWN;
    card = { ...one, recipe, predicted: masstoneOf(paintOfCard({ ...one, recipe })) };
    const others = [foreignCard('reed', [3, 1, 1]), foreignCard('roof', [2, 3, 1])];
    three = [card, ...others].map(({ id }) => id);
    const { fileId } = await sendCards(bench, [card, ...others]);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
  });
  after(() => bench.close());

  const ask = (wanted: object) => bench.http.get('/api/sheets').query({ wanted: JSON.stringify(wanted) });
  async function print(wanted: Partial<SheetWanted>): Promise<Pdf> {
    const { body } = await ask(wanted)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200)
      .expect('Content-Type', 'application/pdf');
    return readPdf(body as Buffer);
  }

  for (const [paper, widthMm, heightMm] of [
    ['A4', 210, 297],
    ['Letter', 215.9, 279.4],
    ['A6', 105, 148],
  ] as const)
    it(`are of ${paper}, with a line of 100 mm and faces that lie in them`, async () => {
      const { pages, fonts } = await print({ sheet: 'cards', paper, cardIds: [card.id] });
      for (const page of pages) {
        expect(page.widthMm).to.be.closeTo(widthMm, 0.05);
        expect(page.heightMm).to.be.closeTo(heightMm, 0.05);
        const check = page.strokes.filter(({ from, to }) => from[0] === to[0] && Math.abs(to[1] - from[1] - 100) < 1);
        expect(check).to.have.length(1);
        expect(check[0]!.to[1] - check[0]!.from[1]).to.be.closeTo(100, WITHIN);
        expect(page.text).to.match(/100 mm/);
        for (const { x, y, width, height } of page.fields) {
          expect(x).to.be.at.least(0);
          expect(x + width).to.be.at.most(widthMm);
          expect(y + height).to.be.at.most(heightMm);
        }
      }
      expect(fonts.length).to.be.at.least(2);
      expect(fonts.every(({ name, embedded }) => embedded && name.includes('AlegreyaSans'))).to.equal(true);
      expect(
        pages.every(({ isProfiled }) => isProfiled),
        'chips with a profile',
      ).to.equal(true);
    });

  it('show every bead at its true length, let-down first, in the order of mixing', async () => {
    const tubes = new Map(card.tubes.map((tube) => [tube.key, tube]));
    const of = (source: unknown) => tubes.get((source as { tube: string }).tube)!;
    for (const [paper, ml] of [
      ['A6', 3],
      ['A4', 12],
      ['Letter', 40],
    ] as const) {
      const heaps = stepsOf(LETDOWN, ml, { paintOf: of, nameOf: (s) => of(s).name, handlingOf: of, cautionOf: (s) => of(s).caution });
      const { pages } = await print({ sheet: 'cards', paper, cardIds: [card.id], ml });
      const drawn = pages.flatMap(({ fields }) => fields);
      let at = 0;
      for (const { ml: own, nozzleMm, beadMm, paint } of heaps.flatMap(({ steps }) => steps)) {
        // By hand: a cylinder of that much paint.
        const length = (own * 1000) / (Math.PI * (nozzleMm / 2) ** 2);
        expect(beadMm).to.be.closeTo(length, 1e-6);
        const colour = [1, 3, 5].map((i) => parseInt(show(paint).css.slice(i, i + 2), 16) / 255);
        let left = length;
        while (left > 0.06) {
          const found = drawn.findIndex(
            ({ colour: own2, width, height }, i) =>
              i >= at &&
              height < 9.1 &&
              width <= left + WITHIN &&
              own2.split(' ').every((v, c) => Math.abs(Number(v) - colour[c]!) < 0.003),
          );
          expect(found, `${paper}: a bead of ${length.toFixed(1)} mm`).to.be.at.least(at);
          left -= drawn[found]!.width;
          at = found + 1;
        }
        expect(left).to.be.closeTo(0, WITHIN);
      }
    }
  });

  it('say value, words, cautions and where it belongs, in every script the face has', async () => {
    const { pages } = await print({ sheet: 'cards', paper: 'A6', cardIds: [card.id] });
    expect(pages).to.have.length(1);
    const [{ text }] = pages as [Pdf['pages'][number]];
    for (const says of [
      /Kanne, jug ж Δ/,
      /jug, shadow/,
      /Pond/,
      /your dab/,
      /laid with a knife/,
      /weakened ultramarine blue/,
      /Titanium white/,
    ])
      expect(text).to.match(says);
    expect(text).to.match(/Cadmium red: .*see the label and the safety data sheet/s);
  });

  it('are one a card on A6, whatever the card says, and a day’s work is one page of A4', async () => {
    const of = { A: 'titanium-white', B: 'ultramarine-blue', C: 'cadmium-red', D: 'yellow-ochre' };
    const letDown = (name: string, more: Partial<Card> = {}): Card => {
      const whole = foreignCard(name, [6, 1, 1], { ml: 4, ...more }, [of.A, of.B, of.D]);
      const recipe: Mixture = {
        heaps: [
          {
            ingredients: [
              { tube: of.A, parts: 9 },
              { tube: of.B, parts: 1 },
            ],
          },
          {
            ingredients: [
              { tube: of.A, parts: 5 },
              { heap: 0, parts: 2 },
              { tube: of.D, parts: 1 },
            ],
          },
        ],
      };
      return { ...whole, recipe, predicted: masstoneOf(paintOfCard({ ...whole, recipe })) };
    };
    const many = [
      letDown('wall by the window'),
      letDown('sheet in the shadow of the wall', {
        note: 'scraped thin, then dragged over the dry ground',
        thing: 'washing',
        zone: 'cast shadow',
        light: 'north window',
      }),
      ...['copper', 'glaze', 'blanket', 'twine', 'bench'].map((name, i) => foreignCard(name, [1 + i, 2, 0.5], { ml: 4 })),
    ];
    const { fileId } = await sendCards(bench, many);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
    const cardIdsOf = (some: readonly Card[]) => some.map(({ id }) => id);
    const small = await print({ sheet: 'cards', paper: 'A6', cardIds: cardIdsOf(many) });
    expect(small.pages).to.have.length(many.length);
    many.forEach(({ name }, i) => expect(small.pages[i]!.text.replace(/\s+/g, ' ')).to.contain(name));
    for (const one of many) {
      const alone = await print({ sheet: 'cards', paper: 'A4', cardIds: [one.id] });
      expect(alone.pages).to.have.length(1);
      // Large enough to be read from the wall: it reaches down more than half of the paper.
      const lowest = Math.max(...alone.pages[0]!.fields.map(({ y, height }) => y + height));
      expect(lowest, one.name).to.be.above(120);
    }
    const painting = await aPainting(bench);
    const tube = (pigment: string, parts: number) => ({ tube: idOf(bench, pigment), parts });
    for (const [i, name] of ['dark', 'wall', 'bench', 'copper', 'bowl', 'sheet', 'sky'].entries())
      await change(bench, {
        do: 'pile.add',
        id: newId(),
        paintingId: painting.id,
        name,
        plan: { form: 1, heaps: [{ ingredients: [tube(of.A, 6), tube(of.B, 1 + i), tube(of.D, 1)] }] },
        ml: 4,
      } as never);
    const day = await print({ sheet: 'order', paper: 'A4', paintingId: painting.id });
    expect(day.pages).to.have.length(1);
    for (const name of ['dark', 'sheet', 'sky']) expect(day.pages[0]!.text).to.contain(name);
  });

  it('are a day on one page: twenty piles in their turn, each whole, what waits and what there is no time for', async () => {
    const painting = await aPainting(bench);
    const [white, blue, red] = ['titanium-white', 'ultramarine-blue', 'venetian-red'].map((pigment) => idOf(bench, pigment));
    const ids: string[] = [];
    for (let i = 0; i < 22; i++) {
      const id = newId();
      ids.push(id);
      const ingredients = [
        { tube: white, parts: 20 - i / 2 },
        { tube: blue, parts: 1 + i },
        { tube: red, parts: 2 },
      ];
      const plan = { form: 1, heaps: [{ ingredients }] };
      await change(bench, { do: 'pile.add', id, paintingId: painting.id, name: `pile of turn ${i}`, plan, ml: 4 } as never);
    }
    const day = {
      order: 'darks first' as const,
      minutes: 63,
      steps: ids.slice(0, 20).map((id, i) => ({ id, startsAt: 3 * i })),
      later: [{ id: ids[20]!, fromId: ids[0]!, tubeId: white! }],
      leftIds: [ids[21]!],
    };
    const { pages } = await print({ sheet: 'day', paper: 'A4', paintingId: painting.id, day });
    expect(pages).to.have.length(1);
    const text = pages[0]!.text.replace(/\s+/g, ' ');
    for (let i = 0; i < 20; i++) expect(text).to.contain(`pile of turn ${i}`);
    // What is read back lacks some letters of its faces.
    expect(text).to.match(/pile of turn 20 .rom pile o. turn 0, .ith Titanium/);
    expect(text).to.match(/time .or: pile o. turn 21/);
    expect(text.indexOf('pile of turn 3')).to.be.below(text.indexOf('pile of turn 4'));
    await refused(ask({ sheet: 'day', paper: 'A4', paintingId: painting.id }), 422);
    await refused(ask({ sheet: 'day', paper: 'A4', paintingId: painting.id, day: { ...day, steps: [] } }), 422);
  });

  it('have their beads under one another, and say the name again where they go on', async () => {
    const { pages } = await print({ sheet: 'cards', paper: 'A4', cardIds: [card.id] });
    const beads = pages[0]!.fields.filter(({ height }) => height < 9.1);
    expect(beads.length).to.equal(5);
    expect(new Set(beads.map(({ x }) => x.toFixed(2))), 'one column').to.have.property('size', 1);
    const long = foreignCard('a flood of it', [5, 4, 3], { ml: 450, note: 'long words '.repeat(160) });
    const { fileId } = await sendCards(bench, [long]);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
    const flood = await print({ sheet: 'cards', paper: 'A6', cardIds: [long.id] });
    expect(flood.pages.length).to.be.above(1);
    for (const { text } of flood.pages.slice(1)) expect(text).to.contain('a flood of it, continued');
  });

  it('have letters of Han and kana, and say so where a name has others', async () => {
    const named = [foreignCard('藍色の空 蓝', [2, 1, 1]), foreignCard('하늘 sky', [1, 1, 1])];
    const { fileId } = await sendCards(bench, named);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
    const { pages, fonts } = await print({ sheet: 'cards', paper: 'A6', cardIds: named.map(({ id }) => id) });
    expect(pages[0]!.text).to.contain('藍色の空').and.to.contain('蓝').and.not.contain('write them in');
    expect(pages[1]!.text).to.contain('sky').and.contain('write them in');
    expect(fonts.some(({ name, embedded }) => embedded && /Noto/.test(name))).to.equal(true);
  });

  it('tell the makers of two tubes of one name', async () => {
    const [generic, twin] = [idOf(bench, 'viridian'), newId()];
    // Of another maker, as a studio of before may hold it.
    await change(bench, { do: 'tube.add', id: twin, name: 'Viridian', maker: 'Kiln Lane', pigments: ['viridian'] });
    const painting = await aPainting(bench);
    for (const tube of [generic, twin])
      await change(bench, {
        do: 'pile.add',
        id: newId(),
        paintingId: painting.id,
        name: 'a green',
        plan: {
          form: 1,
          heaps: [
            {
              ingredients: [
                { tube, parts: 1 },
                { tube: idOf(bench, 'titanium-white'), parts: 3 },
              ],
            },
          ],
        },
        ml: 4,
      } as never);
    const { pages } = await print({ sheet: 'painting-kit', paper: 'A4', paintingId: painting.id });
    expect(pages[0]!.text).to.contain('Viridian (generic)').and.contain('Viridian (Kiln Lane)');
  });

  it('lay a set in a row, and say what to take along', async () => {
    const ids = three;
    const setId = newId();
    await change(bench, { do: 'set.add', id: setId, name: 'Three reeds', kind: 'string', cardIds: ids });
    const row = await print({ sheet: 'row', paper: 'A4', setId });
    expect(row.pages[0]!.text).to.match(/Three reeds/);
    const strip = row.pages[0]!.fields.slice(0, 3);
    // They touch: no gap between neighbours.
    for (const i of [1, 2]) expect(strip[i]!.x).to.be.closeTo(strip[i - 1]!.x + strip[i - 1]!.width, 0.01);
    const kit = await print({ sheet: 'kit', paper: 'A4', setId });
    expect(kit.pages).to.have.length(1);
    expect(kit.pages[0]!.text)
      .to.match(/3 tubes for 3 piles/)
      .and.match(/rags/i);
    const bead = kit.pages[0]!.fields.find(({ height }) => Math.abs(height - 5) < 0.01)!;
    expect(bead.width).to.be.closeTo(40, WITHIN);
  });

  it('chart every pair of a palette', async () => {
    const pigments = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue'];
    const rows = await change(bench, { do: 'palette.add', id: newId(), name: 'Four', tubeIds: pigments.map((p) => idOf(bench, p)) });
    const { pages } = await print({ sheet: 'chart', paper: 'A4', paletteId: (rows.palettes as PaletteDto[])[0]!.id });
    const chips = pages.flatMap(({ fields }) => fields);
    expect(chips).to.have.length(6 * 7);
    expect(pages.map(({ text }) => text).join())
      .to.match(/Titanium white/)
      .and.match(/\d+ : 1/);
  });

  it('print a painting, its piles in the order to mix them, and a lesson for others’ tubes', async () => {
    const painting = await aPainting(bench);
    const mother = await aPile(bench, painting.id);
    const plan = {
      form: 1,
      heaps: [
        {
          ingredients: [
            { pile: mother.id, parts: 7 },
            { tube: idOf(bench, 'cadmium-red'), parts: 1 },
          ],
        },
      ],
    };
    await change(bench, { do: 'pile.add', id: newId(), paintingId: painting.id, name: 'a dark child', plan, ml: 3 } as never);
    const stageId = newId();
    await change(bench, mixed(bench, mother.id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }, stageId));
    await change(bench, ...seen(stageId, { L: 60, a: 3, b: -30 }));
    const paintingId = painting.id;
    const textOf = async (wanted: Partial<SheetWanted>): Promise<string> => (await print(wanted)).pages.map(({ text }) => text).join('\n');
    const whole = await textOf({ sheet: 'painting', paper: 'A4', paintingId });
    expect(whole).to.match(/2 piles, dark to light/);
    expect(whole.indexOf('1. ')).to.be.below(whole.indexOf('a dark child'));
    const order = await textOf({
      sheet: 'order',
      paper: 'A4',
      paintingId,
      pileIds: [mother.id, (await pilesOf(paintingId)).find(({ name }) => name === 'a dark child')!.id],
    });
    expect(order.indexOf('light blue')).to.be.above(0).and.below(order.indexOf('a dark child'));
    expect(await textOf({ sheet: 'painting-kit', paper: 'Letter', paintingId }))
      .to.match(/Cadmium red/)
      .and.not.match(/light blue, *\d+ bead/);
    expect(await textOf({ sheet: 'lesson', paper: 'A4', paintingId }))
      .to.match(/From your tubes/)
      .and.match(/Mixed: 3.6/);
    const { id: paletteId } = (
      await change(bench, {
        do: 'palette.add',
        id: newId(),
        name: 'Class',
        tubeIds: ['titanium-white', 'ivory-black', 'viridian', 'yellow-ochre'].map((p) => idOf(bench, p)),
      })
    ).palettes![0]!;
    expect(await textOf({ sheet: 'lesson', paper: 'A4', paintingId, paletteId })).to.match(/From “Class”/);
  });
  it('print what dries when, and a lesson with the layers in the order they were laid', async () => {
    const { id: paintingId } = await aPainting(bench);
    const none = { sheet: 'drying', paper: 'A4', paintingId } as const;
    await refused(ask(none), 422);
    const pile = await aPile(bench, paintingId);
    const stageId = newId();
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3, 'ultramarine-blue': 1 }, stageId));
    const areaId = newId();
    const laid = (how: string, at: string, more: object) => ({
      do: 'deed.add' as const,
      id: newId(),
      areaId,
      kind: 'laid' as const,
      at,
      laid: { how, ...more },
      additions: [{ id: newId(), stageId, ml: 0.5, low: 0.5, high: 0.5 }],
    });
    await change(
      bench,
      { do: 'area.add', id: areaId, paintingId, name: 'sky' },
      laid('thin', '2026-03-28T23:30:00Z', {}) as never,
      laid('glaze', '2026-04-20T10:00:00Z', { with: 'oil', against: 'tacky below' }) as never,
    );
    const textOf = async (wanted: Partial<SheetWanted>): Promise<string> => (await print(wanted)).pages.map(({ text }) => text).join('\n');
    const drying = await textOf({ ...none, zone: 'Europe/Berlin' });
    expect(drying)
      .to.match(/sky/)
      .and.match(/dry to the touch/);
    const lesson = await textOf({ sheet: 'lesson', paper: 'A4', paintingId, zone: 'Europe/Berlin' });
    // Half past midnight there.
    expect(lesson).to.match(/29 March 2026: laid thin of Titanium white, Ultramarine blue/);
    expect(lesson.indexOf('laid thin')).to.be.below(lesson.indexOf('laid glaze with oil'));
    expect(lesson).to.match(/though tacky below/);
    await refused(ask({ ...none, zone: 'Nowhere/Else' }), 422);
  });
  const pilesOf = async (id: string): Promise<{ id: string; name: string }[]> =>
    ((await bench.http.get(`/api/paintings/${id}`)).body as { rows: { piles: { id: string; name: string }[] } }).rows.piles;

  it('print whatever is written on them, within the paper', async () => {
    const said = [
      'W'.repeat(120),
      'שלום עולם مرحبا 你好 🎨🖌️',
      'zero\u200bwidth \u202e turned \u0301\u0301\u0301',
      'a'.repeat(60) + ' ' + 'b'.repeat(50),
      'tab\tand\u00a0space',
    ];
    const cards = said.map((name, i) =>
      foreignCard(name, [2, 1, 1 + i], { note: `${name}\n\n${'long words '.repeat(150)}`.slice(0, 1900), thing: name.slice(0, 80) }),
    );
    const { fileId } = await sendCards(bench, cards);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
    for (const [sheet, paper] of [
      ['cards', 'A6'],
      ['row', 'A4'],
      ['kit', 'Letter'],
    ] as const) {
      const { pages } = await print({ sheet, paper, cardIds: cards.map(({ id }) => id), ml: 500 });
      expect(pages.length).to.be.within(1, 60);
      for (const page of pages)
        for (const { x, y, width, height } of page.fields) {
          expect(Math.min(x, y)).to.be.at.least(0);
          expect(x + width).to.be.at.most(page.widthMm);
          expect(y + height).to.be.at.most(page.heightMm);
        }
    }
  });

  it('say no in a sentence to what cannot be printed', async () => {
    for (const wanted of [
      {},
      { sheet: 'poster', paper: 'A4' },
      { sheet: 'cards', paper: 'A0', cardIds: [newId()] },
      { sheet: 'cards', paper: 'A4', cardIds: [newId()] },
      { sheet: 'cards', paper: 'A4' },
      { sheet: 'cards', paper: 'A4', cardIds: ['x'] },
      { sheet: 'cards', paper: 'A4', cardIds: [newId()], ml: 1e9 },
      { sheet: 'row', paper: 'A4', setId: newId() },
      { sheet: 'cards', paper: 'A4', colour: 'red' },
    ])
      await refused(ask(wanted), 422);
    await refused(ask({ sheet: 'chart', paper: 'A4', paletteId: newId() }), 404);
    await refused(ask({ sheet: 'painting', paper: 'A4', paintingId: newId() }), 404);
    await refused(ask({ sheet: 'lesson', paper: 'A4' }), 404);
    await refused(bench.http.get('/api/sheets?wanted={'), 400);
  });
});
