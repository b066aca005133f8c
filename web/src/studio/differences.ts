import type { Operation } from '@dusk/wire';
import type { Waiting } from './queue.ts';
import type { RowMaps } from './rows.ts';

/** One field of a change that met a newer row: what was typed, and what stands there now. */
export interface Difference {
  readonly field: string;
  readonly mine: string;
  readonly theirs: string;
}

type Fields = Readonly<Record<string, unknown>>;
interface Row extends Fields {
  readonly id: string;
  readonly version: number;
}

const NAMES: Readonly<Record<string, string>> = {
  name: 'name',
  title: 'title',
  ml: 'size, ml',
  ground: 'ground',
  paletteId: 'palette',
  tubeIds: 'tubes',
  plan: 'recipe',
  target: 'colour wanted',
  valueScale: 'value scale',
  warmBlue: 'warm blue',
  surround: 'grey around colours',
  room: 'room',
  knife: 'knife',
  dulling: 'dulling',
};
const TEXTS = ['name', 'title'];
const LONGEST: Readonly<Record<string, number>> = { name: 80, title: 120 };

const currentOf = ({ parked }: Waiting): Row | undefined => parked?.problem.current as Row | undefined;

/** The operation of a change that met the newer row. */
function metBy(item: Waiting): (Operation & { readonly version: number }) | undefined {
  const current = currentOf(item);
  if (!current) return undefined;
  const ops = item.change.ops as readonly (Operation & { readonly version: number })[];
  return ops.find((op) => 'version' in op && (op.do === 'settings.change' || ('id' in op && op.id === current.id)));
}

/** What an operation says beside its name, its row and that row's version. */
const partOf = (op: Fields): Fields => Object.fromEntries(Object.entries(op).filter(([field]) => !['do', 'id', 'version'].includes(field)));

function inWords(field: string, value: unknown, rows: RowMaps): string {
  if (value === undefined || value === null) return 'nothing';
  if (field === 'paletteId') return rows.palettes.get(String(value))?.name ?? 'another palette';
  if (field === 'tubeIds') return (value as string[]).map((id) => rows.tubes.get(id)?.name ?? 'a tube').join(', ');
  if (field === 'plan') {
    const heaps = (value as { heaps: { ingredients: { tube?: string; parts: number }[] }[] }).heaps;
    return heaps
      .at(-1)!
      .ingredients.map(({ tube, parts }) => `${parts} ${tube ? (rows.tubes.get(tube)?.name ?? 'a tube') : 'of a heap'}`)
      .join(', ');
  }
  if (field === 'target') return `value and colour L ${Math.round((value as { lab: { L: number } }).lab.L)}`;
  return String(value as string | number);
}

/** What differs between a refused change and the row it met; nothing where it met none. */
export function differencesOf(item: Waiting, rows: RowMaps): Difference[] {
  const op = metBy(item);
  const current = currentOf(item);
  if (!op || !current) return [];
  return Object.entries(partOf(op as unknown as Fields))
    .filter(([field]) => field in NAMES)
    .map(([field, mine]) => ({ field: NAMES[field]!, mine: inWords(field, mine, rows), theirs: inWords(field, current[field], rows) }));
}

/** Whether both sides are texts that can stand beside one another. */
export function isText(item: Waiting): boolean {
  const op = metBy(item);
  const fields = op ? Object.keys(partOf(op as unknown as Fields)) : [];
  return fields.length > 0 && fields.every((field) => TEXTS.includes(field));
}

/** The operations of a refused change, made to stand on the row as it is now: as they were, or texts with what stands there. */
export function kept(item: Waiting, which: 'mine' | 'both'): Operation[] {
  const op = metBy(item);
  const current = currentOf(item);
  return item.change.ops.map((one) => {
    if (one !== op || !current) return one;
    const beside = Object.fromEntries(
      TEXTS.flatMap((field) => {
        const mine = (op as unknown as Fields)[field];
        return which === 'both' && typeof mine === 'string' ? [[field, `${String(current[field])} / ${mine}`.slice(0, LONGEST[field])]] : [];
      }),
    );
    return { ...one, version: current.version, ...beside } as Operation;
  });
}
