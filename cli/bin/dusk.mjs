#!/usr/bin/env node
// The sources are TypeScript: tsx loads them in this process, so nothing has to be built first.
import { register } from 'tsx/esm/api';
register();
const { main } = await import('../src/main.ts');
process.exitCode = main(process.argv.slice(2));
