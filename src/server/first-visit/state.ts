/** Whether a site is set up, and what somebody answered so far who is setting it up. */
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { STARTING_SETS } from '@/core/category/starting-sets';
import { DATE_STYLES, HOUR_STYLES } from '@/core/phrase/format';
import type { Db } from '../db/client';
import { listing, setting, user } from '../db/schema';
import { SENDERS } from '../site/settings';

/** Has anybody begun with this site? One with an account, a listing or settings is set up. */
export async function isSetUp(db: Db): Promise<boolean> {
  const [settings] = await db.select({ key: setting.key }).from(setting).where(eq(setting.key, 'site'));
  if (settings) return true;
  const [account] = await db.select({ id: user.id }).from(user).limit(1);
  const [written] = account ? [] : await db.select({ id: listing.id }).from(listing).limit(1);
  return account !== undefined || written !== undefined;
}

/** What a form's field holds at most. */
const text = (most: number) => z.string().trim().max(most).catch('');
/** The five answers as a form has them: text by field, empty = not answered, or what follows from the town. */
export const answersShape = z.object({
  name: text(80),
  town: text(120),
  /** which of the towns found, by its position `lat,lng`; `pin` = the point on the chart */
  place: z
    .string()
    .regex(/^(pin|-?[\d.]{1,9},-?[\d.]{1,9})?$/)
    .catch(''),
  /** degrees as they were typed; what is none of the earth is said when it is needed */
  lat: text(12),
  lng: text(12),
  zone: text(60),
  country: text(2),
  firstWeekday: z
    .string()
    .regex(/^[0-6]?$/)
    .catch(''),
  hours: z.enum(['', ...HOUR_STYLES]).catch(''),
  date: z.enum(['', ...DATE_STYLES]).catch(''),
  currency: text(3),
  /** whose holidays: empty = those that follow from the place */
  holidays: z.enum(['', 'none']).catch(''),
  whoName: text(80),
  mail: text(200),
  kinds: z.enum(STARTING_SETS).catch('place'),
  senders: z.enum(SENDERS).catch('everybody'),
  passphrase: text(80),
});
/** The five answers, without the password. */
export type Answers = z.infer<typeof answersShape>;

/** What nobody answered yet. */
export const NO_ANSWERS: Answers = answersShape.parse({});

const KEY = 'first-visit';

/** What was answered so far. */
export async function readAnswers(db: Db): Promise<Answers> {
  const [row] = await db.select({ value: setting.value }).from(setting).where(eq(setting.key, KEY));
  const kept = row?.value as { answers: unknown } | undefined;
  return answersShape.parse(kept?.answers ?? {});
}

/** Keeps what was answered so far: whoever leaves, or whose server is restarted, goes on. */
export async function keepAnswers(tx: Db, answers: Answers): Promise<void> {
  const value = { format: 1 as const, answers };
  await tx
    .insert(setting)
    .values({ key: KEY, value })
    .onConflictDoUpdate({ target: setting.key, set: { value, revision: sql`${setting.revision} + 1` } });
}

/** They are the site's settings now. */
export async function forgetAnswers(tx: Db): Promise<void> {
  await tx.delete(setting).where(eq(setting.key, KEY));
}
