import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, NOW, seedPlaces } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import type { Db } from '../db/client';
import { createListing, publishListing } from '../listings/write';
import { keepPicture } from '../pictures/take-in';
import { checkSite } from './check';

describe('a look at what is derived', () => {
  let db: Db;
  beforeEach(async () => {
    db = await freshDb();
    const places = await seedPlaces(db);
    const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#357' } })
      .jpeg()
      .toBuffer();
    const sent = { name: 'tide.jpg', bytes, alt: 'The tide', credit: '', ownerId: null, at: new Date(NOW.ms) };
    const { picture } = await keepPicture(siteOf(db), sent);
    for (const title of ['Harbour Choir', 'Lantern Walk']) {
      const text = `<p>So.</p><img src="/picture/${picture.id}/640">`;
      const row = await inTx(db, (tx) => createListing(tx, choir(places, { title, text, pictureId: picture.id }), change()));
      if (title === 'Harbour Choir') await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    }
  });
  const look = (mend = false) => checkSite(db, { mend, today: NOW.day });

  it('finds nothing where all is as it should be', async () => {
    expect(await look()).toEqual({ listings: 2, pictures: 1, differences: [], count: 0 });
  });

  it.each([
    ['links', `delete from listing_link where copy = 'published'`, 'published'],
    ['links', `update listing_link set position = position + 1 where copy = 'working' and venue_id is not null`, 'working'],
    ['published', `update published set search = 'tide', free = not free`, 'free, search'],
    ['next', `update listing set next_day = next_day + 1 where slug = 'harbour-choir'`, ''],
    ['picture-words', `update picture set search = ''`, ''],
  ])('finds and mends %s', async (part, wrong, what) => {
    await db.execute(sql.raw(wrong));
    const found = await look();
    expect(found.differences[0]).toMatchObject({ part, what, mended: false });
    expect((await look()).count, 'a look changes nothing').toBe(found.count);
    expect((await look(true)).differences.every(({ mended }) => mended)).toBe(true);
    expect((await look()).differences).toEqual([]);
  });

  it('says which picture is lost, and that it cannot be mended', async () => {
    await db.execute(sql`update picture_source set bytes = substring(bytes from 1 for 40)`);
    expect((await look(true)).differences).toEqual([{ part: 'picture-bytes', name: 'The tide', what: '', mended: false }]);
  });
});
