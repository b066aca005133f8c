import { show } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import type { Waiting } from '../studio/queue.ts';
import type { RowMaps } from '../studio/rows.ts';
import { fieldOf } from './wording.ts';

/** One side of a field: in words, and as a colour where it is one. */
export interface Side {
  readonly says: string;
  readonly css?: string;
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

function sideOf(op: Operation, field: string, value: unknown, rows: RowMaps): Side {
  if (value === undefined || value === null) return { says: 'nothing' };
  const known = fieldOf(op.do, field);
  if (!known) return { says: JSON.stringify(value) };
  const colour = known.colour?.(value);
  return { says: known.says(value, rows), ...(colour && { css: show(colour).css }) };
}

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
  return fieldsOf(op).map(([field, mine]) => ({
    field: fieldOf(op.do, field)?.name ?? field,
    mine: sideOf(op, field, mine, rows),
    theirs: sideOf(op, field, current[field], rows),
  }));
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
      fieldsOf(op).flatMap(([field, mine]) => {
        const letters = fieldOf(op.do, field)?.letters;
        return which === 'both' && letters && typeof mine === 'string'
          ? [[field, `${String(current[field])} / ${mine}`.slice(0, letters)]]
          : [];
      }),
    );
    return { ...one, version: current.version, ...beside } as Operation;
  });
}
