// Bundles the tests once, with what they share beside them, so that no file goes through every source again.
import { readFile } from 'node:fs/promises';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { ROOT } from './prepare.mjs';
import { BUNDLED, THREADS } from './programs.mjs';

/** What a source finds from where it lies is found from there, also where it lies in a bundle; threads lie beside the bundle. */
const places = {
  name: 'places',
  setup({ onLoad }) {
    onLoad({ filter: /\.(ts|mjs)$/ }, async ({ path }) => {
      const text = await readFile(path, 'utf8');
      if (!text.includes('import.meta.url') || path.endsWith('threads.ts')) return undefined;
      return {
        contents: text.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href)),
        loader: path.endsWith('.ts') ? 'ts' : 'js',
      };
    });
  },
};

/** @param files tests, from the root; each becomes `<folder>/<its name>.mjs` */
export async function bundleTests(files, folder) {
  rmSync(folder, { recursive: true, force: true });
  await build({
    ...BUNDLED,
    entryPoints: [
      ...files.map((file) => ({ in: join(ROOT, file), out: fileOfTest(nameOfTest(file)) })),
      ...Object.entries(THREADS).map(([out, source]) => ({ in: join(ROOT, source), out })),
    ],
    outdir: folder,
    splitting: true,
    plugins: [...BUNDLED.plugins, places],
  });
}

/** `server/keeping` of server/test/keeping.test.ts. */
export const nameOfTest = (file) => file.replace('/test/', '/').replace(/(\.test)?\.ts$/, '');

/** Where a test lies once it is bundled, without its ending. */
export const fileOfTest = (name) => name.replaceAll('/', '.');

/** How Node is started on a bundle: what decorators ask for is there before any piece of it. */
export const BUNDLED_RUNS = ['--enable-source-maps', '--import', 'reflect-metadata'];
