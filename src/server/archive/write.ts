/** A site, or some of its listings, as an archive: the document line by line, and the ZIP file that holds its pictures too. */
import { Readable } from 'node:stream';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import { fileTypeFromBuffer } from 'file-type';
import type { z } from 'zod';
import { addTo } from '@/core/collections/add-to';
import { ARCHIVE_DOCUMENT, ARCHIVE_FORMAT, ARCHIVE_KIND } from '@/core/exchange/archive';
import type { Db } from '../db/client';
import {
  category,
  dateName,
  importColumns,
  importMatch,
  importSource,
  listing,
  listingCopy,
  oldSlug,
  oldAddress,
  oldPlace,
  organizer,
  picture,
  pictureSource,
  validationWaiver,
  published,
  setting,
  submission,
  tag,
  venue,
  version,
} from '../db/schema';
import type { Now } from '../site/clock';
import { inShape, LISTS, type ListName, selectedShape } from './shape';
import { writeZip, type ZipEntry } from './zip';

/** Listings whose histories are read at a time. */
const CHUNK = 100;

/** What is archived of a site. */
export interface ArchivedSite {
  db: Db;
  now: () => Now;
}

type Row = Record<string, unknown>;

/** A list of the document: its name, then a row a line. */
async function* listLines(
  name: ListName,
  rows: Iterable<Row> | AsyncIterable<Row>,
  shape: z.ZodObject = LISTS[name],
): AsyncGenerator<string> {
  yield `,\n"${name}": [`;
  let first = true;
  for await (const row of rows) {
    yield `${first ? '' : ','}\n${JSON.stringify(inShape(shape, row))}`;
    first = false;
  }
  yield '\n]';
}

/** The document's head: what it is. The time of making is the one thing that differs between two archives of the same site. */
const head = (madeAt: Date, whole: boolean): string =>
  `{\n"kind": "${ARCHIVE_KIND}",\n"format": ${ARCHIVE_FORMAT},\n"madeAt": "${madeAt.toISOString()}",\n"whole": ${whole}`;

/** Where a picture's bytes are in an archive, by what kind of file they are. */
export async function fileOf(hash: string, bytes: Uint8Array): Promise<string> {
  const type = await fileTypeFromBuffer(bytes);
  return `pictures/${hash}.${type?.ext ?? 'png'}`;
}

/** The rows of pictures, each with the name of its file; the first bytes of a file say what it is. */
async function pictureRows(tx: Db, ids?: readonly string[]): Promise<Row[]> {
  const start = sql<Uint8Array>`substring(${pictureSource.bytes} from 1 for 4100)`.mapWith(pictureSource.bytes);
  const rows = await tx
    .select({ row: picture, start })
    .from(picture)
    .innerJoin(pictureSource, eq(pictureSource.hash, picture.hash))
    .where(ids && inArray(picture.id, [...ids]))
    .orderBy(asc(picture.id));
  return Promise.all(rows.map(async ({ row, start: bytes }) => ({ ...row, file: await fileOf(row.hash, bytes) })));
}

async function siteRow(tx: Db): Promise<unknown> {
  const rows = new Map((await tx.select().from(setting)).map((row) => [row.key, row.value]));
  const host = rows.get('uid-host') as { host?: string } | undefined;
  return {
    settings: rows.get('site') ?? null,
    chart: rows.get('chart') ?? null,
    gazetteer: rows.get('gazetteer') ?? null,
    uidHost: host?.host ?? null,
    oldAddresses: await tx.select({ from: oldAddress.from, to: oldAddress.to }).from(oldAddress).orderBy(asc(oldAddress.from)),
  };
}

function grouped<T extends { listingId: string }>(rows: readonly T[]): Map<string, T[]> {
  const of = new Map<string, T[]>();
  for (const row of rows) addTo(of, row.listingId, row);
  return of;
}

