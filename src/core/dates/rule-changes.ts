/** Other rules for a listing: parting them at a date, and what becomes of changes to single dates. */
import { isoDay } from '../day/day';
import { compareDateTime, isoDateTime, parseIsoDateTime, sameDateTime, type PlainDateTime } from '../day/plain-date-time';
import { shiftedLength, startsBetween } from '../recurrence/expand';
import type { Recurrence } from '../recurrence/model';
import { onDay, type StoredRecurrence, type StoredRecurrencePart } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';
import { readRecurrence } from './repeat-choices';
import { withRecurrence } from './single-dates';

/**
 * Parts a rule at one of its dates, inside the same listing: what came before ends the day before, what comes from then on is a
 * part of its own that can be changed alone. Dates stay the same until it is. Undefined when there is nothing to part.
 */
export function splitAt(content: ListingContent, key: string): { content: ListingContent; recurrencePart: number } | undefined {
  const { recurrence: stored } = content;
  const recurrence = readRecurrence(stored);
  const at = parseIsoDateTime(key);
  if (!stored || !recurrence || !at) return undefined;
  const found = startsBetween({ ...recurrence, exdates: [], breaks: [] }, at.day, at.day).find(({ wall }) => sameDateTime(wall, at));
  const index = found?.recurrencePart ?? -1;
  const [recurrencePart, own] = [stored.parts[index], recurrence.parts[index]];
  if (!recurrencePart?.rule || !own || compareDateTime(own.start, at) >= 0) return undefined;
  const before = startsBetween({ ...recurrence, parts: [own], exdates: [], breaks: [] }, own.start.day, at.day).filter(
    ({ wall }) => compareDateTime(wall, at) < 0,
  );
  const last = before.at(-1);
  if (!last) return undefined;
  const count = recurrencePart.limit.kind === 'count' ? recurrencePart.limit.count - before.length : 0;
  const earlier: StoredRecurrencePart = { ...recurrencePart, limit: { kind: 'until', day: isoDay(last.wall.day) } };
  const later: StoredRecurrencePart = {
    ...recurrencePart,
    start: key,
    length: onDay(own, at.day, recurrence.zone).length,
    limit: recurrencePart.limit.kind === 'count' ? { kind: 'count', count } : recurrencePart.limit,
  };
  // Both parts of a day with several times would name each other's dates.
  if (last.wall.day === at.day) return undefined;
  const parts = [...stored.parts.slice(0, index), earlier, later, ...stored.parts.slice(index + 1)];
  return { content: { ...content, recurrence: { ...stored, parts } }, recurrencePart: index + 1 };
}

/**
 * Other rules for the same listing: changes to single dates keep to their day where that has one date of the new rules, at
 * another time perhaps. Those that lose their date stay as they are, to be decided.
 */
export function withRules(content: ListingContent, next: StoredRecurrence): ListingContent {
  const recurrence = readRecurrence(next);
  if (!recurrence || !content.changes.length) return { ...content, recurrence: next };
  const changes = content.changes.map((change) => {
    const at = parseIsoDateTime(change.original);
    if (!at) return change;
    const there = startsBetween(recurrence, at.day, at.day);
    const [only] = there;
    const stays = there.some(({ wall }) => sameDateTime(wall, at));
    return stays || there.length !== 1 || !only ? change : { ...change, original: isoDateTime(only.wall) };
  });
  const taken = new Set<string>();
  const unique = changes.filter(({ original }) => !taken.has(original) && Boolean(taken.add(original)));
  return { ...content, recurrence: next, changes: unique };
}

/** What to do with a change whose date is gone: forget it, keep it as a date of its own, or give it to the nearest date. */
export function settleIdle(content: ListingContent, original: string, how: 'forget' | 'own' | 'nearest'): ListingContent {
  const change = content.changes.find((c) => c.original === original);
  const at = parseIsoDateTime(original);
  if (!change || !at) return content;
  const rest = content.changes.filter((c) => c !== change);
  if (how === 'forget') return { ...content, changes: rest };
  if (how === 'nearest') {
    const near = nearestDate(readRecurrence(content.recurrence), at, new Set(rest.map((c) => c.original)));
    return near
      ? { ...content, changes: [...rest, { ...change, original: isoDateTime(near) }].sort((a, b) => (a.original < b.original ? -1 : 1)) }
      : content;
  }
  const start = change.movedTo ?? original;
  const first = readRecurrence(content.recurrence)?.parts[0];
  const own: StoredRecurrencePart = {
    start,
    length: change.length ?? (first ? shiftedLength(first.length, first.start, parseIsoDateTime(start) ?? at) : null),
    rule: null,
    limit: { kind: 'open' },
  };
  const kept = change.eventStatus || change.note || change.venueId ? [{ ...change, original: start, movedTo: null, length: null }] : [];
  return { ...withRecurrence(content, (r) => ({ ...r, parts: [...r.parts, own] })), changes: [...rest, ...kept] };
}

/** Dates further away than this are not "the nearest". */
const NEAR_DAYS = 45;

/** The date of a recurrence that lies nearest to a moment and is not taken; undefined where there is none near. */
export function nearestDate(recurrence: Recurrence | undefined, at: PlainDateTime, taken: ReadonlySet<string>): PlainDateTime | undefined {
  if (!recurrence) return undefined;
  const near = startsBetween(recurrence, at.day - NEAR_DAYS, at.day + NEAR_DAYS).filter(({ wall }) => !taken.has(isoDateTime(wall)));
  near.sort((a, b) => Math.abs(a.wall.day - at.day) - Math.abs(b.wall.day - at.day) || compareDateTime(a.wall, b.wall));
  return near[0]?.wall;
}
