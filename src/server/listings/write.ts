/** Changes to listings. Each is one transaction: the row, its version, its audit line, its links and its date index. */
import { type Happening, toKeep } from '../history/happening';
import { and, eq, getTableColumns, sql } from 'drizzle-orm';
import type { NamedDate } from '@/core/dates/date-ids';
import type { ListingContent, Stage } from '@/core/listing/content';
import type { ValidationNote } from '@/core/validation/note';
import { whatStopsOf } from '@/core/validation/validate';
import { canonical } from '@/core/text/canonical-json';
import { freeSlug, slugOf } from '@/core/text/text';
import { actionOf, authorize, type ListingAction } from '../accounts/permissions';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { jsonRows } from '../db/json-rows';
import { audit, category, link, listing, oldSlug, published, type SubmissionState, validationState, version } from '../db/schema';
import { invalid, notFound, Problem } from '../problem';
import { type Fate, settles, settleSubmission } from '../moderation/settle';
import { noteTouched, type Unlooked } from '../validation/copies';
import type { Now } from '../site/clock';
import { type SiteSettings, styleOf } from '../site/settings';
import { horizonOf, type IndexRow, indexRows, insertRows, nextOf, replaceRows } from '../dates/date-index';
import { nameRows } from '../dates/date-names';
import { writeLinks } from './links';
import { publishedValues } from './published-copy';
import { serverWords } from '@/words/desk';
import { sayNote } from '@/words/proof';

const w = serverWords.listingsWrite;

/** What every change needs to know. `settings.address` is where the site is reached: mails carry it. */
export interface Change {
  by: Actor;
  now: Now;
  settings: SiteSettings;
}

/** A listing's row. */
export type Row = typeof listing.$inferSelect;
/** A listing as it is now, and which of the dates that readers had are no more. */
export type Changed = Row & { ended: readonly NamedDate[] };
/** A listing that is being changed, with what of a copy nobody looked at yet. */
export type Locked = Row & {
  unlooked: Unlooked;
  /** how the submission that it came with stands; empty = it came with none */
  sent: SubmissionState | '';
};

async function lock(tx: Db, id: string): Promise<Locked> {
  // One question for all three: each costs as much as a row does.
  const sent = sql<SubmissionState | ''>`coalesce((select s.state from submission s where s.listing_id = "listing"."id"), '')`;
  const unlooked = sql<Unlooked>`coalesce((select array_to_json(c.unlooked) from listing_copy c where c.listing_id = "listing"."id"), '[]'::json)`;
  const [row] = await tx
    .select({ ...getTableColumns(listing), unlooked, sent })
    .from(listing)
    .where(eq(listing.id, id))
    .for('update');
  if (!row) throw notFound('listing');
  return row;
}

/** An address that no other listing has, nor had. */
async function freeListingSlug(tx: Db, wanted: string, id: string): Promise<string> {
  const like = `${wanted}%`;
  const taken = await jsonRows<{ slug: string }>(
    tx,
    sql`select slug from listing where slug like ${like} and id <> ${id} union all select slug from old_slug where slug like ${like} and listing_id <> ${id}`,
  );
  return freeSlug(wanted, new Set(taken.map((row) => row.slug)));
}

/** An address that somebody wrote: taken as it is, or refused with what would do. */
async function wantedSlug(tx: Db, wanted: string, id: string): Promise<string> {
  const slug = slugOf(wanted, '');
  if (!slug || slug !== wanted.trim()) throw invalid('slug', w.aWebAddressHas({ slug: slug ? w.wouldDo({ slug }) : '' }));
  const free = await freeListingSlug(tx, slug, id);
  if (free !== slug) throw invalid('slug', w.isTakenByAnother({ slug, free }));
  return slug;
}

/** Makes a listing as a draft; its web address comes from its title unless one is wanted. */
export async function createListing(tx: Db, content: ListingContent, change: Change, stage: Stage = 'draft', wanted = ''): Promise<Row> {
  const id = newId();
  const slug = wanted ? await wantedSlug(tx, wanted, id) : await freeListingSlug(tx, slugOf(content.title), id);
  const at = new Date(change.now.ms);
  const dates = datesOf({ id, working: content, stage, edited: false }, change) ?? [];
  const own = { id, slug, stage, title: content.title, working: content, ownerId: change.by.id, createdAt: at, changedAt: at };
  const [row] = await tx
    .insert(listing)
    .values({ ...own, ...nextValues(dates, change) })
    .returning();
  if (!row) throw new Error('the new listing did not come back');
  await record(tx, row, change, { code: 'made' });
  await writeLinks(tx, row.id, 'working', row.working);
  await insertRows(tx, dates);
  return row;
}

