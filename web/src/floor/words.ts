import { colourName, temperatureWord, type Compared, type Lab } from '@dusk/core';

/** `warm, khaki`: temperature, then what a painter calls it. */
export const describe = (lab: Lab, temperature: number): string => `${temperatureWord(temperature)}, ${colourName(lab)}`;

/** How a prediction differs from its target in value, as a painter says it. */
export function valueDifference(error: number): string {
  const amount = Math.abs(error);
  if (amount < 0.05) return 'same value';
  return `${amount.toFixed(1)} ${error > 0 ? 'lighter' : 'darker'}`;
}

/** How far two colours stand apart, in figures: `0.8 darker, 3 cooler, told apart by 7.2`. */
export function apartText({ value, temperature, deltaE00 }: Pick<Compared, 'value' | 'temperature' | 'deltaE00'>): string {
  const by = Math.round(Math.abs(temperature));
  return [
    valueDifference(value),
    by === 0 ? 'as warm' : `${by} ${temperature > 0 ? 'warmer' : 'cooler'}`,
    `told apart by ${deltaE00.toFixed(1)}`,
  ].join(', ');
}

/** `12 %`. */
export const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** `1 pile`, `3 piles`. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

const ORDINALS = ['second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'] as const;

/**
 * A first name for a pile, none that another has; the painter may give a better one. It holds no value: what
 * a pile turns out to be is told beside its name.
 */
export function firstName(lab: Lab, taken: ReadonlySet<string> = new Set()): string {
  const name = colourName(lab);
  const free = [name, ...ORDINALS.map((nth) => `${nth} ${name}`)].find((one) => !taken.has(one));
  if (free !== undefined) return free;
  let n = ORDINALS.length + 2;
  while (taken.has(`${name} no. ${n}`)) n++;
  return `${name} no. ${n}`;
}

/** `14:20`, in the painter's own time. */
export const clock = (at: string): string => new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** `3 March`, `3 March 2025` in another year than this. */
export const day = (at: string | number, now = new Date()): string => {
  const then = new Date(at);
  const year = then.getFullYear() === now.getFullYear() ? {} : ({ year: 'numeric' } as const);
  return then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', ...year });
};
/** `Tuesday 3 March`, with its year where that is another than this. */
export const weekday = (at: string | number, now = new Date()): string =>
  `${new Date(at).toLocaleDateString('en-GB', { weekday: 'long' })} ${day(at, now)}`;

/** `14:20` today, `3 March, 14:20` before. */
export function moment(at: string, now = new Date()): string {
  return new Date(at).toDateString() === now.toDateString() ? clock(at) : `${day(at, now)}, ${clock(at)}`;
}
