// npm run manual: writes docs/CLI.md from the commands' own help.
import { writeFileSync } from 'node:fs';
import { manual } from '../src/manual.ts';

writeFileSync(new URL('../../docs/CLI.md', import.meta.url), manual());
