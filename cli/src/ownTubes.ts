import { BANDS, CATALOGUE, CraftError, pigmentFromInput, type Basis, type PaintCurves, type Pigment } from '@dusk/core';
import { fieldsOf, type Command } from './command.ts';

/** A tube as a command takes it: of the catalogue, or one's own. */
export type Known = PaintCurves & Partial<Pick<Pigment, 'drying' | 'caution'>> & { readonly basis?: Basis };

/** One's own tubes of the input that is being answered. */
let own: ReadonlyMap<string, Known> = new Map();
/** What tells inputs with other tubes apart. */
let key = '';

const MOST_OWN = 100;
function curveFrom(tube: string, which: 'K' | 'S', given: unknown): Float64Array {
  const isCurve =
    Array.isArray(given) && given.length === BANDS && given.every((v) => typeof v === 'number' && Number.isFinite(v) && v >= 0);
  if (!isCurve) throw new CraftError('pigment', `${which} of ${JSON.stringify(tube)} must be ${BANDS} numbers from 380 nm, none below 0.`);
  const curve = Float64Array.from(given as number[]);
  if (which === 'S' && curve.some((v) => v <= 0))
    throw new CraftError('pigment', `S of ${JSON.stringify(tube)} must lie above 0 in every band.`);
  return curve;
}

function tubesFrom(input: unknown): Map<string, Known> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('pigment', 'tubes must be an object of names and curves, as {"my sienna":{"K":[…],"S":[…]}}.');
  const entries = Object.entries(input);
  if (entries.length > MOST_OWN) throw new CraftError('pigment', `At most ${MOST_OWN} tubes of one’s own; these are ${entries.length}.`);
  return new Map(
    entries.map(([name, given]) => {
      if (CATALOGUE.has(name))
        throw new CraftError('pigment', `${JSON.stringify(name)} is a tube of the catalogue; give your own another name.`);
      // What dusk fit answers may be handed on as it is.
      const { K, S } = fieldsOf(given, ['K', 'S', 'strength', 'shift_nm', 'residuals', 'strangeness', 'strange', 'basis']);
      return [name, { K: curveFrom(name, 'K', K), S: curveFrom(name, 'S', S), basis: 'fitted' as const }];
    }),
  );
}

/** A tube by its name: one's own, or of the catalogue. @throws CraftError for one that is neither */
export const tubeOf = (name: unknown): Known => {
  const mine = typeof name === 'string' ? own.get(name) : undefined;
  if (mine) return mine;
  // What a pigment’s curves rest on is told in words there.
  const { K, S, drying, caution } = pigmentFromInput(name);
  return { K, S, drying, caution };
};
export const isOwn = (name: string): boolean => own.has(name);
export const ownKey = (): string => key;

/** A command that also takes `tubes`: one's own, beside those of the catalogue. */
export const withOwnTubes = (command: Command): Command => ({
  ...command,
  run: (input) => {
    if (typeof input !== 'object' || input === null || Array.isArray(input) || !('tubes' in input)) return command.run(input);
    const { tubes, ...rest } = input as { readonly tubes: unknown };
    own = tubesFrom(tubes);
    key = JSON.stringify(tubes);
    try {
      return command.run(rest);
    } finally {
      own = new Map();
      key = '';
    }
  },
});
