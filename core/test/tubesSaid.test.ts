import { expect } from 'chai';
import fc from 'fast-check';
import { CATALOGUE, CraftError, tubesSaid } from '../src/index.ts';
import { runs } from './runs.ts';

const SAID: Readonly<Record<string, string>> = {
  'ult blue': 'ultramarine-blue',
  'y ochre': 'yellow-ochre',
  'burnt s': 'burnt-sienna',
  'french ultramarine': 'ultramarine-blue',
  'cad red': 'cadmium-red',
  'cad yellow deep': 'cadmium-yellow-deep',
  'Titanium White': 'titanium-white',
  'ivory blk': 'ivory-black',
  PB29: 'ultramarine-blue',
  'PB 28': 'cobalt-blue',
  pg18: 'viridian',
  'raw umber': 'raw-umber',
  'raw s': 'raw-sienna',
  'trans oxide red': 'transparent-oxide-red',
  'pthalo blue (green shade)': 'phthalo-blue',
  'quin rose': 'quinacridone-rose',
  'alizarin crimson': 'alizarin-crimson',
  'Paynes grey': 'paynes-grey',
  'zinc white 37 ml': 'zinc-white',
  'Harrow & Pell yellow ochre 40ml': 'yellow-ochre',
  prussian: 'prussian-blue',
  'sap green': 'sap-green',
  'venetian red': 'venetian-red',
};

describe('a tube of several pigments', () => {
  it('is told by all that stand on it, or by the one ready mixture that has them', () => {
    expect(tubesSaid('Meadow PG18 PY43')[0]!.contains).to.deep.equal(['viridian', 'yellow-ochre']);
    expect(tubesSaid('Meadow PG18')[0]!.contains).to.deep.equal([]);
    expect(tubesSaid('Meadow PG18 PX999')[0]!.contains).to.deep.equal([]);
  });
});

describe('tubes as they are said', () => {
  it('are found by beginnings of words, abbreviations and Colour Index names', () => {
    for (const [said, slug] of Object.entries(SAID)) {
      const [tube] = tubesSaid(said);
      expect(tube!.pigments[0], said).to.equal(slug);
    }
  });

  it('by their whole names and codes are every pigment of the catalogue', () => {
    for (const { slug, name, colourIndex } of CATALOGUE.values()) {
      expect(tubesSaid(name)[0]!.pigments[0], name).to.equal(slug);
      expect(tubesSaid(`${name} ${colourIndex}`)[0]!.pigments[0], `${name} ${colourIndex}`).to.equal(slug);
    }
  });

  it('come several at once, with size and maker, and say what else may be meant', () => {
    const list = tubesSaid('ult blue, y ochre; burnt s\nHarrow & Pell cadmium red 40 ml');
    expect(list.map(({ name }) => name)).to.deep.equal(['Ultramarine blue', 'Yellow ochre', 'Burnt sienna', 'Harrow & Pell cadmium red']);
    expect(list[3]).to.include({ sizeMl: 40, maker: 'harrow pell' });
    expect(list[3]!.pigments).to.include('cadmium-red-light');
    expect(tubesSaid('moonlight 7')[0]!.pigments).to.deep.equal([]);
  });

  it('come as a table with names, pigments, makers, sizes', () => {
    const csv = 'Name,Pigment,Maker,Size ml,Left\n"Sky, deep",PB35,Harrow & Pell,37,20\nOchre,PY43,,40,\n,PB29,,,\n';
    expect(tubesSaid(csv)).to.deep.equal([
      {
        said: 'Sky, deep PB35',
        name: 'Sky, deep',
        maker: 'Harrow & Pell',
        pigments: ['cerulean-blue'],
        contains: [],
        sizeMl: 37,
        leftMl: 20,
      },
      {
        said: 'Ochre PY43',
        name: 'Ochre',
        maker: '',
        pigments: tubesSaid('Ochre PY43')[0]!.pigments,
        contains: [],
        sizeMl: 40,
        leftMl: undefined,
      },
    ]);
    expect(tubesSaid('name;code\nmine;PBr7\n')[0]!.pigments).to.include('burnt-sienna');
  });

  it('whatever is written, are a list, or too many', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        for (const { name, said } of tubesSaid(text)) expect(name.length <= 80 && said.length <= 200).to.equal(true);
      }),
      { numRuns: runs(200) },
    );
    expect(tubesSaid('')).to.deep.equal([]);
    expect(() => tubesSaid('ochre,'.repeat(61))).to.throw(CraftError, /60/);
  });
});
