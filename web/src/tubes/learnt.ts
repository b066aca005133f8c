import type { Tube } from '../stores/tubes.ts';

/** Below this a tube is as strong as its curves say. */
const NOTEWORTHY = 0.03;

/** What piles taught of a tube, in one sentence with its figure. */
export function learntOf({ name, learnt }: Tube): string {
  if (!learnt) return '';
  const { strength, piles } = learnt;
  const from = `from ${piles} ${piles === 1 ? 'pile' : 'piles'}`;
  const times = strength.toFixed(2).replace(/0$/, '');
  if (Math.abs(Math.log(strength)) < NOTEWORTHY) return `Your ${name.toLowerCase()} seems as strong as typical, ${from}.`;
  return `Your ${name.toLowerCase()} seems about ${times} times as strong as typical, ${from}.`;
}
