import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Answer, Operation, PaintingDto, PaletteDto, PileDto, TubeDto } from '@dusk/wire';
import supertest, { type Test } from 'supertest';
import { startServer, type Running } from '../src/index.ts';
import { testClock } from './clock.ts';

/** A real server over a real file in a folder of its own. */
export interface Bench {
  readonly folder: string;
  readonly running: Running;
  readonly http: ReturnType<typeof supertest>;
  readonly tubes: ReadonlyMap<string, TubeDto>;
  readonly restart: () => Promise<Bench>;
  readonly close: () => Promise<void>;
}

async function over(folder: string, clock: () => string): Promise<Bench> {
  const running = await startServer(folder, 0, undefined, clock);
  const http = supertest(running.address.replace(/\/$/, ''));
  const listed = ((await http.get('/api/studio')).body as Answer).rows.tubes!;
  return {
    folder,
    running,
    http,
    tubes: new Map(listed.filter((t) => t.maker === '').map((t) => [t.pigment, t])),
    restart: async () => {
      await running.stop();
      return over(folder, clock);
    },
    close: async () => {
      await running.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

const newFolder = (): string => mkdtempSync(join(tmpdir(), 'dusk-test-'));

/** An empty studio is made once in a run; every bench begins with a copy of it. */
let emptyFolder: Promise<string> | undefined;
async function laidOut(): Promise<string> {
  const folder = newFolder();
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  await (await startServer(folder, 0, undefined, testClock)).stop();
  return folder;
}

/** @param clock what time it is there */
export async function openBench(folder?: string, clock = testClock): Promise<Bench> {
  return over(folder ?? copyOf(await (emptyFolder ??= laidOut())), clock);
}

/** A studio of its own that begins as another was when it was closed. */
export function copyOf(folder: string): string {
  const own = newFolder();
  cpSync(folder, own, { recursive: true });
  return own;
}

export const idOf = (bench: Bench, pigment: string): string => bench.tubes.get(pigment)!.id;

export const newId = (): string => randomUUID();

/** Sends a change; the answer is still to be judged. */
export const send = (bench: Bench, ops: readonly Operation[], id = newId()): Test =>
  bench.http.post('/api/changes').send({ id, device: 'a test', ops });

/** Makes a change and answers with its rows. */
export const change = async (bench: Bench, ...ops: readonly Operation[]): Promise<Answer['rows']> =>
  ((await send(bench, ops).expect(201)).body as Answer).rows;

export const undo = (bench: Bench, undoes: string): Test => bench.http.post('/api/changes').send({ id: newId(), device: 'a test', undoes });

const LAMPLIGHT = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue'];

export async function aPalette(bench: Bench, pigments: readonly string[] = LAMPLIGHT): Promise<PaletteDto> {
  const rows = await change(bench, { do: 'palette.add', id: newId(), name: 'Lamp light', tubeIds: pigments.map((p) => idOf(bench, p)) });
  return rows.palettes![0]!;
}

export async function aPainting(bench: Bench): Promise<PaintingDto> {
  const { id } = await aPalette(bench);
  return (await change(bench, { do: 'painting.add', id: newId(), title: 'Workbench', paletteId: id })).paintings![0]!;
}

/** A plan of nine parts white to one of ultramarine, meant to be a light blue. */
export const lightBlue = (bench: Bench, paintingId: string, id = newId()) => ({
  do: 'pile.add' as const,
  id,
  paintingId,
  name: 'light blue',
  target: { kind: 'absolute' as const, lab: { L: 62, a: 2, b: -36 } },
  plan: {
    form: 1,
    heaps: [
      {
        ingredients: [
          { tube: idOf(bench, 'titanium-white'), parts: 9 },
          { tube: idOf(bench, 'ultramarine-blue'), parts: 1 },
        ],
      },
    ],
  },
  ml: 4,
});

export async function aPile(bench: Bench, paintingId: string): Promise<PileDto> {
  return (await change(bench, lightBlue(bench, paintingId))).piles![0]!;
}

/** Some ml of a tube in today's state. */
export const some = (tube: TubeDto, ml: number) => ({ id: newId(), tubeId: tube.id, stateId: tube.stateId, ml, low: ml, high: ml });

/** Marks a pile as mixed from tubes, in ml each. */
export const mixed = (bench: Bench, pileId: string, ml: Readonly<Record<string, number>>, id = newId()) => ({
  do: 'stage.add' as const,
  id,
  pileId,
  kind: 'mixed' as const,
  additions: Object.entries(ml).map(([pigment, n]) => some(bench.tubes.get(pigment)!, n)),
});

/** Says how a pile looks at a stage, by a reader. */
export function seen(stageId: string, lab: { L: number; a: number; b: number }, kind: 'reader' | 'eye' = 'reader'): Operation[] {
  const sightingId = newId();
  return [
    { do: 'sighting.add', id: sightingId, kind },
    { do: 'look.add', id: newId(), sightingId, stageId, lab },
  ];
}

export const read = async (bench: Bench): Promise<Answer> => (await bench.http.get('/api/studio').expect(200)).body as Answer;
export const readPainting = async (bench: Bench, id: string): Promise<Answer> =>
  (await bench.http.get(`/api/paintings/${id}`).expect(200)).body as Answer;

/** Sees that a refusal has the one shape of errors. */
export function refused(test: Test, status: number): Test {
  return test
    .expect(status)
    .expect('Content-Type', /application\/problem\+json/)
    .expect((response) => {
      const { type, title, detail, status: said } = response.body as Record<string, unknown>;
      if (typeof type !== 'string' || typeof title !== 'string' || said !== status)
        throw new Error(`no problem: ${JSON.stringify(response.body)}`);
      if (typeof detail !== 'string' || detail.length < 8 || /undefined|\[object|SQLITE_/.test(detail))
        throw new Error(`no sentence: ${String(detail)}`);
    });
}
