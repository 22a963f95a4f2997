/** Times of day and lengths in phrases: `7pm`, `half past seven`, `10 to 4`, `19.30-21`, `for an hour and a half`. */
import type { Cursor } from './cursor';
import { MOST_SUN_MINUTES } from '../../recurrence/sun-start';
import type { SunEvent } from '../../sky/sky';
import { NIGHT_ENDS } from '../format';
import { type Half, minuteOf } from './tokens';
import { MONTH_WORDS, NUMBER_WORDS, UNIT_WORDS, type Unit, ZONE_LETTERS } from './vocabulary';

/** A time of day as said. `open` = an hour of which the half of the day is not said. */
export interface SaidTime {
  minute: number;
  half: Half | null;
  open: boolean;
  /** on the 24-hour clock beyond doubt */
  zero: boolean;
  /** `7.30`, as a clock of twelve hours shows it: the evening's as likely as the morning's */
  dotted?: boolean;
  from: number;
  to: number;
}

/** A time of day, or from one to another, with its place; in minutes since midnight. */
export interface SaidTimes {
  start: number;
  end: number | null;
  /** days from the start's to the end's, by the clock alone */
  endDays: number;
  /** the end as its own words give it, without what the start lends it */
  ownEnd?: number;
  /** when two readings fit: the one not taken */
  other?: { start: number; end: number | null };
  endsBefore: boolean;
  /** as a clock's face shows them, `7.30`: only a part of the day said beside them tells the half */
  face?: true;
  /** the start as `7:30` shows it, where a site of 24 hours means what is shown */
  shown?: number;
  /** by the sun: `start` is only about when that is */
  sun?: { event: SunEvent; minutes: number };
  /** minutes east of UTC, where letters of a zone stand behind it */
  zone?: { offset: number; from: number; to: number };
  from: number;
  to: number;
}

const HOUR = 60;
/** Years before it are none of something that is still to come: `1930` is half past seven. */
export const FIRST_YEAR = 1990;
const NOON = 720;
/** `7.30` may be the evening's; from nine on a time without its half is the morning's. */
const FACE_UNTIL = 540;

/** The likelier half of the day for a bare hour: people meet at nine in the morning, and at seven in the evening. */
function likelier(minute: number): number {
  const hour = Math.floor(minute / HOUR) % 12;
  if (hour === 0) return NOON + (minute % HOUR);
  return hour <= 8 ? (minute % NOON) + NOON : minute % NOON;
}

const clockHour = (cursor: Cursor): { hour: number; zero: boolean } | undefined => {
  const token = cursor.peek();
  if (token?.kind === 'number' && !token.ordinal && Number.isInteger(token.value) && token.value <= 24) {
    cursor.next();
    return { hour: token.value, zero: token.zero || token.value > 12 || token.value === 0 };
  }
  const hour = NUMBER_WORDS.get(cursor.word());
  if (hour === undefined || hour < 1 || hour > 12) return undefined;
  cursor.next();
  return { hour, zero: false };
};

/** `in the evening`, `at night`, `am` after an hour in words. */
function readHalf(cursor: Cursor): Half | undefined {
  if (cursor.passAll('in the morning') || cursor.pass('am')) return 'am';
  if (cursor.passAll('in the afternoon') || cursor.passAll('in the evening') || cursor.passAll('at night') || cursor.pass('pm'))
    return 'pm';
  return undefined;
}

