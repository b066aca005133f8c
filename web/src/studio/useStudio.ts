import type { Answer, Change, Looked, Operation, Problem, ReadAnswers, ReadName } from '@dusk/wire';
import { kindOf } from '@dusk/wire/kinds';
import { useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useNotices } from '../floor/notices.ts';
import { ApiError } from '../floor/apiError.ts';
import { counted } from '../floor/words.ts';
import { read, sendChange, sendLooked } from './api.ts';
import { hear } from './hear.ts';
import { provisionally } from './provisional.ts';
import { isLocal, localPictureOf, type Waiting } from './queue.ts';
import { applied, emptyRows, letGoOf } from './rows.ts';
import { Sender, type Outcome } from './sender.ts';
import { newId } from '../floor/ids.ts';

/** A change of this window that can be undone, and what it was, in a painter's words. */
interface Undoable {
  readonly paintingId?: string;
  readonly id: string;
  readonly says: string;
}

const MOST_UNDOABLE = 60;
/** So many paintings stay in a window's memory. */
const MOST_PAINTINGS = 3;
const TRY_AGAIN_MS = 10_000;
const DAY_MS = 86_400_000;
/** An id of this browser, so that its changes can be told apart from others'. */
const device = useLocalStorage('dusk.device', () => newId());

/** The version a hand was laid on, of a row that was changed elsewhere since. */
export const before = (version: number, meanwhile: boolean): number => (meanwhile ? Math.max(1, version - 1) : version);

