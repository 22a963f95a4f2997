/** A calendar file brought in: kept to be looked at, written as one, and taken back as one. */
import { and, desc, eq, lt, sql } from 'drizzle-orm';
import { decode } from '@/core/exchange/decode';
import { FileError, type ReadFile, readIcal } from '@/core/exchange/read-ical';
import { isZone } from '@/core/day/zone';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit, importBatch, importItem, importSource, listing } from '../db/schema';
import { contentInput } from '../listings/input';
import { type Change, createListing, publishListing, saveListing } from '../listings/write';
import { notFound, Problem, read } from '../http/problem';
import { saveOrganizer } from '../organizers/write';
import type { SiteSettings } from '../site/settings';
import { saveVenue } from '../venues/write';
import { saveMatches } from './match';
import type { Open, Planned } from './plan';

export const MOST_BYTES = 8 * 1024 * 1024;
/** So many at once in one transaction, during which nobody else can write. */
export const MOST_AT_ONCE = 1_000;
/** Files that were only looked at are kept so long, in days. */
const KEPT_DAYS = 2;

export type Batch = typeof importBatch.$inferSelect;

/** Keeps a file to be looked at. Refuses what is no calendar file, with the reason. */
export async function keepFile(tx: Db, name: string, bytes: Uint8Array, settings: SiteSettings, by: Actor, atMs: number): Promise<string> {
  if (!bytes.length)
    throw new Problem(422, 'Choose a file, or paste its text.', [{ field: 'file', message: 'Choose a file, or paste its text.' }]);
  if (bytes.length > MOST_BYTES)
    throw new Problem(413, 'The file is larger than 8 MB; bring it in by parts.', [{ field: 'file', message: 'At most 8 MB' }]);
  const { text, encoding } = decode(bytes);
  readBatchFile({ file: text, options: { format: 1, zones: {} } }, settings);
  const id = newId();
  const at = new Date(atMs);
  await tx
    .delete(importBatch)
    .where(and(eq(importBatch.state, 'previewed'), lt(importBatch.at, new Date(atMs - KEPT_DAYS * 24 * 3_600_000))));
  await tx.insert(importBatch).values({
    id,
    name: name.replace(/[^\p{L}\p{N} ._-]/gu, '').slice(0, 120) || 'Pasted text',
    state: 'previewed',
    // The database cannot keep the sign of no character.
    file: text.replaceAll('\u0000', ''),
    encoding,
    options: { format: 1, zones: {} },
    byName: by.name,
    at,
  });
  return id;
}

export async function readBatch(db: Db, id: string): Promise<Batch> {
  const [row] = await db.select().from(importBatch).where(eq(importBatch.id, id));
  if (!row) throw notFound('file');
  return row;
}

export async function readBatches(db: Db): Promise<Omit<Batch, 'file'>[]> {
  const rows = await db.select().from(importBatch).where(sql`${importBatch.state} <> 'previewed'`).orderBy(desc(importBatch.at)).limit(30);
  return rows.map(({ file: _file, ...row }) => row);
}

/** The events of a kept file. A file that is none becomes a Problem. */
export function readBatchFile({ file, options }: Pick<Batch, 'file' | 'options'>, settings: SiteSettings): ReadFile {
  try {
    return readIcal(file, {
      siteZone: settings.zone,
      chosen: new Map(Object.entries(options.zones).filter(([, zone]) => isZone(zone))),
      candidates: Intl.supportedValuesOf('timeZone'),
    });
  } catch (error) {
    if (error instanceof FileError) throw new Problem(422, error.message, [{ field: 'file', message: error.message }]);
    throw error;
  }
}

/** What somebody decides about words of the file: `new` makes it here, empty leaves it aside, else an id. */
export interface Decision extends Pick<Open, 'kind' | 'said' | 'mail'> {
  target: string;
}

/** Keeps decisions for this and all later files; what is to be made is made. */
export async function decide(tx: Db, batch: Batch, decisions: Decision[], zones: Record<string, string>, by: Actor): Promise<void> {
  const kept = [];
  for (const { kind, said, mail, target } of decisions)
    kept.push({ kind, said, target: target === 'new' ? await make(tx, kind, said, mail, by) : target || null });
  await saveMatches(tx, kept);
  const known = Object.fromEntries(Object.entries(zones).filter(([, zone]) => zone && isZone(zone)));
  await tx
    .update(importBatch)
    .set({ options: { format: 1, zones: { ...batch.options.zones, ...known } } })
    .where(eq(importBatch.id, batch.id));
}

async function make(tx: Db, kind: Decision['kind'], said: string, mail: string, by: Actor): Promise<string | null> {
  const blank = { phone: '', website: '' };
  if (kind === 'venue')
    return (
      await saveVenue(
        tx,
        null,
        { ...blank, name: said.slice(0, 120), street: '', town: '', island: '', lat: null, lng: null, access: '', mail: '' },
        by,
      )
    ).id;
  if (kind === 'organizer') return (await saveOrganizer(tx, null, { ...blank, name: said.slice(0, 120), text: '', mail }, by)).id;
  return null;
}

