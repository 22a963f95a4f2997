import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { asc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { seedDemo } from '#demo/seed';
import { choir, change, EDITOR, emptyTables, freshDb, inTx, NOW, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import { createAuth } from '../accounts/auth';
import type { Db } from '../db/client';
import { category, link, listing, occurrence, picture, published, submission, user, venue, version } from '../db/schema';
import { hashToken, newId } from '../db/ids';
import { emptyContent } from '@/core/listing/fields';
import { versionShape } from './shape';
import { exportListings } from '../exchange/export';
import { readTableQuery } from '../desk/table';
import { createListing, publishListing, saveListing } from '../listings/write';
import { rebuildIndex } from '../dates/rebuild';
import type { Runtime } from '../runtime-type';
import { readSettings } from '../site/read';
import { fillSite } from './read';
import { type ArchiveSource, openArchive } from './source';
import { siteDocument, writeSite } from './write';

const folder = mkdtempSync(path.join(tmpdir(), 'almanac-archive-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const UNTIMED = /"madeAt": "[^"]*"/;
const untimed = (text: string): string => text.replace(UNTIMED, '');
const source = (document: unknown, files: Record<string, Buffer> = {}): ArchiveSource => ({
  document,
  picture: async (name) => files[name],
  close: () => undefined,
});

/** A database that answers three questions and no more. */
function failing(db: Db): Db {
  let left = 3;
  const select: Db['select'] = ((...columns: []) => {
    if (left-- === 0) throw new Error('the database is gone');
    return db.select(...columns);
  }) as Db['select'];
  return new Proxy(db, { get: (target, key) => (key === 'select' ? select : Reflect.get(target, key)) });
}

async function fill(site: Runtime, file: string): ReturnType<typeof fillSite> {
  const archive = await openArchive(file);
  return fillSite(site, archive, EDITOR).finally(archive.close);
}

describe('the demo as an archive', () => {
  let db: Db;
  let site: Runtime;
  const zip = path.join(folder, 'isles.zip');
  beforeAll(async () => {
    db = await freshDb();
    site = siteOf(db);
    const auth = createAuth(db, {
      secret: 'x'.repeat(40),
      siteUrl: () => 'https://almanac.example',
      siteName: () => 'Isles',
    });
    await seedDemo({ db, auth, pictureWorker: site.pictureWorker }, NOW);
    // A published listing that somebody works on: readers' copy differs from the working one.
    const [row] = await db.select().from(listing).where(eq(listing.stage, 'published')).orderBy(asc(listing.slug)).limit(1);
    if (row)
      await inTx(db, (tx) =>
        saveListing(tx, { id: row.id, content: { ...row.working, title: 'Under way' }, revision: row.revision }, change()),
      );
    // And one begins five minutes later than it did: its dates are the same ones under other starts.
    const [retimed] = await db.select().from(listing).where(eq(listing.slug, 'harbour-choir'));
    const recurrence = retimed?.working.recurrence;
    if (!retimed || !recurrence) throw new Error('the demo has no harbour choir with dates');
    const parts = recurrence.parts.map((part) => ({ ...part, start: part.start.replace(/:\d\d$/, ':05') }));
    const later = { ...retimed.working, recurrence: { ...recurrence, parts } };
    await inTx(db, async (tx) => {
      const saved = await saveListing(tx, { id: retimed.id, content: later, revision: retimed.revision }, change());
      await publishListing(tx, saved.id, saved.revision, change());
    });
    await writeSite(site, zip);
  });

  it('fills an empty site that is the same to the byte, dates, stages, pictures and receipts with it', async () => {
    const before = untimed(await siteDocument(site));
    const dates = await db.select().from(occurrence).orderBy(asc(occurrence.listingId), asc(occurrence.original));
    const links = (await db.select().from(link)).map((row) => JSON.stringify(row)).sort();
    const counts = { published: await db.$count(published), versions: await db.$count(version), sent: await db.$count(submission) };
    await emptyTables(db);

    const report = await fill(site, zip);
    expect(report.left).toEqual([]);
    expect(report.taken.listings).toBeGreaterThan(60);
    expect(dates.filter(({ dateId, original }) => dateId !== original).length).toBeGreaterThan(5);
    expect(untimed(await siteDocument(site))).toBe(before);
    expect(await db.select().from(occurrence).orderBy(asc(occurrence.listingId), asc(occurrence.original))).toEqual(dates);
    expect((await db.select().from(link)).map((row) => JSON.stringify(row)).sort()).toEqual(links);
    expect({ published: await db.$count(published), versions: await db.$count(version), sent: await db.$count(submission) }).toEqual(
      counts,
    );
    expect((await readSettings(db)).settings.name).toBe('Kittiwick Isles Almanac');
    const [under] = await db.select().from(listing).where(eq(listing.title, 'Under way'));
    expect(under).toMatchObject({ stage: 'published', edited: true });

    const again = path.join(folder, 'again.zip');
    await writeSite(site, again);
    expect(readFileSync(again).equals(readFileSync(zip))).toBe(true);
  });

  it('is taken in from its document with the pictures’ folder beside it; without the folder each picture is said', async () => {
    const archive = await openArchive(zip);
    const { pictures } = archive.document as { pictures: { file: string }[] };
    const at = path.join(folder, 'apart');
    mkdirSync(path.join(at, 'pictures'), { recursive: true });
    writeFileSync(path.join(at, 'almanac.json'), JSON.stringify(archive.document));
    for (const { file } of pictures) writeFileSync(path.join(at, file), (await archive.picture(file)) as Buffer);
    archive.close();
    await emptyTables(db);
    expect((await fill(site, path.join(at, 'almanac.json'))).left).toEqual([]);
    expect(await db.$count(picture)).toBe(pictures.length);

    rmSync(path.join(at, 'pictures'), { recursive: true });
    await emptyTables(db);
    const { left, taken } = await fill(site, path.join(at, 'almanac.json'));
    expect(taken.pictures).toBe(0);
    expect(left.filter((sentence) => sentence.includes('the archive holds no pictures/'))).toHaveLength(pictures.length);
    expect(left.some((sentence) => /“.+” names a picture not in the archive/.test(sentence))).toBe(true);
    expect(taken.listings).toBeGreaterThan(60);
  });
});

describe('an archive', () => {
  let db: Db;
  let site: Runtime;
  beforeEach(async () => {
    db = await freshDb();
    site = siteOf(db);
  });

  async function smallSite(): Promise<Record<string, Record<string, unknown>[]> & { listings: Record<string, unknown>[] }> {
    const places = await seedPlaces(db);
    const row = await inTx(db, (tx) => createListing(tx, choir(places), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    const document = JSON.parse(await siteDocument(site));
    await emptyTables(db);
    return document;
  }

  it('fills no site that has something', async () => {
    const document = await smallSite();
    await seedPlaces(db);
    expect(await problem(fillSite(site, source(document), EDITOR))).toMatchObject({
      kind: 'conflict',
      title: expect.stringContaining('this one has 1 venue, 1 category'),
    });
    expect(await db.$count(listing)).toBe(0);
  });

  it('with rows that are wrong says each, takes the rest, and leaves nothing pointing nowhere', async () => {
    const document = await smallSite();
    const [one] = document.listings as [Record<string, unknown>];
    const content = one.content as Record<string, unknown>;
    const elsewhere = '0190a1b2-0000-7000-8000-00000000000a';
    const other = { ...one, id: elsewhere, slug: 'other', versions: [] };
    document.listings.push(
      { ...other, content: { ...content, venueIds: [elsewhere], title: 'Lost' } },
      { ...one, versions: [] },
      { ...other, id: elsewhere.replace('a', 'b'), stage: 'draft', slug: 'strange' },
      { id: 'x' },
      { ...other, slug: 'script', content: { ...content, text: 'x'.repeat(70_000) } },
    );
    (document.venues as object[]).push({ name: '', id: elsewhere });
    const { left, taken } = await fillSite(site, source(document), EDITOR);
    expect(taken).toMatchObject({ listings: 2, venues: 1, categories: 1 });
    expect(left.join('\n')).toMatch(/Venue is left out/);
    expect(left.join('\n')).toMatch(/“Lost” names a venue not in the archive/);
    expect(left.join('\n')).toMatch(/“Harbour Choir” is left out: its id or its web address is there twice/);
    expect(left.join('\n')).toMatch(/no other has one/);
    expect(left.join('\n')).toMatch(/at most 60,000 characters/);
    expect((await rebuildIndex(db, site.settings(), NOW)).differed).toEqual([]);
  });

  it('takes versions of archives that said in words what happened', () => {
    const version = { id: newId(), revision: 1, content: emptyContent(), byName: 'Ivo Skerrit', at: '2027-03-17T12:00:00.000Z' };
    const listing = (what: unknown) => versionShape.parse({ ...version, what }).what;
    expect(listing('brought version 1 back')).toEqual({ format: 1, code: 'words', text: 'brought version 1 back' });
    expect(listing({ format: 1, code: 'restored', revision: 1 })).toEqual({ format: 1, code: 'restored', revision: 1 });
    expect(() => listing({ format: 1, code: 'blown up' })).toThrow();
  });

  it('says former addresses, words, answers and sources that stand there twice', async () => {
    const document = await smallSite();
    const [one] = document.listings as [Record<string, unknown>];
    const content = one.content as Record<string, unknown>;
    const twice = <T>(row: T): T[] => [row, row];
    const former = { kind: 'venue', slug: 'old-loft', targetId: (document.venues as Record<string, unknown>[])[0]?.id };
    Object.assign(document, {
      oldPlaces: twice(former),
      words: twice({ kind: 'venue', said: 'loft', target: null }),
      tables: twice({ headers: 'title', columns: { format: 1, columns: ['title'] } }),
    });
    Object.assign(one, {
      oldSlugs: twice('the-choir'),
      waivers: twice({ key: 'picture-missing', reason: 'None yet', byName: 'Ivo', at: '2027-03-17T12:00:00.000Z' }),
      sources: twice({ source: 'Club', uid: 'a', hash: '', sequence: 0, content }),
    });
    const { left } = await fillSite(site, source(document), EDITOR);
    expect(left).toEqual([
      'Former address “old-loft” is left out: it is there twice.',
      'Word of a file “loft” is left out: it is there twice.',
      'Table “title” is left out: it is there twice.',
      'An answer to Proof, “None yet”, is left out: it is there twice.',
      'Former address “the-choir” is left out: it is there twice.',
      'The source “Club” of “Harbour Choir” is left out: it is there twice.',
    ]);
  });

  it('whose making fails on the way leaves no file behind', async () => {
    const broken = {
      ...site,
      db: { ...db, transaction: async (run: (tx: Db) => Promise<unknown>) => run(failing(db)) },
    } as unknown as Runtime;
    await expect(writeSite(broken, path.join(folder, 'half.zip'))).rejects.toThrow('the database is gone');
    expect(readdirSync(folder).filter((name) => name.startsWith('half'))).toEqual([]);
  });

  it('brings no script into a text', async () => {
    const document = await smallSite();
    const [one] = document.listings as [Record<string, Record<string, unknown>>];
    (one.content as Record<string, unknown>).text = '<p onclick="x()">Sing</p><script>x()</script>';
    await fillSite(site, source(document), EDITOR);
    const [row] = await db.select().from(listing);
    expect(row?.working.text).toBe('<p>Sing</p>');
  });

  it('that is none is refused in words, and nothing is made', async () => {
    const at = (name: string, text: string): string => {
      writeFileSync(path.join(folder, name), text);
      return path.join(folder, name);
    };
    for (const [file, said] of [
      [path.join(folder, 'none.zip'), 'cannot be read'],
      [at('broken.zip', 'PK\u0003\u0004 and no more'), 'This ZIP file cannot be read'],
      [at('broken.json', '{"kind"'), 'is no JSON'],
      [at('list.json', '[]'), 'This is no archive'],
      [at('later.json', '{"kind":"plain-almanac","format":3}'), 'has format 3'],
      [at('former.json', '{"kind":"plain-almanac-listings","format":1,"listings":[]}'), 'without --site'],
      [at('wrong.json', '{"kind":"plain-almanac","format":2,"venues":{}}'), 'is no list'],
    ] as const)
      expect(await problem(fill(site, file)), file).toMatchObject({ title: expect.stringContaining(said) });
    expect(await db.$count(category)).toBe(0);
  });

  it('is written whole or not at all', async () => {
    const nowhere = path.join(folder, 'no-such-folder', 'x.zip');
    expect(await problem(writeSite(site, nowhere))).toMatchObject({ title: expect.stringContaining('cannot be written (ENOENT)') });
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  });

  it('of a contributor’s selection has no notes of editors and no history', async () => {
    const places = await seedPlaces(db);
    await db.update(venue).set({ notes: 'Key under the mat' });
    await inTx(db, (tx) => createListing(tx, choir(places), change()));
    await db.insert(submission).values({
      id: '0190a1b2-0000-7000-8000-00000000000c',
      listingId: (await db.select().from(listing))[0]?.id ?? '',
      tokenHash: hashToken('x'),
      state: 'waiting',
      senderName: 'Nan Trevose',
      senderMail: 'nan@almanac.example',
      said: { format: 1, where: '', who: '' },
      sentAt: new Date(NOW.ms),
    });
    const { text: editors } = await exportListings(site, 'listings.json');
    expect(editors).toContain('Key under the mat');
    expect(editors).not.toContain('nan@almanac.example');
    await db.insert(user).values({ id: 'nan', name: 'Nan Trevose', email: 'nan@almanac.example', emailVerified: true });
    await db.update(listing).set({ ownerId: 'nan' });
    const actor = { id: 'nan', name: 'Nan Trevose', role: 'contributor' as const };
    const { text: own } = await exportListings(site, 'listings.json', { actor, query: readTableQuery(new URLSearchParams()) });
    expect(own).not.toContain('Key under the mat');
    expect(own).toContain('Net Loft');
  });
});
