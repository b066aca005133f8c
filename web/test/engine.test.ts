import { CATALOGUE, CraftError, deltaE00, layPalette, predict, type InSteps, type Leaf } from '@dusk/core';
import { expect } from 'chai';
import { transferHandlers } from 'comlink';
import { GivenUp, keepErrorsTyped } from '../src/engine/crossing.ts';
import { DOING, leafKey, type Laid } from '../src/engine/jobs.ts';
import { inSlices } from '../src/engine/slices.ts';

const IDS = ['titanium-white', 'yellow-ochre', 'burnt-sienna', 'ultramarine-blue', 'phthalo-blue'];
const laid: Laid = {
  tubes: IDS.map((id) => ({ id, state: `${id} today`, basis: 'typical' as const, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S })),
  piles: [],
};
const desk = { laid, palette: layPalette(laid.tubes) };
const paintOf = (source: Leaf) => CATALOGUE.get((source as { tube: string }).tube)!;
const done = <T>(work: InSteps<T>): T => {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
};

describe('the engine’s jobs', () => {
  it('answer with mixtures that name tubes in their states and give the colour they say', () => {
    const { proposals } = done(DOING.solve({ target: [55, 6, 14] }, desk));
    expect(proposals.length).to.be.above(1);
    for (const { mixture, lab } of proposals) {
      expect(deltaE00(predict(mixture, paintOf).lab, lab)).to.be.below(1e-6);
      for (const { ingredients } of mixture.heaps)
        for (const i of ingredients) if ('tube' in i) expect(i.state).to.equal(`${i.tube} today`);
    }
  });

  it('leave a tube out, or insist on it, as a wish', () => {
    const [first] = done(
      DOING.solve({ target: [50, 8, 20], wishes: { exclude: ['burnt-sienna'], mustUse: 'yellow-ochre' } }, desk),
    ).proposals;
    const used = first!.mixture.heaps.flatMap((h) => h.ingredients.map((i) => ('tube' in i ? i.tube : '')));
    expect(used).to.include('yellow-ochre').and.not.include('burnt-sienna');
  });

  it('find the nearest in three ways and the tube that would help', () => {
    const rack = ['viridian', 'cobalt-violet'].map((id) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S }));
    const { kinds, tubes } = done(DOING.nearest({ target: [45, -70, 40], rack }, desk));
    expect(kinds.map((k) => k.by)).to.include.members(['in value', 'overall']);
    expect(tubes[0]!.id).to.equal('viridian');
    expect(kinds.at(-1)!.proposal.givesWay).to.include('too dull');
  });

  it('say how far a mixture can be trusted', () => {
    const { mixture } = done(DOING.solve({ target: [60, 5, 15] }, desk)).proposals[0]!;
    const paints = laid.tubes.map((t) => [leafKey({ tube: t.id, state: t.state }), t, t.basis] as const);
    const trust = done(DOING.trust({ mixture, paints }, undefined));
    expect(trust.errorEstimate).to.be.within(0.5, 15);
    expect(trust.basis).to.equal('typical');
  });
});

const SLEEP = new Int32Array(new SharedArrayBuffer(4));

describe('work in slices', () => {
  it('is done to its end, and given up once nobody wants it', async () => {
    let steps = 0;
    function* slow(): InSteps<string> {
      for (; steps < 40; steps++) {
        // Long enough for a slice to end now and then, however fast the machine is.
        Atomics.wait(SLEEP, 0, 0, 3);
        yield steps / 40;
      }
      return 'done';
    }
    const told: number[] = [];
    expect(
      await inSlices(
        slow(),
        () => true,
        (share) => told.push(share),
      ),
    ).to.equal('done');
    expect(told.length).to.be.above(3);
    steps = 0;
    const wanted = () => steps < 10;
    const given = await inSlices(slow(), wanted).catch((cause: unknown) => cause);
    expect(given).to.be.instanceOf(GivenUp);
    expect(steps).to.be.below(20);
  });
});

describe('errors that cross', () => {
  it('keep their type and what they say', () => {
    keepErrorsTyped();
    const handler = transferHandlers.get('throw') as unknown as {
      serialize: (thrown: { value: unknown }) => readonly [unknown, readonly unknown[]];
      deserialize: (crossed: unknown) => never;
    };
    const crossed = (error: unknown): unknown => {
      try {
        return handler.deserialize(structuredClone(handler.serialize({ value: error })[0]));
      } catch (cause) {
        return cause;
      }
    };
    const craft = crossed(new CraftError('palette', 'The palette is empty.'));
    expect(craft).to.be.instanceOf(CraftError);
    expect(craft).to.include({ kind: 'palette', message: 'The palette is empty.' });
    expect(crossed(new GivenUp())).to.be.instanceOf(GivenUp);
    expect(crossed(new RangeError('too far'))).to.include({ name: 'RangeError', message: 'too far' });
    expect(crossed('plain words')).to.include({ message: 'plain words' });
  });
});
