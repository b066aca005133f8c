import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import type { Change, Operation, Problem } from '@dusk/wire';
import { deleteDB, openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A change that is kept in this browser until the studio has answered it. */
export interface Waiting {
  /** Its place in the order in which things were done, in all windows of this browser. */
  readonly n: number;
  readonly change: Change;
  /** What it was, in a painter's words. */
  readonly says: string;
  readonly at: string;
  /** Of each operation that changes a row, the fields it writes as they stood when the hand changed them. */
  readonly was?: readonly (Readonly<Record<string, unknown>> | null)[];
  /** Places of operations on rows that earlier changes here wrote: their versions are those the studio answers with. */
  readonly follows: readonly number[];
  /** Why the studio refused it, or which refused change it rests on: it then waits for the painter. */
  readonly parked?: { readonly problem: Problem; readonly behind?: number };
}

interface Stored extends DBSchema {
  changes: { key: number; value: Omit<Waiting, 'n'> & { n?: number } };
  /** Pictures on their way, by the name that changes call them by until they have their own. */
  pictures: { key: string; value: { readonly file: File; readonly id?: string } };
  /** Versions that the studio answered, of rows that changes here wrote. */
  versions: { key: string; value: number };
}

/** A picture that has not gone to the studio yet is called so. */
const LOCAL = 'local:';
export const isLocal = (pictureId: string): boolean => pictureId.startsWith(LOCAL);
/** The picture that an operation speaks of and that has not gone yet. */
export const localPictureOf = (op: Operation): string | undefined =>
  'pictureId' in op && typeof op.pictureId === 'string' && isLocal(op.pictureId) ? op.pictureId : undefined;

const idOf = (op: Operation): string | undefined => ('id' in op && typeof op.id === 'string' ? op.id : undefined);
const hasVersion = (op: Operation): op is Operation & { version: number } => 'version' in op && typeof op.version === 'number';

/** Every id that a change speaks of, so that what rests on what is known. */
function idsIn(value: unknown, into: Set<string> = new Set()): Set<string> {
  if (typeof value === 'string' && value.length >= 30) into.add(value);
  else if (typeof value === 'object' && value !== null) Object.values(value).forEach((inner) => idsIn(inner, into));
  return into;
}
/** Ids that a change makes or writes. */
const written = ({ ops }: Change): string[] => ops.flatMap((op) => idOf(op) ?? []);
const rests = (change: Change, on: Change): boolean => {
  const mentioned = idsIn([change.ops, change.undoes ?? null]);
  return mentioned.has(on.id) || written(on).some((id) => mentioned.has(id));
};

/** Not by the browser's own, which a page that is not served securely has not. */
const sha256Of = async (file: File): Promise<string> => bytesToHex(sha256(new Uint8Array(await file.arrayBuffer())));

const NAME = 'dusk.queue';
const stored = (name: string): Promise<IDBPDatabase<Stored>> =>
  openDB<Stored>(name, 1, {
    upgrade(fresh) {
      fresh.createObjectStore('changes', { keyPath: 'n', autoIncrement: true });
      fresh.createObjectStore('pictures');
      fresh.createObjectStore('versions');
    },
  });
async function entries(
  db: IDBPDatabase<Stored>,
  store: 'pictures',
): Promise<(readonly [key: string, value: Stored['pictures']['value']])[]> {
  const keys = await db.getAllKeys(store);
  return Promise.all(keys.map(async (key) => [key, (await db.get(store, key))!] as const));
}

/** The queue of this browser, shared by its windows, over IndexedDB: it outlives a reload and a closed tab. */
export class Queue {
  private constructor(private readonly db: IDBPDatabase<Stored>) {}

  /** @param studio the one whose changes it keeps: each has a queue of its own */
  static async open(studio: string): Promise<Queue> {
    const queue = new Queue(await stored(`${NAME}.${studio}`));
    await queue.adopt();
    await queue.forget();
    return queue;
  }

  /** What waited before studios were told apart goes to the first that answers, as it would have then. */
  private async adopt(): Promise<void> {
    const names = (await indexedDB.databases?.()) ?? [];
    if (!names.some(({ name }) => name === NAME)) return;
    const old = await stored(NAME);
    for (const [key, value] of await entries(old, 'pictures')) await this.db.put('pictures', value, key);
    for (const item of await old.getAll('changes')) {
      // Its place is a new one here.
      delete item.n;
      await this.db.add('changes', item);
    }
    old.close();
    await deleteDB(NAME);
  }

  /** Versions that nothing rests on. */
  private async forget(): Promise<void> {
    const tx = this.db.transaction(['changes', 'versions'], 'readwrite');
    if ((await tx.objectStore('changes').count()) === 0) await tx.objectStore('versions').clear();
    await tx.done;
  }

  async all(): Promise<Waiting[]> {
    return (await this.db.getAll('changes')) as Waiting[];
  }

  /**
   * Puts a change last. Operations on rows that others before it write take their version from the studio's answer to those.
   * @param own places of operations that rest on changes which may have been answered already, unheard of by the hand
   */
  async add(change: Change, says: string, was: Waiting['was'] = [], own: Waiting['follows'] = []): Promise<Waiting> {
    const tx = this.db.transaction('changes', 'readwrite');
    const before = (await tx.store.getAll()) as Waiting[];
    const earlier = new Set(before.flatMap((one) => written(one.change)));
    const follows = change.ops.flatMap((op, i) => (hasVersion(op) && (own.includes(i) || earlier.has(idOf(op) ?? '')) ? [i] : []));
    const behind = before.find((one) => one.parked && rests(change, one.change));
    const item = {
      change,
      says,
      at: new Date().toISOString(),
      was,
      follows,
      ...(behind && { parked: { problem: behind.parked!.problem, behind: behind.n } }),
    };
    const n = await tx.store.add(item);
    await tx.done;
    return { ...item, n };
  }

  /** The next change that can go, with versions and pictures as the studio knows them; nothing where none is left. */
  async next(): Promise<Waiting | undefined> {
    const item = (await this.all()).find((one) => !one.parked);
    if (!item) return undefined;
    const ops = await Promise.all(
      item.change.ops.map(async (op, i) => {
        const answered = item.follows.includes(i) ? await this.db.get('versions', idOf(op)!) : undefined;
        // What was answered long ago is older than what the hand saw.
        const version = answered !== undefined && hasVersion(op) ? Math.max(answered, op.version) : undefined;
        const local = localPictureOf(op);
        const picture = local === undefined ? undefined : await this.db.get('pictures', local);
        return { ...op, ...(version !== undefined && { version }), ...(picture?.id && { pictureId: picture.id }) } as Operation;
      }),
    );
    return { ...item, change: { ...item.change, ops } };
  }

  /** Keeps a picture until it has gone to the studio. @returns what changes call it by until then */
  async addPicture(file: File): Promise<string> {
    const name = `${LOCAL}${await sha256Of(file)}`;
    if (!(await this.db.get('pictures', name))) await this.db.put('pictures', { file }, name);
    return name;
  }
  async picture(name: string): Promise<File | undefined> {
    return (await this.db.get('pictures', name))?.file;
  }
  async pictureIs(name: string, id: string): Promise<void> {
    const known = await this.db.get('pictures', name);
    if (known) await this.db.put('pictures', { ...known, id }, name);
  }

  /** A change that was answered leaves; the versions of its rows stay for those behind it. */
  async answered(item: Waiting, versions: ReadonlyMap<string, number>): Promise<void> {
    const tx = this.db.transaction(['changes', 'versions', 'pictures'], 'readwrite');
    await tx.objectStore('changes').delete(item.n);
    const left = await tx.objectStore('changes').count();
    // Versions stay: a change that is being kept this moment may rest on this one.
    if (left === 0) await tx.objectStore('pictures').clear();
    for (const [id, version] of versions) await tx.objectStore('versions').put(version, id);
    await tx.done;
  }

  /** A change that was refused waits for the painter, with all that rest on it. */
  async park({ n, change }: Waiting, problem: Problem): Promise<void> {
    const tx = this.db.transaction('changes', 'readwrite');
    const all = (await tx.store.getAll()) as Waiting[];
    const parked = [{ n, change }];
    for (const item of all) {
      if (item.n === n) await tx.store.put({ ...item, parked: { problem } });
      else if (item.n > n && !item.parked && parked.some((one) => rests(item.change, one.change))) {
        parked.push(item);
        await tx.store.put({ ...item, parked: { problem, behind: n } });
      }
    }
    await tx.done;
  }

  /**
   * What the painter decided about a change that was refused.
   * @param change sent instead, at its place; nothing lets go of it
   * @param versions of rows as they now are, for what rests on it
   */
  async decide({ n }: Waiting, change: Change | undefined, versions: ReadonlyMap<string, number> = new Map()): Promise<void> {
    const tx = this.db.transaction(['changes', 'versions'], 'readwrite');
    const changes = tx.objectStore('changes');
    const all = (await changes.getAll()) as Waiting[];
    for (const { parked, ...item } of all) {
      if (item.n === n) await (change ? changes.put({ ...item, change, follows: [] }) : changes.delete(n));
      else if (parked?.behind === n) await changes.put(item);
    }
    for (const [id, version] of versions) await tx.objectStore('versions').put(version, id);
    await tx.done;
  }

  async remove({ n }: Waiting): Promise<void> {
    await this.db.delete('changes', n);
  }
}
