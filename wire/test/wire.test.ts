import { expect } from 'chai';
import { InvalidRequest, labDto, labOfDto, mixtureDto, NewPalette, NewPile, NewStage, PileChange, readAs } from '../src/index.ts';

const ID = '6f1c1f0e-6f5a-4f0e-9a53-0f8f8c2f1a11';
const OTHER = '0b1c1f0e-6f5a-4f0e-9a53-0f8f8c2f1a12';
const fieldsOf = (work: () => unknown): string[] => {
  try {
    work();
  } catch (error) {
    if (error instanceof InvalidRequest) return error.fields.map((f) => f.field);
    throw error;
  }
  return [];
};
const plan = (...ingredients: object[]) => ({ form: 1, heaps: [{ ingredients }] });
const pile = (more: object) => ({ id: ID, name: 'x', ml: 4, plan: plan({ tube: ID, parts: 1 }), ...more });

describe('what crosses the wire', () => {
  it('is made into the class it is meant for', () => {
    const palette = readAs(NewPalette, { id: ID, name: 'Lamp light', tubeIds: [ID] });
    expect(palette).to.be.instanceOf(NewPalette);
    expect(palette.tubeIds).to.deep.equal([ID]);
    expect(fieldsOf(() => readAs(NewPile, pile({ target: { kind: 'absolute', lab: { L: 50, a: 0, b: 0 } } })))).to.deep.equal([]);
  });

  it('is refused field by field, however deep', () => {
    expect(fieldsOf(() => readAs(NewPalette, { id: ID, name: '', tubeIds: [ID, ID] }))).to.include.members(['name', 'tubeIds']);
    expect(fieldsOf(() => readAs(NewPile, pile({ plan: plan({ tube: ID, parts: -1 }) })))).to.include('plan.heaps.0.ingredients.0.parts');
    expect(fieldsOf(() => readAs(NewPile, pile({ plan: plan({ tube: 'x', parts: 1 }) })))).to.include('plan.heaps.0.ingredients.0.tube');
    expect(fieldsOf(() => readAs(NewPile, pile({ plan: { form: 1, heaps: [[]] } })))).to.include('plan.heaps');
    expect(fieldsOf(() => readAs(NewPile, pile({ target: [] })))).to.include('target');
  });

  it('says each thing once', () => {
    try {
      readAs(NewPalette, { id: ID, name: 7, tubeIds: [ID] });
      expect.fail('it was taken');
    } catch (error) {
      expect((error as Error).message).to.equal('The name of a palette has 1 to 80 letters.');
    }
  });

  it('has no fields that nobody knows', () => {
    expect(fieldsOf(() => readAs(NewPalette, { id: ID, name: 'x', tubeIds: [ID], colour: 1 }))).to.deep.equal(['colour']);
    expect(fieldsOf(() => readAs(NewPile, pile({ plan: plan({ tube: ID, parts: 1, more: 1 }) })))).to.deep.equal([
      'plan.heaps.0.ingredients.0.more',
    ]);
  });

  it('may leave out what is optional, but null is not left out unless it says that there is none', () => {
    expect(fieldsOf(() => readAs(PileChange, { id: ID, version: 1 }))).to.deep.equal([]);
    expect(fieldsOf(() => readAs(PileChange, { id: ID, version: 1, name: null }))).to.include('name');
    expect(fieldsOf(() => readAs(PileChange, { id: ID, version: 1, target: null }))).to.deep.equal([]);
  });

  it('names what is added: a tube in its state, or a pile at its stage', () => {
    const stage = (addition: object) => ({
      id: ID,
      pileId: OTHER,
      kind: 'mixed',
      additions: [{ id: ID, ml: 1, low: 1, high: 1, ...addition }],
    });
    expect(fieldsOf(() => readAs(NewStage, stage({ tubeId: ID, stateId: ID })))).to.deep.equal([]);
    expect(fieldsOf(() => readAs(NewStage, stage({ stageId: ID })))).to.deep.equal([]);
    expect(fieldsOf(() => readAs(NewStage, stage({ tubeId: ID })))).to.include('additions.0.stateId');
    expect(fieldsOf(() => readAs(NewStage, stage({})))).to.include('additions.0.stageId');
  });

  it('is an object', () => {
    for (const sent of [null, undefined, 7, 'x', []]) expect(fieldsOf(() => readAs(PileChange, sent))).to.deep.equal(['']);
  });

  it('carries colours and mixtures there and back', () => {
    expect(labOfDto(labDto([50, 1, -2]))).to.deep.equal([50, 1, -2]);
    expect(mixtureDto({ heaps: [{ ingredients: [{ tube: ID, parts: 1 }] }] })).to.deep.include({ form: 1 });
  });
});
