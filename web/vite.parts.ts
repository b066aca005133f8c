// How the page comes to the window: what the first place needs in the order of need, what several places share, then each place.
import { basename, relative } from 'node:path';
import { build, type HtmlTagDescriptor, type Plugin, type PluginOption, type Rolldown, type UserConfig } from 'vite';

type Chunk = Rolldown.OutputChunk;

/** What is opened in turn until the first place stands there; each is evaluated as a task of its own. */
const STEPS = [
  'index.html',
  'src/frame/theme/vuetify.ts',
  'src/begin.ts',
  'src/paintings/PaintingsPlace.vue',
  'src/frame/ledge/Ledge.vue',
] as const;
/** Which places a part is of, by the first folder of what asks for it. */
const OF: Readonly<Record<string, string>> = {
  ...Object.fromEntries(['reference', 'picture', 'deciding'].map((one) => [one, 'reference'])),
  ...Object.fromEntries(['pile', 'piles', 'easel', 'landing', 'kin', 'day', 'printing'].map((one) => [one, 'piles'])),
  ...Object.fromEntries(['tubes', 'palettes', 'cards'].map((one) => [one, 'rack'])),
  ...Object.fromEntries(['paintings', 'frame', 'waiting', 'controls'].map((one) => [one, 'window'])),
};
/** Drawn, or read, on demand: what needs these waits for the studio. */
const ON_DEMAND = /\/node_modules\/(chart\.js|@kurkle|vue-chartjs|papaparse)\//;

const isChunk = (one: { readonly type: string }): one is Chunk => one.type === 'chunk';

/** Everything that comes with a chunk. */
function withAll(chunk: Chunk, byFile: ReadonlyMap<string, Chunk>, seen = new Set<Chunk>()): Set<Chunk> {
  if (seen.has(chunk)) return seen;
  seen.add(chunk);
  for (const file of chunk.imports) {
    const next = byFile.get(file);
    if (next) withAll(next, byFile, seen);
  }
  return seen;
}

/**
 * Bundles once without writing, to learn which modules are truly needed from where: what a module imports says too
 * much, since most of what stands in an index falls away.
 */
async function learn(root: string, plugins: () => PluginOption[]): Promise<ReadonlyMap<string, string>> {
  const { output } = (await build({
    root,
    configFile: false,
    logLevel: 'silent',
    plugins: plugins(),
    worker: { format: 'es' },
    build: { target: 'es2022', write: false, minify: false, reportCompressedSize: false },
  })) as Rolldown.RolldownOutput;
  const chunks = output.filter(isChunk);
  const byFile = new Map(chunks.map((one) => [one.fileName, one]));
  const entries = chunks.filter(({ isEntry, isDynamicEntry }) => isEntry || isDynamicEntry);
  const askedBy = new Map<Chunk, Chunk[]>(chunks.map((one) => [one, []]));
  for (const entry of entries) for (const one of withAll(entry, byFile)) askedBy.get(one)!.push(entry);

  const nameOf = (entry: Chunk): string => relative(root, entry.facadeModuleId ?? '');
  const groupOf = (chunk: Chunk): string | undefined => {
    const by = askedBy.get(chunk)!.map(nameOf);
    const step = STEPS.findIndex((one) => by.includes(one));
    if (step >= 0) return basename(STEPS[step]!).split('.')[0]!;
    if (chunk.moduleIds.some((id) => ON_DEMAND.test(id))) return undefined;
    const places = new Set(by.map((one) => OF[one.split('/')[1]!] ?? one.split('/')[1]!));
    if (places.size === 1) return [...places][0];
    return [...places].every((one) => one === 'reference' || one === 'piles') ? 'painting' : 'shared';
  };
  return new Map(
    chunks.flatMap((chunk) => {
      const group = groupOf(chunk);
      return group ? chunk.moduleIds.map((id) => [id, group] as const) : [];
    }),
  );
}

