/** The editor's state without React: what is typed, where it is kept, how it goes to the server. */
import { type Day, weekdayOf, ymdOf } from '@/core/day/day';
import { isoTime, isoWall, parseIsoWall, type Wall } from '@/core/day/wall';
import type { ListingContent } from '@/core/listing/content';
import { hasRareParts, type Length, type Recurrence, type Rule } from '@/core/recurrence/model';
import { fromStored, type StoredChange, type StoredRecurrence, type StoredStretch } from '@/core/recurrence/stored';

/** How a stretch repeats, as the form offers it. */
export const REPEATS = ['never', 'daily', 'workdays', 'weekly', 'month-day', 'month-weekday', 'yearly', 'other'] as const;
export type Repeat = (typeof REPEATS)[number];

const isWorkdays = (rule: Rule): boolean => rule.byDay.length === 5 && rule.byDay.every((d) => d.nth === 0 && d.weekday < 5);

/** Which of the form's kinds a rule is; `other` for a rule that the form cannot show, which is then kept as it is. */
export function repeatOf(rule: Rule | null): Repeat {
  if (!rule) return 'never';
  if (hasRareParts(rule)) return 'other';
  const { freq, byMonth, byMonthDay, byDay } = rule;
  if (freq === 'daily' && !byDay.length && !byMonth.length && !byMonthDay.length) return 'daily';
  if (freq === 'weekly' && !byMonth.length && byDay.every((d) => d.nth === 0)) return isWorkdays(rule) ? 'workdays' : 'weekly';
  if (freq === 'monthly' && !byMonth.length && byMonthDay.length && !byDay.length) return 'month-day';
  if (freq === 'monthly' && !byMonth.length && byDay.length && byDay.every((d) => d.nth !== 0) && !byMonthDay.length)
    return 'month-weekday';
  if (freq === 'yearly' && !byMonth.length && !byMonthDay.length && !byDay.length) return 'yearly';
  return 'other';
}

