import { expect } from 'chai';
import fc from 'fast-check';
import {
  cardOfToday,
  CARDS_VERSION,
  cardsToCgats,
  cardsToCsv,
  CATALOGUE,
  checkCard,
  contentOf,
  CraftError,
  deltaE00,
  folded,
  masstoneOf,
  mixCurves,
  mixtureOf,
  openToTubes,
  paintOfCard,
  paintOfMixture,
  paintsApart,
  readCard,
  readCards,
  recipeLine,
  reflectance,
  spectrumToXyz,
  standInFor,
  checkMixture,
  withPileOpened,
  writeCards,
  type Card,
  type CardTube,
  type Mixture,
} from '@dusk/core';
import { runs } from './runs.ts';

const tube = (slug: string): CardTube => {
  const { name, colourIndex, caution, density, K, S } = CATALOGUE.get(slug)!;
  return { key: slug, name, pigment: slug, colourIndex, caution, density, nozzleMm: 6, basis: 'typical', K, S };
};
/** A body let into white: three heaps. */
const RECIPE: Mixture = {
  heaps: [
    {
      ingredients: [
        { tube: 'ultramarine-blue', parts: 2 },
        { tube: 'cadmium-red', parts: 1 },
      ],
    },
    {
      ingredients: [
        { tube: 'titanium-white', parts: 9 },
        { heap: 0, parts: 1 },
      ],
    },
    {
      ingredients: [
        { tube: 'titanium-white', parts: 5 },
        { heap: 1, parts: 1 },
      ],
    },
  ],
};
function aCard(more: Partial<Card> = {}): Card {
  const tubes = more.tubes ?? ['titanium-white', 'ultramarine-blue', 'cadmium-red'].map(tube);
  const recipe = more.recipe ?? RECIPE;
  const predicted = masstoneOf(paintOfCard({ recipe, tubes }));
  return {
    id: 'a card',
    name: 'jug, shadow side',
    note: 'knife, in two lines\n"broken"',
    ml: 4,
    predicted,
    target: [62, 4, -12],
    thing: 'jug',
    zone: 'shadow',
    painting: 'Window and jug',
    light: 'north window',
    film: 'full',
    medium: '',
    basis: 'learnt',
    steadiness: 0.8,
    within: 3.1,
    madeAt: '2026-02-03T10:20:00Z',
    ...more,
    recipe,
    tubes,
  };
}
type Json = { cards: Record<string, unknown>[]; tubes: Record<string, unknown>[] } & Record<string, unknown>;
const file = (...cards: readonly Card[]): string => writeCards({ cards, sets: [], palettes: [] });
const written = (...cards: readonly Card[]): Json => JSON.parse(file(...cards)) as Json;
const reading =
  (json: unknown): (() => unknown) =>
  () =>
    readCards(JSON.stringify(json));

