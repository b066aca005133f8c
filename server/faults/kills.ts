import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Answer, Operation } from '@dusk/wire';
import { lookAt } from '../src/file/look.ts';
import { STUDIO_FILE } from '../src/index.ts';
import { start } from '../test/program.ts';

export interface KillsRow {
  readonly kills: number;
  readonly acknowledged: number;
  /** Acknowledged and not in the file afterwards. */
  readonly lost: number;
  /** Starts that failed, and files that did not read whole. */
  readonly broken: number;
}

const CLIENTS = 4;
/** Kills the program (−9) at random moments while some clients write, and looks for every acknowledged change in the file. */
export async function killed(kills: number, random: () => number, say: (line: string) => void = () => undefined): Promise<KillsRow> {
  const folder = mkdtempSync(join(tmpdir(), 'dusk-kills-'));
  const acknowledged = new Set<string>();
  let broken = 0;
  for (let n = 0; n < kills; n++) {
    const program = start(folder);
    // One in eight is killed while it is still opening.
    if (random() < 1 / 8) await new Promise((done) => setTimeout(done, 600 + 900 * random()));
    else {
      const address = await program.address.catch((cause: Error) => {
        broken++;
        say(cause.message);
        return undefined;
      });
      if (address === undefined) continue;
      const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
      const tubeIds = rows.tubes!.slice(0, 4).map((t) => t.id);
      let over = false;
      const client = async (): Promise<void> => {
        while (!over) {
          const id = randomUUID();
          const ops: Operation[] = [{ do: 'palette.add', id, name: `palette ${id}`, tubeIds }];
          const body = JSON.stringify({ id: randomUUID(), device: 'a client', ops });
          const answer = await fetch(`${address}/api/changes`, {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body,
          }).catch(() => undefined);
          if (answer?.status === 201) acknowledged.add(id);
        }
      };
      const clients = Array.from({ length: CLIENTS }, client);
      // At a random place in what is written, and a random moment after it: counted in answers, so that a slow machine is tried as hard.
      const enough = acknowledged.size + 6 + Math.floor(20 * random());
      let hasEnded = false;
      void program.ended.then(() => (hasEnded = true));
      while (acknowledged.size < enough && !hasEnded) await new Promise((done) => setTimeout(done, 2));
      await new Promise((done) => setTimeout(done, 30 * random()));
      program.child.kill('SIGKILL');
      over = true;
      await Promise.all(clients);
    }
    program.child.kill('SIGKILL');
    await program.ended;
    if (n % 25 === 24) say(`${n + 1} kills, ${acknowledged.size} acknowledged`);
  }
  const program = start(folder);
  const address = await program.address;
  const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
  const there = new Set(rows.palettes!.map((p) => p.id));
  program.child.kill('SIGINT');
  await program.ended;
  try {
    lookAt(join(folder, STUDIO_FILE));
  } catch {
    broken++;
  }
  rmSync(folder, { recursive: true, force: true });
  return { kills, acknowledged: acknowledged.size, lost: [...acknowledged].filter((id) => !there.has(id)).length, broken };
}