/** A content to be saved, over which revision. */
export interface SaveInput {
  id: string;
  content: ListingContent;
  /** the revision that the form was opened with */
  revision: number;
}

/** Saves the working copy. A form older than the listing is refused with the newer copy, so that a person can choose. */
export async function saveListing(
  tx: Db,
  { id, content, revision }: SaveInput,
  change: Change,
  what: Happening = { code: 'saved' },
): Promise<Row> {
  const row = await lock(tx, id);
  authorize(change.by, 'save', row);
  if (row.revision !== revision) throw await conflict(tx, row);
  // A draft's address follows its title; a published one's only when somebody changes it.
  const follow = row.stage === 'draft' && row.title !== content.title;
  const slug = follow ? await freeListingSlug(tx, slugOf(content.title), id) : row.slug;
  const edited = row.stage === 'published' && !(await isPublishedCopy(tx, id, content));
  if (row.unlooked.length) await noteTouched(tx, id, row.working, content);
  return update(tx, row, { working: content, title: content.title, slug, edited }, change, what);
}

/** Is this what readers see already? Then nothing waits to be published: somebody took a change back. */
async function isPublishedCopy(tx: Db, id: string, content: ListingContent): Promise<boolean> {
  const [row] = await tx.select({ content: published.content }).from(published).where(eq(published.listingId, id));
  return row !== undefined && canonical(row.content) === canonical(content);
}

async function conflict(tx: Db, row: Row): Promise<Problem> {
  const [last] = await tx
    .select({ by: version.byName, at: version.at })
    .from(version)
    .where(and(eq(version.listingId, row.id), eq(version.revision, row.revision)));
  return new Problem('conflict', w.savedThisListingAfter({ by: last?.by ?? w.somebody() }), [], {
    newer: { revision: row.revision, content: row.working, stage: row.stage, by: last?.by ?? '', at: last?.at ?? null },
  });
}

async function update(tx: Db, row: Row, values: Partial<Row>, change: Change, what: Happening): Promise<Changed> {
  const after = { ...row, ...values };
  const dates = hasSameDates(row, after) ? undefined : datesOf(after, change);
  const at = new Date(change.now.ms);
  const firstPublishedAt = row.firstPublishedAt ?? (values.stage === 'published' ? at : null);
  const [next] = await tx
    .update(listing)
    .set({ ...values, ...(dates ? nextValues(dates, change) : {}), firstPublishedAt, revision: row.revision + 1, changedAt: at })
    .where(eq(listing.id, row.id))
    .returning();
  if (!next) throw notFound('listing');
  // Until readers have had it, nothing hangs on its dates.
  const named = dates && firstPublishedAt ? await nameRows(tx, next.id, dates) : { rows: dates, ended: [] };
  await record(tx, next, change, what, named.ended.length);
  await writeLinks(tx, next.id, 'working', next.working);
  if (named.rows) await replaceRows(tx, next.id, named.rows);
  return { ...next, ended: named.ended };
}

/**
 * The rows of the date index that follow from a listing as it will stand: from the published copy if there is one, else from the working
 * copy. Undefined while only the working copy changed: what readers see, and with it the index, stays.
 */
function datesOf(
  { id, working, stage, edited }: Pick<Row, 'id' | 'working' | 'stage' | 'edited'>,
  { settings, now }: Change,
): IndexRow[] | undefined {
  const isPublic = stage === 'published';
  if (isPublic && edited) return undefined;
  const horizon = horizonOf(now.day, settings.horizonMonths);
  return indexRows({ listingId: id, content: working, isPublic: isPublic && working.visibility === 'public', settings, horizon });
}

/** What the rows of the date index are made of. */
function indexed({ stage, working }: Pick<Row, 'stage' | 'working'>): string {
  const { recurrence, changes, attendance, venueIds, visibility } = working;
  return canonical([recurrence, changes, attendance, venueIds.length > 0, stage === 'published' && visibility === 'public']);
}

/** Would its rows in the index be the ones that are there? While changes wait, those are the published copy's. */
function hasSameDates(before: Row, after: Row): boolean {
  return !before.edited && !after.edited && indexed(before) === indexed(after);
}

/** What is next, for the listing's own row. */
function nextValues(dates: readonly IndexRow[], { now }: Change): Pick<Row, 'nextDay' | 'nextMinute' | 'nextLast'> {
  const { next_day, next_minute, next_last } = nextOf(dates, now.day);
  return { nextDay: next_day, nextMinute: next_minute, nextLast: next_last };
}

