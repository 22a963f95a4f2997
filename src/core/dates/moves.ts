/**
 * Dates moved, copied and lengthened by whole days, as somebody does who drags them on a sheet. Keys are original starts; days
 * are the recurrence's own. What cannot be said by the same kind of rule is undefined, never bent.
 */
import { type EpochDay, daysInMonth, firstDayOfMonth, isoDay, monthNumberOf, type Weekday, ymdOf } from '../day/day';
import { compareDateTime, isoDateTime, parseIsoDateTime, sameDateTime, type PlainDateTime } from '../day/plain-date-time';
import { firstFittingDay, startFits } from '../recurrence/days';
import { endOf, expand, startsBetween } from '../recurrence/expand';
import type { ByDay, Length, Occurrence, Recurrence, Rule } from '../recurrence/model';
import { changesFromStored, onDay, partFrom, type StoredRecurrence, type StoredRecurrencePart } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';
import { readRecurrence } from './repeat-choices';
import { splitAt } from './rule-changes';
import { changeDate, withRecurrence } from './single-dates';

interface Found {
  stored: StoredRecurrence;
  recurrence: Recurrence;
  at: PlainDateTime;
  index: number;
  recurrencePart: StoredRecurrencePart;
}

/** The date of a key with the part that it comes from; left-out dates and breaks are looked through. */
function find(content: ListingContent, key: string): Found | undefined {
  const { recurrence: stored } = content;
  const recurrence = readRecurrence(stored);
  const at = parseIsoDateTime(key);
  if (!stored || !recurrence || !at) return undefined;
  const hit = startsBetween({ ...recurrence, exdates: [], breaks: [] }, at.day, at.day).find(({ wall }) => sameDateTime(wall, at));
  const recurrencePart = hit && stored.parts[hit.recurrencePart];
  return hit && recurrencePart ? { stored, recurrence, at, index: hit.recurrencePart, recurrencePart } : undefined;
}

/** A date as it now happens. */
export function dateOf(content: ListingContent, key: string): Occurrence | undefined {
  const found = find(content, key);
  if (!found) return undefined;
  const { recurrence, at } = found;
  return expand({ ...recurrence, exdates: [], breaks: [] }, changesFromStored(content.changes), at.day, at.day).find((o) =>
    sameDateTime(o.original, at),
  );
}

/** Does the date come from a rule, so that there may be others of its kind? */
export function isRuled(content: ListingContent, key: string): boolean {
  return Boolean(find(content, key)?.recurrencePart.rule);
}

const weekdayBy = (weekday: Weekday, days: number): Weekday => (((weekday + days) % 7) + 7) % 7;

/** "The second", or "the last", counted as the rule counted before. */
function nthBy(before: number, to: EpochDay): number {
  const { year, month, day } = ymdOf(to);
  const fromEnd = Math.ceil((daysInMonth(year, month) - day + 1) / 7);
  if (before < 0) return -fromEnd;
  const nth = Math.ceil(day / 7);
  return nth > 4 ? -1 : nth;
}

/** A rule whose date moves from one day to another; undefined when it names days that cannot simply follow. */
function followed(rule: Rule, from: EpochDay, to: EpochDay): Rule | undefined {
  const days = to - from;
  const [only, ...others] = rule.byDay;
  if (rule.byYearDay || rule.byWeekNo || rule.bySetPos) return undefined;
  const byMonth = followedMonth(rule, from, to);
  if (!byMonth) return undefined;
  if (rule.byMonthDay.length) {
    const [day] = rule.byMonthDay;
    const one = rule.byMonthDay.length === 1 && !rule.byDay.length && day === ymdOf(from).day;
    return one ? { ...rule, byMonth, byMonthDay: [ymdOf(to).day] } : undefined;
  }
  if (rule.byDay.every((d) => d.nth === 0)) {
    const byDay = rule.byDay.map((d): ByDay => ({ ...d, weekday: weekdayBy(d.weekday, days) }));
    // Where several weekdays share every other week, the week must begin so much later too.
    const weekStart = rule.freq === 'weekly' && rule.interval > 1 ? weekdayBy(rule.weekStart, days) : rule.weekStart;
    return { ...rule, byMonth, byDay, weekStart };
  }
  if (!only || others.length || rule.freq === 'weekly' || (rule.freq === 'yearly' && rule.byMonth.length !== 1)) return undefined;
  return { ...rule, byMonth, byDay: [{ weekday: weekdayBy(only.weekday, days), nth: nthBy(only.nth, to) }] };
}

/** A rule of one month goes along into the next; one of several stays as long as the date does. */
function followedMonth(rule: Rule, from: EpochDay, to: EpochDay): number[] | undefined {
  const [a, b] = [ymdOf(from).month, ymdOf(to).month];
  if (!rule.byMonth.length || a === b) return rule.byMonth;
  return rule.freq === 'yearly' && rule.byMonth.length === 1 ? [b] : undefined;
}

