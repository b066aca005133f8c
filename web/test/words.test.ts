import { expect } from 'chai';
import { clock, day, moment, weekday } from '../src/floor/words.ts';

describe('days and times, in one form everywhere', () => {
  // Told in the painter's own time, whichever that is here.
  const now = new Date(2026, 2, 3, 14, 20);
  const at = (...parts: [number, number, number, number, number]): string => new Date(...parts).toISOString();

  it('a day has its year only where that is another', () => {
    expect(day(at(2026, 0, 31, 9, 5), now)).to.equal('31 January');
    expect(day(at(2025, 11, 31, 23, 50), now)).to.equal('31 December 2025');
    expect(weekday(at(2028, 1, 29, 8, 0), now)).to.equal('Tuesday 29 February 2028');
  });

  it('a moment of today is its time, of another day that day and its time', () => {
    expect(clock(at(2026, 2, 3, 0, 7))).to.equal('00:07');
    expect(moment(at(2026, 2, 3, 9, 0), now)).to.equal('09:00');
    expect(moment(at(2026, 2, 2, 9, 0), now)).to.equal('2 March, 09:00');
    expect(moment(at(2024, 2, 2, 9, 0), now)).to.equal('2 March 2024, 09:00');
  });
});
