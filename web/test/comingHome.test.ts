import { expect } from 'chai';
import type { OutingNews } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { meetHome } from '../src/outing/comingHome.ts';
import type { Tube } from '../src/stores/tubes.ts';

const tube = (id: string): [string, Tube] => [
  id,
  { id, name: id, stateId: `${id} state`, density: 1.5, nozzleMm: 6, masstone: [50, 0, 0] } as unknown as Tube,
];
const TUBES = new Map(['white', 'blue'].map(tube));
const pile = (id: string, more: Partial<PileDto> = {}): PileDto =>
  ({
    id,
    version: 3,
    name: id,
    paintingId: 'a painting',
    plan: {
      form: 1,
      heaps: [
        {
          ingredients: [
            { tube: 'white', parts: 3 },
            { tube: 'blue', parts: 1 },
          ],
        },
      ],
    },
    ml: 4,
    stages: [],
    there: 0,
    note: '',
    ...more,
  }) as unknown as PileDto;
const news = (pileId: string, more: Partial<OutingNews> = {}): OutingNews => ({
  pileId,
  stageId: `${pileId} stage`,
  sightingId: `${pileId} sighting`,
  lookId: `${pileId} look`,
  ticked: [],
  note: '',
  ...more,
});
const AT = '2026-06-01T10:00:00.000Z';
const meet = (piles: readonly PileDto[], ...list: readonly OutingNews[]) =>
  meetHome({ outing: 'o', paintingId: 'a painting', title: 'P', news: list }, 'parts', TUBES, new Map(piles.map((one) => [one.id, one])));

describe('what comes home meets the piles as they are', () => {
  it('mixes as planned, under the id that was given out there, when it was', () => {
    const [one] = meet([pile('wall')], news('wall', { mixedAt: AT, ticked: [0, 1] }));
    expect(one!.ops).to.have.length(1);
    expect(one!.ops[0]).to.deep.include({ do: 'stage.add', id: 'wall stage', pileId: 'wall', kind: 'mixed', at: AT });
  });

  it('mixes a mother before her child, and the child from the mother’s own stage', () => {
    const child = pile('child', {
      plan: {
        form: 1,
        heaps: [
          {
            ingredients: [
              { pile: 'wall', parts: 7 },
              { tube: 'blue', parts: 1 },
            ],
          },
        ],
      },
    });
    const [mother, own] = meet([pile('wall'), child], news('wall', { mixedAt: AT }), news('child', { mixedAt: AT }));
    expect(mother!.ops).to.have.length(1);
    const stage = own!.ops.find((op) => op.do === 'stage.add') as unknown as { additions: { stageId?: string }[] };
    expect(stage.additions.some(({ stageId }) => stageId === 'wall stage')).to.equal(true);
    const [alone] = meet([pile('wall'), child], news('child', { mixedAt: AT }));
    expect(alone!.ops.map((op) => 'pileId' in op && op.pileId)).to.deep.equal(['wall', 'child']);
  });

  it('leaves alone what is here already, and what was mixed here meanwhile', () => {
    const stage = (id: string, looks: object[] = []) => ({ id, looks }) as unknown as PileDto['stages'][number];
    const known = pile('wall', { stages: [stage('wall stage', [{ id: 'wall look' }])], note: 'dull' });
    const look = { lab: [50, 0, 0] as const, said: 'lighter', at: AT };
    expect(meet([known], news('wall', { mixedAt: AT, look, note: 'dull' }))[0]!.ops).to.deep.equal([]);
    const [meanwhile] = meet([pile('wall', { stages: [stage('another')] })], news('wall', { mixedAt: AT, look }));
    expect(meanwhile!.says.join()).to.match(/is mixed here already/);
    expect(meanwhile!.ops.map((op) => op.do)).to.deep.equal(['sighting.add', 'look.add']);
    expect(meet([], news('gone', { note: 'x' }))[0]!.ops).to.deep.equal([]);
  });

  it('adds a note below the one that is here, and ticks what was begun', () => {
    const heaps = [
      {
        ingredients: [
          { tube: 'white', parts: 9 },
          { tube: 'blue', parts: 1 },
        ],
      },
      {
        ingredients: [
          { tube: 'white', parts: 2 },
          { heap: 0, parts: 1 },
        ],
      },
    ];
    const [one] = meet([pile('wall', { note: 'thin', plan: { form: 1, heaps } })], news('wall', { note: 'sun went', ticked: [0, 1, 2] }));
    expect(one!.ops[0]).to.deep.include({ do: 'pile.change', version: 3, note: 'thin\nsun went' });
    expect(one!.ticked, 'the heap, and the first line of the pile').to.deep.equal([0, 1]);
    expect(meet([pile('wall', { plan: { form: 1, heaps } })], news('wall', { ticked: [0] }))[0]!.ticked).to.deep.equal([]);
  });
});
