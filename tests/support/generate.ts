/** Generated rules for tests, from a printed seed. A small PRNG (mulberry32) so that a failure can be repeated. */
import { dayOf } from '@/core/day/day';
import type { ByDay, Frequency, Length, Limit, Rule, RecurrencePart } from '@/core/recurrence/model';

/** The seed of this run: `SEED=7` for another than the usual one, `SEED=random` for a new one, which vitest.config.ts chooses and prints. */
export function seedOf(): number {
  return process.env.SEED ? Number(process.env.SEED) : 20_270_317;
}

/** One round in so many is taken: `FULL=1` takes all, `ONE_IN=10` fewer than the usual third. */
const ONE_IN = process.env.FULL === '1' ? 1 : Number(process.env.ONE_IN ?? 3);

/** How many rounds a long test takes of those that it has, and how often it must have met what is rare. */
export const rounds = (all: number): number => Math.ceil(all / ONE_IN);

export function random(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

export const pick = <T>(r: () => number, from: readonly T[]): T => from[Math.floor(r() * from.length)] as T;
export const between = (r: () => number, low: number, high: number): number => low + Math.floor(r() * (high - low + 1));

export function some<T>(r: () => number, from: readonly T[], most: number): T[] {
  const chosen = new Set<T>();
  const wanted = between(r, 1, most);
  while (chosen.size < wanted) chosen.add(pick(r, from));
  return [...chosen];
}

const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6];

export function generateRule(r: () => number): Rule {
  const freq = pick<Frequency>(r, ['daily', 'weekly', 'weekly', 'monthly', 'monthly', 'yearly']);
  const rule: Rule = { freq, interval: pick(r, [1, 1, 1, 2, 3, 5]), byMonth: [], byMonthDay: [], byDay: [], weekStart: pick(r, [0, 0, 6]) };
  if (r() < 0.25) rule.byMonth = some(r, [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12], 4).sort((a, b) => a - b);
  const plain = (): ByDay[] => some(r, WEEKDAYS, 4).map((weekday) => ({ weekday, nth: 0 }));
  const numbered = (): ByDay[] =>
    some(r, WEEKDAYS, 2).flatMap((weekday) => some(r, [1, 2, 3, 4, 5, -1, -2], 2).map((nth) => ({ weekday, nth })));
  if (freq === 'daily' && r() < 0.4) rule.byDay = plain();
  if (freq === 'weekly' && r() < 0.8) rule.byDay = plain();
  if (freq === 'monthly' || freq === 'yearly') {
    const dice = r();
    if (dice < 0.35) rule.byMonthDay = some(r, [1, 2, 13, 15, 28, 29, 30, 31, -1, -2, -30], 3);
    else if (dice < 0.75) rule.byDay = r() < 0.8 ? numbered() : plain();
    else if (dice < 0.8) {
      rule.byMonthDay = some(r, [1, 13, 15, 31], 2);
      rule.byDay = plain();
    }
  }
  return rule;
}

export function generatePart(r: () => number, rule: Rule): RecurrencePart {
  const day = between(r, dayOf(2024, 1, 1), dayOf(2027, 12, 31));
  const minute = r() < 0.2 ? null : between(r, 4, 23) * 60 + pick(r, [0, 15, 30, 40]);
  const length: Length | null =
    minute === null ? { days: between(r, 1, 4), minute: null } : { days: 0, minute: Math.min(1439, minute + 90) };
  const dice = r();
  let limit: Limit = { kind: 'open' };
  if (dice < 0.3) limit = { kind: 'count', count: between(r, 1, 40) };
  else if (dice < 0.6) limit = { kind: 'until', day: day + between(r, 0, 900) };
  return { start: { day, minute }, length, rule, limit };
}

const several = (r: () => number, low: number, high: number, most: number): number[] =>
  [...new Set(Array.from({ length: between(r, 1, most) }, () => between(r, low, high)))]
    .filter((n) => n !== 0 || low >= 0)
    .sort((a, b) => a - b);
const given = (list: number[]): number[] | undefined => (list.length ? list : undefined);

/** A rule with any of the standard's parts, allowed together by RFC 5545 3.3.10. */
export function generateFullRule(r: () => number): Rule {
  const base = generateRule(r);
  const freq = pick<Frequency>(r, ['secondly', 'minutely', 'hourly', 'daily', 'weekly', 'monthly', 'yearly', 'yearly']);
  const short = freq === 'secondly' || freq === 'minutely' || freq === 'hourly';
  const rule: Rule =
    base.freq === freq ? base : { freq, interval: base.interval, byMonth: [], byMonthDay: [], byDay: [], weekStart: base.weekStart };
  if (r() < 0.3) rule.weekStart = between(r, 0, 6);
  const plain = (): ByDay[] => some(r, WEEKDAYS, 4).map((weekday) => ({ weekday, nth: 0 }));
  if (freq === 'yearly' && r() < 0.3) {
    rule.byWeekNo = given(several(r, -53, 53, 4));
    rule.byDay = r() < 0.5 ? plain() : [];
    rule.byMonthDay = [];
  } else if ((freq === 'yearly' || short) && r() < 0.3) {
    rule.byYearDay = given(several(r, -366, 366, 6));
  }
  if (short) {
    rule.interval = pick(r, [1, 2, 5, 7, 11, 45, 90, 1000, 90_000]);
    if (r() < 0.3) rule.byDay = plain();
    if (r() < 0.2) rule.byMonthDay = several(r, -31, 31, 8);
  }
  if (r() < (short ? 0.6 : 0.25)) rule.byHour = several(r, 0, 23, 4);
  if (r() < (short ? 0.6 : 0.25)) rule.byMinute = several(r, 0, 59, 4);
  if (r() < (short ? 0.6 : 0.1)) rule.bySecond = several(r, 0, 60, 4);
  const chooses = rule.byDay.length + rule.byMonth.length + rule.byMonthDay.length > 0 || rule.byHour || rule.byMinute || rule.bySecond;
  if ((chooses || rule.byYearDay || rule.byWeekNo) && r() < 0.35) rule.bySetPos = given(several(r, -4, 4, 2));
  for (const name of ['byWeekNo', 'byYearDay', 'bySetPos'] as const) if (rule[name] === undefined) delete rule[name];
  return rule;
}
