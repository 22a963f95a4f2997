/** Proof's findings written down, waived, and kept true by a job that looks at what changed. */
import { and, asc, eq, inArray, ne, sql } from 'drizzle-orm';
import { keyOf, type ProofNote, type Waiver, waive } from '@/core/validation/note';
import { proofOf } from '@/core/validation/validate';
import type { Actor } from '../accounts/roles';
import { SITE_ACTOR } from '../accounts/roles';
import type { Db } from '../db/client';
import { job, listing, proofNote, proofState, proofWaiver } from '../db/schema';
import { invalid } from '../http/problem';
import { startJob, type Work } from '../jobs/runner';
import type { Now } from '../site/clock';
import { fullContext, type ProofSite } from './context';
import { titlesOf } from './titles';

export async function readWaivers(db: Db, listingId: string): Promise<Waiver[]> {
  const rows = await db.select().from(proofWaiver).where(eq(proofWaiver.listingId, listingId)).orderBy(asc(proofWaiver.key));
  return rows.map(({ key, reason, byName, at }) => ({ key, reason, by: byName, at: at.toISOString() }));
}

/** Answers for a note with a reason. The note is said no more, and the reason is shown to the next editor. */
export async function waiveNote(tx: Db, listingId: string, key: string, reason: string, by: Actor, at: Date): Promise<void> {
  const words = reason.trim();
  if (!words) throw invalid('reason', 'Say in a few words why it is right as it is.');
  await tx
    .insert(proofWaiver)
    .values({ listingId, key, reason: words, byName: by.name, at })
    .onConflictDoUpdate({ target: [proofWaiver.listingId, proofWaiver.key], set: { reason: words, byName: by.name, at } });
  await tx.delete(proofNote).where(and(eq(proofNote.listingId, listingId), eq(proofNote.key, key), eq(proofNote.severity, 'look')));
}

/** Says a waived note again. */
export async function unwaiveNote(tx: Db, listingId: string, key: string): Promise<void> {
  await tx.delete(proofWaiver).where(and(eq(proofWaiver.listingId, listingId), eq(proofWaiver.key, key)));
  await tx.delete(proofState).where(eq(proofState.listingId, listingId));
}

/** Looks at one listing's working copy and writes down what is open. */
export async function proofListing(tx: Db, site: ProofSite, id: string): Promise<ProofNote[]> {
  const [row] = await tx.select({ working: listing.working, revision: listing.revision }).from(listing).where(eq(listing.id, id));
  if (!row) return [];
  const notes = proofOf(row.working, await fullContext({ ...site, db: tx }, id, row.working));
  const open = waive(notes, await readWaivers(tx, id)).open.filter((note) => note.severity !== 'good');
  await tx.delete(proofNote).where(eq(proofNote.listingId, id));
  const rows = [...new Map(open.map((note) => [keyOf(note), note])).entries()].map(([key, { kind, severity, field, sentence, mend }]) => ({
    listingId: id,
    key,
    kind,
    severity,
    field,
    sentence,
    mend: mend ? { format: 1 as const, ...mend } : null,
  }));
  if (rows.length) await tx.insert(proofNote).values(rows);
  const state = { revision: row.revision, day: site.now.day };
  await tx
    .insert(proofState)
    .values({ listingId: id, ...state })
    .onConflictDoUpdate({ target: proofState.listingId, set: state });
  return notes;
}

/** Listings that changed since they were looked at, or were looked at on another day. */
const due = (day: number) => sql`from listing l left join proof_state s on s.listing_id = l.id
  where l.stage not in ('binned', 'withdrawn') and (s.listing_id is null or s.revision <> l.revision or s.day <> ${day})
  and (l.job_id is null or not exists (select 1 from job j where j.id = l.job_id and j.hidden))`;

export async function countDue(db: Db, now: Now): Promise<number> {
  const result = (await db.execute(sql`select count(*)::int as n ${due(now.day)}`)) as unknown as { rows: { n: number }[] };
  return result.rows[0]?.n ?? 0;
}

/** Begins to look at what is due, unless that is under way. */
export async function startProof(tx: Db, now: Now): Promise<string | undefined> {
  const [going] = await tx
    .select({ id: job.id })
    .from(job)
    .where(and(eq(job.kind, 'proof'), eq(job.state, 'running')))
    .limit(1);
  if (going) return going.id;
  const total = await countDue(tx, now);
  return total ? startJob(tx, { kind: 'proof', total, input: {}, by: SITE_ACTOR, now }) : undefined;
}

/** It is nobody's hurry: three quarters of the time belong to everybody else. */
const REST = 3;
/** One at a time: each asks several questions, and others wait for their turn at the database. */
const AT_ONCE = 1;

export const proofing: Work = {
  step: async (tx, row, size, { settings, now, reference, contentRevision }) => {
    // What somebody waits for goes first; what is left due is taken up a minute later.
    const [other] = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(ne(job.id, row.id), inArray(job.state, ['running', 'cancelling'])))
      .limit(1);
    if (other) return { did: 0, finished: true };

    const result = (await tx.execute(
      sql`select l.id ${due(now.day)} order by l.changed_at desc, l.id limit ${Math.min(size, AT_ONCE)}`,
    )) as unknown as {
      rows: { id: string }[];
    };
    const titles = await titlesOf(tx, contentRevision);
    for (const { id } of result.rows) await proofListing(tx, { db: tx, settings, now, reference, titles, revision: contentRevision }, id);
    const finished = result.rows.length === 0;
    return { did: result.rows.length, finished, rest: REST };
  },
};
