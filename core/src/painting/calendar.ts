import { TZDate } from '@date-fns/tz';
import { addDays, differenceInCalendarDays, format, isSaturday, isSunday, nextSaturday, set } from 'date-fns';
import { DAY_MS } from './drying.ts';

// Moments in the words of a painter's calendar, in the time zone of the studio: a day has 23 hours once a year, and 25 once.

const HOUR_MS = 3_600_000;

const local = (at: number, zone: string): TZDate => new TZDate(at, zone);
const atHour = (day: Date, hours: number): number => +set(day, { hours, minutes: 0, seconds: 0, milliseconds: 0 });

/** Whether a calendar has a day, as `2026-02-28`; a day that no month has would be read as one of the next. */
export function isInCalendar(day: string): boolean {
  const at = new Date(day);
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(day);
}

/** Hours at which a painter asks. */
const EVENING = 20;
const MORNING = 10;

export interface AskedMoment {
  readonly name: string;
  readonly at: number;
}

/** The moments that are asked about: tonight, tomorrow, at the weekend; on a Friday tomorrow is Saturday, and Sunday comes. */
export function momentsAhead(now: number, zone: string): readonly AskedMoment[] {
  const today = local(now, zone);
  const tonight = Math.max(now, atHour(today, EVENING));
  const tomorrow = addDays(today, 1);
  const isWeekend = isSaturday(tomorrow) || isSunday(tomorrow);
  const later = isWeekend ? addDays(today, 2) : nextSaturday(tomorrow);
  return [
    { name: 'tonight', at: tonight },
    { name: isWeekend ? `tomorrow, ${format(tomorrow, 'EEEE')}` : 'tomorrow', at: atHour(tomorrow, MORNING) },
    { name: isWeekend ? `on ${format(later, 'EEEE')}` : 'at the weekend', at: atHour(later, MORNING) },
  ];
}

/** Days ahead that go by their weekday. */
const BY_WEEKDAY = 6;
/** Days ahead from which on a day is more than can be said. */
const BY_MONTH = 75;

const partOfMonth = (day: number): string => (day <= 10 ? 'early' : day <= 20 ? 'mid' : 'late');

/** A day as a painter says it. */
export function daySaid(at: number, now: number, zone: string): string {
  const day = local(at, zone);
  const off = differenceInCalendarDays(day, local(now, zone));
  if (off === 0) return at < now ? 'today' : day.getHours() >= 17 ? 'tonight' : 'today';
  if (off === 1) return 'tomorrow';
  if (off === -1) return 'yesterday';
  if (Math.abs(off) <= BY_WEEKDAY) return format(day, 'EEEE');
  if (Math.abs(off) <= BY_MONTH) return format(day, 'd MMMM');
  const year = day.getFullYear() === local(now, zone).getFullYear() ? '' : ` ${day.getFullYear()}`;
  return `${partOfMonth(day.getDate())} ${format(day, 'MMMM')}${year}`;
}

/** A window of moments as a painter says it: `in 2 to 5 hours`, `Thursday to Sunday`, `by tomorrow`. */
export function windowSaid([from, to]: readonly [number, number], now: number, zone: string): string {
  if (to <= now) return `since ${daySaid(to, now, zone)}`;
  if (to - now < DAY_MS / 2 && from > now) {
    const [a, b] = [Math.max(1, Math.round((from - now) / HOUR_MS)), Math.max(1, Math.ceil((to - now) / HOUR_MS))];
    return a === b ? `in ${a === 1 ? 'an hour' : `${a} hours`}` : `in ${a} to ${b} hours`;
  }
  const last = daySaid(to, now, zone);
  if (from <= now) return `by ${last}`;
  const first = daySaid(from, now, zone);
  return first === last ? first : `${first} to ${last}`;
}
