/** What a day at the Desk begins with: what is on, what waits for somebody, which series come to their end. */
import { type SQL, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { type Actor, editsAll } from '../accounts/roles';
import { horizonOf } from '../dates/date-index';
import { jsonRows } from '../db/json-rows';
import { listing } from '../db/schema';
import { shown } from '../jobs/hidden';
import { countStuck } from '../mail/outbox';
import { countWaiting } from '../moderation/read';
import { countRemarks } from '../moderation/remarks';
import { referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { readDeskDates } from './sheet-dates';
import { ensureNext, readTableQuery, selectingOf, selectTable } from './table';

/** What may wait, in the order in which it is said. */
export const MATTERS = ['intake', 'remarks', 'mails', 'problems', 'edited', 'drafts', 'in-review', 'scheduled'] as const;
/** One of {@link MATTERS}. */
export type Matter = (typeof MATTERS)[number];

/** A matter with how many there are and where they are. */
export interface Waiting {
  matter: Matter;
  n: number;
  href: string;
}

/** A series whose last date is near. */
export interface Ending {
  id: string;
  title: string;
  lastDay: EpochDay;
}

/** A day at the Desk. */
export interface DeskToday {
  /** is there any listing that this person may open? */
  begun: boolean;
  today: DeskDate[];
  tomorrow: DeskDate[];
  waiting: Waiting[];
  ending: Ending[];
  /** series that end and are not listed */
  moreEnding: number;
}

/** A series is said to end so many days ahead. */
const ENDS_WITHIN = 30;
/** With fewer dates than this it is no series. */
const SERIES = 3;
const MOST_ENDING = 8;

/** Tables of listings that are looked at, by what they are of. */
const TABLES: Partial<Record<Matter, string>> = {
  problems: 'stage=published&having=problems&next=92',
  edited: 'stage=edited',
  drafts: 'stage=draft&next=30',
  'in-review': 'stage=in-review',
  scheduled: 'stage=scheduled',
};

/** Whom a matter is for: editors decide what others sent, coordinators see to mails; contributors have their own listings. */
function isFor(actor: Actor, matter: Matter): boolean {
  if (matter === 'mails') return actor.role === 'coordinator';
  if (matter === 'in-review') return !editsAll(actor);
  return editsAll(actor) || (matter !== 'intake' && matter !== 'remarks');
}

type Source = Pick<Runtime, 'db' | 'cache' | 'now' | 'settings'>;

/** Everything of a day, for whoever works at the Desk: contributors see what is theirs. */
export async function readToday(rt: Source, actor: Actor): Promise<DeskToday> {
  const { day } = rt.now();
  await ensureNext(rt, day);
  const reference = await referenceData(rt);
  const filters = { stages: ['published' as const], kind: '', venue: '', words: '' };
  const { dates } = await readDeskDates(rt.db, { actor, from: day, to: day + 1, filters, reference, settings: rt.settings() });
  const waiting: Waiting[] = [];
  for (const matter of MATTERS) {
    if (!isFor(actor, matter)) continue;
    const n = await countMatter(rt, actor, matter);
    if (n) waiting.push({ matter, n, href: hrefOf(matter) });
  }
  const ending = await readEnding(rt, actor, day);
  const own = editsAll(actor) ? sql`true` : sql`${listing.ownerId} = ${actor.id ?? ''}`;
  const [any] = await rt.db.select({ id: listing.id }).from(listing).where(own).limit(1);
  return {
    begun: any !== undefined,
    today: dates.filter((date) => date.startDay <= day && date.lastDay >= day),
    tomorrow: dates.filter((date) => date.startDay <= day + 1 && date.lastDay > day),
    waiting,
    ending: ending.slice(0, MOST_ENDING),
    moreEnding: Math.max(0, ending.length - MOST_ENDING),
  };
}

const OWN_PAGES: Partial<Record<Matter, string>> = { intake: '/desk/intake', remarks: '/desk/remarks', mails: '/desk/mail' };

const hrefOf = (matter: Matter): string => OWN_PAGES[matter] ?? `/desk/listings?${TABLES[matter]}`;

async function countMatter(rt: Source, actor: Actor, matter: Matter): Promise<number> {
  if (matter === 'intake') return countWaiting(rt.db);
  if (matter === 'remarks') return countRemarks(rt.db);
  if (matter === 'mails') return countStuck(rt.db);
  const query = readTableQuery(new URLSearchParams(TABLES[matter]));
  const [row] = await jsonRows<{ n: number }>(
    rt.db,
    sql`select count(*)::int as n from ${listing} where ${selectTable(actor, query, await selectingOf(rt, query))}`,
  );
  return row?.n ?? 0;
}

/** Published series whose last date is within a month, the next to end first; those that go on reach the horizon of the index. */
function readEnding({ db, settings }: Source, actor: Actor, day: EpochDay): Promise<Ending[]> {
  const own: SQL = editsAll(actor) ? sql`true` : sql`l.owner_id = ${actor.id ?? ''}`;
  const until = Math.min(day + ENDS_WITHIN, horizonOf(day, settings().horizonMonths) - 1);
  return jsonRows<Ending>(
    db,
    sql`select l.id, l.title, max(o.last_day) as "lastDay" from listing l join occurrence o on o.listing_id = l.id
      where l.stage = 'published' and ${shown(sql.raw('l.job_id'))} and ${own}
      group by l.id, l.title having count(*) >= ${SERIES} and max(o.last_day) between ${day} and ${until}
      order by max(o.last_day), l.title limit 200`,
  );
}
