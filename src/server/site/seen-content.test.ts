import { sql } from 'drizzle-orm';
import { getTableName, is } from 'drizzle-orm';
import { PgTable } from 'drizzle-orm/pg-core';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, seedPlaces } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import * as schema from '../db/schema';
import { changeSlug, createListing, publishListing, saveListing } from '../listings/write';
import { queueMail } from '../mail/outbox';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { SeenContent } from './seen-content';

/** What changes without readers seeing anything of it. */
const UNSEEN = [
  'account_credential',
  'account_session',
  'account_user',
  'account_verification',
  // Looked up where an editor types; readers see what a venue keeps of it.
  'address_file',
  'address_street',
  'audit',
  'bulk_item',
  'bulk_run',
  'edit',
  'import_batch',
  'import_columns',
  'import_item',
  'import_match',
  'import_row',
  'import_source',
  'invitation',
  // The working copies; readers have `published`.
  'listing',
  'listing_copy',
  'old_address',
  'outbox',
  // What it puts right stands in the venues and listings themselves.
  'place_merge',
  // Derived from their pictures' rows.
  'picture_file',
  'picture_source',
  'rate_bound',
  'rate_limit',
  'remark',
  'saved_view',
  'submission',
  'validation_note',
  'validation_state',
  'validation_waiver',
  'version',
];

describe('the state of what readers may see', () => {
  let db: Db;
  let places: Places;
  let seen: SeenContent;
  beforeEach(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
    seen = new SeenContent(db);
    await seen.follow();
  });
  const rises = async (write: (tx: Db) => Promise<unknown>): Promise<boolean> => {
    const before = seen.revision;
    await inTx(db, write);
    await seen.follow();
    return seen.revision > before;
  };

  it('is noted by the database for every table but those that are known to be unseen', async () => {
    const tables = Object.values(schema as Record<string, unknown>)
      .filter((one): one is PgTable => is(one, PgTable))
      .map(getTableName);
    const noted = await queryRows<{ name: string }>(
      db,
      sql`select distinct event_object_table as name from information_schema.triggers where action_statement ~ 'note_'`,
    );
    const known = new Set([...noted.map(({ name }) => name), ...UNSEEN, 'finder_change']);
    expect(tables.filter((name) => !known.has(name))).toEqual([]);
    expect(UNSEEN.filter((name) => !tables.includes(name) || noted.some((one) => one.name === name))).toEqual([]);
  });

  it('stays while drafts are written, versions kept and mails queued', async () => {
    let id = '';
    expect(
      await rises(async (tx) => {
        ({ id } = await createListing(tx, choir(places), change()));
        await queueMail(tx, { to: 'rue@dunlin.example', subject: 'Taken', text: 'Read.' }, new Date());
      }),
    ).toBe(false);
    expect(await rises((tx) => saveListing(tx, { id, content: choir(places, { title: 'Choir, later' }), revision: 1 }, change()))).toBe(
      false,
    );
    expect(await rises((tx) => publishListing(tx, id, 2, change()))).toBe(true);
    // What is worked on beside the published copy.
    expect(
      await rises((tx) => saveListing(tx, { id, content: choir(places, { title: 'Choir, later still' }), revision: 3 }, change())),
    ).toBe(false);
    expect(await rises((tx) => changeSlug(tx, id, 'choir-at-last', change()))).toBe(true);
  });

  it('changes with venues, kinds, settings and pictures, and when the database could not be asked', async () => {
    expect(await rises((tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Slip Shed' }, EDITOR))).toBe(true);
    for (const table of ['category', 'venue', 'organizer', 'tag', 'setting'])
      expect(await rises((tx) => tx.execute(sql.raw(`insert into ${table} select * from ${table} limit 0`))), table).toBe(false);
    expect(await rises((tx) => tx.execute(sql`update category set name = name`))).toBe(true);
    // A picture that comes in is shown nowhere yet; what is done to one may be.
    const picture = sql`insert into picture (id, hash, width, height) values (gen_random_uuid(), 'h', 1, 1)`;
    await db.execute(sql`insert into picture_source (hash, width, height, bytes) values ('h', 1, 1, '')`);
    expect(await rises((tx) => tx.execute(picture))).toBe(false);
    expect(await rises((tx) => tx.execute(sql`update picture set version = 2`))).toBe(true);
    const broken = new SeenContent({ execute: () => Promise.reject(new Error('gone')) } as unknown as Db);
    await broken.follow();
    const before = broken.revision;
    await broken.follow();
    expect(broken.revision).toBeGreaterThan(before);
  });

  it('changes when a transaction that began first ends last', async () => {
    await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Slip Shed' }, EDITOR));
    await seen.follow();
    const before = seen.revision;
    // As the note of the earlier one comes to light: one more, with a smaller number.
    await db.execute(sql`insert into finder_change (id, listing_id) values (-1, null)`);
    await seen.follow();
    expect(seen.revision).toBeGreaterThan(before);
  });
});
