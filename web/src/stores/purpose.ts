import type { Needs, PurposeDto } from '@dusk/wire';

/** Parts of something; nothing given takes a part away. */
export type Part<T> = { readonly [K in keyof T]?: T[K] | undefined };

/** What is said, without what is not. */
export const said = <T extends object>(all: Part<T>): T =>
  Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)) as T;

/** What a pile is for, with some of it said otherwise, as it is sent. */
export const purposeWith = (purpose: PurposeDto, part: Part<PurposeDto>): NonNullable<Needs<'pile.change'>['purpose']> =>
  said<PurposeDto>({ ...purpose, ...part }) as NonNullable<Needs<'pile.change'>['purpose']>;
