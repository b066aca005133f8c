import { show } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import type { Waiting } from '../studio/queue.ts';
import type { RowMaps } from '../studio/rows.ts';
import { fieldOf } from './wording.ts';

/** One side of a field: in words, and as a colour, a drawing or a picture where it is one. */
export interface Side {
  readonly says: string;
  readonly css?: string;
  /** Corners in shares, x and y in turn. */
  readonly drawn?: readonly (readonly number[])[];
  /** A picture's id. */
  readonly picture?: string;
}
/** One field of a change that met a newer row: what was typed, and what stands there now. */
export interface Difference {
  readonly field: string;
  readonly mine: Side;
  readonly theirs: Side;
}

type Fields = Readonly<Record<string, unknown>>;
interface Row extends Fields {
  readonly id: string;
  readonly version: number;
}
type Versioned = Operation & { readonly version: number };

const currentOf = ({ parked }: Waiting): Row | undefined => parked?.problem.current as Row | undefined;

/** The operation of a change that met the newer row. */
function metBy(item: Waiting): Versioned | undefined {
  const current = currentOf(item);
  if (!current) return undefined;
  const ops = item.change.ops as readonly Versioned[];
  return ops.find((op) => 'version' in op && (op.do === 'settings.change' || ('id' in op && op.id === current.id)));
}

/** What an operation says beside its name, its row and that row's version. */
const fieldsOf = (op: Operation): (readonly [field: string, value: unknown])[] =>
  Object.entries(op).filter(([field]) => !['do', 'id', 'version'].includes(field));

type Known = NonNullable<ReturnType<typeof fieldOf>>;
function sideOf(known: Known | undefined, value: unknown, rows: RowMaps): Side {
  if (value === undefined || value === null) return { says: 'nothing' };
  if (!known) return { says: JSON.stringify(value) };
  const colour = known.colour?.(value);
  const drawn = known.drawn?.(value);
  const picture = known.picture?.(value);
  return { says: known.says(value, rows), ...(colour && { css: show(colour).css }), ...(drawn && { drawn }), ...(picture && { picture }) };
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(inOrder(one)) === JSON.stringify(inOrder(other));
/** Plain data with its keys in one order, and nothing for what is not there. */
function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value ?? null;
  const entries = Object.entries(value).filter(([, inner]) => inner !== undefined && inner !== null);
  return Object.fromEntries(entries.sort(([one], [other]) => one.localeCompare(other)).map(([key, inner]) => [key, inOrder(inner)]));
}

/** The first place in which two values differ, on each side. */
function leaves(mine: unknown, theirs: unknown): readonly [mine: string, theirs: string] {
  const isDeep = (value: unknown): value is Fields => typeof value === 'object' && value !== null;
  if (!isDeep(mine) || !isDeep(theirs))
    return [mine, theirs].map((value) => (isDeep(value) ? 'more' : String(value ?? 'nothing'))) as never;
  const key = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].find((one) => !isSame(mine[one], theirs[one]));
  return key === undefined ? ['', ''] : leaves(mine[key], theirs[key]);
}
/** Both sides of a field: what differs never reads, or looks, alike. */
function bothSides(field: string, known: Known | undefined, mine: unknown, theirs: unknown, rows: RowMaps): Difference {
  const [one, other] = [sideOf(known, mine, rows), sideOf(known, theirs, rows)];
  const looksAlike = one.says === other.says && one.css === other.css && isSame(one.drawn, other.drawn) && one.picture === other.picture;
  if (!looksAlike || isSame(mine, theirs)) return { field, mine: one, theirs: other };
  const [here, there] = leaves(mine, theirs);
  return { field, mine: { ...one, says: `${one.says} (${here})` }, theirs: { ...other, says: `${other.says} (${there})` } };
}

