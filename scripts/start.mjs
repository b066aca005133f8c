// npm start and npm run demo: installs what is missing, builds, and opens the product.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildPages, installPackages, ROOT } from './prepare.mjs';

installPackages();
buildPages();
// Packages may only now be there.
const { bundlePrograms, bundleSample } = await import('./programs.mjs');
const isDemo = process.argv.includes('--demo');
const folder = join(ROOT, isDemo ? 'demo' : 'server', 'dist');
await (isDemo ? bundleSample : bundlePrograms)(folder);
const server = spawn(process.execPath, [join(folder, isDemo ? 'main.mjs' : 'run.mjs')], {
  cwd: ROOT,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