/** `half past seven`, `quarter to 8`, `ten past nine`. */
function readPast(cursor: Cursor): { minute: number; open: boolean } | undefined {
  const wordy = new Map([
    ['half', 30],
    ['quarter', 15],
    ['five', 5],
    ['ten', 10],
    ['twenty', 20],
  ]);
  cursor.pass('a');
  const part = wordy.get(cursor.word());
  if (part === undefined) return undefined;
  cursor.next();
  cursor.pass('minutes');
  const before = cursor.word() === 'to' && part !== 30;
  if (!cursor.pass('past') && !(before && cursor.pass('to'))) return undefined;
  const named = cursor.pass('noon') ? 12 : cursor.pass('midnight') ? 0 : undefined;
  if (named !== undefined) return { minute: (named * HOUR + (before ? -part : part) + 1440) % 1440, open: false };
  const hour = clockHour(cursor);
  if (!hour) return undefined;
  return { minute: (hour.hour * HOUR + (before ? -part : part) + 1440) % 1440, open: !hour.zero };
}

/** One time of day. A number alone counts only where `bare` is allowed: after `at`, in a range. */
export function readTime(cursor: Cursor, bare: boolean): SaidTime | undefined {
  return cursor.attempt(() => {
    const first = cursor.at;
    const made = readMinute(cursor, bare);
    if (!made) return undefined;
    cursor.passAll("o'clock");
    const half = made.half ?? (made.zero ? null : (readHalf(cursor) ?? null));
    let { minute } = made;
    if (half && !made.half) minute = minuteOf(Math.floor(minute / HOUR) || 12, minute % HOUR, half) ?? minute;
    return {
      minute,
      half,
      open: made.open && half === null,
      dotted: Boolean(made.dotted && !half),
      zero: made.zero,
      ...cursor.place(first),
    };
  });
}

function readMinute(cursor: Cursor, bare: boolean): Omit<SaidTime, 'from' | 'to'> | undefined {
  const token = cursor.peek();
  if (token?.kind === 'time') {
    cursor.next();
    if (!token.half) cursor.pass('hrs', 'hours');
    const dotted = !token.zero && !token.half && !token.hours && token.minute < FACE_UNTIL && token.minute >= HOUR;
    return { minute: token.minute, half: token.half, open: false, dotted, zero: token.zero || token.hours };
  }
  if (token?.kind === 'number' && token.value === 12 && ['noon', 'midday'].includes(cursor.word(1))) cursor.next();
  if (cursor.pass('noon', 'midday')) return { minute: NOON, half: 'pm', open: false, zero: true };
  if (cursor.pass('midnight')) return { minute: 0, half: 'am', open: false, zero: true };
  const past = cursor.attempt(() => readPast(cursor));
  if (past) return { minute: past.minute, half: null, open: past.open, zero: !past.open };
  const oclock = cursor.word(1) === "o'clock";
  if (token?.kind === 'number' && !token.ordinal && (bare || isClockNumber(cursor)) && token.value >= 1000 && token.value <= 2359) {
    cursor.next();
    const minute = minuteOf(Math.floor(token.value / 100), token.value % 100, null);
    return minute === undefined ? undefined : { minute, half: null, open: false, zero: true };
  }
  if (!bare && !oclock && !['in', 'am', 'pm'].includes(cursor.word(1))) return undefined;
  const hour = clockHour(cursor);
  if (!hour) return undefined;
  if (!bare && !oclock && cursor.word() === 'in' && cursor.word(1) !== 'the') return undefined;
  const minute = minuteOf(hour.hour, 0, null);
  return minute === undefined ? undefined : { minute, half: null, open: !hour.zero, zero: hour.zero };
}

/** `1930`, which is no year that anything here is in; or four figures behind a year. */
function isClockNumber(cursor: Cursor): boolean {
  const [before, here] = [cursor.peek(-1), cursor.peek()];
  if (here?.kind !== 'number' || here.text.length !== 4 || here.value % 100 > 59) return false;
  const behindYear = before?.kind === 'number' && /^(19|20|21)\d\d$/.test(before.text);
  return behindYear || here.value < FIRST_YEAR;
}

/** About when the sun rises and sets, in minutes: for what is asked before the day is known. */
const ABOUT: Record<SunEvent, number> = { sunrise: 360, sunset: 1080 };

