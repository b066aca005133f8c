// What time it is in a sitting: the same in the studio and in every window, whatever day it truly is.
import type { BrowserContext, Disposable, Page } from 'playwright-core';
import { testClock } from '../server/test/clock.ts';

export { later } from '../server/test/clock.ts';

/**
 * Runs in a window: its dates are as told from now on; its timers stay the browser's own. Told as text, since
 * loaders mark functions by name and a window does not know their mark.
 * @param now what it is then, ms, of the machine's own `True.now()`
 */
export const told = (now: string): string => `{
  const True = (globalThis.TrueDate ??= Date);
  const now = () => ${now};
  globalThis.Date = new Proxy(True, {
    construct: (target, args, asked) => Reflect.construct(target, args.length > 0 ? args : [now()], asked),
    get: (target, key) => (key === 'now' ? now : Reflect.get(target, key)),
  });
}`;

/** The clock of a sitting. */
export class SittingClock {
  /** Where it was set to stand. */
  private at: string | undefined;
  private readonly told: Disposable[] = [];

  constructor(private readonly context: BrowserContext) {}

  readonly now = (): string => this.at ?? testClock();

  /** Tells every window that is opened from now on. @param page a window that was told nothing yet */
  async begin(page: Page): Promise<void> {
    // eslint-disable-next-line no-restricted-syntax -- how far the window's clock is off
    const there = await page.evaluate(() => Date.now());
    this.told.push(await this.context.addInitScript(told(`True.now() + ${Date.parse(testClock()) - there}`)));
  }

  /** Windows of another sitting are told nothing by this one. */
  async end(): Promise<void> {
    for (const one of this.told.splice(0)) await one.dispose();
  }

  /** Stands at a moment from now on, in the studio and in all windows. */
  async set(at: string): Promise<void> {
    this.at = new Date(at).toISOString();
    const still = told(String(Date.parse(at)));
    this.told.push(await this.context.addInitScript(still));
    await Promise.all(this.context.pages().map((page) => page.evaluate(still)));
  }
}