describe('a card', () => {
  it('stands for itself: the colour it says is what its own tubes give', () => {
    const card = aCard();
    expect(checkCard(card)).to.equal(card);
    expect(() => checkCard(aCard({ predicted: [80, 0, 0] }))).to.throw(CraftError, /another colour/);
    expect(() => checkCard(aCard({ recipe: mixtureOf([{ pile: 'elsewhere', parts: 1 }]), predicted: [50, 0, 0], tubes: [] }))).to.throw();
    expect(() => checkCard({ ...card, tubes: [...card.tubes, tube('viridian')] })).to.throw(CraftError, /nothing is taken/);
    expect(() => checkCard({ ...card, tubes: [...card.tubes, card.tubes[0]!] })).to.throw(CraftError, /twice/);
  });

  it('is read by how it truly looked, where that is known', () => {
    const seen = [50, 10, 10] as const;
    expect(readCard(aCard({ seen })).lab).to.equal(seen);
    expect(readCard(aCard()).value).to.be.within(6, 9);
  });

  it('of a pile that came of others has them opened, to the last grain', () => {
    const mother: Mixture = mixtureOf([
      { tube: 'titanium-white', parts: 3 },
      { tube: 'ultramarine-blue', parts: 1 },
    ]);
    const child: Mixture = {
      heaps: [
        {
          ingredients: [
            { tube: 'viridian', parts: 1 },
            { tube: 'titanium-white', parts: 4 },
          ],
        },
        {
          ingredients: [
            { pile: 'mother', parts: 6 },
            { heap: 0, parts: 2 },
            { tube: 'cadmium-red', parts: 1 },
          ],
        },
      ],
    };
    const flat = openToTubes(child, () => openToTubes(mother, () => ({})));
    const alone = withPileOpened(child, 'mother', mother);
    const own = openToTubes(alone, () => ({}));
    expect(Object.keys(own).sort()).to.deep.equal(Object.keys(flat).sort());
    for (const [id, share] of Object.entries(flat)) expect(own[id]).to.be.closeTo(share, 1e-12);
  });

  it('holds few enough heaps to be mixed, however many mothers it rests on: the same paint', () => {
    const parts = fc.integer({ min: 1, max: 20 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ mother: parts, white: parts, other: fc.option(parts) }), { minLength: 1, maxLength: 30 }),
        (line) => {
          const one = (at: number): Mixture => {
            const { mother, white, other } = line[at]!;
            return {
              heaps: [
                {
                  ingredients: [
                    ...(at > 0 ? [{ pile: `pile ${at - 1}`, parts: mother }] : [{ tube: 'umber', parts: mother }]),
                    { tube: 'titanium-white', parts: white },
                    // The same mother twice over, once through her own child.
                    ...(other && at > 1 ? [{ pile: `pile ${at - 2}`, parts: other }] : []),
                  ],
                },
              ],
            };
          };
          const flat = (at: number): Record<string, number> => openToTubes(one(at), (pile) => flat(Number(pile.slice(5))));
          const alone = line.map(() => one(0));
          for (let at = 1; at < line.length; at++) {
            alone[at] = withPileOpened(one(at), `pile ${at - 1}`, alone[at - 1]!);
            if (at > 1) alone[at] = withPileOpened(alone[at]!, `pile ${at - 2}`, alone[at - 2]!);
          }
          const last = line.length - 1;
          checkMixture(alone[last]!);
          const own = openToTubes(alone[last]!, () => ({}));
          for (const [id, share] of Object.entries(flat(last))) expect(own[id]).to.be.closeTo(share, 1e-9);
        },
      ),
      { numRuns: runs(40) },
    );
  });
});

