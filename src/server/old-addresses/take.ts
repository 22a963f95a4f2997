/** Takes a table of old and new addresses in: read, compared with what the site has, written in one transaction. */
import { readFile } from 'node:fs/promises';
import { inArray, notInArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { type AddressProblem, type AddressReport, type OldAddress, readOldAddresses } from '@/core/text/old-addresses';
import type { Db } from '../db/client';
import { oldAddress } from '../db/schema';
import type { Ask } from '../plain-files/ask';
import { Problem, read } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.oldAddresses;

/** The most lines of a table, and the most addresses that the site is asked for, each. */
const MOST_LINES = 50_000;
const MOST_ASKED = 2_000;
const MOST_BYTES = 20 * 1024 * 1024;
const AT_ONCE = 4;

const input = z.object({ path: z.string(), dryRun: z.boolean().default(false), replace: z.boolean().default(false) });

const REASONS: Readonly<Record<AddressProblem, () => string>> = {
  'no-pair': w.noPair,
  'not-an-address': w.notAnAddress,
  elsewhere: w.elsewhere,
  'leads-to-itself': w.leadsToItself,
  twice: w.twice,
  'in-a-circle': w.inACircle,
  'too-long': w.tooLong,
};

interface TakingSite {
  db: Db;
  siteUrl: () => string;
  host: () => string;
  /** asks the site itself, which answers without its old addresses */
  ask: Ask;
}

/** @throws Problem where the file cannot be read */
export async function takeOldAddresses(site: TakingSite, said: unknown): Promise<AddressReport> {
  const { path, dryRun, replace } = read(input, said);
  const bytes = await readFile(path).catch(() => undefined);
  if (!bytes) throw new Problem('invalid', w.cannotBeRead({ path }));
  if (bytes.length > MOST_BYTES) throw new Problem('invalid', w.tooLarge());
  const own = [new URL(site.siteUrl()).host, site.host()];
  const { addresses, wrong } = readOldAddresses(bytes.toString('utf8'), own);
  if (addresses.length > MOST_LINES) throw new Problem('invalid', w.tooMany({ n: addresses.length, most: MOST_LINES }));
  const { answered, lost, unasked } = await compared(addresses, site.ask);
  const counts = await site.db.transaction((tx) => write(tx, addresses, { dryRun, replace: replace && addresses.length > 0 }));
  return { ...counts, answered, lost, unasked, wrong: wrong.map(({ problem, ...line }) => ({ ...line, reason: REASONS[problem]() })) };
}

/** Which old addresses the site has a page at itself, and which new ones it has none at. */
async function compared(addresses: readonly OldAddress[], ask: Ask): Promise<Pick<AddressReport, 'answered' | 'lost' | 'unasked'>> {
  const asked = [...new Set(addresses.flatMap(({ from, to }) => [from, to.replace(/#.*$/, '')]))];
  const some = asked.slice(0, MOST_ASKED);
  const status = new Map<string, number>();
  const next = some.values();
  const work = async (): Promise<void> => {
    for (const address of next) status.set(address, (await ask(address, {})).status);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  const of = (address: string): number => status.get(address) ?? 0;
  return {
    answered: addresses.filter(({ from }) => of(from) > 0 && of(from) < 400).map(({ line, from }) => ({ line, from })),
    lost: addresses.filter(({ to }) => of(to.replace(/#.*$/, '')) >= 400).map(({ line, to }) => ({ line, to })),
    unasked: asked.length - some.length,
  };
}

async function write(
  tx: Db,
  addresses: readonly OldAddress[],
  { dryRun, replace }: { dryRun: boolean; replace: boolean },
): Promise<Pick<AddressReport, 'fresh' | 'changed' | 'same' | 'removed'>> {
  const counts = { fresh: 0, changed: 0, same: 0, removed: 0 };
  const PIECE = 1000;
  for (let at = 0; at < addresses.length; at += PIECE) {
    const some = addresses.slice(at, at + PIECE);
    const known = await tx
      .select({ from: oldAddress.from, to: oldAddress.to })
      .from(oldAddress)
      .where(
        inArray(
          oldAddress.from,
          some.map(({ from }) => from),
        ),
      );
    const before = new Map(known.map(({ from, to }) => [from, to]));
    for (const { from, to } of some) counts[before.get(from) === to ? 'same' : before.has(from) ? 'changed' : 'fresh']++;
    if (dryRun) continue;
    await tx
      .insert(oldAddress)
      .values(some.map(({ from, to }) => ({ from, to })))
      .onConflictDoUpdate({ target: oldAddress.from, set: { to: sql`excluded."to"` } });
  }
  if (replace) {
    const others = notInArray(
      oldAddress.from,
      addresses.map(({ from }) => from),
    );
    counts.removed = await tx.$count(oldAddress, others);
    if (!dryRun) await tx.delete(oldAddress).where(others);
  }
  return counts;
}
