/** What can be done with single dates of a listing, without React. Keys are original starts, `2027-03-07T07:40`. */
import { type Day, isoDay, monthNumberOf } from '@/core/day/day';
import { compareWall, isoWall, parseIsoWall, sameWall, type Wall } from '@/core/day/wall';
import type { ListingContent } from '@/core/listing/content';
import { expand, idleChanges, startsBetween } from '@/core/recurrence/expand';
import type { Length, Occurrence, Recurrence } from '@/core/recurrence/model';
import { changesFromStored, type StoredChange, type StoredRecurrence, type StoredStretch } from '@/core/recurrence/stored';
import { changeDate, readRecurrence } from './state';

export interface RailDate {
  key: string;
  wall: Wall;
  out: boolean;
  occurrence: Occurrence | undefined;
}

export interface RailMonth {
  month: number;
  dates: RailDate[];
}

export interface Rail {
  months: RailMonth[];
  /** by the day on which it happens, or would: left-out ones too */
  byDay: Map<Day, RailDate[]>;
  total: number;
  coming: number;
  /** changes of dates that the rules no longer have */
  idle: StoredChange[];
}

const NOTHING: Rail = { months: [], byDay: new Map(), total: 0, coming: 0, idle: [] };

/** Every date of a content until the horizon, by month, left-out ones among them. */
export function railOf(content: ListingContent, today: Day, horizon: Day): Rail {
  const recurrence = readRecurrence(content.recurrence);
  if (!recurrence) return NOTHING;
  const changes = readChanges(content.changes);
  const first = Math.min(...recurrence.stretches.map((s) => s.start.day));
  const last = Math.max(horizon, first);
  const all = expand(recurrence, changes, first, last);
  const byKey = new Map(all.map((o) => [isoWall(o.original), o]));
  const out = new Set(recurrence.leftOut.map(isoWall));
  const rows = startsBetween({ ...recurrence, leftOut: [] }, first, last).map(({ wall }): RailDate => {
    const key = isoWall(wall);
    return { key, wall, out: out.has(key), occurrence: byKey.get(key) };
  });
  const months = new Map<number, RailDate[]>();
  const byDay = new Map<Day, RailDate[]>();
  for (const row of rows) {
    push(months, monthNumberOf(row.wall.day), row);
    push(byDay, row.occurrence?.start.day ?? row.wall.day, row);
  }
  const isComing = (r: RailDate): boolean => !r.out && (r.occurrence?.start.day ?? r.wall.day) >= today;
  const idle = idleChanges(recurrence, content.changes, (c) => parseIsoWall(c.original), last);
  return {
    months: [...months].map(([month, dates]) => ({ month, dates })),
    byDay,
    total: all.length,
    coming: rows.filter(isComing).length,
    idle,
  };
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

/** A change that is being typed may have no date yet; the others follow when it has. */
function readChanges(changes: StoredChange[]): ReturnType<typeof changesFromStored> {
  return changes.flatMap((change) => {
    try {
      return changesFromStored([change]);
    } catch {
      return [];
    }
  });
}

const withRecurrence = (content: ListingContent, change: (r: StoredRecurrence) => StoredRecurrence): ListingContent =>
  content.recurrence ? { ...content, recurrence: change(content.recurrence) } : content;

/** Moves one date to another day, at its time; back on its own day the move is forgotten. */
export function moveDate(content: ListingContent, key: string, to: Day): ListingContent {
  const original = parseIsoWall(key);
  if (!original) return content;
  const now = parseIsoWall(content.changes.find((c) => c.original === key)?.movedTo ?? key) ?? original;
  const moved = isoWall({ day: to, minute: now.minute });
  return { ...content, changes: changeDate(content.changes, key, { movedTo: moved === key ? null : moved }) };
}

/** An extra date on a day, at the time and as long as the first one. A left-out date of that day comes back instead. */
export function addDate(content: ListingContent, day: Day): ListingContent {
  return withRecurrence(content, (r) => {
    const back = r.leftOut.filter((key) => key.startsWith(isoDay(day)));
    if (back.length) return { ...r, leftOut: r.leftOut.filter((key) => !back.includes(key)) };
    const first = r.stretches[0];
    const start = first && parseIsoWall(first.start);
    if (!first || !start) return r;
    const extra: StoredStretch = {
      start: isoWall({ day, minute: start.minute }),
      length: first.length,
      rule: null,
      limit: { kind: 'open' },
    };
    if (r.stretches.some((s) => !s.rule && s.start === extra.start)) return r;
    return { ...r, stretches: [...r.stretches, extra] };
  });
}

/** A break over a span of days, in either order. */
export function addBreak(content: ListingContent, a: Day, b: Day): ListingContent {
  const span = { from: isoDay(Math.min(a, b)), to: isoDay(Math.max(a, b)) };
  return withRecurrence(content, (r) => ({ ...r, breaks: [...r.breaks, span].sort((x, y) => (x.from < y.from ? -1 : 1)) }));
}

/**
 * Parts a rule at one of its dates, inside the same listing: what came before ends the day before, what comes from then on is a
 * stretch of its own that can be changed alone. Dates stay the same until it is. Undefined when there is nothing to part.
 */
export function splitAt(content: ListingContent, key: string): { content: ListingContent; stretch: number } | undefined {
  const { recurrence: stored } = content;
  const recurrence = readRecurrence(stored);
  const at = parseIsoWall(key);
  if (!stored || !recurrence || !at) return undefined;
  const found = startsBetween({ ...recurrence, leftOut: [], breaks: [] }, at.day, at.day).find(({ wall }) => sameWall(wall, at));
  const index = found?.stretch ?? -1;
  const [stretch, own] = [stored.stretches[index], recurrence.stretches[index]];
  if (!stretch?.rule || !own || compareWall(own.start, at) >= 0) return undefined;
  const before = startsBetween({ ...recurrence, stretches: [own], leftOut: [], breaks: [] }, own.start.day, at.day).filter(
    ({ wall }) => compareWall(wall, at) < 0,
  );
  const last = before.at(-1);
  if (!last) return undefined;
  const count = stretch.limit.kind === 'count' ? stretch.limit.count - before.length : 0;
  const earlier: StoredStretch = { ...stretch, limit: { kind: 'until', day: isoDay(last.wall.day) } };
  const later: StoredStretch = { ...stretch, start: key, limit: stretch.limit.kind === 'count' ? { kind: 'count', count } : stretch.limit };
  // Both parts of a day with several times would name each other's dates.
  if (last.wall.day === at.day) return undefined;
  const stretches = [...stored.stretches.slice(0, index), earlier, later, ...stored.stretches.slice(index + 1)];
  return { content: { ...content, recurrence: { ...stored, stretches } }, stretch: index + 1 };
}

/**
 * Other rules for the same listing: changes to single dates keep to their day where that has one date of the new rules, at
 * another time perhaps. Those that lose their date stay as they are, to be decided.
 */
export function withRules(content: ListingContent, next: StoredRecurrence): ListingContent {
  const recurrence = readRecurrence(next);
  if (!recurrence || !content.changes.length) return { ...content, recurrence: next };
  const changes = content.changes.map((change) => {
    const at = parseIsoWall(change.original);
    if (!at) return change;
    const there = startsBetween(recurrence, at.day, at.day);
    const [only] = there;
    const stays = there.some(({ wall }) => sameWall(wall, at));
    return stays || there.length !== 1 || !only ? change : { ...change, original: isoWall(only.wall) };
  });
  const taken = new Set<string>();
  const unique = changes.filter(({ original }) => !taken.has(original) && Boolean(taken.add(original)));
  return { ...content, recurrence: next, changes: unique };
}

/** What to do with a change whose date is gone: forget it, keep it as a date of its own, or give it to the nearest date. */
export function settleIdle(content: ListingContent, original: string, how: 'forget' | 'own' | 'nearest'): ListingContent {
  const change = content.changes.find((c) => c.original === original);
  const at = parseIsoWall(original);
  if (!change || !at) return content;
  const rest = content.changes.filter((c) => c !== change);
  if (how === 'forget') return { ...content, changes: rest };
  if (how === 'nearest') {
    const near = nearestDate(readRecurrence(content.recurrence), at, new Set(rest.map((c) => c.original)));
    return near
      ? { ...content, changes: [...rest, { ...change, original: isoWall(near) }].sort((a, b) => (a.original < b.original ? -1 : 1)) }
      : content;
  }
  const start = change.movedTo ?? original;
  const own: StoredStretch = {
    start,
    length: change.length ?? content.recurrence?.stretches[0]?.length ?? null,
    rule: null,
    limit: { kind: 'open' },
  };
  const kept = change.standing || change.note ? [{ ...change, original: start, movedTo: null, length: null }] : [];
  return { ...withRecurrence(content, (r) => ({ ...r, stretches: [...r.stretches, own] })), changes: [...rest, ...kept] };
}

/** Dates further away than this are not "the nearest". */
const NEAR_DAYS = 45;

export function nearestDate(recurrence: Recurrence | undefined, at: Wall, taken: ReadonlySet<string>): Wall | undefined {
  if (!recurrence) return undefined;
  const near = startsBetween(recurrence, at.day - NEAR_DAYS, at.day + NEAR_DAYS).filter(({ wall }) => !taken.has(isoWall(wall)));
  near.sort((a, b) => Math.abs(a.wall.day - at.day) - Math.abs(b.wall.day - at.day) || compareWall(a.wall, b.wall));
  return near[0]?.wall;
}

/** Another listing's date in a venue, by the site's clock. */
export interface Booking {
  title: string;
  listingId: string;
  start: Wall;
  end: Wall | null;
}

/** The span of a date in minutes since 1970-01-01, [from, to); a date whose end is not said takes a minute, a whole day all of it. */
function spanOf(start: Wall, end: Wall | null): [number, number] {
  const at = (wall: Wall): number => wall.day * 1440 + (wall.minute ?? 0);
  if (start.minute === null) return [at(start), end ? at(end) : at(start) + 1440];
  return [at(start), Math.max(at(start) + 1, end ? at(end) : 0)];
}

/** The bookings that each date clashes with, by its key. Both lists may be long: one pass over each, in order of their start. */
export function clashesOf(dates: readonly Occurrence[], bookings: readonly Booking[]): Map<string, Booking[]> {
  const found = new Map<string, Booking[]>();
  const spans = bookings.map((booking) => ({ booking, span: spanOf(booking.start, booking.end) })).sort((a, b) => a.span[0] - b.span[0]);
  const longest = Math.max(0, ...spans.map(({ span }) => span[1] - span[0]));
  for (const date of dates) {
    if (date.standing === 'cancelled' || date.standing === 'postponed') continue;
    const [from, to] = spanOf(date.start, date.end);
    for (let i = firstFrom(spans, from - longest); i < spans.length; i++) {
      const one = spans[i];
      if (!one || one.span[0] >= to) break;
      if (one.span[1] > from) push(found, isoWall(date.original), one.booking);
    }
  }
  return found;
}

/** The first of sorted spans that begins at or after a minute. */
function firstFrom(spans: readonly { span: [number, number] }[], minute: number): number {
  let low = 0;
  let high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle]?.span[0] ?? 0) < minute) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** How long a date is, said by its end on the clock: the length that a change of one date holds; null = as the others. */
export function lengthTo(start: Wall, minute: number): Length {
  const days = start.minute !== null && minute <= start.minute ? 1 : 0;
  return { days, minute };
}