/** A whole part so many days later, by one of its dates. */
function shifted(recurrencePart: StoredRecurrencePart, at: PlainDateTime, days: number, zone: string): StoredRecurrencePart | undefined {
  const own = partFrom(recurrencePart, zone);
  const { rule } = own;
  const there = onDay(own, own.start.day + days, zone);
  const { length } = there;
  const start = isoDateTime(there.start);
  if (!rule) return { ...recurrencePart, start, length };
  const next = followed(rule, at.day, at.day + days);
  if (!next) return undefined;
  const { limit } = own;
  const later: StoredRecurrencePart = {
    ...recurrencePart,
    start,
    length,
    rule: next,
    limit: limit.kind === 'until' ? { ...limit, day: isoDay(limit.day + days) } : recurrencePart.limit,
  };
  // "The second Wednesday" is not always the day after "the second Tuesday": it begins in the same month, where it first fits.
  if (next.byDay.some((d) => d.nth !== 0)) {
    if (!startFits(own)) return undefined;
    const months = monthNumberOf(at.day + days) - monthNumberOf(at.day);
    const first = firstFittingDay({
      ...partFrom(later, zone),
      start: { ...own.start, day: firstDayOfMonth(monthNumberOf(own.start.day) + months) },
    });
    if (first === undefined) return undefined;
    const begun = onDay(own, first, zone);
    return { ...later, start: isoDateTime(begun.start), length: begun.length };
  }
  return later;
}

/** So far past the last change new dates are looked for, in days: a month and what its lengths differ by. */
const LOOK_PAST = 62;

/** Names of single dates that follow a part: the first date of the old one becomes the first of the new one, and so on. */
function renamer(
  recurrence: Recurrence,
  before: StoredRecurrencePart,
  after: StoredRecurrencePart,
  keys: readonly string[],
): (key: string) => string {
  const days = keys.flatMap((key) => parseIsoDateTime(key)?.day ?? []);
  const to = Math.max(...days, 0);
  const { zone } = recurrence;
  const walls = (recurrencePart: StoredRecurrencePart, last: EpochDay): string[] => {
    const own = partFrom(recurrencePart, zone);
    return startsBetween({ ...recurrence, parts: [own], exdates: [], breaks: [] }, own.start.day, last).map(({ wall }) =>
      isoDateTime(wall),
    );
  };
  if (!days.length) return (key) => key;
  const [olds, news] = [
    walls(before, to),
    walls(after, to + LOOK_PAST + Math.abs(partFrom(after, zone).start.day - partFrom(before, zone).start.day)),
  ];
  const names = new Map(olds.flatMap((key, i) => (news[i] === undefined ? [] : [[key, news[i] as string] as const])));
  return (key) => names.get(key) ?? key;
}

/** Has a part this very date? A rule of every other month has none when its date goes over the month's end. */
function names(recurrence: Recurrence, recurrencePart: StoredRecurrencePart, wall: PlainDateTime): boolean {
  const own = { ...recurrence, parts: [partFrom(recurrencePart, recurrence.zone)], exdates: [], breaks: [] };
  return startsBetween(own, wall.day, wall.day).some((s) => sameDateTime(s.wall, wall));
}

/** All dates of the same rule so many days later (or earlier), with what was changed for single ones. */
export function moveAll(content: ListingContent, key: string, days: number): ListingContent | undefined {
  const found = find(content, key);
  if (!found) return undefined;
  const { stored, recurrence, at, index, recurrencePart } = found;
  const next = shifted(recurrencePart, at, days, recurrence.zone);
  if (!next) return undefined;
  const day = at.day + days;
  const target = next.sun ? onDay(partFrom(next, recurrence.zone), day, recurrence.zone).start : { ...at, day };
  if (!names(recurrence, next, target)) return undefined;
  const rename = renamer(recurrence, recurrencePart, next, [...stored.exdates, ...content.changes.map((c) => c.original)]);
  const moved = { ...content, recurrence: { ...stored, parts: stored.parts.map((s, i) => (i === index ? next : s)) } };
  moved.recurrence.exdates = stored.exdates.map(rename).sort();
  const shift = (wall: string | null): string | null => {
    const read = wall === null ? undefined : parseIsoDateTime(wall);
    return read ? isoDateTime({ ...read, day: read.day + days }) : null;
  };
  moved.changes = content.changes.map((change) => {
    const original = rename(change.original);
    return original === change.original ? change : { ...change, original, movedTo: shift(change.movedTo) };
  });
  return moved;
}

