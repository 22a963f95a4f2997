/** What can be done with single dates of a listing. Keys are original starts, `2027-03-07T07:40`; days are the recurrence's own. */
import { type Day, isoDay } from '../day/day';
import { isoWall, parseIsoWall } from '../day/wall';
import type { StoredChange, StoredRecurrence, StoredStretch } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';

/** Leaves a date out, or puts it back. */
export function toggleDate(recurrence: StoredRecurrence, key: string): StoredRecurrence {
  const out = recurrence.leftOut.includes(key);
  return { ...recurrence, leftOut: out ? recurrence.leftOut.filter((k) => k !== key) : [...recurrence.leftOut, key].sort() };
}

const NOTHING: Omit<StoredChange, 'original'> = { movedTo: null, length: null, standing: null, note: '' };

/** Changes one date; a change that says nothing any more is dropped. An empty venue id means: where the others are. */
export function changeDate(changes: StoredChange[], original: string, part: Partial<StoredChange>): StoredChange[] {
  const before = changes.find((c) => c.original === original) ?? { original, ...NOTHING };
  const { venueId, ...next } = { ...before, ...part };
  const rest = changes.filter((c) => c.original !== original);
  const empty = next.movedTo === null && next.length === null && next.standing === null && !next.note.trim() && !venueId;
  return empty ? rest : [...rest, { ...next, ...(venueId ? { venueId } : {}) }].sort((a, b) => (a.original < b.original ? -1 : 1));
}

/** The same content with other repeats; one without dates stays as it is. */
export const withRecurrence = (content: ListingContent, change: (r: StoredRecurrence) => StoredRecurrence): ListingContent =>
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
