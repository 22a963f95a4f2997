/** Other rules for a listing: parting them at a date, and what becomes of changes to single dates. */
import { isoDay } from '../day/day';
import { compareWall, isoWall, parseIsoWall, sameWall, type Wall } from '../day/wall';
import { startsBetween } from '../recurrence/expand';
import type { Recurrence } from '../recurrence/model';
import type { StoredRecurrence, StoredStretch } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';
import { readRecurrence } from './repeat-choices';
import { withRecurrence } from './single-dates';

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
  const kept = change.standing || change.note || change.venueId ? [{ ...change, original: start, movedTo: null, length: null }] : [];
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
