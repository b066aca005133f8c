import { Area } from './areas.ts';
import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet } from './cards.ts';
import { Fold } from './folds.ts';
import { Change } from './change.ts';
import { Painting, Picture, PictureBytes, PictureCopy, Reference } from './paintings.ts';
import { Palette, PaletteTube } from './palettes.ts';
import { Pile, Sample } from './piles.ts';
import { Settings } from './settings.ts';
import { Sitting } from './sittings.ts';
import { Addition, Belief, Look, Reading, Sighting, Stage } from './stages.ts';
import { Tube, TubeState } from './tubes.ts';

export type { EvidenceWithLooks } from './stages.ts';
export type { LearntNumbers } from './tubes.ts';
export {
  Addition,
  Area,
  Belief,
  Bringing,
  Card,
  CardFile,
  CardFound,
  CardPlace,
  CardSet,
  Change,
  Fold,
  Look,
  Painting,
  Palette,
  PaletteTube,
  Picture,
  PictureBytes,
  PictureCopy,
  Pile,
  Reading,
  Reference,
  Sample,
  Settings,
  Sighting,
  Sitting,
  Stage,
  Tube,
  TubeState,
};

/** Tables that are no kind of row by themselves: what belongs to rows, and what the studio keeps for itself. */
export const OTHER_TABLES = [
  Addition,
  Belief,
  CardFile,
  CardFound,
  CardPlace,
  Change,
  Fold,
  Look,
  PaletteTube,
  Picture,
  PictureBytes,
  PictureCopy,
  Stage,
];