/** This date and those after it so many days later, inside the same listing. */
export function moveLater(content: ListingContent, key: string, days: number): ListingContent | undefined {
  const found = find(content, key);
  if (!found?.recurrencePart.rule) return undefined;
  const start = parseIsoDateTime(found.recurrencePart.start);
  if (start && compareDateTime(start, found.at) >= 0) return moveAll(content, key, days);
  const parted = splitAt(content, key);
  return parted && moveAll(parted.content, key, days);
}

/** An extra date of the same listing, as long as the one it is copied from now is. */
export function copyDate(content: ListingContent, key: string, day: EpochDay): ListingContent {
  const date = dateOf(content, key);
  if (!date) return content;
  const start = isoDateTime({ day, minute: date.start.minute });
  return withRecurrence(content, (r) => {
    if (r.parts.some((s) => !s.rule && s.start === start)) return r;
    return {
      ...r,
      parts: [...r.parts, { start, length: lengthBetween(date.start, date.end), rule: null, limit: { kind: 'open' } }],
    };
  });
}

/** One date as a listing by itself: what belongs to the other dates is left behind. */
export function onlyDate(content: ListingContent, key: string, day: EpochDay): ListingContent {
  const date = dateOf(content, key);
  if (!date || !content.recurrence) return content;
  const recurrencePart: StoredRecurrencePart = {
    start: isoDateTime({ day, minute: date.start.minute }),
    length: lengthBetween(date.start, date.end),
    rule: null,
    limit: { kind: 'open' },
  };
  const recurrence = { ...content.recurrence, parts: [recurrencePart], exdates: [], breaks: [] };
  return { ...content, recurrence, changes: [], eventStatus: 'going-ahead', eventStatusNote: '' };
}

function lengthBetween(start: PlainDateTime, end: PlainDateTime | null): Length | null {
  if (!end) return null;
  return { days: end.day - start.day, minute: start.minute === null ? null : end.minute };
}

/** Longer than this no date is, in days. */
const MOST_DAYS = 366;

/** The same date beginning or ending so many days later; undefined when nothing of it would be left. */
function stretched(
  start: PlainDateTime,
  end: PlainDateTime | null,
  edge: 'start' | 'end',
  days: number,
): { start: PlainDateTime; length: Length } | undefined {
  const last = end ?? { day: start.day, minute: start.minute };
  const to = edge === 'end' ? { ...last, day: last.day + days } : last;
  const from = edge === 'start' ? { ...start, day: start.day + days } : start;
  if (compareDateTime(to, from) <= 0 || to.day - from.day > MOST_DAYS) return undefined;
  return { start: from, length: { days: to.day - from.day, minute: start.minute === null ? null : (to.minute ?? start.minute) } };
}

/** One date longer or shorter by whole days at either end. A date without a rule is changed itself, others by a change of their own. */
export function lengthenDate(content: ListingContent, key: string, edge: 'start' | 'end', days: number): ListingContent | undefined {
  const found = find(content, key);
  const date = dateOf(content, key);
  if (!found || !date) return undefined;
  const next = stretched(date.start, date.end, edge, days);
  if (!next) return undefined;
  const change = content.changes.find((c) => c.original === key);
  if (!found.recurrencePart.rule && !change) {
    const recurrencePart = { ...found.recurrencePart, start: isoDateTime(next.start), length: next.length };
    return withRecurrence(content, (r) => ({ ...r, parts: r.parts.map((s, i) => (i === found.index ? recurrencePart : s)) }));
  }
  const start = isoDateTime(next.start);
  return { ...content, changes: changeDate(content.changes, key, { movedTo: start === key ? null : start, length: next.length }) };
}

/** All dates of the same rule longer or shorter by whole days at their end. */
export function lengthenAll(content: ListingContent, key: string, days: number): ListingContent | undefined {
  const found = find(content, key);
  if (!found) return undefined;
  const start = parseIsoDateTime(found.recurrencePart.start);
  const next = start && stretched(start, endOf(start, found.recurrencePart.length), 'end', days);
  if (!next) return undefined;
  const recurrencePart = { ...found.recurrencePart, length: next.length };
  return withRecurrence(content, (r) => ({ ...r, parts: r.parts.map((s, i) => (i === found.index ? recurrencePart : s)) }));
}

/** Every date of a listing so many days later (or earlier), rule by rule; breaks stay where they are. Undefined when a rule cannot follow. */
export function shiftListing(content: ListingContent, days: number): ListingContent | undefined {
  const count = content.recurrence?.parts.length ?? 0;
  let moved: ListingContent | undefined = content;
  for (let i = 0; moved && i < count; i++) {
    const start: string | undefined = moved.recurrence?.parts[i]?.start;
    moved = start === undefined ? undefined : moveAll(moved, start, days);
  }
  return count ? moved : undefined;
}