/** The one way to the studio: changes out, rows in, and what was done last taken back. */
export const useStudio = defineStore('studio', () => {
  const rows = emptyRows();
  const heard = new Map<string, number>();
  const seq = ref(0);
  const done = useLocalStorage<Undoable[]>('dusk.done', []);
  const undone = ref<Undoable[]>([]);
  const notices = useNotices();
  const undoable = computed(() => done.value.at(-1));
  const redoable = computed(() => undone.value.at(-1));
  /** Whether the studio answers; until it does, changes wait in this browser. */
  const away = ref(false);
  /** Changes of this browser that the studio has not answered, or has refused. */
  const waiting = shallowRef<readonly Waiting[]>([]);
  const refused = computed(() => waiting.value.filter((item) => item.parked && item.parked.behind === undefined));

  let hasLoaded!: () => void;
  const loaded = new Promise<void>((resolve) => (hasLoaded = resolve));

  /** The change at the place that this window has come to, where that is known. */
  let log: string | undefined;
  function apply(answer: Answer): void {
    liftAhead();
    applied(rows, heard, answer);
    layAhead();
    if (answer.seq < seq.value) return;
    log = answer.log ?? (answer.seq === seq.value ? log : undefined);
    seq.value = answer.seq;
  }

  /**
   * Another studio answers at this address, or an older copy of this one was put in its place: what this
   * window shows is none of it. It begins anew; what waits here waits for the studio it was done in.
   */
  function beginAnew(): void {
    location.reload();
  }

  /** Paintings that are older than the first page of them, page by page. */
  async function loadOlder(next: string | undefined): Promise<void> {
    for (let after = next; after !== undefined;) {
      const page = await read('paintings', after);
      apply(page);
      after = page.next;
    }
  }

  /** Reads rows and takes them in. */
  async function load<N extends 'studio' | 'painting' | 'sets' | 'tube' | 'log' | 'sittings'>(
    name: N,
    id?: string,
  ): Promise<ReadAnswers[N]> {
    try {
      const answer = await read(name, id);
      if (name === 'studio') isFrom((answer as ReadAnswers['studio']).studio);
      apply(answer);
      if (name === 'studio') await loadOlder((answer as ReadAnswers['studio']).next);
      if (name === 'painting') opened(id!);
      return answer;
    } finally {
      hasLoaded();
    }
  }

  /** Paintings whose rows are here, the newest opened first. */
  let recent: readonly string[] = [];
  function opened(id: string): void {
    recent = [id, ...recent.filter((other) => other !== id)];
    // What waits may speak of any of them.
    if (recent.length <= MOST_PAINTINGS || waiting.value.length > 0) return;
    recent = recent.slice(0, MOST_PAINTINGS);
    letGoOf(rows, heard, new Set(recent));
  }

  /** Everything this window shows, heard of again. */
  async function reload(): Promise<void> {
    await Promise.all([load('studio'), ...recent.map((id) => load('painting', id).catch(() => undefined))]).catch(() => undefined);
  }

  /**
   * Changes that are shown before the studio has answered, oldest first, laid over the rows as they were heard
   * of: what is done next is done upon them.
   */
  const shownAhead = new Map<string, Change>();
  /** Rows that something is laid over, as they were heard of. */
  const under = new Map<string, { readonly kind: keyof typeof rows; readonly id: string; readonly row: { id: string } | undefined }>();
  const rowsOf = (kind: keyof typeof rows) => rows[kind] as Map<string, { id: string }>;
  function liftAhead(): void {
    for (const { kind, id, row } of under.values())
      if (row) rowsOf(kind).set(id, row);
      else rowsOf(kind).delete(id);
    under.clear();
  }
  function layAhead(): void {
    for (const { ops } of shownAhead.values())
      for (const [kind, list] of Object.entries(provisionally(ops, rows)) as [keyof typeof rows, readonly { id: string }[]][])
        for (const row of list) {
          const key = `${kind} ${row.id}`;
          if (!under.has(key)) under.set(key, { kind, id: row.id, row: rowsOf(kind).get(row.id) });
          rowsOf(kind).set(row.id, row);
        }
  }
  function showAhead(change: Change): void {
    liftAhead();
    shownAhead.set(change.id, change);
    layAhead();
  }
  function showNoLonger(id: string): void {
    if (!shownAhead.has(id)) return;
    liftAhead();
    shownAhead.delete(id);
    layAhead();
  }

  function heardOf({ id, outcome }: { readonly id: string; readonly outcome: Outcome }): void {
    away.value = outcome.is === 'waiting';
    if (outcome.is === 'answered') {
      shownAhead.delete(id);
      apply(outcome.answer);
    } else if (outcome.is === 'refused') {
      showNoLonger(id);
      void reload();
    }
  }

  /** Which studio this window is of, as far as this browser knows: it is asked for before there is a queue. */
  const studioId = useLocalStorage('dusk.studio', '');
  let isKnown!: () => void;
  const known = new Promise<void>((resolve) => (isKnown = resolve));
  if (studioId.value !== '') isKnown();
  function isFrom(studio: string): void {
    const was = studioId.value;
    if (was === studio) return;
    studioId.value = studio;
    isKnown();
    if (was !== '') beginAnew();
  }

  let sender: Sender | undefined;
  async function look(): Promise<void> {
    const before = waiting.value.length;
    waiting.value = (await sender?.queue.all()) ?? [];
    if (before > 1 && waiting.value.length === 0 && !away.value) notices.saved('All that waited is in the studio now.');
  }
  // A disk that was full may have room again.
  useEventListener(window, 'online', () => void sender?.go());
  useIntervalFn(() => void (waiting.value.some((item) => !item.parked) && sender?.go()), TRY_AGAIN_MS);
  // A browser that keeps nothing (a private window) sends at once, or not at all.
  const opening = known
    .then(() => Sender.open(studioId.value, heardOf, () => void look()))
    .then(
      (opened) => {
        sender = opened;
        void look().then(async () => {
          await loaded;
          // What was left waiting when the page was left.
          for (const { change, parked } of waiting.value) if (!parked) showAhead(change);
          await opened.go();
        });
      },
      () => undefined,
    );

  /** How the picture is looked at in another browser, as was told last: windows of this one share what they keep. */
  const lookedElsewhere = shallowRef<Looked>();
  /** Tells it of this window; what does not arrive is told again by the next look. */
  const tellLooked = (now: Omit<Looked, 'device'>): void =>
    void sendLooked({ ...now, device: device.value }, studioId.value).catch(() => undefined);

  hear(
    () => seq.value,
    {
      change: apply,
      looked: (now) => void (now.device !== device.value && (lookedElsewhere.value = now)),
      reload: () => void reload(),
      here: (here) => {
        isFrom(here.studio);
        if (here.seq === seq.value && log !== undefined && here.log !== log) beginAnew();
        if (away.value) notices.over();
        away.value = false;
        void sender?.go();
      },
      away: () => (away.value = true),
    },
    loaded,
  );

  const unkept = async (change: Change): Promise<Outcome> => {
    try {
      const answer = await sendChange(change);
      return { is: 'answered', answer };
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause;
      return { is: 'refused', problem: cause.problem };
    }
  };

  /**
   * Keeps a change here, sends it, and says what became of it.
   * @param own places of operations on rows that changes of this window, on their way, write as well
   * @returns whether it is kept, here or there
   */
  async function sent(change: Change, says: string, own: readonly number[] = []): Promise<Outcome> {
    await opening;
    const was = change.ops.map(fieldsNow);
    // A picture takes a while to go: it is shown from this browser until the studio has it.
    const isShown = change.ops.some((op) => localPictureOf(op) !== undefined);
    if (isShown) showAhead(change);
    const outcome = await (sender ? sender.make(change, says, was, own) : unkept(change));
    if (!sender) heardOf({ id: change.id, outcome });
    if (outcome.is === 'waiting') {
      if (!isShown) showAhead(change);
      notices.waits(
        `${says}: this waits in this browser. ${outcome.problem.status === 0 ? 'The studio does not answer' : outcome.problem.detail}`,
      );
    } else if (outcome.is === 'refused' && (outcome.problem.current === undefined || !sender)) {
      // Where there are two sides, the sheet that shows them says so.
      notices.refused(outcome.problem.detail);
    }
    return outcome;
  }

  /** The row that an operation writes, as this window knows it. */
  function rowOf(op: Operation): Readonly<Record<string, unknown>> | undefined {
    const kind = kindOf(op.do);
    return kind && (rows[kind] as unknown as Map<string, Record<string, unknown>>).get('id' in op ? String(op.id) : '1');
  }
  /** The fields that an operation writes, as they now are; nothing where it changes no row that is here. */
  function fieldsNow(op: Operation): Readonly<Record<string, unknown>> | null {
    const row = op.do.endsWith('.change') ? rowOf(op) : undefined;
    if (!row) return null;
    const fields = Object.fromEntries(Object.keys(op).map((field) => [field, row[field] ?? null]));
    // Plain data, as what is sent.
    return JSON.parse(JSON.stringify(fields)) as typeof fields;
  }

  /** Changes of this window that are on their way, by the rows they write. */
  const underWay = new Map<string, Promise<unknown>>();
  type VersionedOp = Operation & { version: number };
  const versionNow = (op: Operation): number | undefined => rowOf(op)?.['version'] as number | undefined;
  const keyOf = (op: Operation): string => `${op.do.split('.')[0]} ${'id' in op ? String(op.id) : ''}`;

  /**
   * Sends a change behind those on their way that write the same rows: what a hand laid on a row as it
   * was shown is meant for the row as the hand's own earlier changes leave it. It is kept in this browser at
   * once, and takes its versions when it goes; a browser that keeps nothing waits for those before it.
   */
  async function inTurn(change: Change, says: string): Promise<Outcome> {
    const versioned = change.ops.filter((op): op is VersionedOp => 'version' in op);
    const own = versioned.filter((op) => op.version === versionNow(op) && underWay.has(keyOf(op)));
    const earlier = own.flatMap((op) => underWay.get(keyOf(op)) ?? []);
    const work = (async () => {
      await opening;
      if (!sender) {
        await Promise.allSettled(earlier);
        for (const op of own) op.version = versionNow(op) ?? op.version;
      }
      return sent(
        change,
        says,
        own.map((op) => change.ops.indexOf(op)),
      );
    })();
    for (const op of versioned) underWay.set(keyOf(op), work);
    try {
      return await work;
    } finally {
      for (const op of versioned) if (underWay.get(keyOf(op)) === work) underWay.delete(keyOf(op));
    }
  }

  /** What a clock that is wrong makes of it. */
  const ofClock = ({ ahead }: Answer): string =>
    ahead === undefined
      ? ''
      : `. This machine’s clock is ${counted(Math.round(ahead / DAY_MS), 'day')} ahead of the studio’s: it is kept as done now`;

  /**
   * Makes a change and takes in what is different then.
   * @param says what it was, as `Kept “wall”`; said with a way back
   * @returns whether it was made or is kept until it can be; if not, why was said
   */
  async function make(ops: readonly Operation[], says: string): Promise<boolean> {
    const id = newId();
    // Plain data: what the page shows is watched, and cannot be stored.
    const plain = JSON.parse(JSON.stringify(ops)) as readonly Operation[];
    // It can be taken back as soon as it shows, which may be before it is answered.
    done.value = [...done.value, { id, says, ...paintingOf(plain) }].slice(-MOST_UNDOABLE);
    const outcome = await inTurn({ id, device: device.value, ops: plain }, says);
    if (outcome.is === 'refused') {
      done.value = done.value.filter((one) => one.id !== id);
      return false;
    }
    undone.value = [];
    if (outcome.is === 'answered') notices.undoable(says + ofClock(outcome.answer), undo);
    return true;
  }

  /** What waits here and was not sent yet is simply not done. */
  async function letGo(id: string): Promise<boolean> {
    const item = away.value && (await sender?.queue.all())?.find((one) => one.change.id === id);
    if (!item || !sender) return false;
    await sender.queue.remove(item);
    showNoLonger(id);
    await look();
    return true;
  }

  /** The painting that something was done in, where one can be told. */
  function paintingOf(ops: readonly Operation[]): { readonly paintingId?: string } {
    for (const op of ops) {
      const sent = op as { readonly do: string; readonly id?: string; readonly paintingId?: string };
      const row = rows.piles.get(sent.id ?? '') ?? rows.samples.get(sent.id ?? '') ?? rows.references.get(sent.id ?? '');
      const id = sent.paintingId ?? (sent.do.startsWith('painting.') ? sent.id : row?.paintingId);
      if (id) return { paintingId: id };
    }
    return {};
  }
  /** What is taken back may be of another painting than the one that is looked at, and then says so. */
  function inWhich({ paintingId }: Undoable): string {
    const title = paintingId !== undefined && !location.pathname.includes(paintingId) ? rows.paintings.get(paintingId)?.title : undefined;
    return title === undefined ? '' : `, in “${title}”`;
  }
  /** Takes back what was done last here, or does again what was taken back: each a change of its own. */
  async function turnBack(from: typeof done, to: typeof undone, says: (what: string) => string): Promise<void> {
    const last = from.value.at(-1);
    if (!last) return notices.saved('Nothing was done here yet.');
    from.value = from.value.slice(0, -1);
    const what = says(last.says) + inWhich(last);
    if (await letGo(last.id)) return notices.saved(what);
    const id = newId();
    const { is } = await sent({ id, device: device.value, ops: [], undoes: last.id }, what);
    if (is === 'refused') return;
    to.value = [...to.value, { ...last, id }];
    if (is === 'answered') notices.saved(what);
  }
  const undo = (): Promise<void> => turnBack(done, undone, (what) => `Taken back: ${what}`);
  const redo = (): Promise<void> => turnBack(undone, done, (what) => `Done again: ${what}`);

  const ask = <N extends ReadName>(name: N, id?: string): Promise<ReadAnswers[N] | undefined> => notices.attempt(() => read(name, id));

  /**
   * What the painter decided about a change that was refused.
   * @param ops sent instead; nothing lets it go
   */
  async function decide(item: Waiting, ops?: readonly Operation[]): Promise<void> {
    const { current } = item.parked!.problem as Problem & { current?: { id: string; version: number } };
    const versions = new Map(current ? [[current.id, current.version] as const] : []);
    // A new id: the studio has answered the old one with no.
    const change = ops && { ...item.change, id: newId(), ops };
    await sender!.queue.decide(item, change, versions);
    notices.over();
    await look();
    await sender!.go();
    await reload();
  }

  /** Keeps a picture in this browser until it has gone. @returns what a change calls it by */
  async function holdPicture(file: File): Promise<string | undefined> {
    await opening;
    return sender?.queue.addPicture(file).catch(() => undefined);
  }

  /** A picture that has not gone yet; nothing for one that the studio has. */
  async function heldPicture(id: string): Promise<File | undefined> {
    if (!isLocal(id)) return undefined;
    await opening;
    return sender?.queue.picture(id);
  }

  const send = async (): Promise<void> => sender?.go();

  return {
    /** The id of the studio that this window shows. */
    studioId,
    rows,
    seq,
    undoable,
    redoable,
    away,
    waiting,
    refused,
    apply,
    load,
    make,
    undo,
    redo,
    ask,
    decide,
    holdPicture,
    heldPicture,
    lookedElsewhere,
    tellLooked,
    send,
  };
});
