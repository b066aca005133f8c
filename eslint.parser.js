import { readFileSync } from 'node:fs';
import tseslint from 'typescript-eslint';
import { isOfPage, modules, scriptOf, scripts } from './scripts/typed.mjs';

/** The program that knows a file as it stands; none for what a template says, and for what is in no program. */
function programOf(file, code) {
  if (file.endsWith('.vue')) return code === scriptOf(readFileSync(file, 'utf8')) ? scripts() : undefined;
  const program = isOfPage(file) ? scripts() : modules();
  return program.getSourceFile(file) && program;
}

/** TypeScript's parser over programs that are made once, also for the scripts of components. */
export default {
  meta: { name: 'typed-once', version: '1' },
  parseForESLint(code, options) {
    const program = programOf(options.filePath, code);
    return tseslint.parser.parseForESLint(code, program ? { ...options, programs: [program] } : options);
  },
};
