import { KINDS, ROW_KINDS, type Needs, type Operation, type OperationName, type OpOf, type RowKind } from '@dusk/wire';
import type { Doing, Work } from '../change/work.ts';
import { acceptBelief, addLook, refuseBelief, restoreLook, withdrawLook } from '../piles/looks.ts';
import { addAreaDeed, addStage, restoreStage, withdrawStage } from '../piles/stages.ts';
import { SUBJECTS } from './subjects.ts';

/** What is done with piles and seen of them: added, and taken back. */
const DEEDS: { readonly [N in Exclude<OperationName, `${OpOf<RowKind>}.${string}`>]: Doing<Needs<N>> } = {
  'stage.add': addStage,
  'stage.withdraw': withdrawStage,
  'stage.restore': restoreStage,
  'deed.add': addAreaDeed,
  'look.add': addLook,
  'look.withdraw': withdrawLook,
  'look.restore': restoreLook,
  'belief.refuse': refuseBelief,
  'belief.accept': acceptBelief,
};

/** How each operation of the wire's table is done. */
const DOING = new Map<string, Doing<unknown>>(Object.entries(DEEDS) as [string, Doing<unknown>][]);
for (const kind of ROW_KINDS) {
  for (const [deed, doing] of Object.entries(SUBJECTS[kind]) as [string, Doing<unknown>][])
    if (deed !== 'table' && deed !== 'rows') DOING.set(`${KINDS[kind].op}.${deed}`, doing);
}

/** Does one operation; answers with what undoes it. */
export function doOperation(work: Work, { do: name, ...needs }: Operation): Promise<readonly Operation[]> {
  return DOING.get(name)!(work, needs);
}