/** Listings with everything that is kept of them, read some at a time. */
async function* allListings(tx: Db): AsyncGenerator<Row> {
  for (let after = ''; ; ) {
    const rows = await tx
      .select()
      .from(listing)
      .where(after ? sql`${listing.id} > ${after}` : undefined)
      .orderBy(asc(listing.id))
      .limit(CHUNK);
    const last = rows.at(-1);
    if (!last) return;
    after = last.id;
    const ids = rows.map(({ id }) => id);
    const copies = await publishedOf(tx, ids);
    const old = grouped(await tx.select().from(oldSlug).where(inArray(oldSlug.listingId, ids)).orderBy(asc(oldSlug.slug)));
    const names = grouped(
      await tx.select().from(dateName).where(inArray(dateName.listingId, ids)).orderBy(asc(dateName.dateId), asc(dateName.original)),
    );
    const versions = grouped(
      await tx.select().from(version).where(inArray(version.listingId, ids)).orderBy(asc(version.revision), asc(version.id)),
    );
    const waivers = grouped(
      await tx.select().from(validationWaiver).where(inArray(validationWaiver.listingId, ids)).orderBy(asc(validationWaiver.key)),
    );
    const begun = grouped(await tx.select().from(listingCopy).where(inArray(listingCopy.listingId, ids)));
    const sources = grouped(
      await tx
        .select()
        .from(importSource)
        .where(inArray(importSource.listingId, ids))
        .orderBy(asc(importSource.source), asc(importSource.uid)),
    );
    const sent = grouped(await tx.select().from(submission).where(inArray(submission.listingId, ids)));
    yield* rows.map(({ working, ...row }) => ({
      ...row,
      content: working,
      published: copies.get(row.id) ?? null,
      oldSlugs: (old.get(row.id) ?? []).map(({ slug }) => slug),
      dateNames: (names.get(row.id) ?? []).map(without),
      versions: (versions.get(row.id) ?? []).map(without),
      waivers: (waivers.get(row.id) ?? []).map(without),
      copy: begun.get(row.id)?.map(without)[0] ?? null,
      sources: (sources.get(row.id) ?? []).map(without),
      submission: sent.get(row.id)?.map(without)[0] ?? null,
    }));
  }
}

/** A row that stands under its listing need not name it. */
function without<T extends { listingId: string }>({ listingId: _, ...row }: T): Omit<T, 'listingId'> {
  return row;
}

async function publishedOf(tx: Db, ids: readonly string[]): Promise<Map<string, object>> {
  const { listingId, content, sequence, publishedAt, changedAt } = published;
  const rows = await tx
    .select({ listingId, content, sequence, publishedAt, changedAt })
    .from(published)
    .where(inArray(published.listingId, [...ids]));
  return new Map(rows.map((row) => [row.listingId, without(row)]));
}

/** The whole site as a document. Accounts, mails, jobs and unsaved edits are not in it. */
export async function* wholeDocument(tx: Db, madeAt: Date): AsyncGenerator<string> {
  yield head(madeAt, true);
  yield `,\n"site": ${JSON.stringify(await siteRow(tx))}`;
  yield* listLines('pictures', await pictureRows(tx));
  yield* listLines('categories', await tx.select().from(category).orderBy(asc(category.position), asc(category.id)));
  yield* listLines('tags', await tx.select().from(tag).orderBy(asc(tag.id)));
  yield* listLines('venues', await tx.select().from(venue).orderBy(asc(venue.id)));
  yield* listLines('organizers', await tx.select().from(organizer).orderBy(asc(organizer.id)));
  yield* listLines('oldPlaces', await tx.select().from(oldPlace).orderBy(asc(oldPlace.kind), asc(oldPlace.slug)));
  yield* listLines('words', await tx.select().from(importMatch).orderBy(asc(importMatch.kind), asc(importMatch.said)));
  yield* listLines('tables', await tx.select().from(importColumns).orderBy(asc(importColumns.headers)));
  yield* listLines('listings', allListings(tx));
  yield '\n}\n';
}

/** A document as one text. */
async function joined(document: AsyncIterable<string>): Promise<string> {
  const parts: string[] = [];
  for await (const part of document) parts.push(part);
  return parts.join('');
}

/** What of a place is for editors alone. */
const UNSAID = { notes: '', contactName: '', contactPhone: '', contactMail: '' };

/**
 * Some listings, with what they point to; pictures by their files' names, and nothing of the listings' histories. `forEditors`: what is
 * for editors alone is in it too.
 */
