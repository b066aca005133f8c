// The sample studio, laid out once: by whoever runs all, or else here.
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fillStudio } from '@dusk/demo';
import { openStudio } from '@dusk/server';
import { MORNING, ticking } from '../server/test/clock.ts';

const MINUTE_MS = 60_000;

/** Lays the sample studio out, in the minute before the tests begin: whatever they do comes after all that is in it. */
export async function layOutSample(folder: string): Promise<void> {
  const studio = await openStudio(folder, ticking(new Date(Date.parse(MORNING) - MINUTE_MS).toISOString()));
  await fillStudio(studio);
  await studio.close();
}

const newFolder = (): string => mkdtempSync(join(tmpdir(), 'dusk-studio-'));

let laid: Promise<string> | undefined;
async function layOut(): Promise<string> {
  const { DUSK_SAMPLE } = process.env;
  if (DUSK_SAMPLE) return DUSK_SAMPLE;
  const folder = newFolder();
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  await layOutSample(folder);
  return folder;
}

/** A folder of its own for a studio. @param sample whether the sample studio lies in it */
export async function studioFolder(sample: boolean): Promise<string> {
  const folder = newFolder();
  if (sample) cpSync(await (laid ??= layOut()), folder, { recursive: true });
  return folder;
}
