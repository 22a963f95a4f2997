import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, seedPlaces } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { createListing } from '../listings/write';
import { uidHost } from './uid-host';

let db: Db;
beforeEach(async () => {
  db = await freshDb();
});

describe('the part of UIDs behind the @', () => {
  it('is the host of the address where there is one, and stays when that changes or goes', async () => {
    expect(await uidHost(db, 'https://isles.example')).toBe('isles.example');
    expect([await uidHost(db, 'https://other.example'), await uidHost(db, '')]).toEqual(['isles.example', 'isles.example']);
  });
  it('is nobody’s where a new site has no address, and stays when it gets one', async () => {
    const host = await uidHost(db, '');
    expect(host).toMatch(/^[0-9a-f]{12}\.invalid$/);
    expect(await uidHost(db, 'https://isles.example')).toBe(host);
  });
  it('is what its calendars had so far where there are listings already', async () => {
    const places = await seedPlaces(db);
    await inTx(db, (tx) => createListing(tx, choir(places), change()));
    expect(await uidHost(db, '')).toBe('almanac.example');
  });
});
