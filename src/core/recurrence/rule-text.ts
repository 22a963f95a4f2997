/**
 * RRULE text (RFC 5545 3.3.10) to a rule with its limit, and back. Reads the day-level parts that the model holds;
 * any other part is refused by name, never dropped. UNTIL is read as a day in the listing's zone.
 */
import { type Day, dateExists, dayOf, isoDay, type Weekday } from '../day/day';
import { instantToWall, isoInstant, MS_PER_MINUTE, MS_PER_UTC_DAY, wallToInstant } from '../day/zone';
import type { ByDay, Frequency, Limit, Rule, Stretch } from './model';

const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const FREQUENCIES = new Map<string, Frequency>([
  ['DAILY', 'daily'],
  ['WEEKLY', 'weekly'],
  ['MONTHLY', 'monthly'],
  ['YEARLY', 'yearly'],
]);
const MAX_COUNT = 100_000;

export class RuleTextError extends Error {
  override name = 'RuleTextError';
}

/**
 * Reads `FREQ=MONTHLY;BYDAY=1SU,3SU;UNTIL=20271031`. Throws {@link RuleTextError} naming the part that is wrong.
 * Written over positions rather than with split and patterns: files bring tens of thousands of rules.
 */
export function readRuleText(text: string, zone: string, startMinute: number | null): { rule: Rule; limit: Limit } {
  let limit: Limit = { kind: 'open' };
  let freq: Frequency | undefined;
  const rule: Rule = { freq: 'daily', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
  const seen: string[] = [];
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
    if (name === 'FREQ') freq = FREQUENCIES.get(value);
    else if (name === 'COUNT') limit = { kind: 'count', count: integer(name, value, 1, MAX_COUNT) };
    else if (name === 'UNTIL') limit = { kind: 'until', day: readUntil(value, zone, startMinute) };
    else readPart(rule, name, value);
    from = end + 1;
  }
  if (!freq) throw new RuleTextError('FREQ must be DAILY, WEEKLY, MONTHLY or YEARLY');
  if (seen.includes('COUNT') && seen.includes('UNTIL')) throw new RuleTextError('COUNT and UNTIL exclude each other');
  rule.freq = freq;
  if ((freq === 'daily' || freq === 'weekly') && rule.byDay.some((d) => d.nth !== 0)) {
    throw new RuleTextError('BYDAY takes a number only with MONTHLY or YEARLY');
  }
  return { rule, limit };
}

function readPart(rule: Rule, name: string, value: string): void {
  switch (name) {
    case 'INTERVAL':
      rule.interval = integer(name, value, 1, 10_000);
      return;
    case 'BYDAY':
      rule.byDay = value.split(',').map(readByDay);
      return;
    case 'BYMONTHDAY':
      rule.byMonthDay = value.split(',').map((n) => nonZero(name, n, 31));
      return;
    case 'BYMONTH':
      rule.byMonth = value.split(',').map((n) => integer(name, n, 1, 12));
      return;
    case 'WKST':
      rule.weekStart = weekdayCode(value);
      return;
    default:
      throw new RuleTextError(`${name} is not a part that can be kept yet`);
  }
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

/** `20271031`, `20271031T190000` or `20271031T220000Z` as the last day on which a date may start. */
function readUntil(value: string, zone: string, startMinute: number | null): Day {
  const [year, month, d] = [digits(value, 0, 4), digits(value, 4, 6), digits(value, 6, 8)];
  const isDay = value.length === 8;
  const isUtc = value.length === 16 && value.endsWith('Z');
  const hour = isDay ? 0 : digits(value, 9, 11);
  const minute = isDay ? 0 : digits(value, 11, 13);
  const formed = isDay || ((isUtc || value.length === 15) && value[8] === 'T' && hour < 24 && minute < 60 && digits(value, 13, 15) <= 60);
  if (!formed || !dateExists(year, month, d)) throw new RuleTextError('UNTIL takes a date such as 20271031');
  const day = dayOf(year, month, d);
  if (isDay) return day;
  const ms = day * MS_PER_UTC_DAY + (hour * 60 + minute) * MS_PER_MINUTE;
  const last = isUtc ? instantToWall(zone, ms) : { day, minute: hour * 60 + minute };
  // A limit earlier in the day than the dates start leaves that day out.
  return startMinute !== null && last.minute < startMinute ? last.day - 1 : last.day;
}

/** The RRULE value of a stretch; undefined when it has no rule. */
export function ruleText(stretch: Stretch, zone: string): string | undefined {
  const { rule, limit, start } = stretch;
  if (!rule) return undefined;
  const parts = [`FREQ=${rule.freq.toUpperCase()}`];
  if (rule.interval !== 1) parts.push(`INTERVAL=${rule.interval}`);
  if (rule.byMonth.length) parts.push(`BYMONTH=${rule.byMonth.join(',')}`);
  if (rule.byMonthDay.length) parts.push(`BYMONTHDAY=${rule.byMonthDay.join(',')}`);
  if (rule.byDay.length) {
    parts.push(`BYDAY=${rule.byDay.map((d) => `${d.nth || ''}${WEEKDAY_CODES[d.weekday]}`).join(',')}`);
  }
  if (rule.weekStart !== 0) parts.push(`WKST=${WEEKDAY_CODES[rule.weekStart]}`);
  if (limit.kind === 'count') parts.push(`COUNT=${limit.count}`);
  if (limit.kind === 'until') parts.push(`UNTIL=${untilText(limit.day, start.minute, zone)}`);
  return parts.join(';');
}

/** UNTIL is a date for all-day starts, else the UTC instant of that day's start (RFC 5545 3.3.10). */
function untilText(day: Day, minute: number | null, zone: string): string {
  if (minute === null) return isoDay(day).replaceAll('-', '');
  return isoInstant(wallToInstant(zone, { day, minute }).ms).replaceAll(/[-:]/g, '');
}