describe('a file of cards', () => {
  it('is read back as it was written, whatever is said on them', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 60 }),
        fc.string({ maxLength: 60 }),
        fc.double({ min: 0.1, max: 400, noNaN: true }),
        (name, note, ml) => {
          const clean = (text: string): string => text.replaceAll('\uFFFD', '?').replace(/\p{Cc}|\p{Cs}/gu, '');
          const card = aCard({ name: clean(name).trim() || 'a card', note: clean(note), ml });
          const { cards, notes } = readCards(file(card));
          expect(notes).to.deep.equal([]);
          const [{ tubes, ml: size, ...rest }] = cards as [Card];
          expect(size).to.be.closeTo(ml, 1e-3);
          expect(rest).to.deep.include({ name: card.name, note: card.note, thing: 'jug', seen: undefined });
          expect(recipeLine({ recipe: rest.recipe, tubes })).to.equal(recipeLine(card));
          for (const one of tubes)
            expect(
              paintsApart(
                one,
                card.tubes.find(({ name: called }) => called === one.name)!,
              ),
            ).to.be.below(1e-3);
          expect(contentOf({ ...rest, tubes, ml: size })).to.equal(contentOf(card));
        },
      ),
      { numRuns: runs(30) },
    );
  });

  it('carries sets and palettes, and what was said of light, trust and a real dab', () => {
    const card = aCard({ dab: { lab: [60, 3, -11], sight: 'photo', at: '2026-03-01T09:00:00Z' } });
    const sets = [{ id: 'a set', name: 'the jug', kind: 'string' as const, note: '', cards: [card.id] }];
    const palettes = [{ id: 'a palette', name: 'Lamp', tubes: card.tubes }];
    const read = readCards(writeCards({ cards: [card], sets, palettes }));
    expect(read.cards[0]).to.deep.include({
      dab: card.dab,
      light: card.light,
      film: 'full',
      basis: 'learnt',
      steadiness: 0.8,
      within: 3.1,
    });
    expect(read.sets).to.deep.equal(sets);
    expect(read.palettes[0]!.tubes.map(({ name }) => name)).to.deep.equal(card.tubes.map(({ name }) => name));
    expect(written(card, { ...card, id: 'another' }).tubes, 'each tube once').to.have.length(3);
    const json = JSON.parse(writeCards({ cards: [card], sets, palettes })) as Json & {
      sets: Record<string, unknown>[];
      palettes: object[];
    };
    expect(reading({ ...json, sets: [{ ...json.sets[0], cards: ['elsewhere'] }] })).to.throw(CraftError, /not in the file/);
    expect(reading({ ...json, sets: [{ ...json.sets[0], kind: 'heap' }] })).to.throw(CraftError, /kind/);
    expect(reading({ ...json, sets: [...json.sets, ...json.sets] })).to.throw(CraftError, /twice/);
    expect(reading({ ...json, palettes: [{ id: 'p', name: 'P', tubes: [] }] })).to.throw(CraftError, /tubes/);
    expect(reading({ ...json, palettes: 7 })).to.throw(CraftError, /palettes/);
  });

  it('of a form before sets and trust is read all the same', () => {
    const { format, version, cards, tubes } = written(aCard());
    for (const name of ['light', 'film', 'medium', 'basis', 'steadiness', 'within']) delete cards[0]![name];
    const [card] = readCards(JSON.stringify({ format, version, cards, tubes })).cards;
    expect(card).to.include({ light: '', film: '', basis: 'typical', steadiness: 0, within: 0 });
  });

  it('has names on one line, and notes on as many as there are', () => {
    const json = written(aCard());
    Object.assign(json.cards[0]!, { name: 'jug\n\u0000shadow', note: 'one\ntwo\u0007' });
    expect(readCards(JSON.stringify(json)).cards[0]).to.include({ name: 'jug shadow', note: 'one\ntwo' });
  });

  it('keeps what it does not know apart, and says so', () => {
    const json = written(aCard());
    json['colour_of_the_cover'] = 'red';
    json.cards[0]!['mood'] = 'calm';
    expect(readCards(JSON.stringify(json)).notes).to.deep.equal(['Not known here, and passed over: colour_of_the_cover, mood.']);
    expect(readCards(`\uFEFF${file(aCard())}`).cards).to.have.length(1);
  });

  it('is refused whole, in a sentence, where something is wrong with it', () => {
    const card = (part: object): (() => unknown) => {
      const json = written(aCard());
      Object.assign(json.cards[0]!, part);
      return reading(json);
    };
    const tubeWith = (part: object): (() => unknown) => {
      const json = written(aCard());
      Object.assign(json.tubes[0]!, part);
      return reading(json);
    };
    const all: readonly (readonly [what: string, read: () => unknown, says: RegExp])[] = [
      ['half a file', () => readCards(file(aCard()).slice(0, 700)), /not whole/],
      ['nothing', () => readCards(''), /not whole/],
      ['another encoding', () => readCards(`{"format":"\uFFFD"}`), /UTF-8/],
      ['something else', reading({ format: 'recipes' }), /no file of cards/],
      ['a list', reading([]), /no file of cards/],
      ['a newer form', reading({ ...written(aCard()), version: CARDS_VERSION + 1 }), /newer program/],
      ['no form', reading({ ...written(aCard()), version: 'one' }), /which form/],
      ['no cards', reading({ ...written(aCard()), cards: {} }), /no list/],
      ['twice the same', reading(written(aCard(), aCard())), /twice/],
      ['no name', card({ name: '' }), /no name/],
      ['a name that is none', card({ name: 7 }), /no name/],
      ['no recipe', card({ recipe: [] }), /recipe/],
      ['an empty heap', card({ recipe: [[]] }), /heap/],
      ['a heap of itself', card({ recipe: [[{ heap: 0, parts: 1 }]] }), /not mixed before/],
      ['half a heap', card({ recipe: [[{ heap: 0.5, parts: 1 }], [{ tube: 't1', parts: 1 }]] }), /./],
      ['parts below nothing', card({ recipe: [[{ tube: 't1', parts: -1 }]] }), /parts/],
      ['a tube that is not there', card({ recipe: [[{ tube: 'viridian', parts: 1 }]] }), /none of the file/],
      ['one key for two tubes', reading({ ...written(aCard()), tubes: [...written(aCard()).tubes, written(aCard()).tubes[0]] }), /twice/],
      ['a colour beyond white', card({ predicted: [140, 0, 0] }), /lightness/],
      ['another colour', card({ predicted: [20, 40, 40] }), /another colour/],
      ['no time', card({ madeAt: 'yesterday' }), /when/],
      ['a day that is none', card({ madeAt: '2026-19-39T10:00:00Z' }), /when/],
      ['too long a note', card({ note: 'x'.repeat(5000) }), /note/],
      ['half a letter', card({ name: 'jug \ud800' }), /half a letter/],
      ['short curves', tubeWith({ K: [1, 2, 3] }), /K/],
      ['curves of words', tubeWith({ S: Array.from({ length: 36 }, () => 'a lot') }), /S/],
      ['a bore of nothing', tubeWith({ nozzleMm: 0 }), /nozzleMm/],
      ['a tube without a name', tubeWith({ name: '' }), /no name/],
      ['a tube with a name that cannot be seen', tubeWith({ name: '\u200b \u2060' }), /no name that can be seen/],
    ];
    for (const [what, read, says] of all) {
      expect(read, what).to.throw(CraftError, says);
      expect(read, what).to.throw(/Nothing of this file was taken|not mixed before|\./);
    }
  });
});

