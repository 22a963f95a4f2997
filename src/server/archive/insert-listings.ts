/** The listings of an archive: both copies, versions, answers to Proof, where they came from and who sent them. */
import { allTexts, type ListingContent } from '@/core/listing/content';
import { picturesInText } from '@/core/picture/picture-url';
import type { Db } from '../db/client';
import {
  dateName,
  importSource,
  link,
  listing,
  listingCopy,
  oldSlug,
  validationWaiver,
  published,
  submission,
  version,
} from '../db/schema';
import { linkRows, textPictureLinks } from '../listings/links';
import { publishedValues } from '../listings/published-copy';
import { insertNew, insertOnce, type Known, type Left } from './known';
import type { ArchivedListing, Part } from './shape';

const CHUNK = 100;

/** Inserts listings, some a statement. What points to other listings follows when all of them are there. The answer is how many. */
export async function insertListings(tx: Db, rows: readonly ArchivedListing[], context: FillContext): Promise<number> {
  const { known, left } = context;
  const done = new Set<string>();
  for (let i = 0; i < rows.length; i += CHUNK) {
    for (const id of await insertSome(tx, rows.slice(i, i + CHUNK), context)) done.add(id);
  }
  const there = rows.filter(({ id }) => done.has(id));
  // No two listings share a former address, nor a row of a file.
  const old = there.flatMap(({ id, oldSlugs }) => oldSlugs.map((slug) => ({ slug, listingId: id })));
  await insertOnce(tx, oldSlug, old, {
    key: ({ slug }) => slug,
    nameOf: ({ slug }) => `Former address “${slug}”`,
    left,
  });
  const names = there.flatMap(({ id, dateNames }) => dateNames.map((row) => ({ ...row, listingId: id })));
  await insertOnce(tx, dateName, names, {
    key: ({ listingId, dateId, original }) => `${listingId} ${dateId} ${original}`,
    nameOf: ({ original }) => `The former start “${original}” of a date`,
    left,
  });
  const sources = there.flatMap(({ id, sources: list }) => list.map((row) => ({ ...row, listingId: id })));
  await insertOnce(tx, importSource, sources, {
    key: ({ source, uid }) => `${source}\n${uid}`,
    nameOf: ({ source, content }) => `The source “${source}” of “${content.title}”`,
    left,
  });
  const ifThere = (id: string | null): string | null => (id && done.has(id) ? id : null);
  const copies = there.flatMap(({ id, copy }) => (copy ? [{ listingId: id, ...copy, fromId: ifThere(copy.fromId) }] : []));
  await insertChunks(copies, (some) => tx.insert(listingCopy).values(some));
  const sent = there.flatMap(({ id, slug, submission: one }) =>
    one ? [{ ...one, listingId: id, intoId: ifThere(one.intoId), proposal: proposalOf(one, known, slug) }] : [],
  );
  await insertNew(tx, submission, sent, () => 'A sender’s receipt', left);
  return done.size;
}

type Sent = NonNullable<ArchivedListing['submission']>;

function proposalOf({ proposal }: Sent, known: Known, slug: string): Sent['proposal'] {
  return proposal && { ...proposal, content: known.content(proposal.content, `A change sent for “${slug}”`) };
}

interface FillContext {
  known: Known;
  left: Left;
  /** the category of what is published without one */
  fallback: string;
}

async function insertSome(tx: Db, rows: readonly ArchivedListing[], { known, left, fallback }: FillContext): Promise<Set<string>> {
  const contents = new Map(rows.map((row) => [row.id, known.content(row.content, `“${row.content.title}”`)]));
  const done = await insertNew(
    tx,
    listing,
    rows.map((row) => listingValues(row, contents.get(row.id) ?? row.content)),
    titleOf,
    left,
  );
  const there = rows.filter(({ id }) => done.has(id));
  const copies = there.flatMap(({ id, slug, published: copy }) =>
    copy ? [{ id, slug, copy, content: known.content(copy.content, `“${copy.content.title}”, as readers see it,`) }] : [],
  );
  await insertChunks(copies, (some) =>
    tx
      .insert(published)
      .values(
        some.map(({ id, slug, copy: { sequence, publishedAt, changedAt }, content }) =>
          publishedValues({ id, slug }, content, { sequence, publishedAt, at: changedAt, fallback }),
        ),
      ),
  );
  const links = [
    ...there.flatMap(({ id }) => linksOf(id, 'working', contents.get(id), known)),
    ...copies.flatMap(({ id, content }) => linksOf(id, 'published', content, known)),
  ];
  await insertChunks(links, (some) => tx.insert(link).values(some));
  const versions = there.flatMap(({ id, versions: list }) => list.map((row) => ({ ...row, listingId: id })));
  await insertNew(tx, version, versions, ({ content }) => `A version of “${content.title}”`, left);
  const waivers = there.flatMap(({ id, waivers: list }) => list.map((row) => ({ ...row, listingId: id })));
  await insertOnce(tx, validationWaiver, waivers, {
    key: ({ listingId, key }) => `${listingId} ${key}`,
    nameOf: ({ reason }) => `An answer to Proof, “${reason}”,`,
    left,
  });
  return done;
}

const titleOf = ({ title }: { title: string }): string => `Listing “${title}”`;

function listingValues(row: Part<'listings'>, working: ListingContent): typeof listing.$inferInsert {
  // Archives of before said it of what is published only.
  const firstPublishedAt = row.firstPublishedAt ?? row.published?.publishedAt ?? null;
  const { id, slug, stage, edited, revision, createdAt, changedAt, publishAt, withdrawAt, scheduledBy, scheduleWrong } = row;
  const times = { createdAt, changedAt, firstPublishedAt, publishAt, withdrawAt, scheduledBy, scheduleWrong };
  return { id, slug, stage, edited, revision, title: working.title, working, ...times };
}

function linksOf(id: string, copy: 'working' | 'published', content: ListingContent | undefined, known: Known) {
  if (!content) return [];
  const inText = picturesInText(allTexts(content)).filter((picture) => known.picture.has(picture));
  return [...linkRows(id, copy, content), ...textPictureLinks(id, copy, content, inText)];
}

async function insertChunks<T>(rows: readonly T[], insert: (some: T[]) => PromiseLike<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += CHUNK) await insert(rows.slice(i, i + CHUNK));
}
