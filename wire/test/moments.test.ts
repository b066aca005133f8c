import { expect } from 'chai';
import fc from 'fast-check';
import { InvalidRequest, OPERATIONS, readAs } from '../src/index.ts';
import { Day, ListOfWords, Moment } from '../src/fields.ts';

class Done {
  @Moment()
  at!: string;
}
class Due {
  @Day()
  on!: string;
}
class Listed {
  @ListOfWords('Lines', 0, 3, 'A line', 12)
  lines!: string[];
}
const moment = (at: unknown): string => readAs(Done, { at }).at;

describe('a moment', () => {
  it('is kept in UTC whatever its offset, so that moments compare as they are written', () => {
    const when = fc.date({ min: new Date('1990-01-01T00:00:00Z'), max: new Date('2090-01-01T00:00:00Z'), noInvalidDate: true });
    const offset = fc.integer({ min: -14 * 60, max: 14 * 60 });
    const two = (n: number): string => String(Math.abs(n)).padStart(2, '0');
    const written = (at: Date, minutes: number): string => {
      const local = new Date(at.getTime() + minutes * 60_000).toISOString().slice(0, 23);
      return `${local}${minutes < 0 ? '-' : '+'}${two(Math.trunc(minutes / 60))}:${two(minutes % 60)}`;
    };
    fc.assert(
      fc.property(when, when, offset, offset, (one, other, east, west) => {
        const [first, second] = [moment(written(one, east)), moment(written(other, west))];
        expect(first).to.equal(one.toISOString());
        expect(Math.sign(first.localeCompare(second))).to.equal(Math.sign(one.getTime() - other.getTime()));
      }),
    );
    expect(moment('2026-03-01T14:20Z')).to.equal('2026-03-01T14:20:00.000Z');
  });

  for (const at of [
    '2026-W12-3',
    '2026-060',
    '2026-02-31T10:00:00Z',
    '2026-02-29',
    '2026-13-01T10:00:00Z',
    '2026-03-01T25:00:00Z',
    '2026-03-01T14:20:00',
    '2026-03-01 14:20:00Z',
    '20260301T142000Z',
    'yesterday',
    '',
    1772374800,
    null,
  ])
    it(`is none where no day is named, or no place: ${JSON.stringify(at)}`, () => {
      expect(() => moment(at)).to.throw();
    });

  it('of a day to come is a day of the calendar', () => {
    expect(readAs(Due, { on: '2028-02-29' }).on).to.equal('2028-02-29');
    for (const on of ['2027-02-29', '2026-2-3', '2026-03-01T00:00:00Z', '2026-W12-3']) expect(() => readAs(Due, { on }), on).to.throw();
  });
});

describe('a list of words', () => {
  it('holds only what can be read, in the classes that are sent, too', () => {
    expect(readAs(Listed, { lines: ['edges', 'signature'] }).lines).to.have.length(2);
    for (const lines of [[' '], ['\u2800'], ['a\0b'], ['\u200b'], ['x'.repeat(13)], ['one', 'one'], [''], [7]])
      expect(() => readAs(Listed, { lines }), JSON.stringify(lines)).to.throw();
    expect(() => readAs(OPERATIONS['settings.change'], { version: 1, finishing: ['\u3164'] })).to.throw();
  });
});

describe('what is sent', () => {
  it('has no field by a name that objects have by themselves, however deep', () => {
    for (const text of ['{"at":"2026-03-01T14:20Z","constructor":1}', '{"at":{"__proto__":{}}}', '{"at":[{"a":{"prototype":null}}]}'])
      expect(() => readAs(Done, JSON.parse(text)), text).to.throw(InvalidRequest);
  });
});
