import {
  believed,
  deltaE00,
  firstBeliefs,
  labOf,
  learn,
  mixCurves,
  reflectance,
  USUAL_SPREAD,
  type Beliefs,
  type Lab,
} from '../src/index.ts';
import { painter, TruePile, type SimulatedPainter } from '../test/simulatedPainter.ts';
import { CORRECTING, mean, tubesOf } from './palettes.ts';

const GOOD = 3;
const OTHERS = 20;

/** Some mixture of white and one to three tubes. */
function someMixture({ random }: SimulatedPainter): { readonly id: string; readonly parts: number }[] {
  const others = CORRECTING.slice(1)
    .map((id) => [random(), id] as const)
    .sort((a, b) => a[0] - b[0])
    .slice(0, 1 + Math.floor(3 * random()));
  return [{ id: 'titanium-white', parts: 1 + 8 * random() }, ...others.map(([, id]) => ({ id, parts: 0.5 + 2 * random() }))];
}

/** Mean ΔE00 between what is believed of mixtures and what they are. */
function missed(by: SimulatedPainter, beliefs: Beliefs, mixtures: readonly ReturnType<typeof someMixture>[]): number {
  return mean(
    mixtures.map((parts) => {
      const look = (paintOf: (id: string) => (typeof by.typical)[number]): Lab =>
        labOf(reflectance(mixCurves(parts.map(({ id, parts: n }) => ({ paint: paintOf(id), parts: n })))));
      const typical = (id: string) => by.typical.find((t) => t.id === id)!;
      return deltaE00(
        look((id) => by.hidden.get(id)!),
        look((id) => ({ id, ...believed(typical(id), beliefs, id) })),
      );
    }),
  );
}

/** How much one look that is wrong by so much worsens what is predicted of other mixtures, beside some good ones, in per cent. */
export function strangeLooks(
  painters = 40,
  wrongBy = 15,
  good = GOOD,
): { readonly before: number; readonly after: number; readonly worse: number } {
  const before: number[] = [];
  const after: number[] = [];
  for (let seed = 0; seed < painters; seed++) {
    const someone = painter(tubesOf(CORRECTING), 900 + seed, USUAL_SPREAD);
    let beliefs = firstBeliefs(CORRECTING);
    const look = (additions: ReturnType<typeof someMixture>, off: Lab): Beliefs => {
      const pile = new TruePile(someone);
      pile.dose(additions);
      const [L, a, b] = pile.read();
      return learn(beliefs, someone.typical, [{ additions, observed: [L + off[0], a + off[1], b + off[2]] }]).beliefs;
    };
    for (let k = 0; k < good; k++) beliefs = look(someMixture(someone), [0, 0, 0]);
    const others = Array.from({ length: OTHERS }, () => someMixture(someone));
    before.push(missed(someone, beliefs, others));
    const turn = 2 * Math.PI * someone.random();
    const lean = someone.random() * 2 - 1;
    const flat = Math.sqrt(1 - lean * lean);
    const wrong = look(someMixture(someone), [wrongBy * lean, wrongBy * flat * Math.cos(turn), wrongBy * flat * Math.sin(turn)]);
    after.push(missed(someone, wrong, others));
  }
  return { before: mean(before), after: mean(after), worse: 100 * (mean(after) / mean(before) - 1) };
}
