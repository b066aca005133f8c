import type { Answer, Change as ChangeSent, Operation, RowKind, Rows } from '@dusk/wire';
import { statesSpokenOf } from '@dusk/wire/records';
import { MoreThan, type EntityManager } from 'typeorm';
import { Change } from '../entities/index.ts';
import { notFound, ProblemError } from '../refusing/problems.ts';
import { relearn } from '../beliefs/beliefs.ts';
import { teachTubes } from '../beliefs/teaching.ts';
import { doOperation } from './operations.ts';
import { SUBJECTS } from './subjects.ts';
import { newestSeq } from '../change/newestSeq.ts';
import type { Studio } from '../change/studio.ts';
import { heardOf } from '../settings/devices.ts';
import { stateRows } from '../tubes/tubes.ts';
import { workOn } from '../change/work.ts';
import { inOurTime } from './ourTime.ts';

export async function rowsOf(db: EntityManager, touched: Partial<Record<RowKind, readonly string[]>>): Promise<Rows> {
  const rows: { [K in RowKind]?: readonly unknown[] } = {};
  for (const [kind, ids] of Object.entries(touched) as [RowKind, readonly string[]][]) rows[kind] = await SUBJECTS[kind].rows(db, ids);
  const { piles } = rows as Rows;
  // Piles never come without the curves they speak of.
  if (piles) rows.states = await stateRows(db, statesSpokenOf(piles));
  return rows as Rows;
}

/** The change at a place in the log; nothing where it has not come to that. */
export const logAt = async (db: EntityManager, seq: number): Promise<string | null> =>
  (await db.findOne(Change, { where: { seq }, select: { id: true } }))?.id ?? null;

const sameOperations = (one: readonly Operation[], other: readonly Operation[]): boolean => JSON.stringify(one) === JSON.stringify(other);

type Versioned = Operation & { readonly version: number };
const isVersioned = (op: Operation): op is Versioned => 'version' in op && typeof op.version === 'number';
/** The row that an operation writes; settings are one row without an id. */
const rowOf = (op: Operation): string => `${op.do.split('.')[0]} ${'id' in op ? String(op.id) : ''}`;

/**
 * What undoes a change, from rows as they are now: whatever was done to them since and taken back again
 * is as if it had not been. What else was done to a row since stands, and the version says so.
 */
async function undoing(db: EntityManager, { seq, inverse }: Change): Promise<readonly Operation[]> {
  if (!inverse.some(isVersioned)) return inverse;
  const later = await db.find(Change, { where: { seq: MoreThan(seq) }, order: { seq: 'ASC' } });
  const undone = new Map(later.flatMap((change) => (change.undoes === null ? [] : [[change.undoes, change.seq] as const])));
  /** Whether a change is not taken back, or was done again after it was. */
  const holds = (change: number): boolean => !(undone.has(change) && holds(undone.get(change)!));
  return inverse.map((op) => {
    if (!isVersioned(op)) return op;
    const writes = (change: Change): number => change.ops.filter((one) => isVersioned(one) && rowOf(one) === rowOf(op)).length;
    const since = later.filter((change) => writes(change) > 0);
    const seqs = new Set(since.map((change) => change.seq));
    const stands = since.some((change) => holds(change.seq) && !(change.undoes !== null && seqs.has(change.undoes)));
    return stands ? op : ({ ...op, version: op.version + since.reduce((sum, change) => sum + writes(change), 0) } as Operation);
  });
}

/** The operations a change asks for: its own, or those that undo another. */
async function asked(db: EntityManager, { ops, undoes }: ChangeSent): Promise<{ ops: readonly Operation[]; undoes: number | null }> {
  if (undoes === undefined) return { ops, undoes: null };
  const change = await db.findOneBy(Change, { id: undoes });
  if (!change) throw notFound('change');
  if (await db.existsBy(Change, { undoes: change.seq })) throw new ProblemError(409, 'Undone already', 'This was undone already.');
  if (change.inverse.length === 0) throw new ProblemError(409, 'Not to be undone', 'There is nothing in this that could be undone.');
  return { ops: await undoing(db, change), undoes: change.seq };
}