export interface BroughtIn {
  made: number;
  changed: number;
  /** titles that could not be published, with the reason; they came in as drafts */
  kept: { title: string; reason: string }[];
}

/** Writes what was chosen. One transaction: all of it, or nothing. */
export async function bringIn(tx: Db, batch: Batch, items: readonly Planned[], publish: boolean, change: Change): Promise<BroughtIn> {
  if (batch.state !== 'previewed') throw new Problem(409, 'This file was brought in already.');
  const chosen = items.filter(({ action }) => action === 'new' || action === 'changed');
  if (!chosen.length) throw new Problem(422, 'Nothing is chosen that would change anything.');
  if (chosen.length > MOST_AT_ONCE)
    throw new Problem(413, `At most ${MOST_AT_ONCE.toLocaleString('en')} listings come in at once; choose fewer.`);
  const result: BroughtIn = { made: 0, changed: 0, kept: [] };
  for (const item of chosen) {
    const content = read(contentInput, item.content);
    const row = item.listingId
      ? await saveListing(tx, { id: item.listingId, content, revision: item.revision }, change)
      : await createListing(tx, content, change);
    const last = publish ? await tryPublish(tx, row, change, result) : row;
    if (item.listingId) result.changed++;
    else result.made++;
    const before = item.before
      ? {
          format: 1 as const,
          content: item.before,
          edited: item.edited,
          source: item.source?.content ?? null,
          sequence: item.source?.sequence ?? 0,
        }
      : null;
    await tx.insert(importItem).values({
      batchId: batch.id,
      uid: item.uid,
      listingId: row.id,
      before,
      revision: last.revision,
      published: last.stage === 'published' && !last.edited,
    });
    const source = { uid: item.uid, listingId: row.id, sequence: item.sequence, content: item.imported };
    await tx.insert(importSource).values(source).onConflictDoUpdate({ target: importSource.uid, set: source });
  }
  await tx
    .update(importBatch)
    .set({ state: 'brought-in', made: result.made, changed: result.changed, at: new Date(change.now.ms) })
    .where(eq(importBatch.id, batch.id));
  await note(tx, batch, `brought in “${batch.name}”: ${result.made} new, ${result.changed} changed`, change);
  return result;
}

type Row = Awaited<ReturnType<typeof createListing>>;

/** Publishes where Proof lets it; what it stops stays a draft, and is named. */
async function tryPublish(tx: Db, row: Row, change: Change, result: BroughtIn): Promise<Row> {
  try {
    return await publishListing(tx, row.id, row.revision, change);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    result.kept.push({ title: row.title, reason: error.title });
    return row;
  }
}

/** Takes a batch back: what it made goes, what it changed is as before; what somebody worked on since stays, and is named. */
export async function undoBatch(tx: Db, id: string, change: Change): Promise<{ undone: number; stayed: string[] }> {
  const [batch] = await tx.select().from(importBatch).where(eq(importBatch.id, id)).for('update');
  if (!batch) throw notFound('file');
  if (batch.state !== 'brought-in')
    throw new Problem(409, batch.state === 'undone' ? 'This was undone already.' : 'This was not brought in yet.');
  const items = await tx.select().from(importItem).where(eq(importItem.batchId, id));
  const stayed: string[] = [];
  let undone = 0;
  for (const item of items) {
    const [row] = await tx.select().from(listing).where(eq(listing.id, item.listingId));
    if (!row) continue;
    if (row.revision !== item.revision) {
      stayed.push(row.title);
      continue;
    }
    undone++;
    if (!item.before) {
      await tx.delete(listing).where(eq(listing.id, row.id));
      continue;
    }
    const saved = await saveListing(tx, { id: row.id, content: item.before.content, revision: row.revision }, change);
    if (item.published && !item.before.edited) await publishListing(tx, saved.id, saved.revision, change);
    else if (saved.stage === 'published' && !item.before.edited)
      await tx.update(listing).set({ edited: false }).where(eq(listing.id, saved.id));
    if (item.before.source)
      await tx
        .update(importSource)
        .set({ content: item.before.source, sequence: item.before.sequence })
        .where(eq(importSource.uid, item.uid));
    else await tx.delete(importSource).where(eq(importSource.uid, item.uid));
  }
  await tx.update(importBatch).set({ state: 'undone' }).where(eq(importBatch.id, id));
  await note(tx, batch, `took back “${batch.name}”`, change);
  return { undone, stayed };
}

async function note(tx: Db, batch: Batch, what: string, { by, now }: Change): Promise<void> {
  await tx
    .insert(audit)
    .values({ id: newId(), at: new Date(now.ms), byId: by.id, byName: by.name, what, kind: 'import', subjectId: batch.id });
}
