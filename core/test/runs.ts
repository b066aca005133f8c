/**
 * How often something that is drawn is tried: as few times as still tell when the code is changed. `npm run bench:long`
 * tries all of them many times as often, with another seed.
 */
export const runs = (few: number): number => Math.round(few * Number(process.env['DUSK_RUNS'] ?? 1));
