export * from '../src/index.ts';
export { compositions as compositionsWithin } from '../src/matching/enumerate.ts';
export { plainColouring } from '../src/matching/kernel/kernel.ts';
