/** The part behind the @ of calendar UIDs: chosen once and kept, so that events stay the same whatever address the site is reached under. */
import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/client';
import { listing, setting } from '../db/schema';

const KEY = 'uid-host';
/** What sites without an address of their own wrote before this part was kept. */
const BEFORE = 'almanac.example';

/** The host of an address, in small letters; undefined where there is none. */
const hostOf = (address: string): string | undefined => (URL.canParse(address) ? new URL(address).hostname : undefined);

/**
 * Reads the kept part, or chooses it: the host of the site's address where somebody has set one, what was in its calendars so far where there are
 * listings already, else letters by chance that are nobody's.
 */
export async function uidHost(db: Db, address: string): Promise<string> {
  const [kept] = await db.select().from(setting).where(eq(setting.key, KEY));
  const known = (kept?.value as { host?: string } | undefined)?.host;
  if (known) return known;
  const [any] = await db.select({ id: listing.id }).from(listing).limit(1);
  const host = hostOf(address) ?? (any ? BEFORE : `${randomBytes(6).toString('hex')}.invalid`);
  await db
    .insert(setting)
    .values({ key: KEY, value: { format: 1, host } })
    .onConflictDoNothing();
  const [now] = await db.select().from(setting).where(eq(setting.key, KEY));
  return (now?.value as { host?: string } | undefined)?.host ?? host;
}
