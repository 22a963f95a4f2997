import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, seedPlaces } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { user } from '../db/schema';
import { createListing, moveToStage } from '../listings/write';
import { findGoals } from './go';

let db: Db;
let places: Places;
const NAN: Actor = { id: 'nan', name: 'Nan Tern', role: 'contributor' };
const MAUD: Actor = { id: null, name: 'Maud Petrel', role: 'coordinator' };
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  await db.insert(user).values({ id: 'nan', name: 'Nan Tern', email: 'nan@almanac.example' });
});
const make = (title: string, by: Actor = EDITOR) => inTx(db, (tx) => createListing(tx, choir(places, { title }), change(by)));
const names = async (actor: Actor, typed: string) => (await findGoals(siteOf(db), actor, typed)).map((g) => `${g.kind} ${g.name}`);

describe('“Go to”', () => {
  it('finds pages, listings, venues and categories, with slips', async () => {
    const { id } = await make('Harbour Choir');
    const binned = await make('Harbour Swim');
    await inTx(db, (tx) => moveToStage(tx, binned.id, 'binned', change()));
    const [first] = await findGoals(siteOf(db), EDITOR, 'harbuor');
    expect(first).toEqual({ kind: 'listing', name: 'Harbour Choir', more: 'draft, Tue 23 Mar', href: `/desk/listings/${id}` });
    expect(await names(EDITOR, 'harbour')).toEqual(['listing Harbour Choir']);
    expect(await names(EDITOR, 'net lof')).toEqual(['venue Net Loft']);
    expect(await names(EDITOR, 'music')).toEqual(['category Music & dance']);
    expect(await names(EDITOR, 'import')).toEqual(['page Import']);
    expect(await names(EDITOR, 'xylophone')).toEqual([]);
  });
  it('shows nobody what they may not open', async () => {
    await make('Harbour Choir');
    await make('Harbour Walk', NAN);
    expect(await names(NAN, 'harbour')).toEqual(['listing Harbour Walk']);
    expect(await names(NAN, 'net loft')).toEqual([]);
    expect((await names(NAN, '')).sort()).toEqual([
      'command Type a listing',
      'page Listings',
      'page Pictures',
      'page The bin',
      'page Today',
      'page What readers see',
    ]);
    expect(await names(EDITOR, 'people')).not.toContain('page People');
    expect(await names(MAUD, 'people')).toContain('page People');
  });
});
