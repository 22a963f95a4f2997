/** Proof's findings written down, waived, and kept true by a job that looks at what changed. */
import { and, asc, eq, inArray, ne, sql } from 'drizzle-orm';
import { keyOf, type ValidationNote, type Waiver, waive } from '@/core/validation/note';
import { validate } from '@/core/validation/validate';
import { type Actor, SITE_ACTOR } from '../accounts/roles';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { job, listing, validationNote, validationState, validationWaiver } from '../db/schema';
import { invalid } from '../problem';
import { startJob, type Work } from '../jobs/runner';
import type { Now } from '../site/clock';
import { fullContext, type ValidationSite } from './context';
import { titlesOf } from './titles';
import { serverWords } from '@/words/desk';

const w = serverWords.validationWrite;

/** What somebody answered for of a listing, with their reasons. */
export async function readWaivers(db: Db, listingId: string): Promise<Waiver[]> {
  const rows = await db.select().from(validationWaiver).where(eq(validationWaiver.listingId, listingId)).orderBy(asc(validationWaiver.key));
  return rows.map(({ key, reason, byName, at }) => ({ key, reason, by: byName, at: at.toISOString() }));
}

/** Answers for a note with a reason. The note is said no more, and the reason is shown to the next editor. */
export async function waiveNote(tx: Db, listingId: string, key: string, reason: string, by: Actor, at: Date): Promise<void> {
  const words = reason.trim();
  if (!words) throw invalid('reason', w.sayInAFew());
  await tx
    .insert(validationWaiver)
    .values({ listingId, key, reason: words, byName: by.name, at })
    .onConflictDoUpdate({ target: [validationWaiver.listingId, validationWaiver.key], set: { reason: words, byName: by.name, at } });
  await tx
    .delete(validationNote)
    .where(and(eq(validationNote.listingId, listingId), eq(validationNote.key, key), eq(validationNote.severity, 'warning')));
}

/** Says a waived note again. */
export async function unwaiveNote(tx: Db, listingId: string, key: string): Promise<void> {
  await tx.delete(validationWaiver).where(and(eq(validationWaiver.listingId, listingId), eq(validationWaiver.key, key)));
  await tx.delete(validationState).where(eq(validationState.listingId, listingId));
}

/** Looks at one listing's working copy and writes down what is open. */
export async function validateListing(tx: Db, site: ValidationSite, id: string): Promise<ValidationNote[]> {
  const [row] = await tx.select({ working: listing.working, revision: listing.revision }).from(listing).where(eq(listing.id, id));
  if (!row) return [];
  const notes = validate(row.working, await fullContext({ ...site, db: tx }, id, row.working));
  const open = waive(notes, await readWaivers(tx, id)).open.filter((note) => note.severity !== 'good');
  await tx.delete(validationNote).where(eq(validationNote.listingId, id));
  const rows = [...new Map(open.map((note) => [keyOf(note), note])).entries()].map(([key, { kind, severity, field, says, quickFix }]) => ({
    listingId: id,
    key,
    kind,
    severity,
    field,
    says: { format: 1 as const, ...says },
    quickFix: quickFix ? { format: 2 as const, ...quickFix } : null,
  }));
  if (rows.length) await tx.insert(validationNote).values(rows);
  const state = { revision: row.revision, day: site.now.day };
  await tx
    .insert(validationState)
    .values({ listingId: id, ...state })
    .onConflictDoUpdate({ target: validationState.listingId, set: state });
  return notes;
}

/** Listings that changed since they were looked at, or were looked at on another day. */
const due = (day: number) => sql`from listing l left join validation_state s on s.listing_id = l.id
  where l.stage not in ('binned', 'withdrawn') and (s.listing_id is null or s.revision <> l.revision or s.day <> ${day})
  and (l.job_id is null or not exists (select 1 from job j where j.id = l.job_id and j.hidden))`;

/** How many listings were not looked at since they changed, or since the day did. */
export async function countDue(db: Db, now: Now): Promise<number> {
  const rows = await queryRows<{ n: number }>(db, sql`select count(*)::int as n ${due(now.day)}`);
  return rows[0]?.n ?? 0;
}

/** Begins to look at what is due, unless that is under way. */
export async function startValidation(tx: Db, now: Now): Promise<string | undefined> {
  const [going] = await tx
    .select({ id: job.id })
    .from(job)
    .where(and(eq(job.kind, 'validation'), eq(job.state, 'running')))
    .limit(1);
  if (going) return going.id;
  const total = await countDue(tx, now);
  return total ? startJob(tx, { kind: 'validation', total, input: {}, by: SITE_ACTOR, now }) : undefined;
}

/** It is nobody's hurry: three quarters of the time belong to everybody else. */
const REST = 3;
/** One at a time: each asks several questions, and others wait for their turn at the database. */
const AT_ONCE = 1;

/** The work of looking at listings that changed, and at everything once a day. */
export const validating: Work = {
  step: async (tx, row, size, { settings, now, reference, cache, yearMarks }) => {
    // What somebody waits for goes first; what is left due is taken up a minute later.
    const [other] = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(ne(job.id, row.id), inArray(job.state, ['running', 'cancelling'])))
      .limit(1);
    if (other) return { did: 0, finished: true };

    const rows = await queryRows<{ id: string }>(
      tx,
      sql`select l.id ${due(now.day)} order by l.changed_at desc, l.id limit ${Math.min(size, AT_ONCE)}`,
    );
    const answers = cache.now().inTransaction();
    const titles = await titlesOf(tx, cache);
    for (const { id } of rows) await validateListing(tx, { db: tx, settings, now, reference, titles, yearMarks, answers }, id);
    const finished = rows.length === 0;
    return { did: rows.length, finished, rest: REST };
  },
};
