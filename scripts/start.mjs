// npm start and npm run demo: installs what is missing, builds, and opens the product.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildPages, installPackages, ROOT } from './prepare.mjs';

installPackages();
buildPages();
const entry = process.argv.includes('--demo') ? 'demo/src/main.ts' : 'server/src/run.ts';
const server = spawn(process.execPath, ['--import', 'tsx', join(ROOT, entry)], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, TSX_TSCONFIG_PATH: join(ROOT, 'tsconfig.json') },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