/** The rule of a kind for a first day: what somebody who picks it most likely means. */
export function ruleFor(repeat: Repeat, start: Day, before: Rule | null): Rule | null {
  const base: Rule = { freq: 'weekly', interval: before?.interval ?? 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
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
export function followStart(rule: Rule | null, from: Day, to: Day): Rule | null {
  if (!rule) return null;
  const [only] = rule.byDay;
  if (rule.byDay.length === 1 && only && only.weekday === weekdayOf(from)) {
    const moved = ruleFor(repeatOf(rule), to, rule);
    return moved ? { ...rule, ...moved, interval: rule.interval } : rule;
  }
  if (rule.byMonthDay.length === 1 && rule.byMonthDay[0] === ymdOf(from).day) return { ...rule, byMonthDay: [ymdOf(to).day] };
  return rule;
}

export function newStretch(start: Day, minute: number | null): StoredStretch {
  const length: Length | null =
    minute === null ? { days: 1, minute: null } : { days: minute + 120 >= 1440 ? 1 : 0, minute: (minute + 120) % 1440 };
  return { start: isoWall({ day: start, minute }), length, rule: null, limit: { kind: 'open' } };
}

export function newRecurrence(zone: string, today: Day): StoredRecurrence {
  return { format: 2, zone, stretches: [newStretch(today + 7, 19 * 60)], leftOut: [], breaks: [] };
}

/** Reads a recurrence that is being typed; undefined while a date in it does not exist. */
export function readRecurrence(stored: StoredRecurrence | null): Recurrence | undefined {
  if (!stored?.stretches.length) return undefined;
  try {
    return fromStored(stored);
  } catch {
    return undefined;
  }
}

/** Leaves a date out, or puts it back. */
export function toggleDate(recurrence: StoredRecurrence, key: string): StoredRecurrence {
  const out = recurrence.leftOut.includes(key);
  return { ...recurrence, leftOut: out ? recurrence.leftOut.filter((k) => k !== key) : [...recurrence.leftOut, key].sort() };
}

const NOTHING: Omit<StoredChange, 'original'> = { movedTo: null, length: null, standing: null, note: '' };

/** Changes one date; a change that says nothing any more is dropped. */
export function changeDate(changes: StoredChange[], original: string, part: Partial<StoredChange>): StoredChange[] {
  const before = changes.find((c) => c.original === original) ?? { original, ...NOTHING };
  const next = { ...before, ...part };
  const rest = changes.filter((c) => c.original !== original);
  const empty = next.movedTo === null && next.length === null && next.standing === null && !next.note.trim();
  return empty ? rest : [...rest, next].sort((a, b) => (a.original < b.original ? -1 : 1));
}

/** When the time of day of a stretch changes, left-out dates and changes follow by day. */
export function retime(content: ListingContent, index: number, start: string): ListingContent {
  const { recurrence } = content;
  const stretch = recurrence?.stretches[index];
  const [from, to] = [stretch && parseIsoWall(stretch.start), parseIsoWall(start)];
  if (!recurrence || !stretch || !from || !to) return content;
  const timeOf = (wall: Wall): string => (wall.minute === null ? '' : `T${isoTime(wall.minute)}`);
  const oldTime = timeOf(from);
  const follow = (key: string): string => (key.slice(10) === oldTime ? key.slice(0, 10) + timeOf(to) : key);
  const stretches = recurrence.stretches.map((s, i) =>
    i === index ? { ...s, start, rule: followStart(s.rule, from.day, to.day), length: followLength(s.length, from, to) } : s,
  );
  return {
    ...content,
    recurrence: { ...recurrence, stretches, leftOut: recurrence.leftOut.map(follow) },
    changes: content.changes.map((c) => ({ ...c, original: follow(c.original) })),
  };
}

/** The end moves with the start, so that the duration stays; all-day and timed lengths are turned into each other. */
function followLength(length: Length | null, from: Wall, to: Wall): Length | null {
  if (to.minute === null) return from.minute === null ? length : { days: Math.max(1, (length?.days ?? 0) + 1), minute: null };
  if (from.minute === null) return { days: Math.max(0, (length?.days ?? 1) - 1), minute: (to.minute + 120) % 1440 };
  if (!length || length.minute === null) return length;
  const minutes = length.days * 1440 + length.minute - from.minute + to.minute;
  return { days: Math.floor(minutes / 1440), minute: ((minutes % 1440) + 1440) % 1440 };
}

// What is typed is kept in this browser until the server has it.
export interface Kept {
  format: 1;
  revision: number;
  content: ListingContent;
  at: number;
}
const keyOf = (userId: string, id: string | null): string => `almanac.draft.${userId}.${id ?? 'new'}`;

export function keep(store: Pick<Storage, 'setItem'>, userId: string, id: string | null, kept: Kept): boolean {
  try {
    store.setItem(keyOf(userId, id), JSON.stringify(kept));
    return true;
  } catch {
    return false;
  }
}

export function readKept(store: Pick<Storage, 'getItem'>, userId: string, id: string | null): Kept | undefined {
  try {
    const kept = JSON.parse(store.getItem(keyOf(userId, id)) ?? 'null') as Kept | null;
    return kept?.format === 1 && kept.content?.format === 1 ? kept : undefined;
  } catch {
    return undefined;
  }
}

export function dropKept(store: Pick<Storage, 'removeItem'>, userId: string, id: string | null): void {
  store.removeItem(keyOf(userId, id));
}

/** The parts of a content that differ, by name. */
export function differences(a: ListingContent, b: ListingContent): (keyof ListingContent)[] {
  return (Object.keys(a) as (keyof ListingContent)[]).filter((name) => JSON.stringify(a[name]) !== JSON.stringify(b[name]));
}

/** Of what differs between mine and theirs, what only one side changed since both began: those merge by themselves. */
export function mergeContents(
  base: ListingContent,
  mine: ListingContent,
  theirs: ListingContent,
): { merged: ListingContent; collisions: (keyof ListingContent)[] } {
  const collisions: (keyof ListingContent)[] = [];
  const merged = { ...theirs } as Record<keyof ListingContent, unknown>;
  for (const name of differences(mine, theirs)) {
    const mineChanged = JSON.stringify(base[name]) !== JSON.stringify(mine[name]);
    const theirsChanged = JSON.stringify(base[name]) !== JSON.stringify(theirs[name]);
    if (mineChanged) merged[name] = mine[name];
    if (mineChanged && theirsChanged) collisions.push(name);
  }
  return { merged: merged as unknown as ListingContent, collisions };
}
