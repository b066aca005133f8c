import type { ClassConstructor } from 'class-transformer';
import { Id, Version } from './fields.ts';
import type { BringingDto, CardDto, SetDto } from './cards.ts';
import { CardChange, NewBringing, NewCard, NewSet, SetChange } from './cards.ts';
import type { PaintingDto } from './paintings.ts';
import { NewPainting, PaintingChange } from './paintings.ts';
import type { PaletteDto } from './palettes.ts';
import { NewPalette, PaletteChange } from './palettes.ts';
import type { PileDto } from './piles.ts';
import { NewPile, PileChange } from './piles.ts';
import type { ReferenceDto, SampleDto } from './references.ts';
import { NewReference, NewSample, ReferenceChange, SampleChange } from './references.ts';
import type { SettingsDto } from './settings.ts';
import { SettingsChange } from './settings.ts';
import type { SightingDto } from './stages.ts';
import { ById, NewLook, NewSighting, NewStage } from './stages.ts';
import type { StateDto, TubeDto } from './tubes.ts';

/** Marks a row as put away, or brings it back. */
export class ByVersion {
  @Id('What is changed')
  id!: string;

  @Version()
  version!: number;
}

/** Everything that can be written, by name: what it needs, one class each. */
export const OPERATIONS = {
  'settings.change': SettingsChange,
  'palette.add': NewPalette,
  'palette.change': PaletteChange,
  'palette.delete': ByVersion,
  'palette.restore': ByVersion,
  'painting.add': NewPainting,
  'painting.change': PaintingChange,
  'painting.delete': ByVersion,
  'painting.restore': ByVersion,
  'reference.add': NewReference,
  'reference.change': ReferenceChange,
  'reference.delete': ByVersion,
  'reference.restore': ByVersion,
  'sample.add': NewSample,
  'sample.change': SampleChange,
  'sample.delete': ByVersion,
  'sample.restore': ByVersion,
  'pile.add': NewPile,
  'pile.change': PileChange,
  'pile.delete': ByVersion,
  'pile.restore': ByVersion,
  'card.add': NewCard,
  'card.change': CardChange,
  'card.delete': ByVersion,
  'card.restore': ByVersion,
  'set.add': NewSet,
  'set.change': SetChange,
  'set.delete': ByVersion,
  'set.restore': ByVersion,
  'bringing.add': NewBringing,
  'bringing.delete': ByVersion,
  'bringing.restore': ByVersion,
  'stage.add': NewStage,
  'stage.withdraw': ById,
  'stage.restore': ById,
  'sighting.add': NewSighting,
  'look.add': NewLook,
  'look.withdraw': ById,
  'look.restore': ById,
  'belief.refuse': ById,
  'belief.accept': ById,
} as const satisfies Record<string, ClassConstructor<object>>;

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

/** Rows by kind, as they now are; one that was put away says so in `deletedAt`. */
export interface Rows {
  readonly settings?: readonly SettingsDto[];
  readonly tubes?: readonly TubeDto[];
  /** States that piles speak of beside those that come with their tubes. */
  readonly states?: readonly StateDto[];
  readonly palettes?: readonly PaletteDto[];
  readonly paintings?: readonly PaintingDto[];
  readonly references?: readonly ReferenceDto[];
  readonly samples?: readonly SampleDto[];
  readonly sightings?: readonly SightingDto[];
  readonly piles?: readonly PileDto[];
  readonly cards?: readonly CardDto[];
  readonly sets?: readonly SetDto[];
  readonly bringings?: readonly BringingDto[];
}
export type RowKind = keyof Rows;

/** The answer to a change and to every read: rows as they are at a place in the change log. */
export interface Answer {
  readonly seq: number;
  /** The change at that place: a log that has another there is of an older copy, or of another studio. */
  readonly log?: string;
  readonly rows: Rows;
}