/** `sunset`, `18 minutes before sunset`, `an hour after sunrise`. */
function readSun(cursor: Cursor): { start: SaidTime; sun: NonNullable<SaidTimes['sun']> } | undefined {
  const first = cursor.at;
  const length = readLength(cursor);
  if (length && length.unit !== 'minute') return undefined;
  const way = length && (cursor.pass('before') ? -1 : cursor.pass('after') ? 1 : undefined);
  if (length && way === undefined) return undefined;
  const event = cursor.pass('sunset') ? 'sunset' : cursor.pass('sunrise') ? 'sunrise' : undefined;
  const minutes = Math.round((length?.amount ?? 0) * (way ?? 0)) + 0;
  if (!event || Math.abs(minutes) > MOST_SUN_MINUTES) return undefined;
  const half: Half = event === 'sunset' ? 'pm' : 'am';
  return { start: { minute: ABOUT[event] + minutes, half, open: false, zero: true, ...cursor.place(first) }, sun: { event, minutes } };
}

/** `at 7pm`, `from 7 to 9`, `19.30-21`, `between 10 and 4`. */
export function readTimes(cursor: Cursor): SaidTimes | undefined {
  return cursor.attempt(() => {
    const first = cursor.at;
    const between = cursor.pass('between');
    const led = between || cursor.pass('at', '@', 'from');
    if (led) cursor.pass('about', 'around');
    const sun = cursor.attempt(() => readSun(cursor));
    const start = sun?.start ?? readTime(cursor, led) ?? cursor.attempt(() => rangeStart(cursor));
    if (!start) return undefined;
    const end = readRangeEnd(cursor, between);
    if (between && !end) return undefined;
    const face = [start, end ?? start].every((time) => time.half === null && !time.zero) ? { face: true as const } : {};
    const letters = cursor.peek();
    const offset = letters?.kind === 'word' ? ZONE_LETTERS.get(letters.text) : undefined;
    const at = cursor.at;
    const zone = offset !== undefined && cursor.next() ? { zone: { offset, ...cursor.place(at) } } : {};
    const shown =
      start.dotted && cursor.tokens.slice(first, cursor.at).some(({ text }) => text.includes(':')) ? { shown: start.minute } : {};
    return { ...spanned(start, end), ...(sun ? { sun: sun.sun } : {}), ...face, ...shown, ...zone, ...cursor.place(first) };
  });
}

/** A time alone, or two with the end as its own words give it. */
function spanned(start: SaidTime, end: SaidTime | undefined): Omit<SaidTimes, 'from' | 'to'> {
  if (!end) return alone(start);
  return { ...pair(start, end), ...(end.open ? {} : { ownEnd: end.minute }) };
}

/** Joins of several times on one day. */
const TIME_JOINS = [',', 'and', '&', '+', '/'];

/**
 * Several times on one day, `10am and 2pm`, `10–12 and 2–4`, `10, 12 and 14:00`; one alone as a list of one. What they leave open of the halves of
 * the day is settled where only one reading lets them follow each other.
 */
export function readTimesOfDay(cursor: Cursor): SaidTimes[] {
  const first = readTimes(cursor);
  if (!first) return [];
  const all = [first];
  for (;;) {
    const next = cursor.attempt(() => {
      let joined = false;
      while (cursor.pass(...TIME_JOINS)) joined = true;
      if (!joined) return undefined;
      // Behind `from` a number alone is a day: `07:40, from 21 March`.
      cursor.pass('again', 'then', 'from');
      return readTimes(cursor) ?? listedHour(cursor);
    });
    if (!next) break;
    all.push(next);
  }
  return all.length > 1 ? settled(all) : all;
}

