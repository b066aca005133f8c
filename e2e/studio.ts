// The product as a painter has it, for the browser tests.
import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { startServer, type Running } from '@dusk/server';
import type { Answer, CardsFound, Rows } from '@dusk/wire';
import {
  chromium,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Locator,
  type Page,
  type Request,
} from 'playwright-core';
import { SittingClock } from './clock.ts';
import { studioFolder } from './sampleFolder.ts';
import { soon } from './soon.ts';

export const PAGES = fileURLToPath(new URL('../web/dist', import.meta.url));

export { soon };

/** Where and in which language a sitting is, whatever the machine says. */
export const SOMEWHERE = { timezoneId: 'Europe/Berlin', locale: 'en-GB' } as const;

/** One browser serves a run. */
let theBrowser: Promise<Browser> | undefined;

/** Ends the browser; a test run ends with its process, a script says when it has done. */
export async function closeBrowser(): Promise<void> {
  await (await theBrowser)?.close();
  theBrowser = undefined;
  desks.length = 0;
}

/**
 * A window at one address that one sitting after another has: the page's scripts are fetched and compiled once for
 * all of them, which is more than half of the work of opening it.
 */
interface Desk {
  readonly context: BrowserContext;
  /** What its windows were asked to be. */
  readonly asked: string;
  readonly size: { width: number; height: number };
  page: Page;
  port: number;
  isTaken: boolean;
}
const desks: Desk[] = [];
const LAPTOP = { width: 1280, height: 800 };

/** A desk that nobody sits at. */
async function freeDesk(browser: Browser, options: BrowserContextOptions): Promise<Desk> {
  const asked = JSON.stringify(options);
  let desk = desks.find((one) => !one.isTaken && one.asked === asked);
  if (!desk) {
    const context = await browser.newContext({ viewport: LAPTOP, ...SOMEWHERE, ...options });
    desk = { context, asked, size: options.viewport ?? LAPTOP, page: await context.newPage(), port: 0, isTaken: false };
    desks.push(desk);
  }
  desk.isTaken = true;
  return desk;
}

/** Clears a desk for the next sitting: one empty window, and nothing that one has kept. */
async function clear(desk: Desk): Promise<void> {
  const { context, port, size } = desk;
  context.removeAllListeners();
  await context.unrouteAll();
  if (desk.page.isClosed()) desk.page = await context.newPage();
  const { page } = desk;
  await Promise.all(context.pages().flatMap((one) => (one === page ? [] : [one.close()])));
  page.removeAllListeners();
  await page.unrouteAll();
  await page.goto('about:blank');
  await page.setViewportSize(size);
  await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: null, forcedColors: null, contrast: null });
  const wire = await context.newCDPSession(page);
  await wire.send('Storage.clearDataForOrigin', { origin: `http://127.0.0.1:${port}`, storageTypes: 'cookies,indexeddb,local_storage' });
  await wire.detach();
  desk.isTaken = false;
}

/** The product as a painter has it: the built interface over a studio of its own, in Chromium. */
export class Sitting {
  private constructor(
    readonly folder: string,
    public running: Running,
    readonly browser: Browser,
    private readonly desk: Desk,
    readonly faults: string[],
    /** Requests of the page that are not answered, but for what it hears. */
    private readonly underWay: Set<Request>,
    private readonly clock: SittingClock,
  ) {}