async function record(tx: Db, row: Row, { by, now }: Change, happened: Happening, ended = 0): Promise<void> {
  const what = toKeep(happened, ended);
  const at = new Date(now.ms);
  await tx
    .insert(version)
    .values({ id: newId(), listingId: row.id, revision: row.revision, content: row.working, what, byName: by.name, at });
  await tx.insert(audit).values({ id: newId(), at, byId: by.id, byName: by.name, what, kind: 'listing', subjectId: row.id });
}

const NO_WITHDRAWAL = { withdrawAt: null, scheduledBy: '' } as const;

/** A listing that is about to be changed as a whole: by somebody who may, as they saw it last. */
export async function lockForChange(tx: Db, id: string, revision: number, by: Actor, action: ListingAction): Promise<Locked> {
  const row = await lock(tx, id);
  authorize(by, action, row);
  if (row.revision !== revision) throw await conflict(tx, row);
  return row;
}

/** Throws what keeps a listing from going out: Proof's stops, and a copy that nobody looked at. */
export function checkPublishable(row: Locked, change: Change): void {
  refuseUnlooked(row.unlooked);
  refuseWhatStops(row.working, change);
}

/** Another stage or other times, with their version; readers' copies are not this function's matter. */
export function changeStage(tx: Db, row: Row, values: Partial<Row>, change: Change, what: Happening): Promise<Row> {
  return update(tx, row, values, change, what);
}

/** Publishes the working copy: readers see it from now on. Proof must not stop it. */
export async function publishListing(
  tx: Db,
  id: string,
  revision: number,
  change: Change,
  { keepWithdrawal = false } = {},
): Promise<Changed> {
  const row = await lockForChange(tx, id, revision, change.by, 'publish');
  checkPublishable(row, change);
  await writePublished(tx, row, row.working, change);
  // Out now: whatever was set for its going out is done. A time to come down stays, where it was to go out by itself or is out already.
  const times = { publishAt: null, scheduleWrong: '', ...(keepWithdrawal || row.stage === 'published' ? {} : NO_WITHDRAWAL) };
  const what: Happening = { code: row.stage === 'published' ? 'publishedChanges' : 'published' };
  const next = await update(tx, row, { stage: 'published', edited: false, ...times }, change, what);
  await settle(tx, row, 'published', change);
  return next;
}

/** Whatever happens to a listing happens to what was sent in with it, unless that is settled already. */
async function settle(tx: Db, row: Locked, fate: Fate, change: Change): Promise<void> {
  if (settles(row.sent, fate)) await settleSubmission(tx, row, { fate }, change);
}

function stoppingNotes(content: ListingContent, { now, settings }: Change): ValidationNote[] {
  return whatStopsOf(content, { today: now.day, horizon: horizonOf(now.day, settings.horizonMonths), style: styleOf(settings) });
}

/** The first thing that keeps a content from being published, in words; undefined when nothing does. */
export function whatStops(content: ListingContent, change: Change): string | undefined {
  const [first] = stoppingNotes(content, change);
  return first && sayNote(first.says);
}

/** A copy goes out when somebody looked at what copies are forgotten with. */
function refuseUnlooked(unlooked: Unlooked): void {
  if (!unlooked.length) return;
  const words = { title: 'title', when: 'dates' };
  const message = (part: 'title' | 'when'): string => w.thisIsACopy({ words: words[part] });
  throw new Problem(
    'invalid',
    message(unlooked[0] ?? 'title'),
    unlooked.map((field) => ({ field, message: message(field) })),
  );
}

function refuseWhatStops(content: ListingContent, change: Change): void {
  const stopping = stoppingNotes(content, change);
  const [first] = stopping;
  if (!first) return;
  throw new Problem(
    'invalid',
    sayNote(first.says),
    stopping.map((n) => ({ field: n.field, message: sayNote(n.says) })),
  );
}

/** Writes what readers see: its row, and what that points to. */
async function writePublished(tx: Db, row: Pick<Row, 'id' | 'slug'>, content: ListingContent, { now }: Change): Promise<void> {
  const [before] = await tx
    .select({ sequence: published.sequence, publishedAt: published.publishedAt })
    .from(published)
    .where(eq(published.listingId, row.id));
  const at = new Date(now.ms);
  const values = publishedValues(row, content, {
    sequence: (before?.sequence ?? -1) + 1,
    publishedAt: before?.publishedAt ?? at,
    at,
    fallback: content.categoryIds[0] ? '' : await fallbackCategory(tx),
  });
  await tx.insert(published).values(values).onConflictDoUpdate({ target: published.listingId, set: values });
  await writeLinks(tx, row.id, 'published', content);
}