describe('cards as tables', () => {
  it('go into a spreadsheet whole: quoted, marked, and no cell a formula', () => {
    const csv = cardsToCsv([aCard({ name: '=1+1', note: 'a "word", and\na line' })]);
    expect(csv.startsWith('\uFEFFname,value,')).to.equal(true);
    expect(csv).to.contain("\r\n'=1+1,");
    // Where lists are separated by semicolons, what follows one would be a cell of its own.
    for (const note of [';=1+1', ' ; =1+1', '|=1+1', 'a;=1+1', 'a\t=1+1']) {
      const [, row] = cardsToCsv([aCard({ note })]).split('\r\n') as [string, string];
      expect(row, note).to.match(/,"[^"]*"$/);
      if (!note.startsWith('a')) expect(row, note).to.match(/,"'[^"]*"$/);
    }
    expect(csv).to.contain('"a ""word"", and\na line"');
    expect(csv.endsWith('\r\n')).to.equal(true);
    // Whether its colour was seen or reckoned stands beside it.
    expect(csv).to.contain(',colour,').and.to.contain(',reckoned from its tubes,');
    const dab = { lab: [60, 3, -11], sight: 'photo', at: '2026-03-01T09:00:00Z' } as const;
    expect(cardsToCsv([aCard({ dab })])).to.contain(',60,3,-11,seen on a dab,');
    expect(cardsToCsv([aCard({ seen: [50, 1, 2] })])).to.contain(',50,1,2,seen on the pile,');
    for (const sly of [' =1+1', '\u200b=1+1', '\ufeff@x', '＝1+1', '\u00a0-2', '\u2060+3', '＠sum', '\n=2'])
      expect(cardsToCsv([aCard({ name: sly })]), JSON.stringify(sly)).to.match(/\r\n"?'/);
    expect(cardsToCsv([aCard({ name: 'a = b' })])).to.contain('\r\na = b,');
    expect(recipeLine(aCard())).to.equal(
      'First 2 Ultramarine blue + 1 Cadmium red (A); First 9 Titanium white + 1 A (B); 5 Titanium white + 1 B',
    );
  });

  it('are written as spectra by CGATS, band for band', () => {
    const card = aCard();
    const lines = cardsToCgats([card, card]).split('\n');
    expect(lines[0]).to.equal('CGATS.17');
    const fields = lines[lines.indexOf('BEGIN_DATA_FORMAT') + 1]!.split('\t');
    const row = lines[lines.indexOf('BEGIN_DATA') + 1]!.split('\t');
    expect(fields).to.have.length(38);
    expect(row).to.have.length(38);
    const seen = reflectance(paintOfCard(card));
    seen.forEach((r, i) => expect(Number(row[i + 2])).to.be.closeTo(100 * r, 1e-4));
    expect(lines).to.include('NUMBER_OF_SETS\t2');
    expect(fields[2]).to.equal('SPEC_380');
    // As any other program reads it: a figure over the norm is the reflectance, and white is light.
    const norm = Number(/"(.*)"/.exec(lines.find((line) => line.startsWith('SPECTRAL_NORM\t'))!)![1]);
    const white = tube('titanium-white');
    const only = { ...aCard(), tubes: [white], recipe: { heaps: [{ ingredients: [{ tube: white.key, parts: 1 }] }] } };
    const file = cardsToCgats([only]).split('\n');
    const spectrum = file[file.indexOf('BEGIN_DATA') + 1]!.split('\t')
      .slice(2)
      .map((text) => Number(text) / norm);
    const [, Y] = spectrumToXyz(Float64Array.from(spectrum));
    expect(Y, 'of 100').to.be.within(85, 97);
    expect(norm, 'what readers take where nothing is said').to.equal(100);
  });
});

describe('a text that is looked for', () => {
  it('is found without its marks', () => {
    for (const [text, plain] of [
      ['Zürich', 'zurich'],
      ['Straße', 'strasse'],
      ['Ærø, Łódź', 'aero, lodz'],
      ['ÉTÉ', 'ete'],
      ['ﬁn', 'fin'],
      ['plain', 'plain'],
    ] as const)
      expect(folded(text)).to.equal(plain);
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(folded(folded(text))).to.equal(folded(text));
      }),
    );
  });
});

