import type { Command } from '../command.ts';
import { withOwnTubes } from '../ownTubes.ts';
import { colour } from './colour.ts';
import { correct } from './correct.ts';
import { fit } from './fit.ts';
import { layers } from './layers.ts';
import { mix } from './mix.ts';
import { path } from './path.ts';
import { place } from './place.ts';
import { recall } from './recall.ts';
import { reach } from './reach.ts';
import { rederive } from './rederive.ts';
import { solve } from './solve.ts';
import { string } from './string.ts';

/** Every command of `dusk`, in the order of the work. */
export const COMMANDS: readonly Command[] = [colour, mix, solve, path, correct, string, place, recall, rederive, fit, reach, layers].map(
  withOwnTubes,
);
