/**
 * A plain field of a row, declared once without decorators: what a painter calls it, what it may be, what it begins as.
 * What checks it (`PlainFields` in `fields.ts`), its types, its words in a conflict and its beginning follow.
 */
export type Plain =
  | { readonly is: 'text'; readonly called: string; readonly longest: number; readonly begins: string }
  | { readonly is: 'whole'; readonly called: string; readonly least: number; readonly most: number; readonly begins: number };

type ValueOf<F extends Plain> = F['is'] extends 'text' ? string : number;
/** Values of such fields. */
export type PlainValues<T extends Readonly<Record<string, Plain>>> = { readonly [K in keyof T]: ValueOf<T[K]> };
/** The same as they are sent, where any may be left out. */
export type PlainSent<T extends Readonly<Record<string, Plain>>> = { [K in keyof T]?: ValueOf<T[K]> };

/** Fields as a new row has them: as they were sent, else as they begin. */
export const begun = <T extends Readonly<Record<string, Plain>>>(fields: T, sent: PlainSent<T>): PlainValues<T> =>
  Object.fromEntries(Object.entries(fields).map(([name, { begins }]) => [name, sent[name] ?? begins])) as PlainValues<T>;
