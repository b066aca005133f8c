import type { Handling, Mixture } from '@dusk/core';
import { Id, Note, Optional, Version, Words } from './fields.ts';
import type { LabDto } from './written.ts';

/** A card is made of a pile as it stands: recipe, tubes, colours and words are taken from it, and stay. */
export class NewCard {
  @Id('A card')
  id!: string;

  @Id('The pile a card is made of')
  pileId!: string;

  @Optional()
  @Words('The name of a card', 120)
  name?: string;
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
}

/** A tube as a card was reckoned with. */
export interface CardTubeDto extends Handling {
  /** What the recipe calls it. */
  readonly key: string;
  readonly name: string;
  readonly pigment: string;
  readonly colourIndex: string;
  readonly caution: string;
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
}

export interface CardDto extends CardBody {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly note: string;
  readonly pileId: string | null;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}
