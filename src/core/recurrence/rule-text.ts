/**
 * RRULE text (RFC 5545 3.3.10) to a rule with its limit, and back. Reads all parts of the standard; what it does not allow
 * is refused by name, never dropped. UNTIL becomes a day of the recurrence's zone, with a second of the day where a rule
 * has several times. The second of the start is that of its day; null = all day.
 */
import { type EpochDay, dateExists, dayOf, isoDay, type Weekday } from '../day/day';
import { isoInstant, MS_PER_UTC_DAY, offsetAt, transitionsOf, dateTimeToInstant } from '../day/zone';
import { type ByDay, FREQUENCIES, type Frequency, type Limit, type Rule, type RecurrencePart } from './model';
import { hasTimes } from './sub-daily';

/** The days of the week in RFC 5545, Monday first. */
export const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const BY_NAME = new Map<string, Frequency>(FREQUENCIES.map((freq) => [freq.toUpperCase(), freq]));
const MAX_COUNT = 100_000;
const MAX_INTERVAL = 10_000_000;
/** Longer than any rule a person or a program means. */
const MAX_TEXT = 4000;
const MAX_LIST = 400;

/** An RRULE that is refused; its message names the part. */
export class RuleTextError extends Error {
  override name = 'RuleTextError';
}

/** UNTIL as written, before it is known whether the rule has times of its own. */
interface Until {
  day: EpochDay;
  second: number | undefined;
}

/**
 * Reads `FREQ=MONTHLY;BYDAY=1SU,3SU;UNTIL=20271031`. Throws {@link RuleTextError} naming the part that is wrong.
 * Written over positions rather than with split and patterns: files bring tens of thousands of rules.
 */
