import { expect } from 'chai';
import type { TubeDto } from '@dusk/wire';
import { applied, emptyRows } from '../src/studio/rows.ts';

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
});