describe('another’s tube', () => {
  const own = ['titanium-white', 'yellow-ochre', 'ultramarine-blue', 'viridian'].map((slug) => ({ ...tube(slug), id: slug }));
  const mine = { palette: [], own, all: own };
  const foreign = (slug: string) => ({ ...CATALOGUE.get(slug)!, pigment: slug, name: 'another' });
  it('is one’s own of the same pigment, though another lies nearer', () => {
    const { K, S } = CATALOGUE.get('yellow-ochre')!;
    expect(standInFor({ name: 'Ultramarine', pigment: 'ultramarine-blue', K, S }, mine)).to.include({
      id: 'ultramarine-blue',
      by: 'pigment',
    });
  });
  it('is else the one of the likest colour, as it comes and as a tint', () => {
    const mixed = mixCurves([
      { paint: CATALOGUE.get('yellow-ochre')!, parts: 9 },
      { paint: CATALOGUE.get('viridian')!, parts: 1 },
    ]);
    const found = standInFor({ name: '', pigment: '', ...mixed }, mine)!;
    expect(found).to.include({ id: 'yellow-ochre', by: 'colour' });
    expect(found.difference).to.be.above(2);
    expect(standInFor({ name: '', pigment: 'viridian', ...mixed }, { palette: [], own: [], all: [] })).to.equal(undefined);
  });
  it('is the very tube first, then the palette’s, then any of its pigment', () => {
    const generic = ['cadmium-red', 'sap-green', 'titanium-white', 'venetian-red', 'viridian'].map((slug) => ({ ...tube(slug), id: slug }));
    const maker = [
      { ...tube('venetian-red'), id: 'maker-venetian', name: 'Venetian red, fine' },
      { ...tube('cadmium-red'), id: 'maker-cadmium', name: 'Cadmium red, fine' },
      { ...tube('viridian'), id: 'maker-viridian', name: 'Viridian, fine' },
    ];
    const all = [...generic, ...maker];
    const palette = generic.filter(({ id }) => id === 'titanium-white' || id === 'cadmium-red');
    const standing = { palette, own: maker, all };
    // One's own tube of another maker lies in the box; the palette's is the one.
    expect(standInFor(foreign('cadmium-red'), standing)).to.include({ id: 'cadmium-red', by: 'pigment' });
    expect(standInFor(tube('cadmium-red'), standing)).to.include({ id: 'cadmium-red', by: 'tube' });
    expect(standInFor({ ...tube('cadmium-red'), tubeId: 'maker-cadmium' }, standing)).to.include({ id: 'maker-cadmium', by: 'tube' });
    // Of its pigment there is only the generic tube: better than one's own of a like colour.
    expect(standInFor(foreign('sap-green'), standing)).to.include({ id: 'sap-green', by: 'pigment' });
    expect(standInFor({ ...foreign('sap-green'), pigment: 'no-such-pigment' }, standing)!.by).to.equal('colour');
  });
  it('in a card says what the card becomes with it', () => {
    const card = aCard();
    const same = cardOfToday(card, (key) => tube(key))!;
    expect(same.difference).to.be.below(1e-9);
    const other = cardOfToday(card, (key) => tube(key === 'ultramarine-blue' ? 'ivory-black' : key))!;
    expect(other.difference).to.be.above(3);
    expect(other.lab[2]).to.be.above(card.predicted[2]);
    expect(cardOfToday(card, (key) => (key === 'ultramarine-blue' ? undefined : tube(key)))).to.equal(undefined);
  });
  it('that is one’s own differs by nothing', () => {
    for (const one of own) expect(standInFor(one, mine)!.difference).to.be.below(1e-9);
    const paint = paintOfMixture(RECIPE, (source) => tube((source as { tube: string }).tube));
    expect(deltaE00(masstoneOf(paint), aCard().predicted)).to.be.below(1e-9);
  });
});
