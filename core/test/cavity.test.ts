import { expect } from 'chai';
import { believed, deltaE00, deviate, firstBeliefs, learn, shareOf, withoutShare, type Beliefs, type Evidence } from '../src/index.ts';
import { look, plain, tube, TUBES } from './eightTubes.ts';

const [white, blue, ochre, green] = ['titanium-white', 'ultramarine-blue', 'yellow-ochre', 'viridian'];
const TRUE = new Map([
  [white, deviate(tube(white!), { ...plain, strength: 0.85 })],
  [blue, deviate(tube(blue!), { ...plain, strength: 1.3 })],
  [ochre, deviate(tube(ochre!), { ...plain, strength: 1.15, shiftNm: 1 })],
  [green, deviate(tube(green!), { ...plain, strength: 0.8 })],
]);

/** A pile of true tubes, read once by a device that is never off. */
function pile(parts: Readonly<Record<string, number>>): Evidence {
  const additions = Object.entries(parts).map(([id, n]) => ({ id, parts: n }));
  return { stages: [{ additions, observed: look(additions.map(({ id, parts: n }) => [TRUE.get(id)!, n])) }] };
}
const PILES = [
  pile({ [white!]: 6, [blue!]: 1 }),
  pile({ [white!]: 3, [ochre!]: 2 }),
  pile({ [ochre!]: 2, [blue!]: 1 }),
  pile({ [white!]: 5, [green!]: 1, [ochre!]: 1 }),
  pile({ [white!]: 2, [blue!]: 3 }),
  pile({ [white!]: 8, [green!]: 1 }),
];
const idsOf = (one: Evidence): string[] => [...new Set(one.stages.flatMap((s) => s.additions.map((d) => d.id)))];
const after = (evidence: readonly Evidence[]): Beliefs[] =>
  evidence.reduce((all, { stages }) => [...all, learn(all.at(-1)!, TUBES, stages).beliefs], [firstBeliefs([])]);

describe('what is believed without one pile', () => {
  const beliefs = after(PILES);
  const now = beliefs.at(-1)!;
  const guess = (known: Beliefs, parts: readonly (readonly [string, number])[]) =>
    look(parts.map(([id, n]) => [believed(tube(id), known, id), n]));

  it('is exactly what was believed before the newest', () => {
    const before = beliefs.at(-2)!;
    const found = withoutShare(now, shareOf(before, now, idsOf(PILES.at(-1)!)));
    before.ids.forEach((id, i) => {
      const at = found.ids.indexOf(id);
      for (let k = 0; k < 3; k++) {
        expect(found.mean[at * 3 + k]!).to.be.closeTo(before.mean[i * 3 + k]!, 1e-6);
        expect(found.covariance[at * 3 + k]![at * 3 + k]!).to.be.closeTo(before.covariance[i * 3 + k]![i * 3 + k]!, 1e-6);
      }
    });
  });

  it('is near what learning from all others anew gives, for every pile', () => {
    const mixtures = [
      [white, 4, blue, 1],
      [white, 3, green, 1],
      [ochre, 2, blue, 1],
    ] as const;
    PILES.forEach((left, p) => {
      const found = withoutShare(now, shareOf(beliefs[p]!, beliefs[p + 1]!, idsOf(left)));
      const anew = after(PILES.filter((one) => one !== left)).at(-1)!;
      for (const [a, m, b, n] of mixtures) {
        const parts = [[a!, m] as const, [b!, n] as const];
        expect(deltaE00(guess(found, parts), guess(anew, parts)), `without ${p}`).to.be.below(0.15);
      }
      const unsure = (known: Beliefs, id: string): number =>
        Math.sqrt(known.covariance[known.ids.indexOf(id) * 3]![known.ids.indexOf(id) * 3]!);
      for (const id of idsOf(left).filter((one) => anew.ids.includes(one)))
        expect(unsure(found, id) / unsure(anew, id), `${id} without ${p}`).to.be.within(0.93, 1.07);
    });
  });

  it('takes away no more than can be taken', () => {
    const { ids, precision, pull } = shareOf(beliefs[0]!, beliefs[1]!, idsOf(PILES[0]!));
    const tenfold = { ids, precision: precision.map((row) => row.map((v) => v * 10)), pull: pull.map((v) => v * 10) };
    const found = withoutShare(now, tenfold);
    found.ids.forEach((_, i) => expect(found.covariance[i * 3]![i * 3]!).to.be.above(0));
    expect(withoutShare(firstBeliefs([]), tenfold)).to.deep.equal(firstBeliefs([]));
  });
});
