import { expect } from 'chai';
import { useCopies } from '../../web/src/stores/copies.ts';
import { Page } from './page.ts';

describe('copies of the studio', () => {
  let page: Page;
  before(async () => (page = await Page.open()));
  after(() => page.end());
  const DAY_MS = 86_400_000;

  it('are told of once work has gone three days without one, and not before', async () => {
    const copies = page.within(() => useCopies());
    await copies.read();
    // The sample studio was laid out today, and lies in no copy yet.
    expect(copies.copies).to.include({ newestAt: null, trouble: null });
    expect(copies.copies!.behindSince).to.not.equal(null);
    expect(copies.daysWithout).to.equal(undefined);
    const laidOut = Date.parse(copies.copies!.behindSince!);
    const since = (days: number) => ({ ...copies.copies!, behindSince: new Date(laidOut - days * DAY_MS).toISOString() });
    for (const [days, told] of [
      [1, undefined],
      [2.5, undefined],
      [3.5, 3],
      [40.5, 40],
    ] as const) {
      copies.copies = since(days);
      expect(copies.daysWithout, `${days} days`).to.equal(told);
      copies.copies = since(-days);
    }
    copies.copies = { ...copies.copies!, behindSince: null };
    expect(copies.daysWithout).to.equal(undefined);
  });
});
