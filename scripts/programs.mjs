// Bundles the server's programs, each into one file, so that they start without going through every source.
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './prepare.mjs';

const MIGRATIONS = join(ROOT, 'server', 'src', 'migrations');

/** Packages stay where they are; the project's own workspaces are taken in. */
const packages = {
  name: 'packages',
  setup({ onResolve }) {
    onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@dusk/') ? undefined : { path, external: true },
    );
  },
};

/** Migrations are found by the names of their files, which a bundle has no more: they are named to it. */
const migrations = {
  name: 'migrations',
  setup({ onLoad }) {
    onLoad({ filter: /server[\\/]src[\\/]migrations[\\/]index\.ts$/ }, () => {
      const files = readdirSync(MIGRATIONS)
        .filter((name) => /^\d{13}-[A-Z]\w*\.ts$/.test(name))
        .sort();
      const names = files.map((file) => basename(file, '.ts').split('-').reverse().join(''));
      return {
        contents: [
          ...files.map((file, i) => `import { ${names[i]} } from './${file}';`),
          `export const MIGRATIONS = [${names.join(', ')}];`,
        ].join('\n'),
        resolveDir: MIGRATIONS,
      };
    });
  },
};

/** A thread brings the loader of types along where there is no bundle. */
const noLoader = {
  name: 'no loader',
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^tsx\/esm\/api$/ }, ({ path }) => ({ path, namespace: 'none' }));
    onLoad({ filter: /.*/, namespace: 'none' }, () => ({ contents: 'export const register = () => undefined;' }));
  },
};

/** Threads of their own, beside whatever starts them. */
export const THREADS = { 'beliefs/foldWorker': 'server/src/beliefs/foldWorker.mjs' };
const PROGRAMS = { run: 'server/src/run.ts', backup: 'server/src/backup.ts', restore: 'server/src/restore.ts' };
const SAMPLE = { main: 'demo/src/main.ts' };

/** How sources become files that Node runs as they are. */
export const BUNDLED = {
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [noLoader, packages, migrations],
};

/** What is built for the machine, or reads files that lie beside it, is found where it was installed. */
const STAY = ['better-sqlite3', 'sharp', 'pdfkit', 'fontkit'];
/** Other databases that the mapper could speak to. */
const DRIVERS = Object.keys(JSON.parse(readFileSync(join(ROOT, 'node_modules', 'typeorm', 'package.json'), 'utf8')).peerDependencies);
/** What older packages take for given, in a module. */
const GIVEN = [
  "import { createRequire as requireFrom } from 'node:module';",
  'const require = requireFrom(import.meta.url);',
  'const __filename = import.meta.filename;',
  'const __dirname = import.meta.dirname;',
].join('\n');

/** Programs take their packages in too: a thousand files to find and to read are two thirds of a start. */
const bundle = (programs, folder) =>
  build({
    ...BUNDLED,
    plugins: [noLoader, migrations],
    external: [...STAY, ...DRIVERS],
    banner: { js: GIVEN },
    entryPoints: Object.fromEntries(Object.entries({ ...programs, ...THREADS }).map(([out, source]) => [out, join(ROOT, source)])),
    outdir: folder,
  });

/** @param folder as deep in its workspace as the sources are: what programs find beside those they find beside these */
export const bundlePrograms = (folder) => bundle(PROGRAMS, folder);
export const bundleSample = (folder) => bundle(SAMPLE, folder);
