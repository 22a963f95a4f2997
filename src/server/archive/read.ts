/** Fills an empty site from an archive: in one transaction, with everything that could not be taken in named. */
import { isObject, type Loose } from '@/core/collections/is-object';
import { fileTypeFromBuffer } from 'file-type';
import { sql } from 'drizzle-orm';
import { FORMER_FORMAT, PICTURE_ENDINGS, whyNoArchive } from '@/core/exchange/archive';
import { sayCount } from '@/core/phrase/format';
import type { z } from 'zod';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import {
  category,
  importColumns,
  importMatch,
  listing,
  oldAddress,
  oldPlace,
  organizer,
  picture,
  pictureSource,
  setting,
  tag,
  venue,
} from '../db/schema';
import { Problem } from '../problem';
import { countListings, startRebuild } from '../dates/rebuild';
import { searchOf } from '../pictures/read';
import type { Runtime } from '../runtime-type';
import { type ArchivedListing, LISTS, type ListName, type Part, siteShape } from './shape';
import type { ArchiveSource } from './source';
import { insertListings } from './insert-listings';
import { insertNew, insertOnce, Known, type Left } from './known';

/** What an archive held, and what of it was dropped. */
export interface SiteReport {
  /** how many rows of each list were taken in */
  taken: Partial<Record<ListName | 'site', number>>;
  /** what was left out, or taken in part, each with why; the first of them */
  left: string[];
  leftCount: number;
}

const MOST_SAID = 500;
const WORDS: Record<ListName, string> = {
  pictures: 'Picture',
  categories: 'Category',
  tags: 'Tag',
  venues: 'Venue',
  organizers: 'Organizer',
  oldPlaces: 'Former address',
  words: 'Word of a file',
  tables: 'Table',
  listings: 'Listing',
};

/** What a row is called, as far as it says so. */
function nameOf(raw: unknown): string {
  if (!isObject(raw)) return '';
  const title = isObject(raw.content) ? raw.content.title : undefined;
  const name = [title, raw.alt, raw.name, raw.said, raw.slug].find((text) => typeof text === 'string' && text !== '');
  return name ? ` “${String(name).slice(0, 120)}”` : '';
}

/** Takes a whole archive in. Throws a Problem, and leaves the site as it is, where it is none or the site is not empty. */
export async function fillSite(rt: Runtime, archive: ArchiveSource, by: Actor): Promise<SiteReport> {
  const { document } = archive;
  if (!isObject(document)) throw new Problem('invalid', 'This is no archive.');
  const why = whyNoArchive(document.kind, document.format);
  if (why) throw new Problem('invalid', why);
  if (document.format === FORMER_FORMAT) throw new Problem('invalid', 'This file holds listings alone: bring it in without --site.');
  const report: SiteReport = { taken: {}, left: [], leftCount: 0 };
  const left: Left = (sentence) => {
    report.leftCount++;
    if (report.left.length < MOST_SAID) report.left.push(sentence);
  };
  const lists = readLists(document, left);
  const site = readSite(document.site, left);
  const job = await rt.db.transaction(async (tx) => {
    await refuseUnlessEmpty(tx);
    report.taken = await insertAll(tx, { lists, site, archive, left });
    await audited(tx, by, { kind: 'settings', id: 'site', what: { code: 'filled' } });
    return startRebuild(tx, 'rebuild', await countListings(tx), rt.now());
  });
  await rt.reloadSettings();
  await rt.contentChanged();
  rt.jobs.wake();
  const ended = await rt.jobs.wait(job, Number.POSITIVE_INFINITY);
  if (ended.state !== 'done') left(`The dates: ${ended.said || 'they could not be made'}. Say almanac rebuild.`);
  return report;
}

type Lists = { [K in ListName]: Part<K>[] };