/** `12` of `at 10, 12 and 14:00`: an hour among hours, with another time behind it. */
function listedHour(cursor: Cursor): SaidTimes | undefined {
  const first = cursor.at;
  const time = readTime(cursor, true);
  if (!time || MONTH_WORDS.has(cursor.word()) || cursor.word() === 'of') return undefined;
  const after = cursor.at;
  const more = cursor.pass(...TIME_JOINS) && cursor.attempt(() => readTimes(cursor) ?? listedHour(cursor));
  cursor.at = after;
  return more ? { ...alone(time), ...cursor.place(first) } : undefined;
}

/** The one reading in which they come one after another; where there are more, the halves stay open. */
function settled(all: SaidTimes[]): SaidTimes[] {
  const readings = all.map((one): SaidTimes[] => {
    const { other, ...rest } = one;
    return other ? [rest, { ...rest, ...other }] : [one];
  });
  let found: SaidTimes[][] = [[]];
  for (const options of readings)
    found = found.flatMap((before) => {
      const last = before.at(-1);
      return options
        .filter((one) => !last || one.start > (last.end !== null && last.endDays === 0 ? last.end - 1 : last.start))
        .map((one) => [...before, one]);
    });
  const [only, more] = found;
  return only && !more ? only : all;
}

/** A bare number is a time when a range of times follows: `10 to 4`, `7-9pm`, but not `14-16 May`. */
function rangeStart(cursor: Cursor): SaidTime | undefined {
  const start = readTime(cursor, true);
  if (!start) return undefined;
  const after = cursor.at;
  const end = readRangeEnd(cursor, false);
  cursor.at = after;
  return end && start.minute <= 24 * HOUR ? start : undefined;
}

function readRangeEnd(cursor: Cursor, between: boolean): SaidTime | undefined {
  return cursor.attempt(() => {
    const joins = between ? ['and', '-'] : ['-', 'to', 'till', 'til', 'until'];
    const end = cursor.pass(...joins) ? readTime(cursor, true) : undefined;
    // `7pm until 20 June`: the number is a day.
    return end?.open !== undefined && MONTH_WORDS.has(cursor.word()) ? undefined : end;
  });
}

function alone(time: SaidTime): Omit<SaidTimes, 'from' | 'to'> {
  const none = { end: null, endDays: 0, endsBefore: false };
  if (!time.open && !time.dotted) return { start: time.minute, ...none };
  const start = likelier(time.minute);
  return Math.floor(time.minute / HOUR) === 12
    ? { start, ...none }
    : { start, ...none, other: { start: start >= NOON ? start - NOON : start + NOON, end: null } };
}

/** Times that had no end, with the end that was said apart from them. */
export function endingAt(times: SaidTimes, end: SaidTime): SaidTimes {
  const start: SaidTime = {
    minute: times.start,
    half: times.start < NOON ? 'am' : 'pm',
    open: false,
    zero: false,
    from: times.from,
    to: times.to,
  };
  return { ...pair(start, end), from: times.from, to: end.to };
}

/** The readings of an hour by the halves of the day; twelve alone is noon. */
function halves(time: SaidTime): number[] {
  if (!time.open) return [time.minute];
  const hour = Math.floor(time.minute / HOUR);
  return hour === 12 || hour === 0 ? [NOON + (time.minute % HOUR)] : [time.minute, time.minute + NOON];
}

function ended(start: number, end: number): Omit<SaidTimes, 'from' | 'to'> {
  if (end > start) return { start, end, endDays: 0, endsBefore: false };
  return { start, end, endDays: 1, endsBefore: !(end <= NIGHT_ENDS && start >= NOON) };
}

