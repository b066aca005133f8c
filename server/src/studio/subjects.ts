import type { Needs, OperationName, OpOf, RowKind, RowOf } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { addBringing, bringingRows, deleteBringing, restoreBringing } from '../cards/bringing.ts';
import { addCard, cardRows, changeCard, deleteCard, restoreCard } from '../cards/cards.ts';
import { addSet, changeSet, deleteSet, restoreSet, setRows } from '../cards/cardSets.ts';
import type { Doing } from '../change/work.ts';
import {
  Area,
  Bringing,
  Card,
  CardSet,
  Painting,
  Palette,
  Pile,
  Reading,
  Reference,
  Sample,
  Settings,
  Sighting,
  Sitting,
  Tube,
  TubeState,
} from '../entities/index.ts';
import { addPainting, changePainting, deletePainting, paintingRows, restorePainting } from '../paintings/paintings.ts';
import {
  addReference,
  addSample,
  changeReference,
  changeSample,
  deleteReference,
  deleteSample,
  referenceRows,
  restoreReference,
  restoreSample,
  sampleRows,
} from '../paintings/references.ts';
import { addArea, areaRows, changeArea, deleteArea, restoreArea } from '../paintings/areas.ts';
import { addPalette, changePalette, deletePalette, paletteRows, restorePalette } from '../palettes/palettes.ts';
import { addReading, readingRows, restoreReading, withdrawReading } from '../piles/readings.ts';
import { addSighting, sightingRows } from '../piles/looks.ts';
import { addPile, changePile, deletePile, pileRows, restorePile } from '../piles/piles.ts';
import { addSitting, changeSitting, deleteSitting, restoreSitting, sittingRows } from '../deeds/sittings.ts';
import { changeDevice, Device, deviceRows } from '../settings/devices.ts';
import { changeSettings, settingsRows } from '../settings/settings.ts';
import { addOwnTube, changeTube, deleteTube, restoreTube } from '../tubes/changing.ts';
import { stateRows, tubeRows } from '../tubes/tubes.ts';

/** What is done with a kind of row, by the names of its operations after the dot. */
type DeedsOf<K extends RowKind> = {
  readonly [N in OperationName as N extends `${OpOf<K>}.${infer Deed}` ? Deed : never]: Doing<Needs<N>>;
};
type Subject<K extends RowKind> = {
  /** What it lies in. */
  readonly table: new () => object;
  readonly rows: (db: EntityManager, ids: readonly string[]) => Promise<readonly RowOf<K>[]>;
} & DeedsOf<K>;

/** Each kind of row: the table it lies in, how rows are read by their ids, and how its operations are done. */
export const SUBJECTS: { readonly [K in RowKind]: Subject<K> } = {
  settings: { table: Settings, rows: (db) => settingsRows(db), change: changeSettings },
  tubes: { table: Tube, rows: tubeRows, add: addOwnTube, change: changeTube, delete: deleteTube, restore: restoreTube },
  states: { table: TubeState, rows: stateRows },
  palettes: { table: Palette, rows: paletteRows, add: addPalette, change: changePalette, delete: deletePalette, restore: restorePalette },
  paintings: {
    table: Painting,
    rows: paintingRows,
    add: addPainting,
    change: changePainting,
    delete: deletePainting,
    restore: restorePainting,
  },
  references: {
    table: Reference,
    rows: referenceRows,
    add: addReference,
    change: changeReference,
    delete: deleteReference,
    restore: restoreReference,
  },
  samples: {
    table: Sample,
    rows: (db, ids) => sampleRows(db, { ids }),
    add: addSample,
    change: changeSample,
    delete: deleteSample,
    restore: restoreSample,
  },
  sightings: { table: Sighting, rows: (db, ids) => sightingRows(db, { ids }), add: addSighting },
  readings: {
    table: Reading,
    rows: (db, ids) => readingRows(db, { ids }),
    add: addReading,
    withdraw: withdrawReading,
    restore: restoreReading,
  },
  sittings: {
    table: Sitting,
    rows: (db, ids) => sittingRows(db, { ids }),
    add: addSitting,
    change: changeSitting,
    delete: deleteSitting,
    restore: restoreSitting,
  },
  areas: {
    table: Area,
    rows: (db, ids) => areaRows(db, { ids }),
    add: addArea,
    change: changeArea,
    delete: deleteArea,
    restore: restoreArea,
  },
  devices: { table: Device, rows: deviceRows, change: changeDevice },
  piles: {
    table: Pile,
    rows: (db, ids) => pileRows(db, { ids }),
    add: addPile,
    change: changePile,
    delete: deletePile,
    restore: restorePile,
  },
  cards: { table: Card, rows: cardRows, add: addCard, change: changeCard, delete: deleteCard, restore: restoreCard },
  sets: { table: CardSet, rows: setRows, add: addSet, change: changeSet, delete: deleteSet, restore: restoreSet },
  bringings: { table: Bringing, rows: bringingRows, add: addBringing, delete: deleteBringing, restore: restoreBringing },
};