/** One copy of a listing, which is locked; undefined when it has none such. */
export async function readCopy(tx: Db, listingId: string, copy: 'working' | 'published'): Promise<ListingContent | undefined> {
  const [row] = await tx.select({ content: listing.working }).from(listing).where(eq(listing.id, listingId)).for('update');
  if (copy === 'working' || !row) return row?.content;
  const [readers] = await tx.select({ content: published.content }).from(published).where(eq(published.listingId, listingId));
  return readers?.content;
}

/** What is written over one of a listing's copies, and why. */
export interface CopyWrite {
  listingId: string;
  copy: 'working' | 'published';
  content: ListingContent;
  /** for its version */
  what: Happening;
}

/**
 * Puts a content in the place of one copy's, whoever's listing it is: something that it names was merged, removed or brought back. Each
 * copy is written by itself, so that changes that wait for “Publish changes” go on waiting.
 */
export async function writeCopy(tx: Db, { listingId, copy, content, what }: CopyWrite, change: Change): Promise<void> {
  const row = await lock(tx, listingId);
  await tx.delete(validationState).where(eq(validationState.listingId, listingId));
  if (copy === 'working') {
    await update(tx, row, { working: content, title: content.title }, change, what);
    return;
  }
  await writePublished(tx, row, content, change);
  // With changes that wait, the index is not the working copy's.
  if (row.edited) {
    const dates = datesOf({ ...row, working: content, edited: false }, change) ?? [];
    await replaceRows(tx, listingId, (await nameRows(tx, listingId, dates)).rows);
    await tx.update(listing).set(nextValues(dates, change)).where(eq(listing.id, listingId));
  }
}

/** The category of what has none. Throws a Problem when no category is that. */
export async function fallbackCategory(tx: Db): Promise<string> {
  const [row] = await tx.select({ id: category.id }).from(category).where(eq(category.fallback, true));
  if (!row) throw invalid('categories', w.chooseACategoryOr());
  return row.id;
}

async function removePublished(tx: Db, id: string): Promise<void> {
  await tx.delete(published).where(eq(published.listingId, id));
  await tx.delete(link).where(and(eq(link.listingId, id), eq(link.copy, 'published')));
}

/** Takes a listing from readers: withdrawn keeps it in the table, binned puts it out of sight. */
export async function moveToStage(tx: Db, id: string, stage: 'draft' | 'in-review' | 'withdrawn' | 'binned', change: Change): Promise<Row> {
  const row = await lock(tx, id);
  authorize(change.by, actionOf(stage, row), row);
  if (row.stage === stage) return row;
  await removePublished(tx, id);
  const codes = { draft: 'draft', 'in-review': 'review', withdrawn: 'withdrawn', binned: 'binned' } as const;
  const times = { publishAt: null, withdrawAt: null, scheduledBy: '', scheduleWrong: '' };
  const next = await update(tx, row, { stage, edited: false, ...times }, change, { code: codes[stage] });
  const fate = fateOf(stage, row, change.by);
  if (fate) await settle(tx, row, fate, change);
  return next;
}

/** What a stage means for whoever sent the listing in; undefined where nothing is decided by it. */
function fateOf(stage: Stage, row: Row, by: Actor): Fate | undefined {
  if (stage === 'withdrawn' || stage === 'binned') return 'declined';
  if (stage === 'in-review') return 'waiting';
  // An editor may go on working on it as a draft; whoever does that with their own takes it out of review.
  return by.id !== null && by.id === row.ownerId ? 'taken-back' : undefined;
}

/** Changes a listing's web address; the old one redirects from now on. */
export async function changeSlug(tx: Db, id: string, wanted: string, change: Change): Promise<Row> {
  const row = await lock(tx, id);
  authorize(change.by, 'readdress', row);
  if (wanted.trim() === row.slug) return row;
  const slug = await wantedSlug(tx, wanted, id);
  await tx.delete(oldSlug).where(eq(oldSlug.slug, slug));
  await tx
    .insert(oldSlug)
    .values({ slug: row.slug, listingId: id })
    .onConflictDoUpdate({ target: oldSlug.slug, set: { listingId: id } });
  await tx.update(published).set({ slug }).where(eq(published.listingId, id));
  const next = await update(tx, row, { slug }, change, { code: 'moved', slug });
  return next;
}
