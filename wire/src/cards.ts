import { SET_KINDS, SIGHTS, type Basis, type Dab, type Handling, type Mixture, type SetKind, type Sight, type StandIn } from '@dusk/core';
import { ArrayUnique, IsIn, IsUUID, Matches, ValidateIf } from 'class-validator';
import { LabSent } from './colours.ts';
import { Id, ListOf, Moment, Note, Nullable, ObjectOf, ObjectsOf, Optional, Version, Within, Words } from './fields.ts';
import { MOST_IN_SET } from './limits.ts';
import { MixtureSent } from './mixtures.ts';
import type { LabDto } from './written.ts';

/** A mixture that is no pile: of tubes alone. */
export class CardRecipeSent {
  @ObjectOf('A card has a recipe', () => MixtureSent)
  plan!: MixtureSent;

  @Within('The millilitres of a card', 0.1, 500)
  ml!: number;
}

/**
 * A card is made of a pile as it stands: recipe, tubes, colours and words are taken from it, and stay.
 * Or of a recipe that was never a pile, as a palette's.
 */
export class NewCard {
  @Id('A card')
  id!: string;

  @ValidateIf(({ pileId, of }: NewCard) => pileId !== undefined || of === undefined)
  @Id('The pile a card is made of')
  pileId?: string;

  @Optional()
  @ObjectOf('A card is made of a pile or of a recipe', () => CardRecipeSent)
  of?: CardRecipeSent;

  @ValidateIf(({ name, of }: NewCard) => name !== undefined || of !== undefined)
  @Words('The name of a card', 120)
  name?: string;
}

/** A real dab that was laid on a card, as it was read. */
export class DabSent {
  @ObjectOf('A dab is a colour', () => LabSent)
  lab!: LabSent;

  @IsIn(SIGHTS, { message: `A dab is read by ${SIGHTS.join(', ')}` })
  sight!: Sight;

  @Moment()
  at!: string;
}

/** One's own tube that stands for one of a card's. */
export class StandSent {
  @Words('A tube of a card', 80)
  key!: string;

  @Id('A tube')
  tubeId!: string;
}

/** What may be said of a card later; what it was reckoned with never changes. */
export class CardChange {
  @Id('A card')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a card', 120)
  name?: string;

  @Optional()
  @Note('A note', 2000)
  note?: string;

  /** Null takes it off again. */
  @Nullable()
  @ObjectOf('A dab is a colour', () => DabSent)
  dab?: DabSent | null;

  @Optional()
  @ObjectsOf('Tubes that stand for others', 0, 30, () => StandSent)
  stands?: StandSent[];
}

const CARDS_OF_A_SET = 'The cards of a set';

/** Cards that are kept together, in their order. */
export class NewSet {
  @Id('A set')
  id!: string;

  @Words('The name of a set', 120)
  name!: string;

  @IsIn(SET_KINDS, { message: `A set is ${SET_KINDS.join(', ')}` })
  kind!: SetKind;

  @Optional()
  @Note('A note', 2000)
  note?: string;

  @ListOf(CARDS_OF_A_SET, 1, MOST_IN_SET)
  @ArrayUnique({ message: 'A set holds each card once' })
  @IsUUID(undefined, { each: true, message: 'Each card is named by its id' })
  cardIds!: string[];
}

export class SetChange {
  @Id('A set')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a set', 120)
  name?: string;

  @Optional()
  @Note('A note', 2000)
  note?: string;

  @Optional()
  @ListOf(CARDS_OF_A_SET, 1, MOST_IN_SET)
  @ArrayUnique({ message: 'A set holds each card once' })
  @IsUUID(undefined, { each: true, message: 'Each card is named by its id' })
  cardIds?: string[];
}

/** The name of a file by what it holds. */
export const FILE_ID = /^[0-9a-f]{64}$/;

/** Which of one's own tubes is to stand for a tube of a file. */
export class FileStandSent {
  @Matches(FILE_ID, { message: 'A tube of a file is named by what it is' })
  tube!: string;

  @Id('A tube')
  tubeId!: string;
}

/** Everything new in a file of cards, brought in as one step. */
export class NewBringing {
  @Id('A bringing')
  id!: string;

  @Matches(FILE_ID, { message: 'A file is named by what it holds' })
  fileId!: string;

  @Optional()
  @ObjectsOf('Tubes that stand for others', 0, 400, () => FileStandSent)
  stands?: FileStandSent[];
}

/** A tube as a card was reckoned with. */
export interface CardTubeDto extends Handling {
  /** What the recipe calls it. */
  readonly key: string;
  /** The tube of this studio that it is; nothing on a card that came from elsewhere, or was made before this was written down. */
  readonly tubeId?: string;
  readonly name: string;
  readonly pigment: string;
  readonly colourIndex: string;
  readonly caution: string;
  readonly basis: Basis;
  readonly K: readonly number[];
  readonly S: readonly number[];
}

/** What a card holds; written once. */
export interface CardBody {
  /** Of its own tubes by their keys, and of earlier heaps. */
  readonly recipe: Mixture;
  readonly tubes: readonly CardTubeDto[];
  readonly ml: number;
  readonly target: LabDto | null;
  readonly predicted: LabDto;
  readonly seen: LabDto | null;
  readonly thing: string;
  readonly zone: string;
  readonly painting: string;
  readonly light: string;
  readonly film: string;
  readonly medium: string;
  /** What it was truly made of, where the recipe is the same measured anew. */
  readonly made?: string;
  readonly basis: Basis;
  readonly steadiness: number;
  readonly within: number;
}

export interface DabDto extends Omit<Dab, 'lab'> {
  readonly lab: LabDto;
}

/** One's own tubes that were chosen to stand for a card's, by the card's keys. */
export type StandsDto = Readonly<Record<string, string>>;

export interface CardDto extends CardBody {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly note: string;
  readonly pileId: string | null;
  readonly dab: DabDto | null;
  readonly stands: StandsDto;
  /** With which file it came, where it is another's. */
  readonly bringingId: string | null;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}

/** A pile that was mixed by a card. */
export interface UseDto {
  readonly pileId: string;
  readonly name: string;
  readonly paintingId: string | null;
  readonly painting: string;
  readonly at: string;
}

/** A card, and where it was used. */
export interface CardStory {
  readonly seq: number;
  readonly card: CardDto;
  readonly used: readonly UseDto[];
}

export interface SetDto {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly kind: SetKind;
  readonly note: string;
  readonly cardIds: readonly string[];
  readonly createdAt: string;
  readonly deletedAt: string | null;
}

/** A file of cards that was brought in; put away, all that came with it is too. */
export interface BringingDto {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly cards: number;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}

/** A tube of a file, and which of one's own would stand for it. */
export interface FileTubeDto {
  /** By what it is. */
  readonly tube: string;
  readonly name: string;
  readonly pigment: string;
  readonly colourIndex: string;
  readonly lab: LabDto;
  /** In how many cards. */
  readonly cards: number;
  readonly standsIn: { readonly tubeId: string; readonly by: StandIn['by']; readonly difference: number } | null;
}

/** What bringing a file in would do. */
export interface FilePreview {
  readonly fileId: string;
  readonly name: string;
  /** New here, there already, put away and to come back, written otherwise here (both stay). */
  readonly fresh: number;
  readonly known: number;
  readonly back: number;
  readonly both: number;
  readonly sets: number;
  readonly palettes: number;
  readonly tubes: readonly FileTubeDto[];
  /** Of the first few new ones: their names and colours. */
  readonly shown: readonly { readonly name: string; readonly lab: LabDto }[];
  readonly notes: readonly string[];
}