/** Two times by the clock: what one says of the half of the day goes for the other where that fits in a day. */
function pair(from: SaidTime, to: SaidTime): Omit<SaidTimes, 'from' | 'to'> {
  const plain = !from.half && !to.half && !from.zero && !to.zero;
  const [start, end] = [from, to].map((time) => (plain && time.dotted ? { ...time, open: true } : time)) as [SaidTime, SaidTime];
  const said = (time: SaidTime): boolean => !time.open || time.half !== null;
  if (said(start) && said(end)) return spread(start, end);
  // Hours beyond twelve, or written 07, are those of the 24-hour clock, and so is the other end.
  if (!start.half && !end.half && (start.zero || end.zero)) {
    const late = end.open && end.minute <= start.minute && end.minute + NOON > start.minute ? end.minute + NOON : end.minute;
    return ended(start.minute, late);
  }
  const fitting = halves(start)
    .flatMap((from) => halves(end).map((to) => ({ from, to })))
    .filter(({ from, to }) => to > from && to - from <= NOON);
  // A half that is said goes for both where it can: 7-9pm, 7pm to 9.
  const half = start.half ?? end.half;
  const alike = fitting.find(({ from, to }) => half !== null && from >= NOON === (half === 'pm') && to >= NOON === (half === 'pm'));
  const best = alike ?? fitting.find(({ from }) => from === likelier(start.minute)) ?? fitting[0];
  if (!best) return ended(halves(start).at(-1) ?? start.minute, halves(end)[0] ?? end.minute);
  const rest = half === null ? fitting.filter((one) => one !== best) : [];
  const other = rest[0];
  return { ...ended(best.from, best.to), ...(other ? { other: { start: other.from, end: other.to } } : {}) };
}

/** Both are said whole, or as a clock shows them: `7:30-9pm` and `11:30-1:00` still lend each other the half. */
function spread(start: SaidTime, end: SaidTime): Omit<SaidTimes, 'from' | 'to'> {
  if (!start.half && !start.zero && end.half) {
    const alike = minuteOf(Math.floor(start.minute / HOUR), start.minute % HOUR, end.half);
    if (alike !== undefined && alike < end.minute) return ended(alike, end.minute);
  }
  if (!end.half && !end.zero && !start.zero && end.minute <= start.minute && end.minute + NOON > start.minute)
    return ended(start.minute, end.minute + NOON);
  return ended(start.minute, end.minute);
}

/** How long it lasts, with its place. */
export interface SaidLength {
  amount: number;
  unit: Unit;
}

/** `2 hours`, `an hour and a half`, `1h30`, `90 min`, `three weeks`. */
export function readLength(cursor: Cursor): SaidLength | undefined {
  return cursor.attempt(() => {
    const token = cursor.peek();
    if (token?.kind === 'time' && token.hours) {
      cursor.next();
      return { amount: token.minute, unit: 'minute' };
    }
    if (cursor.passAll('half an hour') || cursor.passAll('half hour')) return { amount: 30, unit: 'minute' };
    const amount = readAmount(cursor);
    const unit = amount === undefined ? undefined : UNIT_WORDS.get(cursor.word());
    if (amount === undefined || !unit) return undefined;
    cursor.next();
    return withRest(cursor, amount, unit);
  });
}

function withRest(cursor: Cursor, amount: number, unit: Unit): SaidLength {
  if (unit !== 'hour') return { amount, unit };
  let minutes = amount * HOUR;
  if (cursor.passAll('and a half')) minutes += 30;
  else {
    const rest = cursor.attempt(() => {
      cursor.pass('and');
      const more = readAmount(cursor);
      return more !== undefined && cursor.pass('minutes', 'minute', 'mins', 'min') ? more : undefined;
    });
    minutes += rest ?? 0;
  }
  return { amount: minutes, unit: 'minute' };
}

/** A number in figures or in words, `a`, `an`, `a couple of`. */
export function readAmount(cursor: Cursor): number | undefined {
  const token = cursor.peek();
  if (token?.kind === 'number' && !token.ordinal) {
    cursor.next();
    return token.value;
  }
  const spelt = NUMBER_WORDS.get(cursor.word());
  if (spelt !== undefined) {
    cursor.next();
    return spelt;
  }
  if (cursor.passAll('a couple of')) return 2;
  return cursor.pass('a', 'an') ? 1 : undefined;
}