/** What the file itself refuses: an id that is taken, or something that holds always. */
function asRefusal(cause: unknown): unknown {
  const { code } = cause as { code?: unknown };
  if (code === 'SQLITE_CONSTRAINT_PRIMARYKEY' || code === 'SQLITE_CONSTRAINT_UNIQUE')
    return new ProblemError(409, 'There already', 'Something of this id is in the studio already. Nothing of this change was kept.');
  if (code === 'SQLITE_CONSTRAINT_TRIGGER')
    return new ProblemError(
      409,
      'Against the rules',
      `The studio refuses this: ${(cause as Error).message}. Nothing of this change was kept.`,
    );
  return cause;
}

/** A row that a change wrote more than once is taken back step by step: each step finds the version that the one before it leaves. */
function inOrder(inverse: Operation[]): void {
  const versions = new Map<string, number>();
  inverse.forEach((op, i) => {
    if (!isVersioned(op)) return;
    const before = versions.get(rowOf(op));
    const version = before === undefined ? op.version : before + 1;
    inverse[i] = { ...op, version } as Operation;
    versions.set(rowOf(op), version);
  });
}

/** Does the operations of a change in one go; answers with what undoes them, last first. */
async function done(db: EntityManager, at: string, ops: readonly Operation[]) {
  const { work, touched, toRelearn, toTeach } = workOn(db, at);
  const inverse: Operation[] = [];
  for (const op of ops)
    inverse.unshift(
      ...(await doOperation(work, op).catch((cause: unknown) => {
        throw asRefusal(cause);
      })),
    );
  const isTaught = await teachTubes(work, toTeach);
  const { isBehind } = toRelearn.size > 0 || isTaught ? await relearn(work, toRelearn) : { isBehind: false };
  inOrder(inverse);
  return { inverse, touched: touched(), isBehind };
}

/** What a change is answered with: its place in the log, the rows it touched as they are now, and how far the sender's clock runs ahead. */
const answerTo = async (
  db: EntityManager,
  { seq, id, touched }: Pick<Change, 'seq' | 'id' | 'touched'>,
  ahead: number,
): Promise<Answer> => ({
  seq,
  log: id,
  rows: await rowsOf(db, touched),
  ...(ahead > 0 && { ahead }),
});

/** A change that is known is answered again, with the rows as they are now. */
async function answerAgain(db: EntityManager, sent: ChangeSent, change: Change): Promise<Answer> {
  const undone = change.undoes === null ? undefined : (await db.findOneByOrFail(Change, { seq: change.undoes })).id;
  if (undone !== sent.undoes || (undone === undefined && !sameOperations(sent.ops, change.ops)))
    throw new ProblemError(409, 'Another change', 'A change of this name was made already, and it was another one.');
  return answerTo(db, change, inOurTime(sent.ops, change.at).ahead);
}

/** The answer to a change, and whether it was made just now. */
export interface Made {
  readonly answer: Answer;
  readonly isNew: boolean;
}

/**
 * Makes a change: all its operations in one transaction, one row in the log. The one way in which
 * anything in a studio is written by a painter.
 */
export async function makeChange({ change, look, folding, now }: Studio, sent: ChangeSent): Promise<Made> {
  let isBehind = false;
  try {
    const made = await change(async (db): Promise<Made> => {
      const known = await db.findOneBy(Change, { id: sent.id });
      if (known) return { answer: await answerAgain(db, sent, known), isNew: false };
      const { ops, undoes } = await asked(db, sent);
      const at = now();
      // What is taken back is put back as it was recorded.
      const told = undoes === null ? inOurTime(ops, at) : { ops, ahead: 0 };
      const { inverse, touched, ...did } = await done(db, at, told.ops);
      isBehind = did.isBehind;
      const seq = (await newestSeq(db)) + 1;
      await heardOf(db, sent.device, at);
      await db.insert(Change, { seq, id: sent.id, device: sent.device, at, undoes, ops, inverse, touched });
      return { answer: await answerTo(db, { seq, id: sent.id, touched }, told.ahead), isNew: true };
    });
    // What takes long to reckon is gone on with once this is answered.
    if (isBehind) folding.goOn();
    return made;
  } catch (cause) {
    // A commit that failed may be in the file all the same: only the reopened file says.
    const known = await look((db) => db.findOneBy(Change, { id: sent.id })).catch(() => null);
    if (!known || cause instanceof ProblemError) throw cause;
    return { answer: await look((db) => answerAgain(db, sent, known)), isNew: true };
  }
}