function readLists(document: Loose, left: Left): Lists {
  const lists = {} as Record<ListName, unknown[]>;
  for (const [name, shape] of Object.entries(LISTS) as [ListName, z.ZodType][]) {
    const rows = document[name] ?? [];
    if (!Array.isArray(rows)) throw new Problem('invalid', `This archive’s “${name}” is no list.`);
    lists[name] = rows.flatMap((raw) => {
      const result = shape.safeParse(raw);
      if (result.success) return [result.data];
      const [issue] = result.error.issues;
      left(`${WORDS[name]}${nameOf(raw)} is left out: ${issue?.path.join('.') ?? ''}: ${issue?.message ?? 'it could not be read'}.`);
      return [];
    });
    lists[name] = once(lists[name] as Addressed[], (row) =>
      left(`${WORDS[name]}${nameOf(row)} is left out: its id or its web address is there twice.`),
    );
  }
  return lists as Lists;
}

interface Addressed {
  id?: string;
  slug?: string;
}

/** The first row of each id and of each web address; the others are handed to `twice`. */
function once(rows: readonly Addressed[], twice: (row: Addressed) => void): Addressed[] {
  const seen = new Set<string>();
  return rows.filter((row) => {
    if (row.id === undefined) return true;
    const [id, slug] = [`id ${row.id}`, `address ${row.slug ?? row.id}`];
    const isNew = !seen.has(id) && !seen.has(slug);
    if (isNew) seen.add(id).add(slug);
    else twice(row);
    return isNew;
  });
}

type Site = z.infer<typeof siteShape>;

function readSite(raw: unknown, left: Left): Site | undefined {
  if (raw === undefined) return undefined;
  const result = siteShape.safeParse(raw);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  left(`The site’s settings are left out: ${issue?.path.join('.') ?? ''}: ${issue?.message ?? 'they could not be read'}.`);
  return undefined;
}

/** An archive makes a site what another was: nothing of what is there already may be mixed in. */
async function refuseUnlessEmpty(tx: Db): Promise<void> {
  const tables = { listing, venue, organizer, category, tag, picture };
  const there: string[] = [];
  for (const [words, table] of Object.entries(tables)) {
    const [row] = await tx.select({ n: sql<number>`count(*)::int` }).from(table);
    if (row?.n) there.push(sayCount(row.n, words, words === 'category' ? 'categories' : undefined));
  }
  if (there.length)
    throw new Problem(
      'conflict',
      `An archive fills an empty site, and this one has ${there.join(', ')}. Set ALMANAC_DATA to a new folder, or bring its listings in without --site.`,
    );
}

interface Input {
  lists: Lists;
  site: Site | undefined;
  archive: ArchiveSource;
  left: Left;
}

async function insertAll(tx: Db, { lists, site, archive, left }: Input): Promise<SiteReport['taken']> {
  const known = new Known(left);
  const taken: SiteReport['taken'] = {};
  if (site) taken.site = await insertSite(tx, site);
  known.picture = await insertPictures(tx, lists.pictures, archive, left);
  taken.pictures = known.picture.size;

  const first = lists.categories.find((row) => row.fallback)?.id;
  const kinds = parentsFirst(lists.categories).map((row) => ({
    ...row,
    fallback: row.id === first,
    parentId: known.within(row.parentId, 'category', lists.categories, row.name),
    pictureId: known.one(row.pictureId, 'picture', `Category “${row.name}”`),
  }));
  known.category = await insertNew(tx, category, kinds, (row) => `Category “${row.name}”`, left);
  taken.categories = known.category.size;

  known.tag = await insertNew(tx, tag, lists.tags, (row) => `Tag “${row.name}”`, left);
  taken.tags = known.tag.size;

  const venues = parentsFirst(lists.venues).map((row) => ({
    ...row,
    parentId: known.within(row.parentId, 'venue', lists.venues, row.name),
    pictureId: known.one(row.pictureId, 'picture', `Venue “${row.name}”`),
  }));
  known.venue = await insertNew(tx, venue, venues, (row) => `Venue “${row.name}”`, left);
  taken.venues = known.venue.size;

  const organizers = lists.organizers.map((row) => ({
    ...row,
    pictureId: known.one(row.pictureId, 'picture', `Organizer “${row.name}”`),
    categoryId: known.one(row.categoryId, 'category', `Organizer “${row.name}”`),
  }));
  known.organizer = await insertNew(tx, organizer, organizers, (row) => `Organizer “${row.name}”`, left);
  taken.organizers = known.organizer.size;

  await insertOnce(tx, oldPlace, lists.oldPlaces, {
    key: ({ kind, slug }) => `${kind} ${slug}`,
    nameOf: ({ slug }) => `Former address “${slug}”`,
    left,
  });
  const words = lists.words.map((row) => ({ ...row, target: known.one(row.target, row.kind, `The word “${row.said}” of a file`) }));
  await insertOnce(tx, importMatch, words, {
    key: ({ kind, said }) => `${kind} ${said}`,
    nameOf: ({ said }) => `Word of a file “${said}”`,
    left,
  });
  const tables = lists.tables.map(({ headers, columns: { order, ...columns } }) => ({
    headers,
    columns: { ...columns, ...(order ? { order } : {}) },
  }));
  await insertOnce(tx, importColumns, tables, { key: ({ headers }) => headers, nameOf: ({ headers }) => `Table “${headers}”`, left });
  const fallback = kinds.find((row) => row.fallback && known.category.has(row.id))?.id ?? '';
  const readable = fallback ? lists.listings : lists.listings.filter((row) => hasCategory(row, known, left));
  taken.listings = await insertListings(tx, readable, { known, left, fallback });
  return taken;
}

