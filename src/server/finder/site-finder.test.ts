import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { NO_FILTERS } from '@/core/filters/filters';
import { sql } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { isoDay } from '@/core/day/day';
import type { Finder } from '@/core/finder/finder';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { job as jobTable, listing } from '../db/schema';
import { changeSlug, createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { tidy } from '../listings/tidy';
import { readDates } from '../public/public-dates';
import { referenceData } from '../reference/read';
import { ContentCache } from '../site/content-cache';
import { findOrMakeTag, mergeTag } from '../tags/write';
import { SiteFinder } from './site-finder';

const seed = seedOf();
const AGES = { from: NOW.day - 400, to: NOW.day + 2000 };

describe(`a site's finder, seed ${seed}`, () => {
  let db: Db;
  let places: Places;
  let revision: number;
  let said: string[];
  let clock: number;
  let finder: SiteFinder;

  beforeEach(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
    revision = 0;
    said = [];
    clock = 0;
    finder = finderOver(db);
  });

  const finderOver = (over: Db): SiteFinder =>
    new SiteFinder({
      db: over,
      revision: () => String(revision),
      log: { info: () => undefined, error: (_of, message) => void said.push(message) },
      clock: () => clock,
    });
  const found = (of: Finder | undefined) => of?.find({ span: AGES, conditions: [] });
  const stored = async () => {
    const reference = await referenceData({ db, cache: new ContentCache(() => String(Math.random())), settings: () => DEFAULT_SETTINGS });
    return readDates(db, AGES, NO_FILTERS, { reference, currency: 'CAD', around: undefined });
  };
  const titles = async (): Promise<string[]> => [...new Set(found(await finder.current())?.map(({ title }) => title))].sort();
  const publish = async (part: Partial<ListingContent>): Promise<string> => {
    const row = await inTx(db, (tx) => createListing(tx, choir(places, part), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    return row.id;
  };

  it('has what is published as soon as it is, and nothing that is not', async () => {
    await publish({ title: 'Before' });
    await inTx(db, (tx) => createListing(tx, choir(places, { title: 'A draft' }), change()));
    expect(await finder.current(), 'while it is made, the database is asked').toBeUndefined();
    expect(finder.build, 'what is answered now is answered without it').toBe(0);
    await finder.made();
    expect(finder.build).toBe(1);
    expect(await titles()).toEqual(['Before']);
    await publish({ title: 'By address only', visibility: 'address-only' });
    const id = await publish({ title: 'After' });
    expect(await titles(), 'nobody said that something changed').toEqual(['Before']);
    revision++;
    expect(await titles()).toEqual(['After', 'Before']);
    await inTx(db, (tx) => moveToStage(tx, id, 'withdrawn', change()));
    revision++;
    expect(await titles()).toEqual(['Before']);
    expect(said).toEqual([]);
  });

  it('keeps nobody waiting longer than they want', async () => {
    const never = new Proxy(db, { get: (of, name) => (name === 'execute' ? () => new Promise(() => undefined) : Reflect.get(of, name)) });
    expect(await finderOver(never).made(5)).toBeUndefined();
    expect((await finder.made(60_000))?.listings).toBe(0);
  });

  it('has nothing that a job still brings in, and all of it when the job is done', async () => {
    await finder.made();
    const id = await publish({ title: 'Brought in' });
    const job = newId();
    const at = new Date(NOW.ms);
    const values = { id: job, kind: 'import' as const, state: 'running' as const, hidden: true, input: { format: 1 as const } };
    await db.insert(jobTable).values({ ...values, byName: 'Ivo', startedAt: at, changedAt: at });
    await db.execute(sql`update published set job_id = ${job} where listing_id = ${id}`);
    revision++;
    expect(await titles()).toEqual([]);
    await db.execute(sql`update job set hidden = false where id = ${job}`);
    revision++;
    expect(await titles()).toEqual(['Brought in']);
  });

  it('is the database’s answer after any number of changes of any kind', async () => {
    const r = random(seed);
    const ids: string[] = [];
    const tag = await inTx(db, (tx) => findOrMakeTag(tx, 'in the dark', EDITOR));
    await finder.made();
    for (let i = 0; i < rounds(120); i++) {
      const id = ids.length ? pick(r, ids) : '';
      const [row] = id ? await db.select().from(listing).where(sql`id = ${id}`) : [];
      const kind = row ? pick(r, ['publish', 'save', 'save and publish', 'withdraw', 'move', 'bin', 'tag'] as const) : 'publish';
      const part: Partial<ListingContent> = {
        title: `${pick(r, ['Harbour', 'Lantern'])} ${i}`,
        headline: r() < 0.3,
        tagIds: r() < 0.3 ? [tag.id] : [],
      };
      if (!row || kind === 'publish') ids.push(await publish(part));
      else if (kind === 'withdraw' || kind === 'bin')
        await inTx(db, (tx) => moveToStage(tx, id, kind === 'bin' ? 'binned' : 'withdrawn', change())).catch(() => undefined);
      else if (kind === 'move') await inTx(db, (tx) => changeSlug(tx, id, `moved-${i}`, change()));
      else if (kind === 'tag') await db.execute(sql`update published set headline = not headline where listing_id = ${id}`);
      else {
        const start = `${isoDay(NOW.day + between(r, 0, 30))}T1${between(r, 0, 9)}:00`;
        const recurrence = choir(places).recurrence as NonNullable<ListingContent['recurrence']>;
        const moved = {
          ...recurrence,
          parts: recurrence.parts.map((p) => ({ ...p, start, rule: null, limit: { kind: 'open' as const } })),
        };
        const content = choir(places, { ...part, recurrence: moved });
        const saved = await inTx(db, (tx) => saveListing(tx, { id, content, revision: row.revision }, change()));
        if (kind === 'save and publish') await inTx(db, (tx) => publishListing(tx, id, saved.revision, change()));
      }
      if (r() < 0.6) continue;
      revision++;
      expect(found(await finder.current()), `step ${i}`).toEqual(await stored());
    }
    await inTx(db, (tx) => mergeTag(tx, tag.id, null, change()));
    revision++;
    expect(found(await finder.current())).toEqual(await stored());
    expect(await finder.check()).toBe(true);
  });

  it('is made anew where it disagrees, where much changed at once, and where it did not ask for long', async () => {
    await publish({ title: 'One' });
    await finder.made();
    await publish({ title: 'Half' });
    expect(await finder.check(), 'written, and nobody was told yet').toBe(true);
    expect(said).toEqual([]);
    await publish({ title: 'Two' });
    await db.execute(sql`delete from finder_change`);
    revision++;
    expect(await titles(), 'a note was lost').toEqual(['Half', 'One']);
    expect(await finder.check()).toBe(false);
    expect(said).toHaveLength(1);
    await finder.made();
    expect(await titles()).toEqual(['Half', 'One', 'Two']);

    await publish({ title: 'Three' });
    clock += 46 * 60_000;
    revision++;
    expect(await finder.current(), 'notes may be gone').toBeUndefined();
    await finder.made();
    expect(await titles()).toEqual(['Half', 'One', 'Three', 'Two']);

    await db.execute(sql`insert into finder_change (listing_id) select gen_random_uuid() from generate_series(1, 401)`);
    revision++;
    expect(await finder.current(), 'too many').toBeUndefined();
    await finder.made();
    expect(await titles()).toEqual(['Half', 'One', 'Three', 'Two']);
  });

  it('stays as it is while the database cannot be asked, and tells whoever asks', async () => {
    await publish({ title: 'One' });
    let broken = false;
    const over = new Proxy(db, {
      get: (of, name, self) => {
        if (name === 'execute' && broken) return async () => Promise.reject(new Error('gone'));
        return Reflect.get(of, name, self) as unknown;
      },
    });
    finder = finderOver(over);
    await finder.made();
    await publish({ title: 'Two' });
    revision++;
    broken = true;
    await expect(finder.current()).rejects.toThrow('gone');
    broken = false;
    expect(await titles()).toEqual(['One', 'Two']);
    broken = true;
    const other = finderOver(over);
    expect(await other.made()).toBeUndefined();
    expect(said).toHaveLength(1);
    broken = false;
    expect(await other.made(), 'it rests after a failure').toBeUndefined();
    clock += 11_000;
    expect(found(await other.made())).toHaveLength(20);
  });

  it('asks for what is written while it is made', async () => {
    await publish({ title: 'One' });
    const making = finder.made();
    const id = await publish({ title: 'Two' });
    revision++;
    await making;
    expect(await titles()).toEqual(['One', 'Two']);
    await inTx(db, (tx) => moveToStage(tx, id, 'withdrawn', change()));
    revision++;
    // Many ask at once: the change is taken over once, and all have it.
    const all = await Promise.all(Array.from({ length: 20 }, () => finder.current()));
    expect(new Set(all.map((of) => found(of)?.length))).toEqual(new Set([10]));
  });

  it('leaves notes for an hour', async () => {
    await publish({ title: 'One' });
    const count = async () =>
      ((await db.execute(sql`select count(*)::int as n from finder_change`)) as unknown as { rows: { n: number }[] }).rows[0]?.n;
    expect(await count()).toBeGreaterThan(0);
    await inTx(db, (tx) => tidy(tx, new Date(NOW.ms), new Date()));
    expect(await count()).toBeGreaterThan(0);
    await inTx(db, (tx) => tidy(tx, new Date(NOW.ms), new Date(Date.now() + 3_700_000)));
    expect(await count()).toBe(0);
  });
});
