// Types and lint in one process over the same programs: `node scripts/types.mjs`.
import { ESLint } from 'eslint';
import { ROOT } from './prepare.mjs';
import { faultsOfTypes } from './typed.mjs';

const faults = faultsOfTypes();
if (faults) console.log(faults);
const eslint = new ESLint({ cwd: ROOT });
const results = await eslint.lintFiles('.');
const said = await (await eslint.loadFormatter('stylish')).format(results);
if (said) console.log(said);
process.exit(faults || results.some(({ errorCount }) => errorCount > 0) ? 1 : 0);