  /** @param sample whether the sample studio is laid out */
  static async begin(sample = true, options: BrowserContextOptions = {}): Promise<Sitting> {
    const folder = await studioFolder(sample);
    const browser = await (theBrowser ??= chromium.launch({
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    }));
    const faults: string[] = [];
    const desk = await freeDesk(browser, options);
    const { context } = desk;
    const clock = new SittingClock(context);
    await clock.begin(desk.page);
    // An address that somebody took meanwhile is left to them: this sitting's pages are fetched anew then.
    const running = await startServer(folder, desk.port, PAGES, clock.now).catch(() => startServer(folder, 0, PAGES, clock.now));
    desk.port = Number(new URL(running.address).port);
    const { page } = desk;
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/status of 4\d\d|net::ERR_(CONNECTION|INCOMPLETE|EMPTY)/.test(message.text()))
        faults.push(message.text());
    });
    // Files are asked for from the start: whoever listens only when a key is pressed may come too late.
    page.on('filechooser', () => undefined);
    const underWay = new Set<Request>();
    page.on('request', (request) => void (request.url().includes('/events') || underWay.add(request)));
    page.on('requestfinished', (request) => void underWay.delete(request));
    page.on('requestfailed', (request) => void underWay.delete(request));
    return new Sitting(folder, running, browser, desk, faults, underWay, clock);
  }

  get context(): BrowserContext {
    return this.desk.context;
  }
  get page(): Page {
    return this.desk.page;
  }
  set page(page: Page) {
    this.desk.page = page;
  }

  /** Something was changed elsewhere since a page was loaded. */
  private isBehind = false;

  async open(path = ''): Promise<void> {
    this.isBehind = false;
    await this.page.goto(this.running.address + path);
    await this.page.locator('nav.rail').waitFor();
  }

  /** Goes to an address: as a link does where a page is open already, else by loading it. */
  async go(path: string): Promise<void> {
    const { address } = this.running;
    // What was changed elsewhere may not be heard of yet.
    if (!this.page.url().startsWith(address) || this.isBehind) return this.open(path);
    await this.quiet();
    // What is open there begins anew, as it would for who comes from elsewhere.
    const ways = this.page.url() === address + path ? ['paintings', path] : [path];
    for (const way of ways) {
      await this.goAtOnce(way);
      await this.quiet();
    }
  }

  /** Follows an address without loading, whatever is on its way. */
  async goAtOnce(path: string): Promise<void> {
    await this.page.evaluate((to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate'));
    }, `/${path}`);
  }

  /** Does what is done less often: opens the key it is behind and presses it. */
  async more(name: string | RegExp, key: RegExp = /^More/): Promise<void> {
    await this.page.getByRole('main').getByRole('button', { name: key }).filter({ visible: true }).first().click();
    const open = this.page.locator('.v-overlay--active .v-list-item');
    await open
      .and(this.page.getByLabel(name))
      .or(open.filter({ hasText: name }))
      .first()
      .click();
  }

  /** Chooses one of a field's list. */
  choose(test: string, title: string): Promise<void> {
    return this.chooseIn(this.page.locator(`[data-test=${test}] input`).first(), title);
  }
  /** Chooses one of the list of a field that is named in another way. */
  async chooseIn(field: Locator, title: string): Promise<void> {
    await field.locator('xpath=ancestor::*[contains(concat(" ", @class, " "), " v-field ")]').click();
    // A long list lays only what is seen of it.
    const item = this.page.locator('.v-overlay--active .v-list-item').getByText(title, { exact: true });
    const list = this.page.locator('.v-overlay--active .v-list');
    await list.waitFor();
    for (let i = 0; i < 40 && (await item.count()) === 0; i++)
      await list.evaluate(async (one) => {
        // It opens with the chosen one in sight: from its end it goes on at its beginning.
        const isAtEnd = one.scrollTop + one.clientHeight >= one.scrollHeight - 1;
        if (isAtEnd) one.scrollTo(0, 0);
        else one.scrollBy(0, 300);
        // What is seen then is laid in the frame after.
        for (let frame = 0; frame < 2; frame++) await new Promise(requestAnimationFrame);
      });
    await item.first().click();
    await list.waitFor({ state: 'detached' });
    await this.quiet();
  }

  /** Goes to a place by the rail, with no page loaded anew. */
  async goTo(place: string): Promise<void> {
    await this.page.locator('nav.rail').getByRole('link', { name: place }).click();
    await this.quiet();
  }

  /** Waits until nothing is asked of the studio, nothing moves, and what was worked out stands on the page. */
  async quiet(): Promise<void> {
    const still = async (): Promise<boolean> => {
      if (this.underWay.size > 0) return false;
      await this.page.evaluate(async () => {
        await document.fonts.ready;
        const ends = document.getAnimations().filter((one) => one.effect?.getComputedTiming().iterations !== Infinity);
        // A transition that another takes the place of may never say that it ended.
        await Promise.race([Promise.allSettled(ends.map((one) => one.finished)), new Promise((late) => setTimeout(late, 1000))]);
        for (let i = 0; i < 2; i++) await new Promise((done) => requestAnimationFrame(done));
      });
      return this.underWay.size === 0;
    };
    await soon(still, 'the page is quiet');
  }

  /** Stops the server and starts it again on the same file and port. */
  async restartServer(): Promise<void> {
    await this.running.stop();
    await this.startServer();
  }

  /** Starts a server on the same file and port, where none runs any more. */
  async startServer(): Promise<void> {
    const port = Number(new URL(this.running.address).port);
    this.running = await startServer(this.folder, port, PAGES, this.clock.now);
  }

  /** Sets the clocks of the studio and of this window; time does not go on by itself then. */
  async setClock(at: string): Promise<void> {
    await this.clock.set(at);
  }

  async end(): Promise<void> {
    await this.clock.end();
    await clear(this.desk);
    await this.running.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** Opens the first painting at its reference and waits for picture and book. */
  async openReference(title = 'Oil can and twine by window and lamp'): Promise<void> {
    await this.go('paintings');
    await this.page.getByRole('link', { name: title }).click();
    await this.page.locator('.picture canvas').waitFor();
    await this.page.getByText('Laying the palette out').waitFor({ state: 'detached' });
  }

  /** Makes a change as another window would. */
  async elsewhere(...ops: readonly object[]): Promise<void> {
    this.isBehind = true;
    const response = await fetch(`${this.running.address}api/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ id: crypto.randomUUID(), device: 'another window', ops }),
    });
    if (!response.ok) throw new Error(await response.text());
  }

  /** Puts away the sample studio's cards and sets, where a test begins with none. */
  async withoutCards(): Promise<void> {
    const get = async (path: string) => (await (await fetch(`${this.running.address}api/${path}`)).json()) as Answer & CardsFound;
    const { rows } = await get('sets');
    const { cards } = await get('cards-found');
    await this.elsewhere(
      ...rows.sets!.map(({ id, version }) => ({ do: 'set.delete', id, version })),
      ...cards.map(({ id, version }) => ({ do: 'card.delete', id, version })),
    );
  }

  /** What the studio holds, or one painting of it. */
  async rows(paintingId?: string): Promise<Rows> {
    const path = paintingId ? `paintings/${paintingId}` : 'studio';
    return ((await (await fetch(`${this.running.address}api/${path}`)).json()) as Answer).rows;
  }

  /** The painting whose place is open. */
  get paintingId(): string {
    return this.page.url().split('/painting/')[1]!.split('/')[0]!;
  }

  /** Opens a pile from the ledge, out of the fan where several share its place. */
  async openPile(name: RegExp): Promise<void> {
    await this.page.getByRole('link', { name }).first().click();
    const fanned = this.page.getByRole('navigation', { name: 'Piles that share this place' }).getByRole('link', { name });
    const open = this.page.locator('[data-test=standing]');
    await fanned.or(open).first().waitFor();
    if ((await fanned.count()) > 0) await fanned.first().click();
    await open.waitFor();
  }

  /** Moves the pointer to a place in the picture and stays until the page takes that place to be meant. */
  async dwellAt(x: number, y: number): Promise<void> {
    await this.pointAt(x, y);
    await this.page.locator('.ring.meant').waitFor();
  }

  /** Moves the pointer to a place in the picture, in shares of its size. */
  async pointAt(x: number, y: number): Promise<void> {
    const stage = this.page.locator('[role=application]');
    let box = await stage.boundingBox();
    // A stage whose picture becomes another is laid anew and has no place for a moment.
    await soon(async () => (box ??= await stage.boundingBox()) !== null, 'the picture has a place');
    await this.page.mouse.move(box!.x + box!.width * x, box!.y + box!.height * y);
  }
}
