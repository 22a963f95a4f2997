/** Every date of a listing until the horizon, by month and by day. Keys are original starts, `2027-03-07T07:40`. */
import { type EpochDay, monthNumberOf } from '../day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { expand, idleChanges, startsBetween } from '../recurrence/expand';
import type { Length, Occurrence } from '../recurrence/model';
import { changesFromStored, type StoredChange } from '../recurrence/stored';
import type { ListingContent } from '../listing/content';
import { addTo } from '../collections/add-to';
import { readRecurrence } from './repeat-choices';

/** A date of the Dates rail: kept or left out, and what differs for it. */
export interface RailDate {
  key: string;
  wall: PlainDateTime;
  out: boolean;
  occurrence: Occurrence | undefined;
}

/** The dates of one month of the rail. */
export interface RailMonth {
  month: number;
  dates: RailDate[];
}

/** All dates of a listing by month, with what lost its date. */
export interface Rail {
  months: RailMonth[];
  /** by the day on which it happens, or would: left-out ones too */
  byDay: Map<EpochDay, RailDate[]>;
  total: number;
  coming: number;
  /** changes of dates that the rules no longer have */
  idle: StoredChange[];
}

const NOTHING: Rail = { months: [], byDay: new Map(), total: 0, coming: 0, idle: [] };

/** Every date of a content until the horizon, by month, left-out ones among them. */
export function railOf(content: Pick<ListingContent, 'recurrence' | 'changes'>, today: EpochDay, horizon: EpochDay): Rail {
  const recurrence = readRecurrence(content.recurrence);
  if (!recurrence) return NOTHING;
  const changes = readChanges(content.changes);
  const first = Math.min(...recurrence.parts.map((s) => s.start.day));
  const last = Math.max(horizon, first);
  const all = expand(recurrence, changes, first, last);
  const byKey = new Map(all.map((o) => [isoDateTime(o.original), o]));
  const out = new Set(recurrence.exdates.map(isoDateTime));
  const rows = startsBetween({ ...recurrence, exdates: [] }, first, last).map(({ wall }): RailDate => {
    const key = isoDateTime(wall);
    return { key, wall, out: out.has(key), occurrence: byKey.get(key) };
  });
  const months = new Map<number, RailDate[]>();
  const byDay = new Map<EpochDay, RailDate[]>();
  for (const row of rows) {
    addTo(months, monthNumberOf(row.wall.day), row);
    addTo(byDay, row.occurrence?.start.day ?? row.wall.day, row);
  }
  const isComing = (r: RailDate): boolean => !r.out && (r.occurrence?.start.day ?? r.wall.day) >= today;
  const idle = idleChanges(recurrence, content.changes, (c) => parseIsoDateTime(c.original), last);
  return {
    months: [...months].map(([month, dates]) => ({ month, dates })),
    byDay,
    total: all.length,
    coming: rows.filter(isComing).length,
    idle,
  };
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

/** How long a date is, said by its end on the clock: the length that a change of one date holds; null = as the others. */
export function lengthTo(start: PlainDateTime, minute: number): Length {
  const days = start.minute !== null && minute <= start.minute ? 1 : 0;
  return { days, minute };
}
