import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet } from './cards.ts';
import { Fold } from './folds.ts';
import { Change } from './change.ts';
import { Painting, Picture, PictureBytes, PictureCopy, Reference } from './paintings.ts';
import { Palette, PaletteTube } from './palettes.ts';
import { Pile, Sample } from './piles.ts';
import { Settings } from './settings.ts';
import { Addition, Belief, Look, Sighting, Stage } from './stages.ts';
import { Tube, TubeState } from './tubes.ts';

export type { EvidenceWithLooks } from './stages.ts';
export type { LearntNumbers } from './tubes.ts';
export {
  Addition,
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
  Reference,
  Sample,
  Settings,
  Sighting,
  Stage,
  Tube,
  TubeState,
};

export const ENTITIES = [
  Change,
  Tube,
  TubeState,
  Palette,
  PaletteTube,
  Painting,
  Picture,
  PictureBytes,
  PictureCopy,
  Reference,
  Sample,
  Pile,
  CardFile,
  Bringing,
  Card,
  CardFound,
  CardSet,
  CardPlace,
  Stage,
  Addition,
  Sighting,
  Look,
  Belief,
  Fold,
  Settings,
];
