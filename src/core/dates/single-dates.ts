/** What can be done with single dates of a listing. Keys are original starts, `2027-03-07T07:40`; days are the recurrence's own. */
import { type EpochDay, isoDay } from '../day/day';
import { isoDateTime, parseIsoDateTime } from '../day/plain-date-time';
import { atSunOfItsDay, type StoredChange, type StoredRecurrence, type StoredRecurrencePart } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';

/** Leaves a date out, or puts it back. */
export function toggleDate(recurrence: StoredRecurrence, key: string): StoredRecurrence {
  const out = recurrence.exdates.includes(key);
  return { ...recurrence, exdates: out ? recurrence.exdates.filter((k) => k !== key) : [...recurrence.exdates, key].sort() };
}

const NOTHING: Omit<StoredChange, 'original'> = { movedTo: null, length: null, eventStatus: null, note: '' };

/** Changes one date; a change that says nothing any more is dropped. An empty venue id means: where the others are. */
export function changeDate(changes: StoredChange[], original: string, part: Partial<StoredChange>): StoredChange[] {
  const before = changes.find((c) => c.original === original) ?? { original, ...NOTHING };
  const { venueId, ...next } = { ...before, ...part };
  const rest = changes.filter((c) => c.original !== original);
  const empty = next.movedTo === null && next.length === null && next.eventStatus === null && !next.note.trim() && !venueId;
  return empty ? rest : [...rest, { ...next, ...(venueId ? { venueId } : {}) }].sort((a, b) => (a.original < b.original ? -1 : 1));
}

/** The same content with other repeats; one without dates stays as it is. */
export const withRecurrence = (content: ListingContent, change: (r: StoredRecurrence) => StoredRecurrence): ListingContent =>
  content.recurrence ? { ...content, recurrence: change(content.recurrence) } : content;

/** Moves one date to another day, at its time; back on its own day the move is forgotten. */
export function moveDate(content: ListingContent, key: string, to: EpochDay): ListingContent {
  const original = parseIsoDateTime(key);
  if (!original) return content;
  const now = parseIsoDateTime(content.changes.find((c) => c.original === key)?.movedTo ?? key) ?? original;
  const moved = isoDateTime({ day: to, minute: now.minute });
  return { ...content, changes: changeDate(content.changes, key, { movedTo: moved === key ? null : moved }) };
}

/** An extra date on a day, at the time and as long as the first one. A left-out date of that day comes back instead. */
export function addDate(content: ListingContent, day: EpochDay): ListingContent {
  return withRecurrence(content, (r) => {
    const back = r.exdates.filter((key) => key.startsWith(isoDay(day)));
    if (back.length) return { ...r, exdates: r.exdates.filter((key) => !back.includes(key)) };
    const first = r.parts[0];
    const start = first && parseIsoDateTime(first.start);
    if (!first || !start) return r;
    const like: StoredRecurrencePart = { ...first, start: isoDateTime({ day, minute: start.minute }), rule: null, limit: { kind: 'open' } };
    const extra = atSunOfItsDay({ ...r, parts: [like], exdates: [] }).parts[0] ?? like;
    if (r.parts.some((s) => !s.rule && s.start === extra.start)) return r;
    return { ...r, parts: [...r.parts, extra] };
  });
}

/** A break over a span of days, in either order. */
export function addBreak(content: ListingContent, a: EpochDay, b: EpochDay): ListingContent {
  const span = { from: isoDay(Math.min(a, b)), to: isoDay(Math.max(a, b)) };
  return withRecurrence(content, (r) => ({ ...r, breaks: [...r.breaks, span].sort((x, y) => (x.from < y.from ? -1 : 1)) }));
}
