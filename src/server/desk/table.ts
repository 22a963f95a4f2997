/** The Desk's table of listings: its filters as they stand in the address, one page of it, and how many there are. */
import { eq, type SQL, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import { STAGES, type ListingContent, type Stage } from '@/core/listing/content';
import { type Actor, editsAll } from '../accounts/roles';
import type { Db } from '../db/client';
import { isId } from '../db/ids';
import type { Answers } from '../site/content-cache';
import { jsonRows } from '../db/json-rows';
import { listing } from '../db/schema';
import { shown } from '../jobs/hidden';
import { titlesOf } from '../validation/titles';
import { likePattern } from '@/core/filters/filters';
import { type ContentSource, referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { refreshNext } from '../dates/date-index';
import { serverWords } from '@/words/desk';

const w = serverWords.deskTable;

/** What the table can be sorted by. */
export const SORTS = ['title', 'next', 'changed', 'stage'] as const;
/** What listings can be chosen by, besides what they hold. */
export const HAVING = ['no-picture', 'problems', 'submitted', 'unlisted', 'no-venue', 'headline'] as const;
/** One of {@link HAVING}. */
export type Having = (typeof HAVING)[number];
/** Each of them as an editor reads it. */
export const HAVING_WORDS: Record<Having, string> = {
  problems: w.withOpenMatters(),
  'no-picture': w.withoutAPicture(),
  'no-venue': w.withoutAVenue(),
  submitted: w.sentInByOthers(),
  unlisted: w.byAddressOnly(),
  headline: 'headlines',
};
/** Next date within so many days; `past` and `none` for those without one. */
export const NEXT = ['7', '30', '92', 'past', 'none'] as const;
/** One of the choices by when the next date is. */
export type NextIn = (typeof NEXT)[number];
/** Each of them as an editor reads it. */
export const NEXT_WORDS: Record<NextIn, string> = {
  '7': w.inTheNext7(),
  '30': w.inTheNext30(),
  '92': w.inTheNext3(),
  past: w.allDatesPast(),
  none: w.noDateAtAll(),
};

/** The columns that the table can have beside the title. */
export const COLUMNS = [
  'next',
  'repeats',
  'venue',
  'organizer',
  'category',
  'tags',
  'cost',
  'stage',
  'owner',
  'matters',
  'changed',
] as const;
/** One of {@link COLUMNS}. */
export type Column = (typeof COLUMNS)[number];
/** Each column as an editor reads it. */
export const COLUMN_WORDS: Record<Column, string> = {
  next: w.nextDate(),
  repeats: w.repeats(),
  venue: w.venue(),
  organizer: w.organizer(),
  category: w.category(),
  tags: w.tags(),
  cost: w.cost(),
  stage: w.stage(),
  owner: w.owner(),
  matters: w.matters(),
  changed: w.changed(),
};
const USUAL: readonly Column[] = ['next', 'repeats', 'venue', 'stage', 'changed'];

/** What the table's address asks for. */
export interface TableQuery {
  words: string;
  stage: Stage | 'edited' | '';
  category: string;
  venue: string;
  organizer: string;
  tag: string;
  owner: string;
  having: Having | '';
  next: NextIn | '';
  sort: (typeof SORTS)[number];
  down: boolean;
  page: number;
  columns: readonly Column[];
  /** chosen one by one */
  ids: readonly string[];
}
/** The table has so many rows a page. */
export const PER_PAGE = 50;
/** So many listings are found by words at most, the best first. */
const MOST_FOUND = 2000;

const oneOf = <T extends string>(all: readonly T[], text: string | null): T | '' => all.find((one) => one === text) ?? '';

/** Reads the table's address; anything unknown has its default. */
export function readTableQuery(query: URLSearchParams): TableQuery {
  const stage = query.get('stage') ?? '';
  const page = Number(query.get('page'));
  const id = (name: string): string => (isId(query.get(name) ?? '') ? (query.get(name) as string) : '');
  const columns = (query.get('columns') ?? '').split(',').flatMap((c) => oneOf(COLUMNS, c) || []);
  return {
    words: (query.get('words') ?? '').trim().slice(0, 80),
    stage: stage === 'edited' ? 'edited' : oneOf(STAGES, stage),
    category: id('category'),
    venue: id('venue'),
    organizer: id('organizer'),
    tag: id('tag'),
    owner: (query.get('owner') ?? '').slice(0, 60),
    having: oneOf(HAVING, query.get('having')),
    next: oneOf(NEXT, query.get('next')),
    sort: oneOf(SORTS, query.get('sort')) || 'changed',
    down: query.has('sort') ? query.get('down') === '1' : true,
    page: Number.isInteger(page) && page > 0 && page < 10_000 ? page : 1,
    ids: (query.get('ids') ?? '').split(',').filter(isId).slice(0, 2000),
    columns: columns.length ? COLUMNS.filter((c) => columns.includes(c)) : USUAL,
  };
}

/** Does the table show anything less than all? */
export function isChosen(query: TableQuery): boolean {
  const { words, stage, category, venue, organizer, tag, owner, having, next } = query;
  return [words, stage, category, venue, organizer, tag, owner, having, next].some((part) => part !== '');
}

/** A listing as the table shows it. */
export interface TableRow {
  id: string;
  title: string;
  slug: string;
  stage: Stage;
  edited: boolean;
  revision: number;
  working: ListingContent;
  changedAt: Date;
  nextDay: number | null;
  nextMinute: number | null;
  owner: string;
  matters: number;
  publishAt: Date | null;
  withdrawAt: Date | null;
  /** why it did not go out when it should have */
  scheduleWrong: string;
  /** who typed something in it that is not saved */
  editing: string;
}

/** Where in the table a listing of this id is named: a working copy's link. */
const linked = (column: string, ids: readonly string[]): SQL =>
  ids.length
    ? sql`exists (select 1 from listing_link k where k.listing_id = "listing"."id" and k.copy = 'working' and ${sql.raw(`k.${column}`)} in ${ids})`
    : sql`false`;

const HAVING_SQL: Record<Having, SQL> = {
  problems: sql`exists (select 1 from validation_note n where n.listing_id = "listing"."id")`,
  'no-picture': sql`${listing.working} ->> 'pictureId' is null`,
  'no-venue': sql`${listing.working} ->> 'attendance' <> 'online' and jsonb_array_length(${listing.working} -> 'venueIds') = 0`,
  submitted: sql`exists (select 1 from submission s where s.listing_id = "listing"."id" and s.token_hash is not null)`,
  unlisted: sql`${listing.working} ->> 'visibility' = 'address-only'`,
  headline: sql`(${listing.working} ->> 'headline')::boolean`,
};

function nextSql(next: NextIn, today: EpochDay): SQL {
  if (next === 'none') return sql`not exists (select 1 from occurrence o where o.listing_id = "listing"."id")`;
  if (next === 'past') return sql`${listing.nextDay} is null and exists (select 1 from occurrence o where o.listing_id = "listing"."id")`;
  return sql`${listing.nextDay} < ${today + Number(next)}`;
}

/** What words found, the best first; undefined when nothing was typed. */
export interface Found {
  ids: readonly string[];
}

/** Finds typed words among the titles, slips forgiven. */
export async function findWords(rt: ContentSource, { words }: TableQuery): Promise<Found | undefined> {
  if (!words) return undefined;
  return { ids: (await titlesOf(rt.db, rt.cache)).search(words, MOST_FOUND) };
}

/** What a choice needs besides itself. */
export interface Selecting {
  today: EpochDay;
  found: Found | undefined;
  /** a category with those under it */
  kinds: readonly string[];
  /** the state of the content, for what is remembered while it stays so */
  answers: Answers;
}

/** The listings that a table shows: what somebody may edit and chose. */
export function selectTable(actor: Actor, query: TableQuery, { today, found, kinds }: Selecting): SQL {
  const { stage, words, venue, organizer, tag, owner, having, next } = query;
  const all: SQL[] = [shown(listing.jobId)];
  if (!editsAll(actor)) all.push(eq(listing.ownerId, actor.id ?? ''));
  if (stage === 'edited') all.push(eq(listing.edited, true));
  else all.push(stage ? eq(listing.stage, stage) : sql`${listing.stage} <> 'binned'`);
  if (words) {
    // Summaries and addresses are looked through only where no title has the words: that reads every listing. So is the bin, whose
    // titles are not in the index.
    const pattern = likePattern(words);
    const ids = JSON.stringify(found?.ids ?? []);
    all.push(
      found?.ids.length && stage !== 'binned'
        ? sql`${listing.id} in (select json_array_elements_text(${ids}::json)::uuid)`
        : sql`(${listing.title} ilike ${pattern} or ${listing.slug} ilike ${pattern} or ${listing.working} ->> 'summary' ilike ${pattern})`,
    );
  }
  if (query.ids.length) all.push(sql`${listing.id} in ${[...query.ids]}`);
  if (query.category) all.push(linked('category_id', kinds));
  if (venue) all.push(linked('venue_id', [venue]));
  if (organizer) all.push(linked('organizer_id', [organizer]));
  if (tag) all.push(linked('tag_id', [tag]));
  if (owner) all.push(eq(listing.ownerId, owner));
  if (having) all.push(HAVING_SQL[having]);
  if (next) all.push(nextSql(next, today));
  return sql.join(all, sql` and `);
}

/** An order, and what of a listing it is made from. */
interface Order {
  by: SQL;
  from: readonly SQL[];
}

function orderOf({ sort, down, words }: TableQuery, found: Found | undefined, sorted: boolean): Order {
  const way = sql.raw(down ? 'desc' : 'asc');
  // What was typed decides the order, until somebody asks for another.
  if (words && !sorted && found?.ids.length) {
    const ids = JSON.stringify(found.ids.slice(0, 300));
    return {
      by: sql`coalesce(array_position(array(select json_array_elements_text(${ids}::json)::uuid), ${listing.id}), 100000)`,
      from: [],
    };
  }
  switch (sort) {
    case 'title':
      return { by: sql`lower(${listing.title}) ${way}`, from: [sql`${listing.title}`] };
    case 'stage':
      return { by: sql`${listing.stage} ${way}, ${listing.changedAt} desc`, from: [sql`${listing.stage}`, sql`${listing.changedAt}`] };
    case 'next':
      // A whole day comes before the hours of that day.
      return {
        by: sql`${listing.nextDay} ${way} nulls last, coalesce(${listing.nextMinute}, -1) ${way}`,
        from: [sql`${listing.nextDay}`, sql`${listing.nextMinute}`],
      };
    default:
      return { by: sql`${listing.changedAt} ${way}`, from: [sql`${listing.changedAt}`] };
  }
}

/** Next dates that are over are found anew, once a day. */
export async function ensureNext({ db, cache }: ContentSource, today: EpochDay): Promise<void> {
  const refreshed = cache.keep('next days', (): { day?: EpochDay } => ({}));
  if (refreshed.day === today) return;
  await refreshNext(db, today);
  refreshed.day = today;
}

/** Which page of the table is asked for, by whom. */
export interface TableInput extends Selecting {
  actor: Actor;
  query: TableQuery;
  /** did somebody ask for an order? */
  sorted: boolean;
}

/** A page of the table. */
export interface TablePage {
  rows: TableRow[];
  total: number;
  stages: Map<string, number>;
}

type Stamp = 'changedAt' | 'publishAt' | 'withdrawAt';
type Raw = Omit<TableRow, Stamp> & { changedAt: string; publishAt: string | null; withdrawAt: string | null };

/** One page of the table, how many there are in all, and how many of each stage. Two questions, whatever was chosen. */
export async function readTable(db: Db, input: TableInput): Promise<TablePage> {
  const { actor, query, found, sorted } = input;
  const where = selectTable(actor, query, input);
  const order = orderOf(query, found, sorted);
  const owner = query.columns.includes('owner');
  const matters = query.columns.includes('matters');
  const rows = await jsonRows<Raw & { total: number }>(
    db,
    // What was chosen is found once, for the page and for the count of all, with no more of it than its order needs.
    sql`with chosen as materialized (
        select ${sql.join([sql`"listing".id`, ...order.from], sql`, `)} from ${listing} where ${where}
      ), page as (
        select id, row_number() over () as place
        from (select "listing".id from chosen "listing" order by ${order.by}, "listing".id limit ${PER_PAGE} offset ${(query.page - 1) * PER_PAGE}) o
      )
      select "listing".id, "listing".title, "listing".slug, "listing".stage, "listing".edited, "listing".revision, "listing".working,
      "listing".changed_at as "changedAt", "listing".next_day as "nextDay", "listing".next_minute as "nextMinute", "listing".publish_at as "publishAt",
      "listing".withdraw_at as "withdrawAt", "listing".schedule_wrong as "scheduleWrong", (select count(*)::int from chosen) as total,
      ${owner ? sql`coalesce((select u.name from account_user u where u.id = "listing".owner_id), '')` : sql`''`} as owner,
      ${matters ? sql`(select count(*)::int from validation_note n where n.listing_id = "listing".id)` : sql`0`} as matters,
      coalesce((select string_agg(u.name, ', ') from edit e join account_user u on u.id = e.user_id where e.listing_id = "listing".id and e.content is not null), '') as editing
      from page p join ${listing} on "listing".id = p.id order by p.place`,
  );
  const stages = await input.answers.of(`stages ${editsAll(actor) ? '' : actor.id}`, () => countStages(db, actor));
  const total = rows[0]?.total ?? (query.page > 1 ? await countTable(db, where) : 0);
  const at = (text: string | null): Date | null => (text === null ? null : new Date(text));
  const dated = rows.map(({ total: _, ...row }) => ({
    ...row,
    changedAt: new Date(row.changedAt),
    publishAt: at(row.publishAt),
    withdrawAt: at(row.withdrawAt),
  }));
  return { rows: dated, total, stages };
}

/** How many there are of each stage, and with changes not yet published, of those that somebody may edit. */
async function countStages(db: Db, actor: Actor): Promise<Map<string, number>> {
  const counts = await jsonRows<{ stage: string; edited: boolean; n: number }>(
    db,
    sql`select stage, edited, count(*)::int as n from ${listing} where ${shown(listing.jobId)} and ${editsAll(actor) ? sql`true` : eq(listing.ownerId, actor.id ?? '')} group by stage, edited`,
  );
  const stages = new Map<string, number>();
  for (const c of counts) {
    stages.set(c.stage, (stages.get(c.stage) ?? 0) + c.n);
    if (c.edited) stages.set('edited', (stages.get('edited') ?? 0) + c.n);
  }
  return stages;
}

async function countTable(db: Db, where: SQL): Promise<number> {
  const [row] = await jsonRows<{ n: number }>(db, sql`select count(*)::int as n from ${listing} where ${where}`);
  return row?.n ?? 0;
}

/** Ids of everything that the table's choice holds, in no order: for what is done with all of them. */
export async function readTableIds(db: Db, actor: Actor, query: TableQuery, selecting: Selecting): Promise<string[]> {
  const rows = await jsonRows<{ id: string }>(
    db,
    sql`select "listing".id from ${listing} where ${selectTable(actor, query, selecting)} order by "listing".id limit 50000`,
  );
  return rows.map((row) => row.id);
}

/** What a choice needs besides itself: today, what the words found, the categories under the chosen one. */
export async function selectingOf(rt: ContentSource & Pick<Runtime, 'now'>, query: TableQuery): Promise<Selecting> {
  const found = await findWords(rt, query);
  const { categories } = await referenceData(rt);
  const kinds = categories.filter((c) => c.id === query.category || c.parentId === query.category).map((c) => c.id);
  return { today: rt.now().day, found, kinds, answers: rt.cache.now() };
}
