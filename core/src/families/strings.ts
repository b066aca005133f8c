import { deltaE00 } from '../colour/difference.ts';
import { CraftError } from '../errors.ts';
import { hueDifference, labToLch, lchToLab, type Lab } from '../colour/spaces.ts';
import { COOL_POLE, WARM_POLE } from '../colour/temperature.ts';
import { lightnessOfValue, valueOfLightness } from '../colour/value.ts';
import type { Palette } from '../matching/palette.ts';
import { best } from '../matching/solve.ts';
import type { Recipe } from '../matching/recipe.ts';

/** The way between two hues: straight through Lab, by neutral, or round by the warm or the cool side. */
export const ROUTES = ['straight', 'neutral', 'warm', 'cool'] as const;
export type Route = (typeof ROUTES)[number];

/** Stops closer in value than this count as sharing one. */
const ONE_VALUE = 0.15;
const FINE = 64;
const MOST_PILES = 24;

/** Colour a share `t` of the way from one stop to the next; value goes evenly in Munsell steps. */
export function between(one: Lab, other: Lab, route: Route, t: number): Lab {
  const value = valueOfLightness(one[0]) * (1 - t) + valueOfLightness(other[0]) * t;
  const L = lightnessOfValue(value);
  const mix = (k: 1 | 2): number => one[k] * (1 - t) + other[k] * t;
  const [, C1, h1] = labToLch(one);
  const [, C2, h2] = labToLch(other);
  const C = C1 * (1 - t) + C2 * t;
  switch (route) {
    case 'straight':
      return [L, mix(1), mix(2)];
    case 'neutral': {
      // Down to grey in the middle and up again, each half in its own hue.
      const [from, hue] = t < 0.5 ? [C1 * (1 - 2 * t), h1] : [C2 * (2 * t - 1), h2];
      return lchToLab([L, from, hue]);
    }
    case 'warm':
    case 'cool': {
      const pole = route === 'warm' ? WARM_POLE : COOL_POLE['red-leaning'];
      const short = hueDifference(h1, h2);
      const toPole = hueDifference(h1, pole);
      const passes = Math.sign(toPole) === Math.sign(short) && Math.abs(toPole) <= Math.abs(short);
      const turn = passes ? short : short - Math.sign(short || 1) * 360;
      return lchToLab([L, C, (h1 + turn * t + 720) % 360]);
    }
  }
}

/** ΔE00 that lies behind at each of {@link FINE} steps of the way from one stop to the next. */
function wayAlong(one: Lab, other: Lab, route: Route): readonly number[] {
  const way = [0];
  let from = between(one, other, route, 0);
  for (let i = 1; i <= FINE; i++) {
    const to = between(one, other, route, i / FINE);
    way.push(way[i - 1]! + deltaE00(from, to));
    from = to;
  }
  return way;
}

/** The share of the way at which a share of its ΔE00 lies behind. */
function shareByDifference(way: readonly number[], share: number): number {
  const wanted = share * way[FINE]!;
  let i = 1;
  while (i < FINE && way[i]! < wanted) i++;
  return (i - 1 + (wanted - way[i - 1]!) / Math.max(1e-12, way[i]! - way[i - 1]!)) / FINE;
}

/**
 * Target colours of a string of `n` piles over two or more stops: even in Munsell value, or even in
 * ΔE00 where all stops share a value. Each stretch between stops takes its own route.
 * @throws CraftError for fewer than two stops, too few or too many piles, or an unknown route
 */
export function stringTargets(stops: readonly Lab[], n: number, routes: readonly Route[] = []): Lab[] {
  if (stops.length < 2) throw new CraftError('target', 'A string needs at least two stops.');
  if (!Number.isInteger(n) || n < 2 || n > MOST_PILES)
    throw new CraftError('target', `A string has 2 to ${MOST_PILES} piles; this one is to have ${JSON.stringify(n)}.`);
  for (const route of routes)
    if (!ROUTES.includes(route))
      throw new CraftError('target', `A route is one of ${ROUTES.join(', ')}; this is ${JSON.stringify(route)}.`);
  const routeOf = (i: number): Route => routes[i] ?? routes.at(-1) ?? 'straight';
  const values = stops.map((lab) => valueOfLightness(lab[0]));
  const spread = Math.max(...values) - Math.min(...values);
  const ofOneValue = spread < ONE_VALUE;
  const stretches = stops.slice(1).map((to, i) => {
    const from = stops[i]!;
    const route = routeOf(i);
    const way = ofOneValue ? wayAlong(from, to, route) : undefined;
    return { from, to, route, way, length: way ? way[FINE]! : Math.abs(values[i + 1]! - values[i]!) };
  });
  const whole = stretches.reduce((sum, { length }) => sum + length, 0);
  return Array.from({ length: n }, (_, k) => {
    let wanted = (whole * k) / (n - 1);
    let i = 0;
    while (i < stretches.length - 1 && wanted > stretches[i]!.length + 1e-9) wanted -= stretches[i++]!.length;
    const { from, to, route, way, length } = stretches[i]!;
    const share = length === 0 ? 0 : Math.min(1, wanted / length);
    return between(from, to, route, way ? shareByDifference(way, share) : share);
  });
}

/** A string: a target and the best recipe for each of its piles. */
export interface StringPile {
  readonly target: Lab;
  readonly recipe: Recipe;
}

/** A string of `n` piles from a palette. */
export const stringOf = (palette: Palette, stops: readonly Lab[], n: number, routes?: readonly Route[]): StringPile[] =>
  stringTargets(stops, n, routes).map((target) => ({ target, recipe: best(palette, target) }));
