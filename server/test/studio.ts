import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PaintingDto, PaletteDto, TubeDto } from '@dusk/wire';
import supertest, { type Test } from 'supertest';
import { startServer, type Running } from '../src/index.ts';

/** A real server over a real file in a folder of its own. */
export interface Bench {
  readonly folder: string;
  readonly running: Running;
  readonly http: ReturnType<typeof supertest>;
  readonly tubes: ReadonlyMap<string, TubeDto>;
  readonly restart: () => Promise<Bench>;
  readonly close: () => Promise<void>;
}

async function over(folder: string): Promise<Bench> {
  const running = await startServer(folder, 0);
  const http = supertest(running.address.replace(/\/$/, ''));
  const listed = (await http.get('/api/tubes')).body as TubeDto[];
  return {
    folder,
    running,
    http,
    tubes: new Map(listed.map((t) => [t.pigment, t])),
    restart: async () => {
      await running.stop();
      return over(folder);
    },
    close: async () => {
      await running.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export const openBench = (): Promise<Bench> => over(mkdtempSync(join(tmpdir(), 'dusk-test-')));

export const idOf = (bench: Bench, pigment: string): string => bench.tubes.get(pigment)!.id;

const LAMPLIGHT = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue'];

export async function aPalette(bench: Bench, pigments: readonly string[] = LAMPLIGHT): Promise<PaletteDto> {
  const sent = { name: 'Lamp light', tubeIds: pigments.map((p) => idOf(bench, p)) };
  return (await bench.http.post('/api/palettes').send(sent).expect(201)).body as PaletteDto;
}

export async function aPainting(bench: Bench): Promise<PaintingDto> {
  const { id } = await aPalette(bench);
  return (await bench.http.post('/api/paintings').send({ title: 'Workbench', paletteId: id }).expect(201)).body as PaintingDto;
}

/** A recipe of nine parts white to one of ultramarine, meant to be a light blue. */
export const lightBlue = (bench: Bench) => ({
  name: 'light blue',
  target: { L: 62, a: 2, b: -36 },
  measures: [
    { tubeId: idOf(bench, 'titanium-white'), parts: 9 },
    { tubeId: idOf(bench, 'ultramarine-blue'), parts: 1 },
  ],
});

/** Sees that a refusal has the one shape of errors. */
export function refused(test: Test, status: number): Test {
  return test
    .expect(status)
    .expect('Content-Type', /application\/problem\+json/)
    .expect((response) => {
      const { type, title, detail, status: said } = response.body as Record<string, unknown>;
      if (typeof type !== 'string' || typeof title !== 'string' || said !== status)
        throw new Error(`no problem: ${JSON.stringify(response.body)}`);
      if (typeof detail !== 'string' || detail.length < 8 || /undefined|\[object|sqlite/i.test(detail))
        throw new Error(`no sentence: ${String(detail)}`);
    });
}
