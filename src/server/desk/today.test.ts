import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { outbox, remark } from '../db/schema';
import { newId } from '../db/ids';
import { createListing, publishListing, saveListing } from '../listings/write';
import { ContentCache } from '../site/content-cache';
import { readToday } from './today';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const COORDINATOR: Actor = { id: 'u1', name: 'Maud Petrel', role: 'coordinator' };
const CONTRIBUTOR: Actor = { id: 'u2', name: 'Nan Skerrit', role: 'contributor' };
let states = 0;
const read = (actor: Actor = COORDINATOR) => {
  const state = (): string => String(states++);
  return readToday({ db, cache: new ContentCache(state, state), now: () => NOW, settings: () => SETTINGS }, actor);
};
const { day } = NOW;

/** A listing at ten o'clock on these days. */
const on = (title: string, ...days: number[]): ListingContent =>
  choir(places, {
    title,
    recurrence: {
      format: 3,
      zone: SETTINGS.zone,
      parts: days.map((one) => ({
        start: `${isoDay(one)}T10:00`,
        length: { days: 0, minute: 660 },
        rule: null,
        limit: { kind: 'open' as const },
      })),
      exdates: [],
      breaks: [],
    },
  });
const publish = async (content: ListingContent) => {
  const row = await inTx(db, (tx) => createListing(tx, content, change()));
  return inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
};
const titles = (dates: { title: string }[]): string[] => dates.map(({ title }) => title);

describe('a day at the Desk', () => {
  it('has what is on today and tomorrow, published alone', async () => {
    await publish(on('Rope Hour', day));
    await publish(on('Slip Talk', day + 1));
    await publish(on('Net Supper', day + 2));
    await inTx(db, (tx) => createListing(tx, on('A Draft', day), change()));
    const { today, tomorrow } = await read();
    expect([titles(today), titles(tomorrow)]).toEqual([['Rope Hour'], ['Slip Talk']]);
  });
  it('counts what waits, each with where it is, and nothing that does not', async () => {
    expect((await read()).waiting).toEqual([]);
    const row = await publish(on('Rope Hour', day + 3));
    await inTx(db, (tx) => saveListing(tx, { id: row.id, content: on('Rope Hour anew', day + 3), revision: row.revision }, change()));
    await inTx(db, (tx) => createListing(tx, on('A Draft', day + 5), change()));
    await inTx(db, (tx) => createListing(tx, on('A Far Draft', day + 60), change()));
    const at = new Date(NOW.ms);
    const mail = { to: 'ada@almanac.example', subject: 'Tide', text: 'High at noon.', createdAt: at };
    await db.insert(outbox).values([
      { ...mail, id: newId(), tries: 5, failure: 'refused' },
      { ...mail, id: newId(), tries: 1, failure: 'refused' },
      { ...mail, id: newId(), tries: 5, sentAt: at },
    ]);
    await db
      .insert(remark)
      .values({ id: newId(), listingId: row.id, date: '', message: 'It is at nine', senderName: '', senderMail: '', sentAt: at });
    const said = async (actor: Actor) => (await read(actor)).waiting.map(({ matter, n, href }) => [matter, n, href]);
    const edited = ['edited', 1, '/desk/listings?stage=edited'];
    const drafts = ['drafts', 1, '/desk/listings?stage=draft&next=30'];
    expect(await said(COORDINATOR)).toEqual([['remarks', 1, '/desk/remarks'], ['mails', 1, '/desk/mail'], edited, drafts]);
    expect(await said(EDITOR)).toEqual([['remarks', 1, '/desk/remarks'], edited, drafts]);
    // Others' listings are not a contributor's.
    expect(await said(CONTRIBUTOR)).toEqual([]);
  });
  it('names series that end within a month, the next to end first; not single dates, nor what goes on or is over', async () => {
    await publish(on('Ends Later', day - 7, day, day + 20));
    await publish(on('Ends First', day - 7, day, day + 7));
    await publish(on('Goes On', day, day + 10, day + 31));
    await publish(on('Is Over', day - 20, day - 10, day - 1));
    await publish(on('Two Dates', day, day + 1));
    const { ending, moreEnding } = await read();
    expect([ending.map(({ title, lastDay }) => [title, lastDay - day]), moreEnding]).toEqual([
      [
        ['Ends First', 7],
        ['Ends Later', 20],
      ],
      0,
    ]);
    expect((await read(CONTRIBUTOR)).ending).toEqual([]);
  });
  it('knows whether there is a listing that somebody may open', async () => {
    expect([(await read()).begun, (await read(CONTRIBUTOR)).begun]).toEqual([false, false]);
    await inTx(db, (tx) => createListing(tx, on('A Draft', day + 5), change()));
    expect([(await read()).begun, (await read(CONTRIBUTOR)).begun]).toEqual([true, false]);
  });
});
