/** Going out and coming down by itself: set by an editor, done by the site when the time has come, checked by Proof both times. */
import type { Happening } from '../history/happening';
import { and, asc, lte, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isoDateTime } from '@/core/day/plain-date-time';
import { instantToDateTime } from '@/core/day/zone';
import { readTimes, type Times } from '@/core/listing/publication-times';
import type { Actor } from '../accounts/roles';
import { audited } from '../accounts/audit';
import type { Db } from '../db/client';
import { listing } from '../db/schema';
import { Problem } from '../problem';
import { explain } from '../explain';
import { shown } from '../jobs/hidden';
import type { SiteSettings } from '../site/settings';
import { type Change, changeStage, checkPublishable, lockForChange, moveToStage, publishListing, type Row } from './write';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsPublicationTimes;

const wall = z.string().max(20).nullable();
/** What may come in as the times of going out and coming down. */
export const timesInput = z.object({ revision: z.number().int().min(1), publishAt: wall, withdrawAt: wall });

/** A listing's times as its form shows them, by the site's clock. */
export function timesOf(row: Pick<Row, 'publishAt' | 'withdrawAt'>, { zone }: SiteSettings): Times {
  const say = (at: Date | null): string | null => (at ? isoDateTime(instantToDateTime(zone, at.getTime())) : null);
  return { publishAt: say(row.publishAt), withdrawAt: say(row.withdrawAt) };
}

/** Sets when a listing goes out and comes down. What is not out yet is "scheduled" until then. */
export async function setTimes(tx: Db, id: string, { revision, ...times }: z.infer<typeof timesInput>, change: Change): Promise<Row> {
  const { by, now, settings } = change;
  const row = await lockForChange(tx, id, revision, by, 'schedule');
  if (row.stage === 'binned') throw new Problem('conflict', w.itIsInThe());
  const isPublic = row.stage === 'published';
  const read = readTimes(times, { now, zone: settings.zone, isPublic });
  if ('problems' in read) {
    const [first] = read.problems;
    throw new Problem('invalid', first?.message ?? w.theseTimesCannotBe(), read.problems);
  }
  const { publishAt, withdrawAt } = read.instants;
  if (publishAt !== null) {
    if (isPublic && !row.edited) throw new Problem('conflict', w.readersSeeAllOf());
    if (row.stage === 'in-review') throw new Problem('conflict', w.itWaitsInIntake());
    checkPublishable(row, change);
  }
  const stage = isPublic ? 'published' : publishAt !== null ? 'scheduled' : row.stage === 'scheduled' ? 'draft' : row.stage;
  const values = {
    publishAt: publishAt === null ? null : new Date(publishAt),
    withdrawAt: withdrawAt === null ? null : new Date(withdrawAt),
    scheduledBy: publishAt === null && withdrawAt === null ? '' : by.name,
    scheduleWrong: '',
  };
  return changeStage(tx, row, { stage, ...values }, change, timesSet(values));
}

function timesSet({ publishAt, withdrawAt }: Pick<Row, 'publishAt' | 'withdrawAt'>): Happening {
  const [out, down] = [publishAt?.toISOString(), withdrawAt?.toISOString()];
  if (out && down) return { code: 'outAndDown', out, down };
  if (out) return { code: 'goesOut', out };
  return down ? { code: 'comesDown', down } : { code: 'noTimes' };
}

/** How many listings went out, came down, or were held. */
export interface Due {
  published: number;
  withdrawn: number;
  /** could not go out: they say why */
  held: number;
}

/** So many at once: the site answers others between two turns. */
const AT_ONCE = 20;

/** Publishes and withdraws what is due. Several processes may ask at once: each listing is one's. */
export async function keepTimes(tx: Db, change: Omit<Change, 'by'>): Promise<Due> {
  const at = new Date(change.now.ms);
  const rows = await tx
    .select()
    .from(listing)
    .where(and(or(lte(listing.publishAt, at), lte(listing.withdrawAt, at)), shown(listing.jobId)))
    .orderBy(asc(sql`least(${listing.publishAt}, ${listing.withdrawAt})`), asc(listing.id))
    .limit(AT_ONCE)
    .for('update', { skipLocked: true });
  const due: Due = { published: 0, withdrawn: 0, held: 0 };
  for (const row of rows) {
    const by: Actor = { id: null, name: row.scheduledBy || w.theSite(), role: 'site' };
    const mine = { ...change, by };
    if (row.withdrawAt && row.withdrawAt <= at) {
      // The site was down over both times: what should be down again by now never goes out.
      await moveToStage(tx, row.id, 'withdrawn', mine);
      due.withdrawn++;
      continue;
    }
    try {
      await tx.transaction(async (save) => publishListing(save, row.id, row.revision, mine, { keepWithdrawal: true }));
      due.published++;
    } catch (error) {
      // What is our own failure is noted and tried again; only what an editor can mend is held.
      const problem = explain(error);
      if (!(error instanceof Problem)) continue;
      await hold(tx, row, problem.title, mine);
      due.held++;
    }
  }
  return due;
}

/** What stopped it is said where its editors look; it stays as it was, without a time. */
async function hold(tx: Db, row: Row, why: string, change: Change): Promise<void> {
  const stage = row.stage === 'scheduled' ? 'draft' : row.stage;
  await changeStage(
    tx,
    row,
    { stage, publishAt: null, withdrawAt: stage === 'published' ? row.withdrawAt : null, scheduleWrong: why },
    change,
    { code: 'held' },
  );
  await audited(tx, change.by, { kind: 'listing', id: row.id, what: { code: 'held' } });
}
