import { expect } from 'chai';
import { InvalidRequest, NewPalette, NewPile, PileChange, readAs } from '../src/index.ts';

const ID = '6f1c1f0e-6f5a-4f0e-9a53-0f8f8c2f1a11';
const fieldsOf = (work: () => unknown): string[] => {
  try {
    work();
  } catch (error) {
    if (error instanceof InvalidRequest) return error.fields.map((f) => f.field);
    throw error;
  }
  return [];
};

describe('what crosses the wire', () => {
  it('is made into the class it is meant for', () => {
    const palette = readAs(NewPalette, { name: 'Lamp light', tubeIds: [ID] });
    expect(palette).to.be.instanceOf(NewPalette);
    expect(palette.tubeIds).to.deep.equal([ID]);
  });

  it('is refused field by field, however deep', () => {
    expect(fieldsOf(() => readAs(NewPalette, { name: '', tubeIds: [ID, ID] }))).to.include.members(['name', 'tubeIds']);
    expect(fieldsOf(() => readAs(NewPile, { name: 'x', measures: [{ parts: -1, tubeId: ID }] }))).to.include('measures.0.parts');
    expect(fieldsOf(() => readAs(NewPile, { name: 'x', measures: [{ parts: 1, letdown: [{ parts: 1, tubeId: 'x' }] }] }))).to.include(
      'measures.0.letdown.0.tubeId',
    );
  });

  it('has no fields that nobody knows', () => {
    expect(fieldsOf(() => readAs(NewPalette, { name: 'x', tubeIds: [ID], colour: 1 }))).to.deep.equal(['colour']);
    expect(fieldsOf(() => readAs(NewPile, { name: 'x', measures: [{ parts: 1, tubeId: ID, more: 1 }] }))).to.deep.equal([
      'measures.0.more',
    ]);
  });

  it('may leave out what is optional, but null is not left out', () => {
    expect(fieldsOf(() => readAs(PileChange, { version: 1 }))).to.deep.equal([]);
    expect(fieldsOf(() => readAs(PileChange, { version: 1, name: null }))).to.include('name');
  });

  it('is an object', () => {
    for (const sent of [null, undefined, 7, 'x', []]) expect(fieldsOf(() => readAs(PileChange, sent))).to.deep.equal(['']);
  });
});
