/** What readers say is wrong with a published event: taken in with bounds, read by editors, settled and opened again. */
import { asc, desc, eq, gt, isNull, sql } from 'drizzle-orm';
import { isMail } from '@/core/validation/links';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { listing, remark } from '../db/schema';
import { type FieldError, fieldError, invalidFields, notFound } from '../problem';
import type { Runtime } from '../runtime-type';
import { countOne } from '../site/rate-limits';
import { type Fields, TRAP, typed } from './form';

/** Longest values, by field; also the form's maxlength. */
export const LONGEST_REMARK = { message: 2000, name: 120, mail: 200 } as const;
/** So many are taken from one address in so many seconds. */
const BOUND = { most: 10, seconds: 3600 } as const;

/** A remark's row. */
export type RemarkRow = typeof remark.$inferSelect;
/** A remark with what it is about. */
export interface Remark {
  remark: RemarkRow;
  title: string;
  slug: string;
}

/** Reads the form. Throws one Problem with every field that needs mending. */
export function readRemark(fields: Fields): Pick<RemarkRow, 'message' | 'senderName' | 'senderMail'> {
  const errors: FieldError[] = [];
  const value = { message: typed(fields.message), name: typed(fields.name), mail: typed(fields.mail) };
  for (const name of ['message', 'name', 'mail'] as const) {
    const most = LONGEST_REMARK[name];
    const has = value[name].length;
    if (has > most)
      errors.push(fieldError(name, ({ wrong: w }) => w.tooLong({ most: most.toLocaleString('en'), has: has.toLocaleString('en') })));
  }
  if (typed(fields[TRAP])) errors.push(fieldError(TRAP, ({ wrong: w }) => w.trap()));
  if (!value.message) errors.push(fieldError('message', ({ wrong: w }) => w.remark()));
  if (value.mail && !isMail(value.mail)) errors.push(fieldError('mail', ({ wrong: w }) => w.mail()));
  if (errors.length) throw invalidFields(errors);
  return { message: value.message, senderName: value.name, senderMail: value.mail };
}

/** Takes a remark in. @param from the address of the connection @param about the listing, and a date of it or nothing */
export async function receiveRemark(rt: Runtime, fields: Fields, from: string, about: { listingId: string; date: string }): Promise<void> {
  const said = readRemark(fields);
  await countOne(rt.db, { key: `remark:${from}`, ...BOUND }, Date.now());
  await rt.db.insert(remark).values({ id: newId(), ...about, ...said, sentAt: new Date(rt.now().ms) });
}

/** How many nobody has seen to. */
export async function countRemarks(db: Db): Promise<number> {
  const [row] = await db.select({ n: sql<number>`count(*)::int` }).from(remark).where(isNull(remark.settledAt));
  return row?.n ?? 0;
}

const SHOWN = 200;
const SETTLED_DAYS = 30;

/** Those that nobody has seen to, the oldest first, and those of the last weeks that somebody has. */
export async function readRemarks(db: Db, now: Date): Promise<{ open: Remark[]; settled: Remark[] }> {
  const from = () =>
    db.select({ remark, title: listing.title, slug: listing.slug }).from(remark).innerJoin(listing, eq(listing.id, remark.listingId));
  const since = new Date(now.getTime() - SETTLED_DAYS * 86_400_000);
  const [open, settled] = await Promise.all([
    from().where(isNull(remark.settledAt)).orderBy(asc(remark.sentAt), asc(remark.id)).limit(SHOWN),
    from().where(gt(remark.settledAt, since)).orderBy(desc(remark.settledAt), asc(remark.id)).limit(SHOWN),
  ]);
  return { open, settled };
}

/** Notes that an editor has seen to one, or opens it again. Throws a Problem where there is none. */
export async function settleRemark(tx: Db, id: string, settled: boolean, by: Actor, at: Date): Promise<void> {
  const rows = await tx
    .update(remark)
    .set(settled ? { settledAt: at, settledBy: by.name } : { settledAt: null, settledBy: null })
    .where(eq(remark.id, id))
    .returning({ id: remark.id });
  if (!rows.length) throw notFound('remark');
}