/** What stood in a field when the hand changed it; nothing where that was not kept. */
function wasIn(item: Waiting, op: Operation, field: string): unknown {
  return item.was?.[item.change.ops.indexOf(op)]?.[field];
}
/** The parts of a field that the hand changed: all that differ from what stands there, where what it was is not known. */
function touched(was: unknown, mine: Fields, theirs: Fields): string[] {
  const before = (was ?? theirs) as Fields;
  return [...new Set([...Object.keys(before), ...Object.keys(mine)])].filter((part) => !isSame(before[part], mine[part]));
}
const asFields = (value: unknown): Fields => (value ?? {}) as Fields;

/** Put away or brought back here, changed there. */
const WHOLE: Readonly<Record<string, readonly [mine: string, theirs: string]>> = {
  delete: ['put away', 'kept, and changed since'],
  restore: ['brought back', 'put away, and changed since'],
};

/** What differs between a refused change and the row it met, every field of it; nothing where it met none. */
export function differencesOf(item: Waiting, rows: RowMaps): Difference[] {
  const op = metBy(item);
  const current = currentOf(item);
  if (!op || !current) return [];
  const whole = WHOLE[op.do.split('.')[1]!];
  if (whole) {
    const name = String(current['name'] ?? current['title'] ?? 'it');
    return [{ field: name, mine: { says: whole[0] }, theirs: { says: whole[1] } }];
  }
  return fieldsOf(op).flatMap(([field, mine]) => {
    const known = fieldOf(op.do, field);
    const name = known?.name ?? field;
    const theirs = current[field];
    if (typeof known?.parts !== 'object') return [bothSides(name, known, mine, theirs, rows)];
    const { parts } = known;
    const [here, there] = [asFields(mine), asFields(theirs)];
    return touched(wasIn(item, op, field), here, there)
      .filter((part) => !isSame(here[part], there[part]))
      .map((part) => bothSides(parts[part]?.name ?? part, parts[part] as Known | undefined, here[part], there[part], rows));
  });
}

/** Whether both sides are texts that can stand beside one another. */
export function isText(item: Waiting): boolean {
  const op = metBy(item);
  const fields = op ? fieldsOf(op) : [];
  return fields.length > 0 && fields.every(([field]) => fieldOf(op!.do, field)?.letters !== undefined);
}

/** What rows of a change are not asked about: they go on once this one is decided. */
export const besides = (item: Waiting): number => (metBy(item) ? item.change.ops.length - 1 : 0);

/**
 * The operations of a refused change, made to stand beside the row as it is now: as they were, texts with what stands
 * there, or without the one that met it.
 * @returns nothing where nothing is left to be done
 */
export function kept(item: Waiting, which: 'mine' | 'theirs' | 'both'): Operation[] | undefined {
  const op = metBy(item);
  const current = currentOf(item);
  if (which === 'theirs') {
    const rest = op ? item.change.ops.filter((one) => one !== op) : [];
    return rest.length > 0 ? rest : undefined;
  }
  return item.change.ops.map((one) => {
    if (one !== op || !current) return one;
    const beside = Object.fromEntries(
      fieldsOf(op).flatMap(([field, mine]): [string, unknown][] => {
        const known = fieldOf(op.do, field);
        if (which === 'both' && known?.letters && typeof mine === 'string')
          return [[field, sideBySide(String(current[field]), mine, known.letters)]];
        if (!known?.parts) return [];
        const [here, there] = [asFields(mine), asFields(current[field])];
        const own = touched(wasIn(item, op, field), here, there);
        const parts = Object.entries(there).filter(([part]) => !own.includes(part));
        const kept = own.flatMap((part) => (here[part] === undefined || here[part] === null ? [] : [[part, here[part]] as const]));
        return [[field, Object.fromEntries([...parts, ...kept])]];
      }),
    );
    return { ...one, version: current.version, ...beside } as Operation;
  });
}

/** Two texts beside one another, within so many letters: each gives way by its end. */
function sideBySide(theirs: string, mine: string, letters: number): string {
  const whole = `${theirs} / ${mine}`;
  if (whole.length <= letters) return whole;
  const room = letters - ' / '.length;
  const half = Math.floor(room / 2);
  const cut = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);
  const first = cut(theirs, Math.max(half, room - mine.length));
  return `${first} / ${cut(mine, room - first.length)}`;
}
