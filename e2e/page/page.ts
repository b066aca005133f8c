// The page's logic over a studio of its own, with no browser: stores and composables as they are, a server over a copy of
// the sample studio, and of what a browser has only what they touch.
import { rmSync } from 'node:fs';
import type { Operation } from '@dusk/wire';
import { startServer } from '@dusk/server';
import { createPinia, setActivePinia } from 'pinia';
import { createApp, effectScope, type App, type EffectScope } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { testClock } from '../../server/test/clock.ts';
import { told } from '../clock.ts';
import { usePaintings } from '../../web/src/stores/paintings.ts';
import { useStudio } from '../../web/src/studio/useStudio.ts';
import { studioFolder } from '../sampleFolder.ts';

/** Where the page believes it is served from: set anew by each page, since there is one of each global. */
let address = '';
/** Changes that the page sent. */
let sent: { readonly ops: readonly Operation[]; readonly undoes?: string }[] = [];

/** The page's workers, in this thread: what crosses is copied as it would be. */
class InThread extends EventTarget {
  private static readonly heard = new EventTarget();
  private static begun: Promise<unknown> | undefined;

  constructor() {
    super();
    InThread.begun ??= import('../../web/src/engine/engine.worker.ts');
  }

  /** What the worker's own file takes for its window. */
  static readonly self = {
    addEventListener: (type: string, heard: EventListener): void => InThread.heard.addEventListener(type, heard),
    removeEventListener: (type: string, heard: EventListener): void => InThread.heard.removeEventListener(type, heard),
    postMessage: (data: unknown): void => void InThread.all.forEach((one) => one.dispatchEvent(new MessageEvent('message', { data }))),
  };
  private static readonly all = new Set<InThread>();

  postMessage(message: unknown, transfer: readonly Transferable[] = []): void {
    InThread.all.add(this);
    const data = structuredClone(message, { transfer: [...transfer] as never });
    void InThread.begun!.then(() => InThread.heard.dispatchEvent(new MessageEvent('message', { data })));
  }
  terminate(): void {
    InThread.all.delete(this);
  }
}

/** Only what is touched: no elements, no letters, nothing kept from one page to the next. */
function standIns(): void {
  const there = globalThis as unknown as Record<string, unknown>;
  if (there['window'] !== undefined) return;
  // As a window is told what time it is.
  // eslint-disable-next-line no-restricted-syntax -- how far the machine's clock is off
  Function(told(`True.now() + ${Date.parse(testClock()) - Date.now()}`))();
  const ask = globalThis.fetch;
  const window = Object.assign(new EventTarget(), { location: { pathname: '/', reload: () => undefined } });
  Object.assign(there, {
    window,
    location: window.location,
    Worker: InThread,
    ...InThread.self,
    // Newer Nodes have one of their own.
    ...(there['navigator'] === undefined && { navigator: {} }),
    fetch: (url: string, init?: RequestInit) => {
      if (url.startsWith('/api/changes')) sent.push(JSON.parse(String(init?.body)) as (typeof sent)[number]);
      return ask(url.startsWith('/') ? address + url : url, init);
    },
    // What this page does is answered; it does not listen for what others do.
    EventSource: class extends EventTarget {
      close(): void {}
    },
  });
}

/** Places that the logic goes to by name. */
const PLACES = ['cards', 'mixing'] as const;

/** A page over a studio of its own. */
export class Page {
  private constructor(
    private readonly app: App,
    private readonly parts: EffectScope,
    private readonly folder: string,
    private readonly stop: () => Promise<unknown>,
  ) {}

  static async open(): Promise<Page> {
    standIns();
    const folder = await studioFolder(true);
    const running = await startServer(folder, 0, undefined, testClock);
    address = running.address.replace(/\/$/, '');
    sent = [];
    const pinia = createPinia();
    const app = createApp({}).use(pinia);
    app.use(createRouter({ history: createMemoryHistory(), routes: PLACES.map((name) => ({ path: `/${name}`, name, component: {} })) }));
    setActivePinia(pinia);
    const page = new Page(app, effectScope(true), folder, running.stop);
    await page.within(() => useStudio().load('studio'));
    return page;
  }

  /** Runs something as a part of the page would, which lives as long as the page. */
  within<T>(work: () => T): T {
    return this.app.runWithContext(() => this.parts.run(work)!);
  }

  /** Puts a painting on the easel, with all that belongs to it. @returns its id */
  async openPainting(title: string): Promise<string> {
    const [studio, paintings] = this.within(() => [useStudio(), usePaintings()] as const);
    const { id } = paintings.all.find((one) => one.title === title)!;
    paintings.setOnEasel(id);
    await studio.load('painting', id);
    return id;
  }

  /** What was sent since this was asked last. */
  taken(): readonly Operation[] {
    return sent.splice(0).flatMap(({ ops }) => ops);
  }

  async end(): Promise<void> {
    this.parts.stop();
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
