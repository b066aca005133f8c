import type { AreaDto } from './areas.ts';
import type { BringingDto, CardDto, SetDto } from './cards.ts';
import type { DeviceDto } from './devices.ts';
import type { PaintingDto } from './paintings.ts';
import type { PaletteDto } from './palettes.ts';
import type { PileDto } from './piles.ts';
import type { ReadingDto } from './readings.ts';
import type { ReferenceDto, SampleDto } from './references.ts';
import type { SettingsDto } from './settings.ts';
import type { SittingDto } from './sittings.ts';
import type { SightingDto } from './stages.ts';
import type { StateDto } from './states.ts';
import type { TubeDto } from './tubes.ts';

/** What is so of a kind of row. */
interface About {
  /** How its operations begin, as `pile` of `pile.change`. */
  readonly op: string;
  /** Whether what is written may conflict; the file sees that a version grows by one each time. */
  readonly versioned: boolean;
  /** Whether it can be put away and brought back. */
  readonly putAway: boolean;
}

/** A kind of row. The row itself is a type alone. */
const kind =
  <Row extends { readonly id: string }>() =>
  <const A extends About>(about: A): A & { readonly row?: Row } =>
    about;

/**
 * Every kind of row, declared once, without decorators. What is written of it (`changes.ts`), how its rows are read and
 * its operations done (server, `studio/subjects.ts`), how it is shown before the studio has answered (page,
 * `studio/provisional.ts`) and what its fields are called (page, `waiting/wording.ts`) are tables over this one: what is
 * forgotten does not compile.
 */
export const KINDS = {
  settings: kind<SettingsDto>()({ op: 'settings', versioned: true, putAway: false }),
  tubes: kind<TubeDto>()({ op: 'tube', versioned: true, putAway: true }),
  states: kind<StateDto>()({ op: 'state', versioned: false, putAway: false }),
  palettes: kind<PaletteDto>()({ op: 'palette', versioned: true, putAway: true }),
  paintings: kind<PaintingDto>()({ op: 'painting', versioned: true, putAway: true }),
  references: kind<ReferenceDto>()({ op: 'reference', versioned: true, putAway: true }),
  samples: kind<SampleDto>()({ op: 'sample', versioned: true, putAway: true }),
  sightings: kind<SightingDto>()({ op: 'sighting', versioned: false, putAway: false }),
  readings: kind<ReadingDto>()({ op: 'reading', versioned: false, putAway: false }),
  sittings: kind<SittingDto>()({ op: 'sitting', versioned: true, putAway: true }),
  areas: kind<AreaDto>()({ op: 'area', versioned: true, putAway: true }),
  devices: kind<DeviceDto>()({ op: 'device', versioned: true, putAway: false }),
  piles: kind<PileDto>()({ op: 'pile', versioned: true, putAway: true }),
  cards: kind<CardDto>()({ op: 'card', versioned: true, putAway: true }),
  sets: kind<SetDto>()({ op: 'set', versioned: true, putAway: true }),
  bringings: kind<BringingDto>()({ op: 'bringing', versioned: true, putAway: true }),
};

export type RowKind = keyof typeof KINDS;
/** A row of a kind. */
export type RowOf<K extends RowKind> = NonNullable<(typeof KINDS)[K]['row']>;
/** How operations on a kind begin. */
export type OpOf<K extends RowKind> = (typeof KINDS)[K]['op'];
/** Kinds whose rows can be put away. */
export type PuttingAway = { [K in RowKind]: (typeof KINDS)[K]['putAway'] extends true ? K : never }[RowKind];

/** Rows by kind, as they now are; one that was put away says so in `deletedAt`. */
export type Rows = { readonly [K in RowKind]?: readonly RowOf<K>[] };

export const ROW_KINDS = Object.keys(KINDS) as readonly RowKind[];

/** The kind of row that an operation writes, by its name; nothing for what is done with piles and seen of them. */
export const kindOf = (operation: string): RowKind | undefined => ROW_KINDS.find((one) => operation.startsWith(`${KINDS[one].op}.`));
