// The sources with their types, made once for whoever asks: the check of types and the rules of lint that need them.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, relative } from 'node:path';
import { proxyCreateProgram } from '@volar/typescript';
import { createParsedCommandLine, createVueLanguagePlugin } from '@vue/language-core';
import { ROOT } from './prepare.mjs';

// The compiler is one object for all that ask it, also for those that require it.
const ts = createRequire(import.meta.url)('typescript');

const PAGE = join(ROOT, 'web');
export const isOfPage = (file) => !relative(PAGE, file).startsWith('..');

const once = (make) => {
  let made;
  return () => (made ??= make());
};

/** Sources are read and parsed once for all programs: what they are told of the language is the same. */
const parsed = new Map();
function hostOf(options, parse) {
  const host = ts.createCompilerHost(options, true);
  const read = host.getSourceFile;
  host.getSourceFile = (file, ...rest) => {
    if (!parsed.has(file)) parsed.set(file, read(file, ...rest));
    return parse?.(file, ...rest) ?? parsed.get(file);
  };
  return host;
}

const VUE = [{ extension: 'vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred }];
/** @param extra endings that are sources beside the compiler's own */
function configOf(folder, extra = []) {
  const file = join(folder, 'tsconfig.json');
  const { config, error } = ts.readConfigFile(file, ts.sys.readFile);
  const read = error ? { errors: [error] } : ts.parseJsonConfigFileContent(config, ts.sys, folder, {}, file, undefined, extra);
  if (read.errors.length > 0)
    throw new Error(read.errors.map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, '\n')).join('\n'));
  return read;
}

/** Everything but the page. */
export const modules = once(() => {
  const { fileNames, options } = configOf(ROOT);
  return ts.createProgram({ rootNames: fileNames, options, host: hostOf(options) });
});

const pageConfig = once(() => {
  const { fileNames, options } = configOf(PAGE, VUE);
  return { fileNames, options: { ...options, allowNonTsExtensions: true } };
});

/** The page, its components with what their templates say: asked once, and let go of before lint begins. */
function page() {
  const { fileNames, options } = pageConfig();
  const { vueOptions } = createParsedCommandLine(ts, ts.sys, options.configFilePath);
  const create = proxyCreateProgram(ts, ts.createProgram, () => ({
    languagePlugins: [createVueLanguagePlugin(ts, options, vueOptions, (id) => id)],
  }));
  return create({ rootNames: fileNames, options, host: hostOf(options) });
}

/** A component's script as the linter's parser takes it out; none where it is over any kind of thing: the parser adds to it. */
export function scriptOf(text) {
  const [, attributes, script] = /<script\b([^>]*)>([\s\S]*?)<\/script>/.exec(text) ?? [];
  return attributes?.includes('generic=') ? undefined : script;
}

/** The page as lint reads it: of components their script alone. */
export const scripts = once(() => {
  const { fileNames, options } = pageConfig();
  const parse = (file, version) =>
    file.endsWith('.vue')
      ? ts.createSourceFile(file, scriptOf(readFileSync(file, 'utf8')) ?? '', version, true, ts.ScriptKind.TS)
      : undefined;
  return ts.createProgram({ rootNames: fileNames, options, host: hostOf(options, parse) });
});

/** What the compiler has to say of everything, as text; empty where all is well. Wire and core are checked once, as modules. */
export function faultsOfTypes() {
  const program = page();
  const ofPage = program
    .getSourceFiles()
    .filter(({ fileName }) => isOfPage(fileName))
    .flatMap((file) => [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)]);
  const all = [...ts.getPreEmitDiagnostics(modules()), ...program.getOptionsDiagnostics(), ...program.getGlobalDiagnostics(), ...ofPage];
  return ts.formatDiagnosticsWithColorAndContext(ts.sortAndDeduplicateDiagnostics(all), {
    getCurrentDirectory: () => ROOT,
    getCanonicalFileName: (name) => name,
    getNewLine: () => '\n',
  });
}
