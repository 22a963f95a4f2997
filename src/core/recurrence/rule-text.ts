/**
 * RRULE text (RFC 5545 3.3.10) to a rule with its limit, and back. Reads the day-level parts that the model holds;
 * any other part is refused by name, never dropped. UNTIL is read as a day in the listing's zone.
 */
import { type Day, dayOf, isoDay, parseIsoDay, type Weekday } from '../day/day';
import { instantToWall, isoInstant, MS_PER_MINUTE, MS_PER_UTC_DAY, wallToInstant } from '../day/zone';
import type { ByDay, Frequency, Limit, Rule, Stretch } from './model';

const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const FREQUENCIES: Record<string, Frequency> = Object.assign(Object.create(null), {
  DAILY: 'daily',
  WEEKLY: 'weekly',
  MONTHLY: 'monthly',
  YEARLY: 'yearly',
});
const MAX_COUNT = 100_000;

export class RuleTextError extends Error {
  override name = 'RuleTextError';
}

/** Reads `FREQ=MONTHLY;BYDAY=1SU,3SU;UNTIL=20271031`. Throws {@link RuleTextError} naming the part that is wrong. */
export function readRuleText(text: string, zone: string, startMinute: number | null): { rule: Rule; limit: Limit } {
  let freq: Frequency | undefined;
  let limit: Limit = { kind: 'open' };
  const rule: Rule = { freq: 'daily', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
  const seen: string[] = [];
  for (const part of text.split(';')) {
    const at = part.indexOf('=');
    const name = part.slice(0, at).toUpperCase();
    const value = part.slice(at + 1).toUpperCase();
    if (at < 1 || seen.includes(name)) throw new RuleTextError(`${name || part} is empty or given twice`);
    seen.push(name);
    switch (name) {
      case 'FREQ':
        freq = FREQUENCIES[value];
        break;
      case 'INTERVAL':
        rule.interval = integer(name, value, 1, 10_000);
        break;
      case 'COUNT':
        limit = { kind: 'count', count: integer(name, value, 1, MAX_COUNT) };
        break;
      case 'UNTIL':
        limit = { kind: 'until', day: readUntil(value, zone, startMinute) };
        break;
      case 'BYMONTH':
        rule.byMonth = value.split(',').map((n) => integer(name, n, 1, 12));
        break;
      case 'BYMONTHDAY':
        rule.byMonthDay = value.split(',').map((n) => nonZero(name, n, 31));
        break;
      case 'BYDAY':
        rule.byDay = value.split(',').map(readByDay);
        break;
      case 'WKST':
        rule.weekStart = weekdayCode(value);
        break;
      default:
        throw new RuleTextError(`${name} is not a part that can be kept yet`);
    }
  }
  if (!freq) throw new RuleTextError('FREQ must be DAILY, WEEKLY, MONTHLY or YEARLY');
  if (seen.includes('COUNT') && seen.includes('UNTIL')) throw new RuleTextError('COUNT and UNTIL exclude each other');
  rule.freq = freq;
  if (rule.byDay.some((d) => d.nth !== 0) && (freq === 'daily' || freq === 'weekly')) {
    throw new RuleTextError('BYDAY takes a number only with MONTHLY or YEARLY');
  }
  return { rule, limit };
}

function integer(name: string, text: string, min: number, max: number): number {
  const n = Number(text);
  if (!/^[+-]?\d+$/.test(text) || n < min || n > max) {
    throw new RuleTextError(`${name} takes a whole number from ${min} to ${max}`);
  }
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
  const weekday = weekdayCode(text.slice(-2));
  const nth = text.slice(0, -2);
  return { weekday, nth: nth === '' ? 0 : nonZero('BYDAY', nth, 53) };
}

function readUntil(value: string, zone: string, startMinute: number | null): Day {
  const match = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z?))?$/.exec(value);
  const day = match && parseIsoDay(`${match[1]}-${match[2]}-${match[3]}`);
  if (!match || day === undefined || day === null) throw new RuleTextError('UNTIL takes a date such as 20271031');
  if (match[4] === undefined) return day;
  let minute = Number(match[4]) * 60 + Number(match[5]);
  let last = day;
  if (match[7] === 'Z') {
    const ms = dayOf(Number(match[1]), Number(match[2]), Number(match[3])) * MS_PER_UTC_DAY + minute * MS_PER_MINUTE;
    const wall = instantToWall(zone, ms);
    last = wall.day;
    minute = wall.minute;
  }
  // A limit earlier in the day than the dates start leaves that day out.
  return startMinute !== null && minute < startMinute ? last - 1 : last;
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
