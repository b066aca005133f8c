import type { MixtureDto, Needs, Operation } from '@dusk/wire';
import { kindOf, type OpOf, type RowKind, type RowOf, type Rows } from '@dusk/wire/kinds';
import { PILE_FIELDS } from '@dusk/wire/pileFields';
import { begun } from '@dusk/wire/plain';
import type { RowMaps } from './rows.ts';

/** A row as this window knows it, whatever its kind. */
interface AnyRow {
  readonly id: string;
  readonly [field: string]: unknown;
}

/** An operation's own fields. */
const without = (op: object, ...fields: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(op).filter(([field]) => !fields.includes(field)));

/** What a row begins with. */
interface Fresh {
  readonly version: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: null;
}
/** Kinds whose rows this window makes itself; the others are made by the studio from what it holds. */
type MadeHere = 'palettes' | 'paintings' | 'references' | 'samples' | 'piles';
type Making = { readonly [K in MadeHere]: (op: Needs<`${OpOf<K>}.add`>, fresh: Fresh, rows: RowMaps) => RowOf<K> };

/** A row that a change makes, as far as this window can tell before the studio has answered; every field of it. */
const MADE: Making = {
  palettes: ({ id, name, tubeIds }, fresh) => ({ ...fresh, id, name, tubeIds, lightsWhiteId: null, mixedDarks: false, guestIds: [] }),
  paintings: ({ id, title, paletteId, ground, groundOf }, fresh) => ({
    ...fresh,
    id,
    title,
    paletteId,
    ground: ground ?? '#a89b88',
    canvas: null,
    layer: 1,
    ceiling: null,
    groundOf: groundOf ?? null,
    habit: null,
    day: null,
    valueOnly: false,
    between: null,
    about: {},
    pileCount: 0,
  }),
  references: ({ id, paintingId, pictureId, name }, fresh) => ({
    ...fresh,
    id,
    paintingId,
    pictureId,
    name: name ?? '',
    width: 0,
    height: 0,
    ownWidth: 0,
    space: 'srgb',
    colours: '',
    view: {},
    source: '',
    passing: 'ask',
  }),
  samples: ({ id, paintingId, referenceId, outline, seen, paint, zone, thing, valueOnly, light }, fresh) => ({
    ...fresh,
    id,
    paintingId,
    referenceId: referenceId ?? null,
    outline: outline ?? null,
    seen,
    paint,
    zone: zone ?? '',
    thing: thing ?? '',
    valueOnly: valueOnly ?? false,
    light: light ?? '',
  }),
  piles: (op, fresh, rows) => ({
    ...fresh,
    id: op.id,
    paintingId: op.paintingId ?? null,
    remakeOfId: op.remakeOfId ?? null,
    cardId: op.cardId ?? null,
    name: op.name,
    target: op.target ?? null,
    sampleId: op.sampleId ?? null,
    purpose: op.purpose ?? {},
    ...begun(PILE_FIELDS, op),
    layer: op.layer ?? rows.paintings.get(op.paintingId ?? '')?.layer ?? 1,
    string: op.string ?? null,
    plan: op.plan as unknown as MixtureDto,
    ml: op.ml,
    // What it is meant to be: how near it comes the studio says.
    predicted: { lab: op.target?.lab ?? { L: 50, a: 0, b: 0 }, steadiness: 0, basis: 'typical' },
    stages: [],
    there: 0,
  }),
};
const isMadeHere = (kind: RowKind): kind is MadeHere => kind in MADE;

function made(kind: RowKind, op: Operation, at: string, rows: RowMaps): AnyRow | undefined {
  if (!op.do.endsWith('.add') || !isMadeHere(kind)) return undefined;
  const make = MADE[kind] as (op: Operation, fresh: Fresh, rows: RowMaps) => unknown;
  return make(op, { version: 0, createdAt: at, updatedAt: at, deletedAt: null }, rows) as AnyRow;
}

/** Rows as they will be once the studio has done what waits, as far as this window can tell. */
export function provisionally(ops: readonly Operation[], rows: RowMaps, at: string = new Date().toISOString()): Rows {
  const news = new Map<string, { kind: RowKind; row: AnyRow }>();
  const put = (kind: RowKind, row: AnyRow): void => void news.set(`${kind} ${row.id}`, { kind, row });
  for (const op of ops) {
    const kind = kindOf(op.do);
    const deed = op.do.split('.')[1];
    if (!kind) continue;
    const id = 'id' in op && typeof op.id === 'string' ? op.id : '1';
    const known = news.get(`${kind} ${id}`)?.row ?? (rows[kind] as unknown as ReadonlyMap<string, AnyRow>).get(id);
    const fresh = made(kind, op, at, rows);
    if (fresh) put(kind, fresh);
    else if (known && deed === 'change') {
      put(kind, { ...known, ...without(op, 'do', 'version') } as AnyRow);
    } else if (known && (deed === 'delete' || deed === 'restore'))
      put(kind, { ...known, deletedAt: deed === 'delete' ? at : null } as AnyRow);
  }
  const all: Record<string, AnyRow[]> = {};
  for (const { kind, row } of news.values()) (all[kind] ??= []).push(row);
  return all as Rows;
}
