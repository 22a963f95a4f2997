import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { NO_FILTERS } from '@/core/filters/filters';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, emptyTables, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { rounds } from '../../../tests/support/generate';
import { mailService } from '../../../tests/support/mail-service';
import { Postgres, postgresFolder } from '../../../tests/support/postgres';
import { tableOf } from '../../../tests/support/site';
import { rebuildIndex } from '../dates/rebuild';
import { explain } from '../explain';
import { SiteFinder } from '../finder/site-finder';
import { log } from '../health/log';
import { createListing, publishListing } from '../listings/write';
import { queueMail, sendWaiting } from '../mail/outbox';
import { countFacets } from '../public/facets';
import { readTally } from '../public/public-dates';
import { referenceData } from '../reference/read';
import { ContentCache } from '../site/content-cache';
import { countOne } from '../site/rate-limits';
import { findOrMakeTag } from '../tags/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { type Db, type OpenDatabase, openDatabase } from './client';
import { isConnectionLost } from './lost';
import { listenForChanges } from './notices';
import { listing, venue } from './schema';

const bin = postgresFolder();

describe.skipIf(!bin)(`the same code on a PostgreSQL server${bin ? '' : ' (skipped: Debian’s postgresql is not installed)'}`, () => {
  let server: Postgres;
  let open: OpenDatabase;
  let places: Places;
  beforeAll(async () => {
    server = await Postgres.start(bin as string);
    open = await openDatabase({ folder: server.folder, root: process.cwd(), url: server.url });
    await emptyTables(open.db);
    places = await seedPlaces(open.db);
  });
  afterAll(async () => {
    await open?.close();
    await server?.stop();
  });

  it('writes a listing with its index, shows it, and rebuilds to the same', async () => {
    const { db } = open;
    const row = await inTx(db, (tx) => createListing(tx, choir(places), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    expect(await rebuildIndex(db, SETTINGS, NOW)).toEqual({ listings: 1, dates: 10, differed: [] });
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    const context = { reference, currency: 'CAD', around: undefined };
    const span = { from: NOW.day, to: NOW.day + 400 };
    const facets = countFacets(span, await readTally(db, span, { ...NO_FILTERS, words: 'choir' }, context), reference, new Map());
    expect([facets.total, facets.of('free').get('1'), facets.of('place').get('Gannet Bay')]).toEqual([10, 10, 10]);
    const table = await tableOf(db, 'sort=next');
    expect([table.total, table.rows[0]?.nextDay]).toEqual([1, NOW.day + 6]);
  });

  it('has in its finder what two processes write, in whatever order their transactions end', async () => {
    const { db } = open;
    let revision = 0;
    const finder = new SiteFinder({ db, revision: () => String(revision), log });
    await finder.made();
    const titles = async (): Promise<string[]> => {
      revision++;
      const found = await finder.current();
      return [...new Set(found?.find({ span: { from: NOW.day }, conditions: [] }).map(({ title }) => title))].sort();
    };
    const before = await titles();
    const publish = async (tx: Db, title: string) => {
      const row = await createListing(tx, choir(places, { title }), change());
      await publishListing(tx, row.id, row.revision, change());
    };
    const other = await openDatabase({ folder: server.folder, root: process.cwd(), url: server.url });
    let end: () => void = () => undefined;
    const ended = new Promise<void>((resolve) => {
      end = resolve;
    });
    let wrote: () => void = () => undefined;
    const written = new Promise<void>((resolve) => {
      wrote = resolve;
    });
    const slow = other.db.transaction(async (tx) => {
      await publish(tx as unknown as Db, 'Begun first, ended last');
      wrote();
      await ended;
    });
    await written;
    await inTx(db, (tx) => publish(tx, 'Begun last, ended first'));
    expect(await titles()).toEqual([...before, 'Begun last, ended first'].sort());
    expect(await titles()).toEqual([...before, 'Begun last, ended first'].sort());
    end();
    await slow;
    expect(await titles()).toEqual([...before, 'Begun first, ended last', 'Begun last, ended first'].sort());
    expect(await finder.check()).toBe(true);
    await other.close();
  });

  it('counts bounds the same', async () => {
    await countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_000_000);
    await expect(countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_000_001)).rejects.toThrow('more often');
    await countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_100_000);
  });

  it('eight at once get a web address each, whatever is made with the same name', async () => {
    const { db } = open;
    const eight = <T>(make: (tx: Db) => Promise<T>): Promise<T[]> =>
      Promise.all(Array.from({ length: 8 }, () => db.transaction((tx) => make(tx))));
    const listings = await eight((tx) => createListing(tx, choir(places, { title: 'Net Mending' }), change()));
    expect(new Set(listings.map((row) => row.slug)).size).toBe(8);
    await eight((tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Slip Shed' }, EDITOR));
    expect(new Set((await db.select({ slug: venue.slug }).from(venue)).map((row) => row.slug)).size).toBeGreaterThanOrEqual(8);
    // Of a tag there is one, however many make it.
    const tags = await eight((tx) => findOrMakeTag(tx, 'Low water', EDITOR));
    expect(new Set(tags.map((row) => row.id)).size).toBe(1);
  });

  it('lives through restarts under load: nothing acknowledged is lost, and its processes hear of changes again', async () => {
    const { db } = open;
    let heard = 0;
    const notices = await listenForChanges(server.url, '', async () => void heard++);
    let working = true;
    let refused = 0;
    const acknowledged: string[] = [];
    const write = async (who: number): Promise<void> => {
      for (let n = 0; working; n++) {
        try {
          const row = await db.transaction((tx) => createListing(tx, choir(places, { title: `Watch ${who} ${n}` }), change()));
          acknowledged.push(row.id);
        } catch (error) {
          // What failed did so as a reader may see it: come back in a moment.
          expect(explain(error).kind).toBe('busy');
          refused++;
        }
        await db.execute(sql`select 1`).catch((error: unknown) => expect(isConnectionLost(error), String(error)).toBe(true));
      }
    };
    const writers = [1, 2, 3, 4].map(write);
    for (let i = 0; i < rounds(20); i++) {
      await new Promise((resolve) => setTimeout(resolve, 150));
      await server.down(i % 2 ? 'immediate' : 'fast');
      await server.up();
    }
    await new Promise((resolve) => setTimeout(resolve, 300));
    working = false;
    await Promise.all(writers);
    const there = new Set((await db.select({ id: listing.id }).from(listing)).map((row) => row.id));
    expect(acknowledged.filter((id) => !there.has(id))).toEqual([]);
    expect(acknowledged.length).toBeGreaterThan(rounds(60));
    expect(await rebuildIndex(db, SETTINGS, NOW)).toMatchObject({ differed: [] });
    // The ear is back too.
    await expect.poll(() => notices.tell().then(() => heard), { timeout: 10_000 }).toBeGreaterThan(0);
    await notices.stop();
    expect(refused).toBeLessThan(acknowledged.length);
  });

  it('sends each mail once from two processes', async () => {
    const { db } = open;
    const other = await openDatabase({ folder: server.folder, root: process.cwd(), url: server.url });
    const got: string[] = [];
    const smtp = await mailService((text) => got.push(text), { slow: 15 });
    for (let i = 0; i < 20; i++)
      await queueMail(db, { to: `reader${i}@almanac.example`, subject: `Receipt ${i}`, text: 'Thank you.' }, new Date());
    const sending = { smtpUrl: smtp.url, settings: { ...SETTINGS, mailFrom: 'desk@almanac.example' } };
    const sent = await Promise.all([db, other.db, db, other.db].map((one) => sendWaiting(one, sending)));
    expect(sent.reduce((a, b) => a + b)).toBe(20);
    expect(new Set(got.map((text) => /^Subject: (.*)$/m.exec(text)?.[1])).size).toBe(20);
    expect(got).toHaveLength(20);
    smtp.close();
    await other.close();
  });
});
