import type { MixtureDto, Operation, PileDto, RowKind, Rows } from '@dusk/wire';
import type { RowMaps } from './rows.ts';

/** Rows that an operation of this name writes. */
export const KIND_OF: Readonly<Record<string, RowKind>> = {
  settings: 'settings',
  palette: 'palettes',
  painting: 'paintings',
  reference: 'references',
  sample: 'samples',
  pile: 'piles',
  card: 'cards',
  set: 'sets',
  bringing: 'bringings',
};

interface AnyRow {
  readonly id: string;
  readonly [field: string]: unknown;
}

/** An operation's own fields. */
const without = (op: Operation, ...fields: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(op).filter(([field]) => !fields.includes(field)));

/** A row that a change makes, as far as this window can tell before the studio has answered. */
function made(op: Operation, at: string, layerOf: (paintingId: string | null | undefined) => number): AnyRow | undefined {
  const fresh = { version: 0, createdAt: at, updatedAt: at, deletedAt: null };
  switch (op.do) {
    case 'palette.add':
      return { ...fresh, id: op.id, name: op.name, tubeIds: op.tubeIds } as AnyRow;
    case 'painting.add':
      return {
        ...fresh,
        id: op.id,
        title: op.title,
        paletteId: op.paletteId,
        ground: op.ground ?? '#a89b88',
        canvas: null,
        layer: 1,
        ceiling: null,
        pileCount: 0,
      } as AnyRow;
    case 'reference.add':
      return {
        ...fresh,
        id: op.id,
        paintingId: op.paintingId,
        pictureId: op.pictureId,
        name: op.name ?? '',
        width: 0,
        height: 0,
        ownWidth: 0,
        space: 'srgb',
        colours: '',
        view: {},
        source: '',
        passing: 'ask',
      };
    case 'sample.add':
      return { ...fresh, referenceId: null, outline: null, zone: '', thing: '', valueOnly: false, ...without(op, 'do'), id: op.id };
    case 'pile.add':
      return {
        ...fresh,
        id: op.id,
        paintingId: op.paintingId ?? null,
        remakeOfId: null,
        cardId: null,
        name: op.name,
        target: op.target ?? null,
        sampleId: op.sampleId ?? null,
        purpose: op.purpose ?? {},
        layer: op.layer ?? layerOf(op.paintingId),
        note: op.note ?? '',
        string: op.string ?? null,
        plan: op.plan as unknown as MixtureDto,
        ml: op.ml,
        // What it is meant to be: how near it comes the studio says.
        predicted: { lab: op.target?.lab ?? { L: 50, a: 0, b: 0 }, steadiness: 0, basis: 'typical' },
        stages: [],
        there: 0,
      } satisfies PileDto as unknown as AnyRow;
    default:
      return undefined;
  }
}

/** Rows as they will be once the studio has done what waits, as far as this window can tell. */
export function provisionally(ops: readonly Operation[], rows: RowMaps, at: string = new Date().toISOString()): Rows {
  const news = new Map<string, { kind: RowKind; row: AnyRow }>();
  const put = (kind: RowKind, row: AnyRow): void => void news.set(`${kind} ${row.id}`, { kind, row });
  for (const op of ops) {
    const [what, deed] = op.do.split('.') as [string, string];
    const kind = KIND_OF[what];
    if (!kind) continue;
    const id = 'id' in op && typeof op.id === 'string' ? op.id : '1';
    const known = news.get(`${kind} ${id}`)?.row ?? (rows[kind] as unknown as ReadonlyMap<string, AnyRow>).get(id);
    const fresh = made(op, at, (paintingId) => rows.paintings.get(paintingId ?? '')?.layer ?? 1);
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
