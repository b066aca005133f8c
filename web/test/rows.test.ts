import { expect } from 'chai';
import type { PileDto, SampleDto, TubeDto } from '@dusk/wire';
import { applied, emptyRows, letGoOf } from '../src/studio/rows.ts';

const curves = (of: number) => ({ K: [of], S: [of] });
const tube = (stateId: string, of: number): TubeDto => ({
  id: 'tube',
  name: 'Blue',
  maker: '',
  pigment: 'ultramarine-blue',
  version: 1,
  pigments: ['ultramarine-blue'],
  own: [],
  sizeMl: null,
  leftMl: null,
  note: '',
  createdAt: '2026-01-01T00:00:00.000Z',
  deletedAt: null,
  colourIndex: 'PB29',
  character: '',
  caution: '',
  drying: 'slow',
  lightfastness: 'I',
  density: 2,
  nozzleMm: 6,
  stateId,
  basis: 'learnt',
  curves: curves(of),
  learnt: { stateId: 'typical', basis: 'typical', curves: curves(0), strength: 1, within: 1, shiftNm: 0, piles: 1 },
});

describe('rows of this window', () => {
  it('keep the curves that piles were reckoned with when the tube has moved on', () => {
    const rows = emptyRows();
    const heard = new Map<string, number>();
    applied(rows, heard, { seq: 1, rows: { tubes: [tube('first', 1)] } });
    applied(rows, heard, { seq: 2, rows: { tubes: [tube('second', 2)] } });
    expect([...rows.states.values()].map(({ id, tubeId, basis, curves: { K } }) => [id, tubeId, basis, K[0]])).to.deep.equal([
      ['first', 'tube', 'learnt', 1],
      ['typical', 'tube', 'typical', 0],
      ['second', 'tube', 'learnt', 2],
    ]);
  });

  it('are not set back by what is heard late', () => {
    const rows = emptyRows();
    const heard = new Map<string, number>();
    applied(rows, heard, { seq: 2, rows: { tubes: [tube('second', 2)] } });
    applied(rows, heard, { seq: 1, rows: { tubes: [tube('first', 1)] } });
    expect(rows.tubes.get('tube')!.stateId).to.equal('second');
  });

  it('of paintings that are not looked at are let go of, but for what others are mixed from', () => {
    const rows = emptyRows();
    const heard = new Map<string, number>();
    const pile = (id: string, paintingId: string, from?: { pile: string; stage: string }, state = 'then') =>
      ({
        id,
        paintingId,
        plan: { form: 1, heaps: [{ ingredients: [from ? { pile: from.pile, parts: 1 } : { tube: 'tube', state, parts: 1 }] }] },
        stages: [{ id: `${id} mixed`, additions: [from ? { stageId: from.stage, stateId: null } : { stageId: null, stateId: state }] }],
      }) as unknown as PileDto;
    const state = (id: string) => ({ id, tubeId: 'tube', basis: 'typical' as const, curves: curves(0) });
    applied(rows, heard, {
      seq: 1,
      rows: {
        tubes: [tube('now', 1)],
        states: [state('then'), state('long ago')],
        piles: [
          pile('mother', 'far'),
          pile('other', 'far', undefined, 'long ago'),
          pile('child', 'near', { pile: 'mother', stage: 'mother mixed' }),
        ],
        samples: [{ id: 'spot', paintingId: 'far' } as SampleDto, { id: 'here', paintingId: 'near' } as SampleDto],
      },
    });
    letGoOf(rows, heard, new Set(['near']));
    expect([...rows.piles.keys()]).to.deep.equal(['mother', 'child']);
    expect([...rows.samples.keys()]).to.deep.equal(['here']);
    expect([...rows.states.keys()].sort()).to.deep.equal(['now', 'then', 'typical']);
    // What was let go of is taken in again when it is loaded, however late in the log that is.
    applied(rows, heard, { seq: 1, rows: { piles: [pile('other', 'far')] } });
    expect(rows.piles.has('other')).to.equal(true);
  });
});
