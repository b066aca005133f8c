import { expect } from 'chai';
import {
  afterEvidence,
  beliefOf,
  believed,
  deltaE00,
  deviate,
  firstBeliefs,
  learn,
  readingOf,
  type Beliefs,
  type Evidence,
  type Lab,
} from '../src/index.ts';
import { IDS, look, plain, tube, TUBES } from './eightTubes.ts';

describe('beliefs', () => {
  it('find a strong tube strong, and grow surer', () => {
    const strong = deviate(tube('ultramarine-blue'), { ...plain, strength: 1.3 });
    let beliefs: Beliefs = firstBeliefs(IDS);
    const at = 3 * IDS.indexOf('ultramarine-blue');
    const first = beliefs.covariance[at]![at]!;
    for (const n of [1, 2, 3]) {
      const additions = [
        { id: 'titanium-white', parts: 6 },
        { id: 'ultramarine-blue', parts: n },
      ];
      const observed = look([
        [tube('titanium-white'), 6],
        [strong, n],
      ]);
      beliefs = learn(beliefs, TUBES, [{ additions, observed }]).beliefs;
    }
    expect(beliefs.mean[at]! + beliefs.mean[at + 1]! - beliefs.mean[1]!).to.be.above(0.1);
    expect(beliefs.covariance[at]![at]!).to.be.below(first);
    const guessed = look([
      [believed(tube('titanium-white'), beliefs, 'titanium-white'), 5],
      [believed(tube('ultramarine-blue'), beliefs, 'ultramarine-blue'), 1],
    ]);
    const truth = look([
      [tube('titanium-white'), 5],
      [strong, 1],
    ]);
    const naive = look([
      [tube('titanium-white'), 5],
      [tube('ultramarine-blue'), 1],
    ]);
    expect(deltaE00(guessed, truth)).to.be.below(deltaE00(naive, truth) / 2);
  });

  it('stay as they were without an observation', () => {
    const before = firstBeliefs(IDS);
    const { beliefs, residual } = learn(before, TUBES, [{ additions: [{ id: 'viridian', parts: 1 }] }]);
    beliefs.mean.forEach((v, i) => expect(v).to.be.closeTo(before.mean[i]!, 1e-9));
    expect(residual).to.deep.equal([0, 0, 0]);
  });

  const blueInWhite = (n: number, observed: Lab, noise?: number): Evidence => ({
    stages: [
      {
        additions: [
          { id: 'titanium-white', parts: 6 },
          { id: 'ultramarine-blue', parts: n },
        ],
        observed,
        ...(noise !== undefined && { reading: { sighting: 'one', noise, bias: 0 } }),
      },
    ],
  });
  const strongBlue = (n: number): Lab =>
    look([
      [tube('titanium-white'), 6],
      [deviate(tube('ultramarine-blue'), { ...plain, strength: 1.25 }), n],
    ]);

  it('take in tubes that they did not speak of, and speak of them alike', () => {
    const stages = blueInWhite(1, strongBlue(1)).stages;
    const few = learn(firstBeliefs([]), TUBES, stages).beliefs;
    expect(few.ids).to.deep.equal(['titanium-white', 'ultramarine-blue']);
    const all = learn(firstBeliefs(IDS), TUBES, stages).beliefs;
    for (const id of few.ids) {
      const [one, other] = [beliefOf(few, id), beliefOf(all, id)];
      expect(one.strength).to.be.closeTo(other.strength, 1e-6);
      expect(one.within).to.be.closeTo(other.within, 1e-6);
    }
    expect(beliefOf(all, 'viridian')).to.deep.equal({ ...beliefOf(firstBeliefs([]), 'viridian') });
  });

  it('of tubes outside the pile follow exactly as if all were solved for together', () => {
    // First a pile of white and ochre ties the two; then a pile with ochre alone teaches white through it.
    const tie = {
      stages: [
        {
          additions: [
            { id: 'titanium-white', parts: 5 },
            { id: 'yellow-ochre', parts: 2 },
          ],
          observed: look([
            [tube('titanium-white'), 5],
            [tube('yellow-ochre'), 2.6],
          ]),
        },
      ],
    };
    const tied = afterEvidence([tie], TUBES);
    const stages = [
      {
        additions: [
          { id: 'yellow-ochre', parts: 2 },
          { id: 'burnt-umber', parts: 1 },
        ],
        observed: look([
          [tube('yellow-ochre'), 2],
          [tube('burnt-umber'), 1.4],
        ]),
      },
    ];
    const apart = learn(tied, TUBES, stages).beliefs;
    // The same with white in the pile in a trace that no eye sees: all three are then solved for together.
    const withTrace = stages.map((s) => ({ ...s, additions: [...s.additions, { id: 'titanium-white', parts: 1e-9 }] }));
    const together = learn(tied, TUBES, withTrace).beliefs;
    expect(beliefOf(apart, 'titanium-white').strength).to.not.be.closeTo(beliefOf(tied, 'titanium-white').strength, 1e-4);
    expect(beliefOf(apart, 'titanium-white').strength).to.be.closeTo(beliefOf(together, 'titanium-white').strength, 1e-4);
    expect(beliefOf(apart, 'titanium-white').within).to.be.closeTo(beliefOf(together, 'titanium-white').within, 1e-4);
  });

  it('weigh a doubtful look less, and a dose that was only said in words', () => {
    const strength = (evidence: Evidence) => beliefOf(afterEvidence([evidence], TUBES), 'ultramarine-blue').strength;
    const sure = strength(blueInWhite(1, strongBlue(1)));
    const unsure = strength(blueInWhite(1, strongBlue(1), 4));
    expect(sure).to.be.above(1.05);
    expect(unsure - 1).to.be.below((sure - 1) * 0.8);
    const [stage] = blueInWhite(1, strongBlue(1)).stages;
    const inWords = {
      stages: [{ ...stage!, additions: stage!.additions.map((d) => ({ ...d, range: [d.parts / 3, d.parts * 3] as const })) }],
    };
    expect(strength(inWords) - 1).to.be.below((sure - 1) * 0.7);
  });

  it('take little from doses of a coarse knife', () => {
    const [stage] = blueInWhite(1, strongBlue(1)).stages;
    const strength = (knife: number) => beliefOf(afterEvidence([{ stages: [{ ...stage!, knife }] }], TUBES), 'ultramarine-blue').strength;
    expect(strength(0.4) - 1).to.be.below((strength(0.1) - 1) * 0.8);
    expect(() => strength(2)).to.throw(/knife/);
    expect(() => strength(NaN)).to.throw(/knife/);
  });

  it('find by how much a sitting is off, and teach the tubes none of it', () => {
    const offset = [1.5, -1, 0.5] as const;
    const photo = readingOf('photo', 'this morning');
    const pile = (id: string, n: number): Evidence => {
      const [L, a, b] = look([
        [tube('titanium-white'), 6],
        [tube(id), n],
      ]);
      const observed: Lab = [L + offset[0], a + offset[1], b + offset[2]];
      const additions = [
        { id: 'titanium-white', parts: 6 },
        { id, parts: n },
      ];
      return { stages: [{ additions, observed, reading: photo }] };
    };
    const evidence = IDS.slice(1).flatMap((id) => [pile(id, 1), pile(id, 3)]);
    const before = afterEvidence(evidence.slice(0, -1), TUBES);
    const { offset: found, beliefs, unsure } = learn(before, TUBES, evidence.at(-1)!.stages);
    expect(Math.hypot(...found.map((v, i) => v - offset[i]!))).to.be.below(0.6);
    expect(unsure).to.be.below(1);
    // The same readings, taken for true.
    const naive = evidence.map(({ stages }) => ({ stages: stages.map(({ additions, observed }) => ({ additions, observed: observed! })) }));
    const astray = (of: Beliefs) => IDS.reduce((sum, id) => sum + Math.abs(Math.log(beliefOf(of, id).strength)), 0);
    expect(astray(beliefs)).to.be.below(astray(afterEvidence(naive, TUBES)) * 0.8);
  });

  it('forget sittings of old, not what they taught', () => {
    const piles = Array.from({ length: 20 }, (_, n): Evidence => ({
      stages: [{ ...blueInWhite(1, strongBlue(1)).stages[0]!, reading: readingOf('photo', `day ${n}`) }],
    }));
    const { ids, mean } = afterEvidence(piles, TUBES);
    expect(ids.length).to.be.below(12);
    expect(mean).to.have.length(3 * ids.length);
    expect(beliefOf(afterEvidence(piles, TUBES), 'ultramarine-blue').strength).to.be.above(1.1);
  });

  it('take a tenth of a knife for granted, not a third', () => {
    // One look cannot tell a strong tube from a generous knife; most of it must go to the tube.
    const [stage] = blueInWhite(1, strongBlue(1)).stages;
    const { parts, beliefs } = learn(firstBeliefs([]), TUBES, [stage!]);
    const byKnife = parts['ultramarine-blue']! / parts['titanium-white']! / (1 / 6);
    const byTube = beliefOf(beliefs, 'ultramarine-blue').strength / beliefOf(beliefs, 'titanium-white').strength;
    expect(byTube - 1).to.be.above(2 * (byKnife - 1));
    expect(byKnife).to.be.above(1);
  });

  it('forget exactly what is refused, whichever it was', () => {
    const evidence = [1, 2, 3].map((n) => blueInWhite(n, strongBlue(n)));
    for (const out of [0, 1, 2]) {
      const without = evidence.filter((_, i) => i !== out);
      const kept = afterEvidence(without, TUBES);
      const cached = afterEvidence(without.slice(1), TUBES, afterEvidence(without.slice(0, 1), TUBES));
      expect(cached).to.deep.equal(kept);
    }
    expect(afterEvidence([], TUBES)).to.deep.equal(firstBeliefs([]));
  });

  it('leave typical tubes as they are, beside which learnt ones are believed', () => {
    const typical = tube('viridian');
    expect(believed(typical, firstBeliefs([]), 'viridian')).to.equal(typical);
    const spoken = believed(typical, firstBeliefs(['viridian']), 'viridian');
    spoken.K.forEach((k, i) => expect(k / typical.K[i]!).to.be.closeTo(1, 0.02));
    spoken.S.forEach((s, i) => expect(s / typical.S[i]!).to.be.closeTo(1, 0.02));
  });

  it('refuse strangers and parts that are none', () => {
    const stage = (id: string, parts: number) => [{ additions: [{ id, parts }], observed: [50, 0, 0] as Lab }];
    expect(() => learn(firstBeliefs(IDS), TUBES, stage('cobalt-teal', 1))).to.throw(/cobalt-teal/);
    for (const bad of [0, -1, NaN, Infinity]) expect(() => learn(firstBeliefs(IDS), TUBES, stage('viridian', bad))).to.throw(/above 0/);
    expect(() => learn(firstBeliefs(IDS), TUBES, [])).to.throw(/nothing/);
    expect(() => learn(firstBeliefs(IDS), TUBES.slice(1), stage('titanium-white', 1))).to.throw(/titanium-white/);
  });
});
