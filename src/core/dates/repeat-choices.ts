/** How a part repeats, as forms offer it: a few kinds of rules, and what somebody who picks one most likely means. */
import { type EpochDay, isoDay, parseIsoDay, weekdayOf, ymdOf } from '../day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { firstFittingDay, startFits } from '../recurrence/days';
import { type SunStart, startOn } from '../recurrence/sun-start';
import { hasRareParts, type Length, type Recurrence, type Rule } from '../recurrence/model';
import { fromStored, type StoredRecurrence, type StoredRecurrencePart } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';

/** How a part repeats, as the form offers it. */
export const REPEATS = ['never', 'daily', 'workdays', 'weekly', 'month-day', 'month-weekday', 'yearly', 'other'] as const;
/** One of the ways of repeating that the form offers. */
export type Repeat = (typeof REPEATS)[number];

const isWorkdays = (rule: Rule): boolean => rule.byDay.length === 5 && rule.byDay.every((d) => d.nth === 0 && d.weekday < 5);

/** Kinds that can be of some months of the year only. */
export const IN_MONTHS: readonly Repeat[] = ['daily', 'workdays', 'weekly', 'month-day', 'month-weekday'];

/** Which of the form's kinds a rule is; `other` for a rule that the form cannot show, which is then kept as it is. */
export function repeatOf(rule: Rule | null): Repeat {
  if (!rule) return 'never';
  if (hasRareParts(rule)) return 'other';
  const { freq, byMonth, byMonthDay, byDay } = rule;
  if (freq === 'daily' && !byDay.length && !byMonthDay.length) return 'daily';
  if (freq === 'weekly' && byDay.every((d) => d.nth === 0)) return isWorkdays(rule) ? 'workdays' : 'weekly';
  if (freq === 'monthly' && byMonthDay.length && !byDay.length) return 'month-day';
  if (freq === 'monthly' && byDay.length && byDay.every((d) => d.nth !== 0) && !byMonthDay.length) return 'month-weekday';
  if (freq === 'yearly' && !byMonth.length && !byMonthDay.length && !byDay.length) return 'yearly';
  return 'other';
}

/** The rule of a kind for a first day: what somebody who picks it most likely means. */
export function ruleFor(repeat: Repeat, start: EpochDay, before: Rule | null): Rule | null {
  const byMonth = before && IN_MONTHS.includes(repeatOf(before)) && IN_MONTHS.includes(repeat) ? before.byMonth : [];
  const base: Rule = { freq: 'weekly', interval: before?.interval ?? 1, byMonth, byMonthDay: [], byDay: [], weekStart: 0 };
  const weekday = weekdayOf(start);
  const { day } = ymdOf(start);
  switch (repeat) {
    case 'never':
      return null;
    case 'daily':
      return { ...base, freq: 'daily' };
    case 'workdays':
      return { ...base, byDay: [0, 1, 2, 3, 4].map((w) => ({ weekday: w, nth: 0 })) };
    case 'weekly':
      return { ...base, byDay: [{ weekday, nth: 0 }] };
    case 'month-day':
      return { ...base, freq: 'monthly', byMonthDay: [day] };
    case 'month-weekday':
      return { ...base, freq: 'monthly', byDay: [{ weekday, nth: Math.min(5, Math.ceil(day / 7)) > 4 ? -1 : Math.ceil(day / 7) }] };
    case 'yearly':
      return { ...base, freq: 'yearly' };
    case 'other':
      return before;
  }
}

/** When the first day moves, a rule that only said that day follows it. */
export function followStart(rule: Rule | null, from: EpochDay, to: EpochDay): Rule | null {
  if (!rule) return null;
  const [only] = rule.byDay;
  if (rule.byDay.length === 1 && only && only.weekday === weekdayOf(from)) {
    const moved = ruleFor(repeatOf(rule), to, rule);
    return moved ? { ...rule, ...moved, interval: rule.interval } : rule;
  }
  if (rule.byMonthDay.length === 1 && rule.byMonthDay[0] === ymdOf(from).day) return { ...rule, byMonthDay: [ymdOf(to).day] };
  return rule;
}

/**
 * A part whose rule has other weekdays or days now. A first day that nobody set by hand moves to the next that the rule names; one that
 * somebody set stays, and Proof asks.
 */
