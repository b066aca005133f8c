import type { Page } from 'playwright-core';

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
  async tab(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page.getByRole('tab', { name }).click();
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