/** Whatever readers see stands under a category, its own or the one for all others. */
function hasCategory({ published, content }: ArchivedListing, known: Known, left: Left): boolean {
  if (!published || published.content.categoryIds.some((id) => known.category.has(id))) return true;
  left(`Listing “${content.title}” is left out: it is published without a category, and the archive has none for such listings.`);
  return false;
}

/** The answer is 1 where the archive has settings: a site that never had any writes none. */
async function insertSite(tx: Db, { settings, chart, gazetteer, uidHost, oldAddresses }: Site): Promise<number> {
  const values = {
    site: settings,
    chart,
    gazetteer,
    'uid-host': uidHost ? { format: 1 as const, host: uidHost } : null,
  };
  for (const [key, value] of Object.entries(values)) {
    if (!value) continue;
    const set = { key, value: value as (typeof setting.$inferInsert)['value'] };
    await tx.insert(setting).values(set).onConflictDoUpdate({ target: setting.key, set });
  }
  for (let at = 0; at < oldAddresses.length; at += 1000)
    await tx
      .insert(oldAddress)
      .values(oldAddresses.slice(at, at + 1000))
      .onConflictDoNothing();
  return settings ? 1 : 0;
}

/** Pictures whose files the archive holds, each with its bytes; smaller files are made when somebody asks for them. */
async function insertPictures(tx: Db, rows: readonly Part<'pictures'>[], archive: ArchiveSource, left: Left): Promise<Set<string>> {
  const done = new Set<string>();
  for (const { file, ...row } of rows) {
    const name = `Picture “${row.alt || row.name}”`;
    const bytes = await archive.picture(file);
    const type = bytes && (await fileTypeFromBuffer(bytes));
    if (!bytes || !type) {
      left(`${name} is left out: ${bytes ? `${file} is no picture` : `the archive holds no ${file}`}.`);
      continue;
    }
    if (!PICTURE_ENDINGS.some((ending) => ending === type.ext)) {
      left(`${name} is left out: ${file} is a picture of a kind that is not taken.`);
      continue;
    }
    const { hash, width, height, detail } = row;
    await tx.insert(pictureSource).values({ hash, width, height, detail, bytes }).onConflictDoNothing();
    for (const id of await insertNew(tx, picture, [{ ...row, search: searchOf(row) }], () => name, left)) done.add(id);
  }
  return done;
}

/** Rows so that those which others stand under come before these. */
function parentsFirst<T extends { id: string; parentId: string | null }>(rows: readonly T[]): T[] {
  const of = new Map(rows.map((row) => [row.id, row]));
  const depth = (row: T): number => {
    let deep = 0;
    for (let up = of.get(row.parentId ?? ''); up && deep < rows.length; up = of.get(up.parentId ?? '')) deep++;
    return deep;
  };
  return rows
    .map((row) => ({ row, deep: depth(row) }))
    .sort((a, b) => a.deep - b.deep)
    .map(({ row }) => row);
}