export function partDocument(
  tx: Db,
  rows: readonly (typeof listing.$inferSelect)[],
  options: { madeAt: Date; forEditors: boolean },
): Promise<string> {
  return joined(selectedDocument(tx, rows, options));
}

async function* selectedDocument(
  tx: Db,
  rows: readonly (typeof listing.$inferSelect)[],
  { madeAt, forEditors }: { madeAt: Date; forEditors: boolean },
): AsyncGenerator<string> {
  const seen = (places: readonly Row[]): Row[] => places.map((place) => ({ ...place, ...(forEditors ? {} : UNSAID) }));
  const contents = rows.map(({ working }) => working);
  const ids = (of: (content: (typeof contents)[number]) => readonly (string | null | undefined)[]): string[] => [
    ...new Set(contents.flatMap((content) => of(content).filter((id): id is string => Boolean(id)))),
  ];
  const own = await tx.select().from(category).orderBy(asc(category.position), asc(category.id));
  const kinds = new Set(ids((c) => c.categoryIds));
  for (const { id, parentId } of [...own].reverse()) if (kinds.has(id) && parentId) kinds.add(parentId);
  const where = ids((c) => [...c.venueIds, ...c.changes.map((change) => change.venueId)]);
  const who = ids((c) => c.organizerIds);
  const tags = ids((c) => c.tagIds);
  const pictures = ids((c) => [c.pictureId, ...c.galleryIds]);
  const copies = await publishedOf(
    tx,
    rows.map(({ id }) => id),
  );
  yield head(madeAt, false);
  yield* listLines('pictures', await pictureRows(tx, pictures));
  yield* listLines(
    'categories',
    own.filter(({ id }) => kinds.has(id)),
  );
  yield* listLines('tags', await tx.select().from(tag).where(inArray(tag.id, tags)).orderBy(asc(tag.id)));
  yield* listLines('venues', seen(await tx.select().from(venue).where(inArray(venue.id, where)).orderBy(asc(venue.name), asc(venue.id))));
  const people = await tx.select().from(organizer).where(inArray(organizer.id, who)).orderBy(asc(organizer.name), asc(organizer.id));
  yield* listLines('organizers', seen(people));
  const listings = rows.map(({ working, ...row }) => ({ ...row, content: working, published: copies.get(row.id) ?? null }));
  yield* listLines('listings', listings, selectedShape);
  yield '\n}\n';
}

/** Everything in one moment's state: others wait, or see what was there before. */
function inOneMoment<T>(rt: ArchivedSite, run: (tx: Db) => Promise<T>): Promise<T> {
  return rt.db.transaction(run, { isolationLevel: 'repeatable read', accessMode: 'read only' });
}

/** The whole site's document as one text; pictures are in it by their files' names. */
export function siteDocument(rt: ArchivedSite): Promise<string> {
  return inOneMoment(rt, (tx) => joined(wholeDocument(tx, new Date(rt.now().ms))));
}

/** Writes the whole site into a ZIP file, which is there under its name when it is whole. */
export async function writeSite(rt: ArchivedSite, path: string): Promise<void> {
  await inOneMoment(rt, async (tx) => {
    const hashes = new Map((await pictureRows(tx)).map(({ file, hash }) => [String(file), String(hash)]));
    await writeZip(path, [
      { name: ARCHIVE_DOCUMENT, read: async () => Readable.from(wholeDocument(tx, new Date(rt.now().ms)), { objectMode: false }) },
      ...pictureEntries(tx, hashes),
    ]);
  });
}

/** Pictures as files of a ZIP file: each is read when its turn comes, so never more than one of them is in memory. */
export const pictureEntries = (tx: Db, hashes: ReadonlyMap<string, string>): ZipEntry[] =>
  [...hashes].map(([name, hash]) => ({
    name,
    stored: true,
    read: async () => Readable.from([await bytesOf(tx, hash)], { objectMode: false }),
  }));

async function bytesOf(tx: Db, hash: string): Promise<Buffer> {
  const [source] = await tx.select({ bytes: pictureSource.bytes }).from(pictureSource).where(eq(pictureSource.hash, hash));
  if (!source) throw new Error('a picture lost its bytes');
  return Buffer.from(source.bytes);
}
