import type { ClassConstructor } from 'class-transformer';
import { Id, Version } from './fields.ts';
import { KINDS, type OpOf, type PuttingAway, type RowKind, type Rows } from './kinds.ts';
import { AreaChange, NewArea, NewAreaDeed } from './areas.ts';
import { CardChange, NewBringing, NewCard, NewSet, SetChange } from './cards.ts';
import { DeviceChange } from './devices.ts';
import { NewPainting, PaintingChange } from './paintings.ts';
import { NewPalette, PaletteChange } from './palettes.ts';
import { NewPile, PileChange } from './piles.ts';
import { NewReading } from './readings.ts';
import { NewReference, NewSample, ReferenceChange, SampleChange } from './references.ts';
import { SettingsChange } from './settings.ts';
import { NewSitting, SittingChange } from './sittings.ts';
import { NewTube, TubeChange } from './tubes.ts';
import { ById, NewLook, NewSighting, NewStage } from './stages.ts';

/** Marks a row as put away, or brings it back. */
export class ByVersion {
  @Id('What is changed')
  id!: string;

  @Version()
  version!: number;
}

/** What each kind of row is written by: made, and changed. */
const WRITTEN_BY = {
  settings: { change: SettingsChange },
  tubes: { add: NewTube, change: TubeChange },
  palettes: { add: NewPalette, change: PaletteChange },
  paintings: { add: NewPainting, change: PaintingChange },
  references: { add: NewReference, change: ReferenceChange },
  samples: { add: NewSample, change: SampleChange },
  sightings: { add: NewSighting },
  readings: { add: NewReading },
  sittings: { add: NewSitting, change: SittingChange },
  areas: { add: NewArea, change: AreaChange },
  devices: { change: DeviceChange },
  piles: { add: NewPile, change: PileChange },
  cards: { add: NewCard, change: CardChange },
  sets: { add: NewSet, change: SetChange },
  bringings: { add: NewBringing },
} as const satisfies { readonly [K in PuttingAway]: Writes } & { readonly [K in RowKind]?: Writes };

interface Writes {
  readonly add?: ClassConstructor<object>;
  readonly change?: ClassConstructor<object>;
}

type Written = typeof WRITTEN_BY;
type Union<T> = T[keyof T];
/** Entries of a union of tables, as one table. */
type AsOne<U> = (U extends unknown ? (table: U) => void : never) extends (table: infer All) => void ? All : never;
type OfKinds = AsOne<
  Union<{
    [K in keyof Written]: { readonly [A in keyof Written[K] & string as `${OpOf<K>}.${A}`]: Written[K][A] };
  }>
> & { readonly [K in PuttingAway as `${OpOf<K>}.${'delete' | 'restore'}`]: typeof ByVersion };

function ofKinds(): OfKinds {
  const table: Record<string, ClassConstructor<object>> = {};
  for (const [kind, writes] of Object.entries(WRITTEN_BY) as [RowKind, Writes][]) {
    const { op, putAway } = KINDS[kind];
    for (const [deed, needs] of Object.entries(writes) as [string, ClassConstructor<object>][]) table[`${op}.${deed}`] = needs;
    if (putAway) table[`${op}.delete`] = table[`${op}.restore`] = ByVersion;
  }
  return table as OfKinds;
}

/** What is done with piles and areas and seen of them: added, and taken back. A deed of an area is withdrawn as a stage of a pile is. */
const DEEDS = {
  'stage.add': NewStage,
  'stage.withdraw': ById,
  'stage.restore': ById,
  'deed.add': NewAreaDeed,
  'look.add': NewLook,
  'look.withdraw': ById,
  'look.restore': ById,
  'reading.withdraw': ById,
  'reading.restore': ById,
  'belief.refuse': ById,
  'belief.accept': ById,
} as const satisfies Record<string, ClassConstructor<object>>;

/** Everything that can be written, by name: what it needs, one class each. */
export const OPERATIONS: OfKinds & typeof DEEDS = { ...ofKinds(), ...DEEDS };

export type OperationName = keyof typeof OPERATIONS;
/** A wire class as plain data: an instance is made and checked on the other side. */
export type Sent<T> = { [K in keyof T]: T[K] };
/** What an operation needs, as plain data. */
export type Needs<N extends OperationName> = Sent<InstanceType<(typeof OPERATIONS)[N]>>;
/** An operation as it is sent: its name in `do`, and what it needs. */
export type Operation = { [N in OperationName]: { readonly do: N } & Needs<N> }[OperationName];

/** A change as it is sent to `POST /api/changes`: operations that are done together or not at all. */
export interface Change {
  /** Made by the page: a change that is known is answered again, not done again. */
  readonly id: string;
  /** The window or program it comes from. */
  readonly device: string;
  readonly ops: readonly Operation[];
  /** The change this one undoes; it then has no operations of its own. */
  readonly undoes?: string;
}

/** The answer to a change and to every read: rows as they are at a place in the change log. */
export interface Answer {
  readonly seq: number;
  /** The change at that place: a log that has another there is of an older copy, or of another studio. */
  readonly log?: string;
  readonly rows: Rows;
  /** How far the clock of whoever did it runs ahead, ms: it was kept with the studio's own time. */
  readonly ahead?: number;
}
