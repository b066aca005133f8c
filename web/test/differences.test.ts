import { expect } from 'chai';
import fc from 'fast-check';
import { OPERATIONS, readAs, type Operation, type OperationName } from '@dusk/wire';
import { propertiesOf } from '../../wire/test/properties.ts';
import { besides, differencesOf, isText, kept } from '../src/waiting/differences.ts';
import type { Waiting } from '../src/studio/queue.ts';
import { emptyRows } from '../src/studio/rows.ts';
import { fieldOf, WORDING } from '../src/waiting/wording.ts';

const refused = (ops: readonly object[], current: object): Waiting => ({
  n: 1,
  change: { id: 'c', device: 'd', ops: ops as readonly Operation[] },
  says: 'Something',
  at: '2026-01-01T00:00:00Z',
  follows: [],
  parked: { problem: { type: 'about:blank', title: '', status: 409, detail: '', current } },
});
const ID = '11111111-2222-4333-8444-555555555555';
const rows = emptyRows();
rows.tubes.set('white', { id: 'white', name: 'Titanium white' } as never);
rows.piles.set('wall', { id: 'wall', name: 'the wall' } as never);
const told = (ops: readonly object[], current: object) =>
  differencesOf(refused(ops, current), rows).map(({ field, mine, theirs }) => [field, mine.says, theirs.says]);

