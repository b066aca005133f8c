// What the first second costs: what comes over the wire, and how long the page's thread is kept from the hand.
// npm run bench:first prints it.
import { fileURLToPath } from 'node:url';
import { closeBrowser, Sitting } from './studio.ts';

/** What comes over the wire: bytes of all but pictures, which are the painter's own, and requests. */
export interface Weight {
  bytes: number;
  fontBytes: number;
  rowBytes: number;
  requests: number;
}

/** Weighs what comes to a sitting's window from now on, as one that has had nothing yet. */
export async function weigh({ page, context }: Sitting): Promise<Weight> {
  const weight: Weight = { bytes: 0, fontBytes: 0, rowBytes: 0, requests: 0 };
  const urls = new Map<string, string>();
  const wire = await context.newCDPSession(page);
  await wire.send('Network.enable');
  await wire.send('Network.clearBrowserCache');
  wire.on('Network.responseReceived', ({ requestId, response }) => void urls.set(requestId, response.url));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const url = urls.get(requestId) ?? '';
    weight.requests++;
    if (/\/api\/pictures/.test(url)) return;
    weight.bytes += encodedDataLength;
    if (/\/api\//.test(url)) weight.rowBytes += encodedDataLength;
    if (/\.woff2?$/.test(url)) weight.fontBytes += encodedDataLength;
  });
  return weight;
}

/** Waits until all that is fetched ahead has come. */
export async function allHasCome(sitting: Sitting): Promise<void> {
  await sitting.page.waitForFunction(() => {
    const ahead = JSON.parse(document.querySelector('#ahead')!.textContent) as string[];
    return ahead.length > 0 && ahead.every((file) => performance.getEntriesByName(new URL(file, location.href).href).length > 0);
  });
  await sitting.quiet();
}

/** What a first view costs, and how long the page's own thread was ever kept from the hand. */
export interface FirstSecond extends Readonly<Weight> {
  /** Everything that came, with what is fetched ahead, once nothing more comes. */
  readonly allBytes: number;
  readonly allRequests: number;
  /** Until the first place was there, ms. */
  readonly shownMs: number;
  /** Longest task of the page's own thread while something was done, ms; tasks under 50 are not told apart. */
  readonly longest: Readonly<Record<string, number>>;
}

interface Watched extends Window {
  longTasks?: number[];
}

/** Opens the product for the first time in a browser that has nothing of it. */
export async function firstSecond(): Promise<FirstSecond> {
  const sitting = await Sitting.begin();
  const { page } = sitting;
  await page.addInitScript(() => {
    const tasks: number[] = ((window as Watched).longTasks = []);
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) tasks.push(entry.duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  const weight = await weigh(sitting);
  const longest: Record<string, number> = {};
  const during = async (what: string, work: () => Promise<unknown>): Promise<void> => {
    await page.evaluate(() => void ((window as Watched).longTasks!.length = 0)).catch(() => undefined);
    await work();
    await page.waitForTimeout(400);
    longest[what] = await page.evaluate(() => Math.max(0, ...(window as Watched).longTasks!));
  };
  const since = performance.now();
  let shownMs = 0;
  let shown = weight;
  await during('cold start', async () => {
    await page.goto(`${sitting.running.address}paintings`);
    await page.locator('.place h1').waitFor();
    shownMs = performance.now() - since;
    shown = { ...weight };
  });
  await allHasCome(sitting);
  const fetched = { allBytes: weight.bytes, allRequests: weight.requests };
  await during('opening a painting and its picture', async () => {
    await page.getByRole('link', { name: 'Oil can and twine by window and lamp' }).click();
    await page.locator('.picture canvas').waitFor();
    await page.getByText('Laying the palette out').waitFor({ state: 'detached' });
  });
  await during('moving over the picture', async () => {
    for (let i = 0; i < 200; i++) await sitting.pointAt(0.5 + 0.45 * Math.cos(i / 20), 0.5 + 0.45 * Math.sin(i / 14));
  });
  await during('keeping a pile', async () => {
    await page.keyboard.press('k');
    await page.getByRole('button', { name: 'Undo', exact: true }).waitFor();
  });
  await during('going to every other place', async () => {
    for (const place of ['Tubes', 'Palettes', 'Mixing', 'Paintings']) {
      await page.getByRole('link', { name: place, exact: true }).click();
      await page.waitForTimeout(200);
    }
  });
  await sitting.end();
  return { ...shown, ...fetched, shownMs, longest };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { bytes, fontBytes, rowBytes, requests, allBytes: all, allRequests, shownMs, longest } = await firstSecond();
  const kb = (n: number): string => `${(n / 1024).toFixed(0)} KB`;
  console.log(
    `until the first place is shown: ${kb(bytes)} in ${requests} requests (letters ${kb(fontBytes)}, rows ${kb(rowBytes)}), ${shownMs.toFixed(0)} ms`,
  );
  console.log(`with what is fetched ahead: ${kb(all)} in ${allRequests} requests`);
  for (const [what, ms] of Object.entries(longest)) console.log(`longest task, ${what}: ${ms === 0 ? 'under 50' : ms.toFixed(0)} ms`);
  await closeBrowser();
  process.exit(0);
}
