import { Area } from './areas.ts';
import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet } from './cards.ts';
import { Fold } from './folds.ts';
import { Change } from './change.ts';
import { Painting, Picture, PictureBytes, PictureCopy, Reference } from './paintings.ts';
import { Palette, PaletteTube } from './palettes.ts';
import { Pile, Sample } from './piles.ts';
import { Settings } from './settings.ts';
import { Device, Sitting } from './sittings.ts';
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
  Device,
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
  Area,
  Device,
  Sitting,
  Stage,
  Addition,
  Sighting,
  Look,
  Reading,
  Belief,
  Fold,
  Settings,
];
