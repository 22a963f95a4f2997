/** What the command line brings in and gives out: the same plan, write and feed as the Desk's pages, asked for by the operator. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { asc } from 'drizzle-orm';
import type { ImportReport } from '@/core/exchange/report';
import { z } from 'zod';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { category, listing, organizer, venue } from '../db/schema';
import { Problem, read } from '../http/problem';
import { feedText } from '../public/feed';
import { horizonOf } from '../listings/date-index';
import { lookup } from '../public/lookup';
import type { Runtime } from '../runtime';
import { styleOf } from '../site/settings';
import { bringIn, keepFile, readBatch, readBatchFile } from './bring-in';
import { readMatches } from './match';
import { planImport } from './plan';

const importInput = z.object({ path: z.string().max(4096), dryRun: z.boolean(), publish: z.boolean() });
const OPERATOR: Actor = { id: null, name: 'The operator', role: 'site' };

/** Brings a local file in, or only says what that would do: then nothing at all is kept of it. */
export async function importFile(rt: Runtime, raw: unknown): Promise<ImportReport> {
  const input = read(importInput, raw);
  const bytes = await readFile(input.path).catch(() => {
    throw new Problem(422, `The file ${input.path} cannot be read.`);
  });
  const settings = rt.settings();
  const now = rt.now();
  const found = await lookup(rt);
  const host = URL.canParse(rt.address()) ? new URL(rt.address()).hostname : 'almanac.example';
  let report: ImportReport | undefined;
  const run = async (tx: Db): Promise<void> => {
    const id = await keepFile(tx, path.basename(input.path), bytes, settings, OPERATOR, now.ms);
    const batch = await readBatch(tx, id);
    const file = readBatchFile(batch, settings);
    const { items } = await planImport(tx, {
      file,
      found,
      decided: await readMatches(tx),
      style: styleOf(settings),
      host,
      horizon: horizonOf(now.day, settings.horizonMonths),
    });
    const nothing = { made: 0, changed: 0, kept: [] };
    const writes = items.some(({ action }) => action === 'new' || action === 'changed');
    const written = input.dryRun || !writes ? nothing : await bringIn(tx, batch, items, input.publish, { by: OPERATOR, now, settings });
    report = {
      ...written,
      items: items.map(({ action, title, when, line, notes, differences }) => ({ action, title, when, line, notes, differences })),
      unreadable: file.unreadable,
      unknownZones: file.unknownZones,
    };
    if (input.dryRun) throw new OnlyLooked();
  };
  await rt.db
    .transaction((tx) => run(tx as unknown as Db))
    .catch((error: unknown) => {
      if (!(error instanceof OnlyLooked)) throw error;
    });
  if (!report) throw new Problem(500, 'Nothing was planned.');
  await rt.contentChanged();
  return report;
}

/** Ends the transaction of a dry run, so that nothing of it stays. */
class OnlyLooked extends Error {}

/** Everything that is published, as one calendar. */
export async function exportIcal(rt: Runtime): Promise<{ text: string }> {
  const everything = { kinds: [], places: [], free: false, words: '' };
  return { text: await feedText(rt, everything, `${rt.address()}/list`) };
}

/** Everything that a site's listings hold, drafts too, with what they point to; documented in docs/formats.md. */
export async function exportJson(rt: Runtime): Promise<unknown> {
  const { name, zone } = rt.settings();
  const listings = await rt.db.select().from(listing).orderBy(asc(listing.address));
  return {
    format: 1,
    kind: 'plain-almanac-listings',
    name,
    zone,
    categories: await rt.db.select().from(category).orderBy(asc(category.position), asc(category.id)),
    venues: await rt.db.select().from(venue).orderBy(asc(venue.name), asc(venue.id)),
    organizers: await rt.db.select().from(organizer).orderBy(asc(organizer.name), asc(organizer.id)),
    listings: listings.map(({ id, address, stage, working, createdAt, changedAt }) => ({
      id,
      address,
      stage,
      content: working,
      createdAt,
      changedAt,
    })),
  };
}
