import { CATALOGUE, firstBeliefs, HARSH_SPREAD, USUAL_SPREAD } from '../src/index.ts';
import { closeIn, painter, reachableTarget } from '../test/simulatedPainter.ts';
const PAL = [
  'titanium-white',
  'hansa-yellow',
  'yellow-ochre',
  'venetian-red',
  'quinacridone-rose',
  'ultramarine-blue',
  'burnt-umber',
  'viridian',
];
const typical = PAL.map((id) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S }));
const q = (a: number[], p: number) => [...a].sort((x, y) => x - y)[Math.min(a.length - 1, Math.floor(a.length * p))]!;
for (const [name, spread] of [
  ['usual', USUAL_SPREAD],
  ['harsh', HARSH_SPREAD],
] as const) {
  const first: number[] = [],
    late: number[] = [];
  let f1 = 0,
    f2 = 0;
  const e1: number[] = [],
    e2: number[] = [];
  const N = Number(process.argv[2] ?? 40);
  for (let s = 0; s < N; s++) {
    const p = painter(typical, 100 + s, spread);
    let b = firstBeliefs(PAL);
    for (let i = 0; i < 12; i++) {
      const o = closeIn(p, reachableTarget(p), b);
      b = o.beliefs;
      if (i === 0) {
        first.push(o.corrections);
        f1 += +o.failed;
        e1.push(o.firstError);
      }
      if (i >= 10) {
        late.push(o.corrections);
        f2 += +o.failed;
        e2.push(o.firstError);
      }
    }
  }
  const mean = (a: number[]) => a.reduce((s, v) => s + v, 0) / a.length;
  console.log(
    name,
    'first: median',
    q(first, 0.5),
    'p90',
    q(first, 0.9),
    'mean',
    mean(first).toFixed(2),
    'failed',
    f1,
    'of',
    first.length,
    'err',
    mean(e1).toFixed(2),
    '| after ten: mean',
    mean(late).toFixed(2),
    'p90',
    q(late, 0.9),
    'failed',
    f2,
    'of',
    late.length,
    'err',
    mean(e2).toFixed(2),
  );
}
