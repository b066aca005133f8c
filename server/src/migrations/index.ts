import { FirstLight1700000000000 } from './1700000000000-FirstLight.ts';
import { PilesThatRemember1764000000000 } from './1764000000000-PilesThatRemember.ts';
import { KnifeAndDulling1764300000000 } from './1764300000000-KnifeAndDulling.ts';
import { Copies1764350000000 } from './1764350000000-Copies.ts';
import { PicturesOfTheirOwn1764400000000 } from './1764400000000-PicturesOfTheirOwn.ts';
import { Kin1764500000000 } from './1764500000000-Kin.ts';
import { Cards1764600000000 } from './1764600000000-Cards.ts';
import { CardsFound1764700000000 } from './1764700000000-CardsFound.ts';
import { StudioOfItsOwn1764800000000 } from './1764800000000-StudioOfItsOwn.ts';
import { Measuring1764900000000 } from './1764900000000-Measuring.ts';
import { ConfirmedLooks1765000000000 } from './1765000000000-ConfirmedLooks.ts';
import { Folds1765100000000 } from './1765100000000-Folds.ts';
import { VersionsOfCards1765200000000 } from './1765200000000-VersionsOfCards.ts';

/** In the order in which they run; a landed one is never changed. */
export const MIGRATIONS = [
  FirstLight1700000000000,
  PilesThatRemember1764000000000,
  KnifeAndDulling1764300000000,
  Copies1764350000000,
  PicturesOfTheirOwn1764400000000,
  Kin1764500000000,
  Cards1764600000000,
  CardsFound1764700000000,
  StudioOfItsOwn1764800000000,
  Measuring1764900000000,
  ConfirmedLooks1765000000000,
  Folds1765100000000,
  VersionsOfCards1765200000000,
];
