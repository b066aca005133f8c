import { expect } from 'chai';
import { newId } from '../src/floor/ids.ts';
import { alone } from '../src/studio/alone.ts';

describe('a page that is not served securely', () => {
  const { crypto, navigator } = globalThis;
  const put = (name: 'crypto' | 'navigator', value: unknown): void =>
    void Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  beforeEach(() => {
    put('navigator', {});
    put('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
  });
  afterEach(() => {
    put('navigator', navigator);
    put('crypto', crypto);
  });

  it('makes ids of the usual form, each once', () => {
    const ids = Array.from({ length: 200 }, newId);
    for (const id of ids) expect(id).to.match(/^[\da-f]{8}-[\da-f]{4}-4[\da-f]{3}-[89ab][\da-f]{3}-[\da-f]{12}$/);
    expect(new Set(ids).size).to.equal(200);
  });

  it('does one thing at a time, and goes on after one that failed', async () => {
    const said: string[] = [];
    const work =
      (name: string, fails = false) =>
      async () => {
        said.push(`${name} begins`);
        await new Promise((done) => setTimeout(done, 5));
        said.push(`${name} ends`);
        if (fails) throw new Error(name);
        return name;
      };
    const first = alone('sending', work('first', true)).catch((cause: Error) => cause.message);
    const second = alone('sending', work('second'));
    expect(await Promise.all([first, second])).to.deep.equal(['first', 'second']);
    expect(said).to.deep.equal(['first begins', 'first ends', 'second begins', 'second ends']);
  });
});
