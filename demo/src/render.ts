// Renders the reference pictures of the sample studio to demo/pictures, on all cores.
// Usage: npm run pictures [-- scene [width samples]]
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { encodeSrgb } from '@dusk/core';
import { seeded } from '@dusk/core/random';
import sharp from 'sharp';
import { renderRows } from './rendering/trace.ts';
import type { Scene } from './rendering/scene.ts';
import { COURTYARD } from './scenes/courtyard.ts';
import { WORKBENCH } from './scenes/workbench.ts';

const SCENES: readonly Scene[] = [WORKBENCH, COURTYARD];
const BLOCK = 8;

interface Job {
  readonly scene: string;
  readonly width: number;
  readonly height: number;
  readonly samples: number;
  readonly part: number;
  readonly parts: number;
}

/** Film-like tone curve: a short toe, a long straight, a shoulder that clips only the glints. */
const tone = (v: number): number => {
  const x = Math.max(0, v);
  return (x * (2.51 * x * 0.36 + 0.03 + 0.55)) / (x * (2.43 * x * 0.36 + 0.59) + 0.14 + 0.4);
};

function renderPart({ scene, width, height, samples, part, parts }: Job): void {
  const found = SCENES.find((s) => s.name === scene)!;
  for (let row = part * BLOCK; row < height; row += parts * BLOCK) {
    const to = Math.min(row + BLOCK, height);
    parentPort!.postMessage({ row, pixels: renderRows(found, width, height, row, to, samples) });
  }
}

async function renderScene(scene: Scene, width: number, samples: number): Promise<void> {
  const height = Math.round((width * 2) / 3);
  const linear = new Float32Array(width * height * 3);
  const parts = availableParallelism();
  await Promise.all(
    Array.from({ length: parts }, (_, part) => {
      const job: Job = { scene: scene.name, width, height, samples, part, parts };
      return new Promise<void>((resolve, reject) => {
        const worker = new Worker(new URL('./renderWorker.mjs', import.meta.url), { workerData: job });
        worker.on('message', ({ row, pixels }: { row: number; pixels: Float32Array }) => linear.set(pixels, row * width * 3));
        worker.on('error', reject);
        worker.on('exit', () => resolve());
      });
    }),
  );
  const grain = seeded(4711);
  const bytes = Buffer.alloc(linear.length);
  for (let i = 0; i < linear.length; i++) {
    const v = encodeSrgb(tone(linear[i]! * scene.exposure)) + (grain() + grain() - 1) * 0.011;
    bytes[i] = Math.round(Math.min(1, Math.max(0, v)) * 255);
  }
  const file = fileURLToPath(new URL(`../pictures/${scene.name}.jpg`, import.meta.url));
  await sharp(bytes, { raw: { width, height, channels: 3 } })
    .median(3)
    .sharpen({ sigma: 0.6 })
    .jpeg({ quality: 88 })
    .toFile(file);
  console.log(`${scene.name}: ${width} × ${height}, ${samples} samples`);
}

if (isMainThread) {
  const [name, width = '960', samples = '12'] = process.argv.slice(2);
  for (const scene of SCENES) if (!name || scene.name === name) await renderScene(scene, Number(width), Number(samples));
} else renderPart(workerData as Job);
