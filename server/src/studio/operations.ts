import type { Needs, Operation, OperationName } from '@dusk/wire';
import { acceptBelief, addLook, addSighting, refuseBelief, restoreLook, withdrawLook } from '../piles/looks.ts';
import { addBringing, deleteBringing, restoreBringing } from '../cards/bringing.ts';
import { addSet, changeSet, deleteSet, restoreSet } from '../cards/cardSets.ts';
import { addCard, changeCard, deleteCard, restoreCard } from '../cards/cards.ts';
import { addPainting, changePainting, deletePainting, restorePainting } from '../paintings/paintings.ts';
import { addPalette, changePalette, deletePalette, restorePalette } from '../palettes/palettes.ts';
import { addPile, changePile, deletePile, restorePile } from '../piles/piles.ts';
import {
  addReference,
  addSample,
  changeReference,
  changeSample,
  deleteReference,
  deleteSample,
  restoreReference,
  restoreSample,
} from '../paintings/references.ts';
import { changeSettings } from '../settings/settings.ts';
import { addStage, restoreStage, withdrawStage } from '../piles/stages.ts';
import type { Doing, Work } from '../change/work.ts';

/** How each operation of the wire's table is done. */
const DOING: { readonly [N in OperationName]: Doing<Needs<N>> } = {
  'settings.change': changeSettings,
  'palette.add': addPalette,
  'palette.change': changePalette,
  'palette.delete': deletePalette,
  'palette.restore': restorePalette,
  'painting.add': addPainting,
  'painting.change': changePainting,
  'painting.delete': deletePainting,
  'painting.restore': restorePainting,
  'reference.add': addReference,
  'reference.change': changeReference,
  'reference.delete': deleteReference,
  'reference.restore': restoreReference,
  'sample.add': addSample,
  'sample.change': changeSample,
  'sample.delete': deleteSample,
  'sample.restore': restoreSample,
  'pile.add': addPile,
  'pile.change': changePile,
  'pile.delete': deletePile,
  'pile.restore': restorePile,
  'card.add': addCard,
  'card.change': changeCard,
  'card.delete': deleteCard,
  'card.restore': restoreCard,
  'set.add': addSet,
  'set.change': changeSet,
  'set.delete': deleteSet,
  'set.restore': restoreSet,
  'bringing.add': addBringing,
  'bringing.delete': deleteBringing,
  'bringing.restore': restoreBringing,
  'stage.add': addStage,
  'stage.withdraw': withdrawStage,
  'stage.restore': restoreStage,
  'sighting.add': addSighting,
  'look.add': addLook,
  'look.withdraw': withdrawLook,
  'look.restore': restoreLook,
  'belief.refuse': refuseBelief,
  'belief.accept': acceptBelief,
};

/** Does one operation; answers with what undoes it. */
export function doOperation(work: Work, { do: name, ...needs }: Operation): Promise<readonly Operation[]> {
  const doing = DOING[name] as Doing<unknown>;
  return doing(work, needs);
}
