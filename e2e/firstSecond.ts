import { Sitting } from './studio.ts';

/** What a first view costs, and how long the page's own thread was ever kept from the hand. */
export interface FirstSecond {
  /** Bytes that came over the wire until the first place was there: all, and of these fonts. */
  readonly bytes: number;
  readonly fontBytes: number;
  /** Of these, what the studio holds: tubes with their curves, palettes, paintings. */
  readonly rowBytes: number;
  readonly requests: number;
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
  const { page, context } = sitting;
  await page.addInitScript(() => {
    const tasks: number[] = ((window as Watched).longTasks = []);
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) tasks.push(entry.duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  const wire = await context.newCDPSession(page);
  await wire.send('Network.enable');
  const urls = new Map<string, string>();
  let bytes = 0;
  let fontBytes = 0;
  let rowBytes = 0;
  let requests = 0;
  let counts = true;
  wire.on('Network.responseReceived', ({ requestId, response }) => void urls.set(requestId, response.url));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (!counts) return;
    requests++;
    // Pictures are the painter's own, not the product's.
    if (/\/api\/pictures/.test(urls.get(requestId) ?? '')) return;
    bytes += encodedDataLength;
    if (/\/api\//.test(urls.get(requestId) ?? '')) rowBytes += encodedDataLength;
    if (/\.woff2?$/.test(urls.get(requestId) ?? '')) fontBytes += encodedDataLength;
  });
  const longest: Record<string, number> = {};
  const during = async (what: string, work: () => Promise<unknown>): Promise<void> => {
    await page.evaluate(() => void ((window as Watched).longTasks!.length = 0)).catch(() => undefined);
    await work();
    await page.waitForTimeout(400);
    longest[what] = await page.evaluate(() => Math.max(0, ...(window as Watched).longTasks!));
  };
  const since = performance.now();
  let shownMs = 0;
  await during('cold start', async () => {
    await page.goto(`${sitting.running.address}paintings`);
    await page.locator('.place h1').waitFor();
    shownMs = performance.now() - since;
    counts = false;
  });
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
  return { bytes, fontBytes, rowBytes, requests, shownMs, longest };
}