export function readRuleText(text: string, zone: string, startSecond: number | null): { rule: Rule; limit: Limit } {
  let count: number | undefined;
  let until: Until | undefined;
  let freq: Frequency | undefined;
  const rule: Rule = { freq: 'daily', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
  const seen: string[] = [];
  if (text.length > MAX_TEXT) throw new RuleTextError(`The rule is longer than ${MAX_TEXT} characters`);
  const upper = text.toUpperCase();
  for (let from = 0; from <= upper.length; ) {
    const next = upper.indexOf(';', from);
    const end = next < 0 ? upper.length : next;
    const equals = upper.indexOf('=', from);
    if (equals <= from || equals > end)
      throw new RuleTextError(`${upper.slice(from, end).slice(0, 40) || 'A part'} is empty or has no value`);
    const name = upper.slice(from, equals);
    const value = upper.slice(equals + 1, end);
    if (seen.includes(name)) throw new RuleTextError(`${name} is given twice`);
    seen.push(name);
    if (name === 'FREQ') freq = BY_NAME.get(value);
    else if (name === 'COUNT') count = integer(name, value, 1, MAX_COUNT);
    else if (name === 'UNTIL') until = readUntil(value, zone);
    else readPart(rule, name, value);
    from = end + 1;
  }
  if (!freq) throw new RuleTextError('FREQ must be SECONDLY, MINUTELY, HOURLY, DAILY, WEEKLY, MONTHLY or YEARLY');
  rule.freq = freq;
  if (count !== undefined && until) throw new RuleTextError('COUNT and UNTIL exclude each other');
  checkTogether(rule, startSecond);
  if (count !== undefined) return { rule, limit: { kind: 'count', count } };
  return { rule, limit: until ? limitOf(until, rule, startSecond) : { kind: 'open' } };
}

/** What the standard does not allow together (RFC 5545 3.3.10), and the time parts that a whole day ignores. */
function checkTogether(rule: Rule, startSecond: number | null): void {
  const { freq, byDay, byMonthDay, byMonth, byYearDay, byWeekNo, byHour, byMinute, bySecond, bySetPos } = rule;
  const short = freq === 'secondly' || freq === 'minutely' || freq === 'hourly';
  if (byDay.some((d) => d.nth !== 0)) {
    if (freq !== 'monthly' && freq !== 'yearly') throw new RuleTextError('BYDAY takes a number only with MONTHLY or YEARLY');
    if (byWeekNo) throw new RuleTextError('BYDAY takes no number together with BYWEEKNO');
    checkNumbers(rule);
  }
  if (freq === 'weekly' && byMonthDay.length) throw new RuleTextError('BYMONTHDAY does not go with WEEKLY');
  if (byYearDay && !short && freq !== 'yearly') throw new RuleTextError(`BYYEARDAY does not go with ${freq.toUpperCase()}`);
  if (byWeekNo && freq !== 'yearly') throw new RuleTextError('BYWEEKNO goes with YEARLY only');
  const others = byDay.length || byMonthDay.length || byMonth.length || byYearDay || byWeekNo || byHour || byMinute || bySecond;
  if (bySetPos && !others) throw new RuleTextError('BYSETPOS needs another BY part to choose from');
  if (startSecond !== null) return;
  if (short) throw new RuleTextError(`${freq.toUpperCase()} needs a start with a time of day`);
  delete rule.byHour;
  delete rule.byMinute;
  delete rule.bySecond;
}

/** A number counts within the month, except in a year without BYMONTH. */
function checkNumbers({ freq, byMonth, byDay }: Rule): void {
  const most = freq === 'monthly' || byMonth.length ? 5 : 53;
  const far = byDay.find((d) => Math.abs(d.nth) > most);
  if (far) throw new RuleTextError(`No month has ${Math.abs(far.nth)} of one weekday: BYDAY counts to ${most} here`);
}

function readPart(rule: Rule, name: string, value: string): void {
  switch (name) {
    case 'INTERVAL':
      rule.interval = integer(name, value, 1, MAX_INTERVAL);
      return;
    case 'BYDAY':
      rule.byDay = list(name, value).map(readByDay);
      return;
    case 'BYMONTHDAY':
      rule.byMonthDay = list(name, value).map((n) => nonZero(name, n, 31));
      return;
    case 'BYMONTH':
      rule.byMonth = list(name, value).map((n) => integer(name, n, 1, 12));
      return;
    case 'BYYEARDAY':
      rule.byYearDay = list(name, value).map((n) => nonZero(name, n, 366));
      return;
    case 'BYWEEKNO':
      rule.byWeekNo = list(name, value).map((n) => nonZero(name, n, 53));
      return;
    case 'BYHOUR':
      rule.byHour = list(name, value).map((n) => integer(name, n, 0, 23));
      return;
    case 'BYMINUTE':
      rule.byMinute = list(name, value).map((n) => integer(name, n, 0, 59));
      return;
    case 'BYSECOND':
      rule.bySecond = list(name, value).map((n) => integer(name, n, 0, 60));
      return;
    case 'BYSETPOS':
      rule.bySetPos = list(name, value).map((n) => nonZero(name, n, 366));
      return;
    case 'WKST':
      rule.weekStart = weekdayCode(value);
      return;
    default:
      throw new RuleTextError(`${name.slice(0, 40)} is no part of a rule that can be kept`);
  }
}

function list(name: string, value: string): string[] {
  const items = value.split(',');
  if (items.length > MAX_LIST) throw new RuleTextError(`${name} has more than ${MAX_LIST} values`);
  return items;
}

/** Digits from one position to another; NaN when there is anything else, or nothing. */
function digits(text: string, from: number, to: number): number {
  if (from >= to || to > text.length) return Number.NaN;
  let n = 0;
  for (let i = from; i < to; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (digit < 0 || digit > 9) return Number.NaN;
    n = n * 10 + digit;
  }
  return n;
}

function integer(name: string, text: string, min: number, max: number): number {
  const sign = text.charCodeAt(0);
  const signed = sign === 43 || sign === 45;
  const size = digits(text, signed ? 1 : 0, text.length);
  const n = sign === 45 ? -size : size;
  if (!(n >= min && n <= max)) throw new RuleTextError(`${name} takes a whole number from ${min} to ${max}`);
  return n;
}

function nonZero(name: string, text: string, max: number): number {
  const n = integer(name, text, -max, max);
  if (n === 0) throw new RuleTextError(`${name} cannot be 0`);
  return n;
}

function weekdayCode(code: string): Weekday {
  const weekday = WEEKDAY_CODES.indexOf(code);
  if (weekday < 0) throw new RuleTextError(`${code.slice(0, 10)} is no weekday; use MO, TU, WE, TH, FR, SA or SU`);
  return weekday;
}

function readByDay(text: string): ByDay {
  if (text.length === 2) return { weekday: weekdayCode(text), nth: 0 };
  return { weekday: weekdayCode(text.slice(-2)), nth: nonZero('BYDAY', text.slice(0, -2), 53) };
}

/** `20271031`, `20271031T190000` or `20271031T220000Z`, the last by the zone's wall clock. */
function readUntil(value: string, zone: string): Until {
  const [year, month, d] = [digits(value, 0, 4), digits(value, 4, 6), digits(value, 6, 8)];
  const isDay = value.length === 8;
  const isUtc = value.length === 16 && value.endsWith('Z');
  const hour = isDay ? 0 : digits(value, 9, 11);
  const minute = isDay ? 0 : digits(value, 11, 13);
  const second = isDay ? 0 : digits(value, 13, 15);
  const formed = isDay || ((isUtc || value.length === 15) && value[8] === 'T' && hour < 24 && minute < 60 && second <= 60);
  if (!formed || !dateExists(year, month, d)) throw new RuleTextError('UNTIL takes a date such as 20271031');
  const day = dayOf(year, month, d);
  if (isDay) return { day, second: undefined };
  const at = (hour * 60 + minute) * 60 + Math.min(second, 59);
  return isUtc ? lastLocal(zone, day * MS_PER_UTC_DAY + at * 1000) : { day, second: at };
}

/** The last wall time whose (first) instant is not after `ms`. */
function lastLocal(zone: string, ms: number): Until {
  let local = ms + offsetAt(zone, ms);
  const year = new Date(ms).getUTCFullYear();
  const back = zone === 'UTC' ? [] : [...transitionsOf(zone, year - 1), ...transitionsOf(zone, year)].filter((t) => t.at <= ms);
  const last = back.at(-1);
  // In an hour's second passing, all of its first passing lies behind.
  if (last && last.before > last.after && local < last.at + last.before) local = last.at + last.before - 1000;
  const day = Math.floor(local / MS_PER_UTC_DAY);
  return { day, second: Math.floor((local - day * MS_PER_UTC_DAY) / 1000) };
}

/** A limit earlier in the day than the dates start leaves that day out; only several times a day need the second. */
function limitOf({ day, second }: Until, rule: Rule, startSecond: number | null): Limit {
  if (second === undefined || startSecond === null) return { kind: 'until', day };
  if (hasTimes(rule)) return { kind: 'until', day, second };
  return { kind: 'until', day: second < startSecond ? day - 1 : day };
}

/** The RRULE value of a part; undefined when it has no rule. */
export function ruleText(recurrencePart: RecurrencePart, zone: string): string | undefined {
  const { rule, limit, start } = recurrencePart;
  if (!rule) return undefined;
  const parts = [`FREQ=${rule.freq.toUpperCase()}`];
  if (rule.interval !== 1) parts.push(`INTERVAL=${rule.interval}`);
  if (rule.byMonth.length) parts.push(`BYMONTH=${rule.byMonth.join(',')}`);
  if (rule.byWeekNo) parts.push(`BYWEEKNO=${rule.byWeekNo.join(',')}`);
  if (rule.byYearDay) parts.push(`BYYEARDAY=${rule.byYearDay.join(',')}`);
  if (rule.byMonthDay.length) parts.push(`BYMONTHDAY=${rule.byMonthDay.join(',')}`);
  if (rule.byDay.length) {
    parts.push(`BYDAY=${rule.byDay.map((d) => `${d.nth || ''}${WEEKDAY_CODES[d.weekday]}`).join(',')}`);
  }
  if (rule.byHour) parts.push(`BYHOUR=${rule.byHour.join(',')}`);
  if (rule.byMinute) parts.push(`BYMINUTE=${rule.byMinute.join(',')}`);
  if (rule.bySecond) parts.push(`BYSECOND=${rule.bySecond.join(',')}`);
  if (rule.bySetPos) parts.push(`BYSETPOS=${rule.bySetPos.join(',')}`);
  if (rule.weekStart !== 0) parts.push(`WKST=${WEEKDAY_CODES[rule.weekStart]}`);
  if (limit.kind === 'count') parts.push(`COUNT=${limit.count}`);
  if (limit.kind === 'until') parts.push(`UNTIL=${untilText(limit, rule, start.minute, zone)}`);
  return parts.join(';');
}

/** UNTIL is a date for all-day starts, else the UTC instant of that day's last start (RFC 5545 3.3.10). */
function untilText({ day, second }: { day: EpochDay; second?: number }, rule: Rule, minute: number | null, zone: string): string {
  if (minute === null) return isoDay(day).replaceAll('-', '');
  // A rule with times of its own may start until the day is over.
  const last = second ?? (hasTimes(rule) ? 86_399 : minute * 60);
  return isoInstant(dateTimeToInstant(zone, { day, minute: Math.floor(last / 60) }).ms + (last % 60) * 1000).replaceAll(/[-:]/g, '');
}