describe('a change that met a newer row', () => {
  it('has words for every field of every kind that can be changed', () => {
    const changing = (Object.keys(OPERATIONS) as OperationName[]).filter((name) => name.endsWith('.change'));
    expect([...changing].sort()).to.deep.equal(Object.keys(WORDING).sort());
    for (const name of changing) {
      const written = propertiesOf(name)
        .filter((field) => !['id', 'version'].includes(field))
        .sort();
      expect(written.length).to.be.above(0);
      expect(Object.keys(WORDING[name as keyof typeof WORDING]).sort(), name).to.deep.equal(written);
      for (const field of written) expect(fieldOf(name, field)!.name, `${name} ${field}`).to.match(/^[a-z]/);
    }
  });

  it('is shown on both sides, whatever was changed', () => {
    const lab = { L: 50, a: 20, b: 30 };
    expect(
      told(
        [
          {
            do: 'pile.change',
            id: 'p',
            version: 1,
            note: 'thin',
            layer: 2,
            purpose: { thing: 'jug', neighbours: [{ pileId: 'wall', apart: 1 }] },
            string: null,
            plan: {
              form: 1,
              heaps: [
                {
                  ingredients: [
                    { tube: 'white', parts: 3 },
                    { pile: 'wall', parts: 1 },
                  ],
                },
              ],
            },
          },
        ],
        {
          id: 'p',
          version: 4,
          note: '',
          layer: 1,
          purpose: {},
          string: { id: 's', at: 2 },
          plan: { heaps: [{ ingredients: [{ tube: 'white', parts: 1 }] }] },
        },
      ),
    ).to.deep.equal([
      ['note', 'thin', 'nothing'],
      ['layer', '2', '1'],
      ['what it is for', 'jug; beside the wall, at least 1 apart', 'nothing said'],
      ['place in a string', 'nothing', 'number 3'],
      ['recipe', '3 Titanium white, 1 the wall', '1 Titanium white'],
    ]);
    const [seen] = differencesOf(
      refused([{ do: 'sample.change', id: 's', version: 1, seen: lab }], { id: 's', version: 2, seen: { ...lab, L: 20 } }),
      rows,
    );
    expect(seen!.mine.css).to.match(/^#|rgb/);
    expect(seen!.mine.css).to.not.equal(seen!.theirs.css);
    expect(
      told([{ do: 'painting.change', id: 'p', version: 1, canvas: { widthMm: 400, heightMm: 300 } }], {
        id: 'p',
        version: 2,
        canvas: null,
      }),
    ).to.deep.equal([['canvas', '40 × 30 cm', 'nothing']]);
    expect(
      told([{ do: 'reference.change', id: 'r', version: 1, view: { turn: 1, mirror: true } }], { id: 'r', version: 2, view: {} }),
    ).to.deep.equal([
      ['turned', 'by 90°', 'nothing'],
      ['mirrored', 'mirrored', 'nothing'],
    ]);
    expect(told([{ do: 'card.delete', id: 'k', version: 1 }], { id: 'k', version: 2, name: 'russet' })).to.deep.equal([
      ['russet', 'put away', 'kept, and changed since'],
    ]);
  });

  it('is decided row by row: what stands there is kept, and the rest goes on', () => {
    const ops = [
      { do: 'pile.change', id: 'p', version: 1, name: 'mine' },
      { do: 'pile.change', id: 'q', version: 7, name: 'other' },
    ];
    const item = refused(ops, { id: 'p', version: 4, name: 'theirs' });
    expect(besides(item)).to.equal(1);
    expect(isText(item)).to.equal(true);
    expect(kept(item, 'theirs')).to.deep.equal([ops[1]]);
    expect(kept(item, 'mine')).to.deep.equal([{ ...ops[0], version: 4 }, ops[1]]);
    expect(kept(item, 'both')).to.deep.equal([{ ...ops[0], version: 4, name: 'theirs / mine' }, ops[1]]);
    expect(kept(refused(ops.slice(0, 1), { id: 'p', version: 4, name: 'theirs' }), 'theirs')).to.equal(undefined);
    expect(isText(refused([{ do: 'pile.change', id: 'p', version: 1, ml: 3 }], { id: 'p', version: 2, ml: 4 }))).to.equal(false);
  });

  it('keeps of a view what the hand changed, and leaves the rest as it now is', () => {
    const plan = [{ points: [0, 0, 1, 0, 1, 1], lab: { L: 50, a: 0, b: 0 } }];
    const item: Waiting = {
      ...refused([{ do: 'reference.change', id: 'r', version: 1, view: { exposure: 0.5, turn: 1 } }], {
        id: 'r',
        version: 3,
        view: { turn: 2, crop: { x: 0, y: 0, width: 0.5, height: 1 }, shapes: plan },
      }),
      was: [{ view: { turn: 1, crop: { x: 0, y: 0, width: 0.5, height: 1 } } }],
    };
    // The hand exposed it, and took the frame away; that it was turned and planned elsewhere stays.
    expect(differencesOf(item, rows).map(({ field }) => field)).to.have.members(['exposure', 'frame']);
    expect(kept(item, 'mine')).to.deep.equal([
      { do: 'reference.change', id: 'r', version: 3, view: { turn: 2, shapes: plan, exposure: 0.5 } },
    ]);
  });

  it('has two texts side by side within what the studio takes, each of them to be seen', () => {
    for (const [name, fields] of Object.entries(WORDING) as [OperationName, Record<string, { letters?: number }>][])
      for (const [field, { letters }] of Object.entries(fields)) {
        if (letters === undefined) continue;
        const sent = (text: string) => ({ do: name, id: ID, version: 1, [field]: text });
        const read = (text: string) => () => readAs(OPERATIONS[name] as never, { id: ID, version: 1, [field]: text });
        expect(read('x'.repeat(letters)), `${name} ${field}`).to.not.throw();
        expect(read('x'.repeat(letters + 1)), `${name} ${field}`).to.throw();
        const item = refused([sent('m'.repeat(letters))], { id: ID, version: 2, [field]: 't'.repeat(letters) });
        const [both] = kept(item, 'both') as unknown as [Record<string, string>];
        expect(both[field]!.length).to.be.at.most(letters);
        expect(both[field]).to.match(/^t+… \/ m+…$/);
      }
  });

  it('never reads alike where it differs', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const lab = fc.record({ L: fc.double({ min: 5, max: 95, noNaN: true }), a: fc.constant(3), b: fc.constant(5) });
    const corners = fc.array(share, { minLength: 6, maxLength: 6 });
    const view = fc.record(
      {
        turn: fc.integer({ min: 0, max: 3 }),
        straighten: fc.double({ min: -10, max: 10, noNaN: true }),
        mirror: fc.boolean(),
        crop: fc.record({ x: share, y: share, width: share, height: share }),
        exposure: fc.double({ min: -3, max: 3, noNaN: true }),
        neutral: lab,
        steps: fc.array(share, { minLength: 1, maxLength: 4 }),
        dress: fc.array(fc.constantFrom('', 'mean', 'wall'), { minLength: 1, maxLength: 4 }),
        shapes: fc.array(fc.record({ points: corners, lab }), { maxLength: 3 }),
        trials: fc.array(fc.record({ changes: fc.array(fc.record({ points: corners }), { minLength: 1, maxLength: 2 }) }), {
          maxLength: 2,
        }),
        canvas: fc.record({ of: fc.constantFrom('one', 'two'), corners }),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(view, view, (mine, theirs) => {
        for (const { field, mine: one, theirs: other } of differencesOf(
          refused([{ do: 'reference.change', id: 'r', version: 1, view: mine }], { id: 'r', version: 2, view: theirs }),
          rows,
        ))
          expect(JSON.stringify(one), field).to.not.equal(JSON.stringify(other));
      }),
    );
    const picture = (pictureId: string) => ({ do: 'reference.change', id: 'r', version: 1, pictureId });
    const [swapped] = differencesOf(refused([picture('a')], { id: 'r', version: 2, pictureId: 'b' }), rows);
    expect([swapped!.mine.picture, swapped!.theirs.picture]).to.deep.equal(['a', 'b']);
  });
});
