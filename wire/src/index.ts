export * from './problem.ts';
export * from './validate.ts';
export * from './tubes.ts';
export * from './palettes.ts';
export * from './paintings.ts';
export * from './piles.ts';
export * from './settings.ts';
