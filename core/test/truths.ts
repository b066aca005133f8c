import {
  CATALOGUE,
  deltaE00,
  hueDifference,
  labOf,
  labToLch,
  mixCurves,
  reflectance,
  smoothSpectrum,
  flatSpectrum,
  type Film,
  type Lab,
} from '../src/index.ts';

type Parts = Readonly<Record<string, number>>;
type Range = readonly [number, number];
interface FilmJson {
  thickness_um: number;
  ground: { lab: Lab };
}
interface Common {
  id: string;
  film?: FilmJson | null;
  thanFilm?: FilmJson | null;
}
export type Truth = Common &
  (
    | { kind: 'region'; mix: Parts; expect: Readonly<Record<string, Range>> }
    | { kind: 'ratio'; mix: readonly [string, string]; plus?: Parts; expect: Readonly<Record<string, Range>> }
    | { kind: 'order'; metric: string; of: Parts; than: Parts; by: number }
  );

const film = (f?: FilmJson | null): Film | undefined =>
  f ? { thicknessUm: f.thickness_um, ground: smoothSpectrum(f.ground.lab) } : undefined;

function curves(parts: Parts) {
  return mixCurves(Object.entries(parts).map(([slug, n]) => ({ paint: CATALOGUE.get(slug)!, parts: n })));
}

export function labOfMix(parts: Parts, f?: FilmJson | null): Lab {
  const laid = film(f);
  return labOf(reflectance(curves(parts), laid ? { film: laid } : {}));
}

function metric(name: string, parts: Parts, f?: FilmJson | null): number {
  if (name === 'contrast') {
    const over = (ground: number) =>
      labOf(reflectance(curves(parts), { film: { thicknessUm: f?.thickness_um ?? 30, ground: flatSpectrum(ground) } }));
    return deltaE00(over(0.01), over(0.9));
  }
  const lab = labOfMix(parts, f);
  const [L, C, h] = labToLch(lab);
  if (name === 'dEwhite') return deltaE00(lab, labOfMix({ 'titanium-white': 1 }));
  return { L, C, h, a: lab[1], b: lab[2] }[name]!;
}

function misses(lab: Lab, expected: Readonly<Record<string, Range>>): string[] {
  const [L, C, h] = labToLch(lab);
  const got: Record<string, number> = { L, C, h, a: lab[1], b: lab[2] };
  return Object.entries(expected)
    .filter(([name, [low, high]]) => {
      const v = got[name]!;
      return low <= high ? v < low || v > high : v < low && v > high;
    })
    .map(([name, range]) => `${name} ${got[name]!.toFixed(1)} outside ${range.join('–')}`);
}

/** The two figures that a truth of kind order compares. */
export function measured(truth: Truth & { kind: 'order' }): readonly [of: number, than: number] {
  return [
    metric(truth.metric, truth.of, truth.film),
    metric(truth.metric, truth.than, truth.thanFilm === undefined ? truth.film : truth.thanFilm),
  ];
}

/** What of a truth does not hold; empty when it holds. */
export function unmet(truth: Truth): string[] {
  if (truth.kind === 'region') return misses(labOfMix(truth.mix, truth.film), truth.expect);
  if (truth.kind === 'order') {
    const [of, than] = measured(truth);
    const difference = truth.metric === 'h' ? hueDifference(than, of) : of - than;
    return difference >= truth.by ? [] : [`${truth.metric}: ${of.toFixed(1)} against ${than.toFixed(1)}`];
  }
  const tries = Array.from({ length: 81 }, (_, i) => 6 ** (i / 40 - 1)).map((ratio) =>
    misses(labOfMix({ [truth.mix[0]]: ratio, [truth.mix[1]]: 1, ...truth.plus }, truth.film), truth.expect),
  );
  return tries.sort((a, b) => a.length - b.length)[0]!;
}