export function withRule(recurrencePart: StoredRecurrencePart, rule: Rule, preset: boolean): StoredRecurrencePart {
  const start = parseIsoDateTime(recurrencePart.start);
  const plain = start && preset ? { start, length: null, rule, limit: { kind: 'open' as const } } : undefined;
  if (!plain || startFits(plain)) return { ...recurrencePart, rule };
  const day = firstFittingDay(plain);
  return day === undefined ? { ...recurrencePart, rule } : { ...recurrencePart, rule, start: isoDateTime({ ...plain.start, day }) };
}

/** A single date on a day: two hours from that minute since midnight, or all day. */
export function newPart(start: EpochDay, minute: number | null): StoredRecurrencePart {
  const length: Length | null =
    minute === null ? { days: 1, minute: null } : { days: minute + 120 >= 1440 ? 1 : 0, minute: (minute + 120) % 1440 };
  return { start: isoDateTime({ day: start, minute }), length, rule: null, limit: { kind: 'open' } };
}

/** What a new listing begins with: one date a week ahead, in the evening. */
export function newRecurrence(zone: string, today: EpochDay): StoredRecurrence {
  return { format: 3, zone, parts: [newPart(today + 7, 19 * 60)], exdates: [], breaks: [] };
}

/** Reads a recurrence that is being typed; undefined while a date in it does not exist. */
export function readRecurrence(stored: StoredRecurrence | null): Recurrence | undefined {
  if (!stored?.parts.length) return undefined;
  try {
    return fromStored(stored);
  } catch {
    return undefined;
  }
}

/**
 * When the time of day of a part changes, left-out dates and changes follow by day.
 * @param sun another start by the sun; null = by the clock from now on; not given = as before
 */
export function retime(content: ListingContent, index: number, start: string, sun?: SunStart | null): ListingContent {
  const { recurrence } = content;
  const recurrencePart = recurrence?.parts[index];
  const [before, asked] = [readRecurrence(recurrence)?.parts[index], parseIsoDateTime(start)];
  if (!recurrence || !recurrencePart || !before || !asked) return content;
  const { zone } = recurrence;
  const hangsOn = asked.minute === null ? null : sun === undefined ? (before.sun ?? null) : sun;
  const after = { start: asked, ...(hangsOn ? { sun: hangsOn } : {}) };
  const [from, to] = [before.start, startOn(after, asked.day, zone)];
  const keyOn = (part: typeof after, day: EpochDay): string => isoDateTime(startOn(part, day, zone));
  const follow = (key: string): string => {
    const day = parseIsoDateTime(key)?.day;
    return day !== undefined && keyOn(before, day) === key ? keyOn(after, day) : key;
  };
  const length = hangsOn?.ends === 'clock' ? before.length : followLength(before.length, from, to);
  const { sun: _, ...plain } = recurrencePart;
  const parts = recurrence.parts.map((s, i) =>
    i === index ? { ...plain, ...after, start: isoDateTime(to), rule: followStart(s.rule, from.day, to.day), length } : s,
  );
  return {
    ...content,
    recurrence: { ...recurrence, parts, exdates: recurrence.exdates.map(follow) },
    changes: content.changes.map((c) => ({ ...c, original: follow(c.original) })),
  };
}

/** The end moves with the start, so that the duration stays; all-day and timed lengths are turned into each other. */
function followLength(length: Length | null, from: PlainDateTime, to: PlainDateTime): Length | null {
  if (to.minute === null) return from.minute === null ? length : { days: Math.max(1, (length?.days ?? 0) + 1), minute: null };
  if (from.minute === null) return { days: Math.max(0, (length?.days ?? 1) - 1), minute: (to.minute + 120) % 1440 };
  if (!length || length.minute === null) return length;
  const minutes = length.days * 1440 + length.minute - from.minute + to.minute;
  return { days: Math.floor(minutes / 1440), minute: ((minutes % 1440) + 1440) % 1440 };
}

/**
 * A break to begin with, a fortnight long: from the next date that no break holds yet, so that a second one is never the first again.
 * `days`: the days on which the listing has dates, in order.
 */
export function nextBreak(
  breaks: StoredRecurrence['breaks'],
  days: readonly EpochDay[],
  today: EpochDay,
): StoredRecurrence['breaks'][number] {
  const after = Math.max(today, ...breaks.map((b) => (parseIsoDay(b.to) ?? today) + 1));
  const from = days.find((day) => day >= after) ?? after;
  return { from: isoDay(from), to: isoDay(from + 13) };
}
