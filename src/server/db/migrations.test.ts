import { rmSync } from 'node:fs';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { describe, expect, it } from 'vitest';
import { barePg } from '../../../tests/support/empty-pg';
import { dayOf } from '@/core/day/day';
import { upgradeContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { FORMER_CONTENT } from '../../../tests/support/former-content';
import { until } from '../../../tests/support/migrations';
import { readSettings } from '../site/read';
import type { Db } from './client';
import * as schema from './schema';

const LISTING = '0190a1b2-0000-7000-8000-00000000000a';
const COVER = '0190a1b2-0000-7000-8000-00000000000c';
const INLINE = '0190a1b2-0000-7000-8000-00000000000d';

describe('migrations', () => {
  it('keep pictures that came before their files had formats, and know those in texts', async () => {
    const db = drizzle({ client: await barePg(), schema });
    const before = until(9);
    await migrate(db, { migrationsFolder: before });
    rmSync(before, { recursive: true });
    for (const [id, alt] of [
      [COVER, 'Fête at low tide'],
      [INLINE, ''],
    ]) {
      const sizes = JSON.stringify({ format: 1, widths: [320, 900] });
      await db.execute(
        sql`insert into picture (id, hash, alt, width, height, sizes) values (${id}, ${`hash ${id}`}, ${alt}, 900, 600, ${sizes}::jsonb)`,
      );
      for (const width of [320, 900])
        await db.execute(
          sql`insert into picture_file (picture_id, width, bytes) values (${id}, ${width}, ${Buffer.from(`${id} ${width}`)})`,
        );
    }
    const { whenWords: _words, callAddress: _address, callKind: _kind, ...second } = emptyContent();
    const content = {
      ...second,
      format: 2,
      title: 'Low-tide Walk',
      pictureId: COVER,
      text: `<p>So.</p><img src="/picture/${INLINE}/640"><img src="/picture/${COVER}/640">`,
    };
    const json = JSON.stringify(content);
    await db.execute(
      sql`insert into listing (id, address, title, working, created_at, changed_at) values (${LISTING}, 'walk', 'Low-tide Walk', ${json}::jsonb, now(), now())`,
    );
    await db.execute(sql`insert into listing_link (listing_id, copy, position, picture_id) values (${LISTING}, 'working', 0, ${COVER})`);
    const kind = '0190a1b2-0000-7000-8000-00000000000e';
    await db.execute(sql`insert into category (id, name, address, shape, ink) values (${kind}, 'Walks', 'walks', 'disc', '#2f6b1f')`);
    const top = JSON.stringify({ ...content, onTopUntil: '2027-04-01' });
    await db.execute(sql`insert into published (listing_id, address, visibility, title, short_title, summary, standing, attendance, free, cost, contact, headline,
      category_id, search, content, sequence, published_at, changed_at) values (${LISTING}, 'walk', 'public', 'Low-tide Walk', '', '', 'going-ahead', 'in-person', true,
      '{"kind":"free"}', '{}', false, ${kind}, '', ${top}::jsonb, 0, now(), now())`);
    await migrate(db, { migrationsFolder: 'migrations' });
    const sources = await db.select().from(schema.pictureSource).orderBy(schema.pictureSource.hash);
    expect(sources.map((s) => [s.hash, s.width, Buffer.from(s.bytes).toString()])).toEqual([
      [`hash ${COVER}`, 900, `${COVER} 900`],
      [`hash ${INLINE}`, 900, `${INLINE} 900`],
    ]);
    const pictures = await db.select().from(schema.picture).orderBy(schema.picture.id);
    expect(pictures.map((p) => [p.hash, p.focusX, p.version, p.crops, p.search])).toEqual([
      [`hash ${COVER}`, 0.5, 1, { format: 1 }, 'fête at low tide '],
      [`hash ${INLINE}`, 0.5, 1, { format: 1 }, ' '],
    ]);
    expect(await db.select().from(schema.pictureFile)).toEqual([]);
    const links = await db.select().from(schema.link).orderBy(schema.link.position);
    const of = (copy: string) => links.filter((l) => l.copy === copy).map((l) => `${l.position} ${l.pictureId}`);
    expect(of('working')).toEqual([`0 ${COVER}`, `100 ${INLINE}`]);
    expect(of('published').sort()).toEqual([`100 ${COVER}`, `100 ${INLINE}`]);
    const [shown] = await db.select().from(schema.published);
    expect(shown?.onTopUntil).toBe(dayOf(2027, 4, 1));
    const [row] = await db.select().from(schema.listing);
    expect([
      row?.working.format,
      row?.working.whenWords,
      row?.working.callAddress,
      row?.working.callKind,
      shown?.content.format,
      shown?.content.whenWords,
    ]).toEqual([5, '', '', 'more', 5, '']);
    expect([row?.publishAt, row?.scheduledBy, row?.scheduleWrong]).toEqual([null, '', '']);
  }, 60_000);

  it('bring contents to the names of today as the code that reads old files does, and settings with them', async () => {
    const db = drizzle({ client: await barePg(), schema });
    const before = until(21);
    await migrate(db, { migrationsFolder: before });
    rmSync(before, { recursive: true });
    const json = JSON.stringify(FORMER_CONTENT);
    await db.execute(
      sql`insert into listing (id, address, title, working, created_at, changed_at) values (${LISTING}, 'choir', 'Choir', ${json}::jsonb, now(), now())`,
    );
    await db.execute(
      sql`insert into version (id, listing_id, revision, content, what, by_name, at) values (${LISTING}, ${LISTING}, 1, ${json}::jsonb, 'made', 'Ivo', now())`,
    );
    const kept = JSON.stringify({ format: 1, content: FORMER_CONTENT, edited: false, source: null, sequence: 0 });
    const batch = sql`insert into import_batch (id, name, state, file, encoding, options, by_name, at) values (${LISTING}, 'x', 'imported', '', '', '{"format":1,"zones":{},"columns":["title","standing"]}', 'Ivo', now())`;
    await db.execute(batch);
    await db.execute(
      sql`insert into import_item (batch_id, uid, listing_id, before, revision, published) values (${LISTING}, 'u', ${LISTING}, ${kept}::jsonb, 1, false)`,
    );
    const item = JSON.stringify({ format: 1, content: { title: 'Choir', standing: 'cancelled', recurrence: FORMER_CONTENT.recurrence } });
    await db.execute(sql`insert into import_row (batch_id, n, uid, item) values (${LISTING}, 0, 'u', ${item}::jsonb)`);
    await db.execute(
      sql`insert into setting (key, value) values ('site', '{"format":1,"name":"Isles","redLetter":[{"name":"Isles Day","kind":"easter","offset":1}]}')`,
    );
    await migrate(db, { migrationsFolder: 'migrations' });

    const today = upgradeContent(FORMER_CONTENT);
    const [row] = await db.select().from(schema.listing);
    expect(row?.working).toEqual(today);
    expect((await db.select().from(schema.version))[0]?.content).toEqual(today);
    expect((await db.select().from(schema.importItem))[0]?.before).toMatchObject({ content: today, source: null });
    expect((await db.select().from(schema.importRow))[0]?.item).toMatchObject({
      format: 2,
      content: { title: 'Choir', eventStatus: 'cancelled', recurrence: today.recurrence },
    });
    expect((await db.select().from(schema.importBatch))[0]?.options.columns).toEqual(['title', 'eventStatus']);
    expect((await readSettings(db as unknown as Db)).settings).toMatchObject({
      format: 2,
      name: 'Isles',
      holidays: [{ name: 'Isles Day', kind: 'easter', offset: 1 }],
    });
  }, 60_000);

  it('name what was called an address a slug, in rows that were removed and in reports too', async () => {
    const db = drizzle({ client: await barePg(), schema });
    const before = until(24);
    await migrate(db, { migrationsFolder: before });
    rmSync(before, { recursive: true });
    const record = JSON.stringify({
      format: 1,
      row: { id: COVER, name: 'The Loft', address: 'loft' },
      listings: [],
      rooms: [],
      old: ['old-loft'],
    });
    await db.execute(
      sql`insert into place_merge (id, kind, from_id, into_id, record, by_name, at) values (${INLINE}, 'venue', ${COVER}, ${COVER}, ${record}::jsonb, 'Maud Petrel', now())`,
    );
    const input = JSON.stringify({ format: 1, differed: [{ address: 'walk', missing: 1, surplus: 0 }] });
    await db.execute(
      sql`insert into job (id, kind, state, input, by_name, started_at, changed_at) values (${LISTING}, 'rebuild', 'done', ${input}::jsonb, 'Maud Petrel', now(), now())`,
    );
    await db.execute(sql`insert into old_place (kind, address, target_id) values ('venue', 'old-loft', ${COVER})`);
    await migrate(db, { migrationsFolder: 'migrations' });
    const [merge] = await db.select().from(schema.placeMerge);
    expect(merge?.record).toEqual({
      format: 2,
      row: { id: COVER, name: 'The Loft', slug: 'loft' },
      listings: [],
      rooms: [],
      old: ['old-loft'],
    });
    expect((await db.select().from(schema.job))[0]?.input.differed).toEqual([{ slug: 'walk', missing: 1, surplus: 0 }]);
    expect((await db.select().from(schema.oldPlace))[0]?.slug).toBe('old-loft');
  });

  it('make codes of what happened, and keep words that no code says', async () => {
    const db = drizzle({ client: await barePg(), schema });
    const before = until(28);
    await migrate(db, { migrationsFolder: before });
    rmSync(before, { recursive: true });
    const said: [string, string, object][] = [
      ['listing', 'saved', { code: 'saved' }],
      ['listing', 'published changes; 12 dates ended', { code: 'publishedChanges', ended: 12 }],
      ['listing', 'brought version 3 back; 1 date ended', { code: 'restored', revision: 3, ended: 1 }],
      ['listing', 'moved to the address low-tide-walk', { code: 'moved', slug: 'low-tide-walk' }],
      ['listing', 'took changes of Tam Curlew', { code: 'tookChanges', sender: 'Tam Curlew' }],
      ['listing', '“Net Loft” merged into “Loft”', { code: 'words', text: '“Net Loft” merged into “Loft”' }],
      ['listing', 'set to be published Tue 6 Apr 2027 09:00', { code: 'words', text: 'set to be published Tue 6 Apr 2027 09:00' }],
      ['submission', 'changes taken in part', { code: 'changes taken in part' }],
      ['venue', 'taken from the bin', { code: 'outOfBin' }],
    ];
    for (const [i, [kind, what]] of said.entries())
      await db.execute(
        sql`insert into audit (id, at, by_name, what, kind, subject_id) values (${`0190a1b2-0000-7000-8000-00000000001${i}`}, now(), 'Ivo', ${what}, ${kind}, 'x')`,
      );
    await migrate(db, { migrationsFolder: 'migrations' });
    const rows = await db.select({ what: schema.audit.what }).from(schema.audit).orderBy(schema.audit.id);
    expect(rows.map(({ what }) => what)).toEqual(said.map(([, , kept]) => ({ format: 1, ...kept })));
    await db.$client.close();
  });
});