/** What stands for one module of a chunk, where a part is asked for by that module's name. */
const STANDS_FOR = /^export\{([^}]*)\}from"\.\/([^"]+)";?\s*$/;

/** Asks for the chunk itself where a file of one line would only lead there: each costs a request of its own. */
function askDirectly(bundle: Rolldown.OutputBundle): void {
  const chunks = Object.values(bundle).filter(isChunk);
  for (const stand of chunks) {
    const [, names, target] = STANDS_FOR.exec(stand.code) ?? [];
    if (names === undefined || target === undefined || stand.isEntry) continue;
    const taken = names.split(',').map((one) => one.split(' as '));
    const file = basename(stand.fileName);
    for (const one of chunks)
      one.code = one.code
        .replaceAll(
          `import(\`./${file}\`)`,
          `import(\`./${target}\`).then(e=>({${taken.map(([own, asked]) => `${asked ?? own}:e.${own}`).join(',')}}))`,
        )
        .replaceAll(`"assets/${file}"`, `"assets/${target}"`);
    if (chunks.some(({ code, fileName }) => fileName !== stand.fileName && code.includes(file)))
      throw new Error(`${file} is asked for in a way that is not known here.`);
    delete bundle[stand.fileName];
  }
}

/** Parts the page, has its first parts come at once, and tells it in `#ahead` what it may fetch once the first place is shown. */
export function parts(root: string, plugins: () => PluginOption[]): Plugin {
  let groups: ReadonlyMap<string, string> = new Map();
  return {
    name: 'parts',
    apply: 'build',
    async config(): Promise<UserConfig> {
      groups = await learn(root, plugins);
      return {
        build: {
          rolldownOptions: {
            output: {
              codeSplitting: {
                includeDependenciesRecursively: false,
                groups: [{ debugName: 'parts', name: (id: string) => groups.get(id) ?? null }],
              },
            },
          },
        },
      };
    },
    generateBundle: { order: 'post', handler: (_, bundle) => askDirectly(bundle) },
    transformIndexHtml: {
      order: 'post',
      handler(_, { bundle }) {
        const chunks = Object.values(bundle ?? {}).filter(isChunk);
        const byFile = new Map(chunks.map((one) => [one.fileName, one]));
        const first = new Set(chunks.filter(({ isEntry }) => isEntry).flatMap((one) => [...withAll(one, byFile)]));
        const soon = new Set(
          chunks
            .filter(({ moduleIds }) => moduleIds.some((id) => (STEPS as readonly string[]).includes(relative(root, id))))
            .flatMap((one) => [...withAll(one, byFile)])
            .filter((one) => !first.has(one)),
        );
        const stylesOf = (one: Chunk): readonly string[] => [...(one.viteMetadata?.importedCss ?? [])];
        const later = chunks.filter(
          (one) => !first.has(one) && !soon.has(one) && !STANDS_FOR.test(one.code) && !one.moduleIds.some((id) => ON_DEMAND.test(id)),
        );
        const tags: HtmlTagDescriptor[] = [...soon].flatMap((one) => [
          { tag: 'link', attrs: { rel: 'modulepreload', crossorigin: true, href: `/${one.fileName}` }, injectTo: 'head' },
          ...stylesOf(one).map((href): HtmlTagDescriptor => ({
            tag: 'link',
            attrs: { rel: 'stylesheet', crossorigin: true, href: `/${href}` },
            injectTo: 'head',
          })),
        ]);
        // The smallest first: what says that something waits is among them.
        const ahead = later
          .sort((one, other) => one.code.length - other.code.length)
          .flatMap((one) => [one.fileName, ...stylesOf(one)])
          .map((file) => `/${file}`);
        return [
          ...tags,
          {
            tag: 'script',
            attrs: { type: 'application/json', id: 'ahead' },
            children: JSON.stringify([...new Set(ahead)]),
            injectTo: 'body',
          },
        ];
      },
    },
  };
}
