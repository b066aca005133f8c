import type { Locator, Page } from 'playwright-core';

/** Counts what a hand does: keys and presses. */
export class Hand {
  actions = 0;
  constructor(private readonly page: Page) {}
  async press(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page
      .getByRole('button', { name, exact: typeof name === 'string' })
      .first()
      .click();
  }
  /** Opens what is behind a door, or goes back through it. */
  async door(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page.locator('[data-test=door]', { hasText: name }).click();
  }
  async click(what: Locator): Promise<void> {
    this.actions++;
    await what.click();
  }
  async key(key: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(key);
  }
  /** Writes a line and leaves it: one action. */
  async type(label: string, text: string): Promise<void> {
    this.actions++;
    const field = this.page.getByLabel(label);
    await field.fill(text);
    await field.press('Enter');
    await field.evaluate((one) => (one as HTMLElement).blur());
  }
}
