import { Equals, IsInt, IsNumber, Max, Min, ValidateIf } from 'class-validator';
import { Id, ListOf, Note, ObjectsOf, Optional, Within } from './fields.ts';
import { MIXTURE_VERSION } from './limits.ts';

const LEAST_PARTS = 0.0001;
const MOST_PARTS = 1000;

/** An ingredient of a heap: a tube, a pile, or an earlier heap, and how much of it. */
export class IngredientSent {
  @Optional()
  @Id('A tube')
  tube?: string;

  @Optional()
  @Id('A state of a tube')
  state?: string;

  @Optional()
  @Id('A pile')
  pile?: string;

  @Optional()
  @Id('A stage of a pile')
  stage?: string;

  @ValidateIf(({ tube, pile, heap }: IngredientSent) => heap !== undefined || (tube === undefined && pile === undefined))
  @IsInt({ message: 'An ingredient is a tube, a pile, or an earlier heap by its place' })
  @Min(0, { message: 'A heap is named by its place, from 0' })
  @Max(11, { message: 'A heap is named by its place, up to 11' })
  heap?: number;

  @Within('Parts', LEAST_PARTS, MOST_PARTS)
  parts!: number;

  @Optional()
  @ListOf('The ends of a range', 2, 2)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'The ends of a range are numbers' })
  @Min(LEAST_PARTS / 100, { each: true, message: 'A range starts above 0' })
  @Max(MOST_PARTS * 100, { each: true, message: 'A range ends below 100000' })
  range?: readonly [number, number];

  @Optional()
  @Note('What was said', 40)
  said?: string;
}

export class HeapSent {
  @ObjectsOf('The ingredients of a heap', 1, 24, () => IngredientSent)
  ingredients!: readonly IngredientSent[];
}

/** The Mixture of `@dusk/core`, mirrored once. */
export class MixtureSent {
  @Equals(MIXTURE_VERSION, { message: `This product writes mixtures of form ${MIXTURE_VERSION}` })
  form!: number;

  @ObjectsOf('The heaps of a mixture', 1, 12, () => HeapSent)
  heaps!: readonly HeapSent[];
}
