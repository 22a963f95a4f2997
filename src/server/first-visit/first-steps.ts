/** What comes first on a new site: a short list that ticks itself off, gone when it is done or put away. */
import { eq } from 'drizzle-orm';
import type { Db } from '../db/client';
import { invitation, listing, published, setting, user, venue } from '../db/schema';
import type { Runtime } from '../runtime-type';

/** Under which key it is kept; a site that has none was never new. */
export const FIRST_STEPS = 'first-steps';

/** What there is to do, in its order. */
export const STEPS = ['venue', 'listing', 'published', 'mail', 'address', 'backup', 'invite'] as const;
/** One of {@link STEPS}. */
export type Step = (typeof STEPS)[number];

/** Which of them are done. */
export type Steps = Record<Step, boolean>;

/** The list as it stands; undefined when the site never had one, or it was put away. */
export async function readFirstSteps(rt: Pick<Runtime, 'db' | 'sendsMail' | 'storedSettings' | 'backups'>): Promise<Steps | undefined> {
  const [row] = await rt.db.select({ value: setting.value }).from(setting).where(eq(setting.key, FIRST_STEPS));
  if (!row || (row.value as { hidden: boolean }).hidden) return undefined;
  const any = async (table: typeof venue | typeof listing | typeof invitation): Promise<boolean> =>
    (await rt.db.select({ id: table.id }).from(table).limit(1)).length > 0;
  const people = await rt.db.select({ id: user.id }).from(user).limit(2);
  return {
    venue: await any(venue),
    listing: await any(listing),
    published: (await rt.db.select({ id: published.listingId }).from(published).limit(1)).length > 0,
    mail: rt.sendsMail,
    address: rt.storedSettings().address !== '',
    // On a database server backups are its operator's, not the site's.
    backup: rt.backups.folder === undefined || (await rt.backups.list()).length > 0,
    invite: people.length > 1 || (await any(invitation)),
  };
}

/** How many are left. */
export const stepsLeft = (steps: Steps): number => STEPS.filter((step) => !steps[step]).length;

/** Puts the list away, or brings it back. */
export async function hideFirstSteps(tx: Db, hidden: boolean): Promise<void> {
  const value = { format: 1 as const, hidden };
  await tx.insert(setting).values({ key: FIRST_STEPS, value }).onConflictDoUpdate({ target: setting.key, set: { value } });
}
