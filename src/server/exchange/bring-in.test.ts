import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { category, importItem, listing, occurrence, organizer, published, venue } from '../db/schema';
import { rebuildIndex } from '../listings/rebuild';
import { createListing, publishListing, saveListing } from '../listings/write';
import { type Lookup, lookup } from '../public/lookup';
import type { Runtime } from '../runtime';
import { bringIn, decide, keepFile, readBatch, readBatches, readBatchFile, undoBatch } from './bring-in';
import { readMatches } from './match';
import { planImport } from './plan';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const HOST = 'almanac.example';
const STYLE = { date: 'day-month', hours: '24' } as const;
const found = (): Promise<Lookup> => lookup({ db, contentRevision: () => `import ${Math.random()}` } as unknown as Runtime);
const file = (...events: string[][]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...events.flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']), 'END:VCALENDAR'].join('\r\n');
const SLIP = [
  'UID:slip@harbour.example',
  'SUMMARY:Slip Cleaning Day',
  'DTSTART:20270403T090000',
  'DTEND:20270403T120000',
  'RRULE:FREQ=MONTHLY;BYDAY=1SA;COUNT=6',
  'LOCATION:Net Loft, Gannet Bay',
  'CATEGORIES:Music & dance',
];
const HOUSE = [
  'UID:house@harbour.example',
  'SUMMARY:Open House',
  'DTSTART;VALUE=DATE:20270410',
  'LOCATION:Old Pilot Station',
  'ORGANIZER;CN=Harbour Board:mailto:board@harbour.example',
  'CATEGORIES:Working parties',
];

async function keep(text: string): Promise<string> {
  return inTx(db, (tx) => keepFile(tx, 'isles.ics', new TextEncoder().encode(text), SETTINGS, EDITOR, NOW.ms));
}
async function planOf(id: string) {
  const batch = await readBatch(db, id);
  const read = readBatchFile(batch, SETTINGS);
  return {
    batch,
    ...(await planImport(db, {
      file: read,
      found: await found(),
      decided: await readMatches(db),
      style: STYLE,
      host: HOST,
      horizon: NOW.day + 1000,
    })),
  };
}
async function bring(text: string, publish = false, only?: string) {
  const id = await keep(text);
  const { batch, items } = await planOf(id);
  const chosen = only ? items.filter((item) => item.uid === only) : items;
  return { id, result: await inTx(db, (tx) => bringIn(tx, batch, chosen, publish, change())) };
}
const actions = async (text: string) => (await planOf(await keep(text))).items.map(({ action, title }) => `${action} ${title}`);

describe('a calendar file', () => {
  it('is looked at without writing anything, comes in, and a second run changes nothing', async () => {
    const text = file(SLIP, HOUSE);
    expect(await actions(text)).toEqual(['new Slip Cleaning Day', 'new Open House']);
    expect(await db.select().from(listing)).toEqual([]);
    const { result } = await bring(text, true);
    expect(result).toEqual({ made: 2, changed: 0, kept: [] });
    const [slip] = await db.select().from(published).where(eq(published.title, 'Slip Cleaning Day'));
    expect([slip?.venueId, slip?.categoryId]).toEqual([places.venue, places.category]);
    expect(await db.select().from(occurrence)).toHaveLength(7);
    expect(await actions(text)).toEqual(['same Slip Cleaning Day', 'same Open House']);
    const again = await problem(bring(text));
    expect(again.title).toContain('Nothing is chosen that would change anything');
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('changed since: the difference is shown, only that goes over what is here, and editors’ own changes stay', async () => {
    await bring(file(SLIP));
    const [row] = await db.select().from(listing);
    if (!row) throw new Error('nothing came in');
    await inTx(db, (tx) =>
      saveListing(
        tx,
        { id: row.id, content: { ...row.working, title: 'Slip Day', summary: 'Bring a brush.' }, revision: row.revision },
        change(),
      ),
    );
    const later = SLIP.map((line) => line.replace('T090000', 'T100000').replace('COUNT=6', 'COUNT=4')).concat('SEQUENCE:2');
    const { items, batch } = await planOf(await keep(file(later)));
    expect(items[0]?.differences.map((d) => d.what)).toEqual(['When']);
    expect(items[0]?.differences[0]?.after).toContain('10:00–12:00');
    await inTx(db, (tx) => bringIn(tx, batch, items, false, change()));
    const [after] = await db.select().from(listing);
    expect(after?.working).toMatchObject({ title: 'Slip Day', summary: 'Bring a brush.' });
    expect(after?.working.recurrence?.stretches[0]?.start).toBe('2027-04-03T10:00');
    expect(await actions(file(SLIP.concat('SEQUENCE:1')))).toEqual(['older Slip Cleaning Day']);
  });

  it('is taken back as one: what it made goes, what it changed is as before, what was worked on since stays', async () => {
    await bring(file(SLIP), true);
    const first = (await db.select().from(listing))[0];
    const { id } = await bring(
      file(
        SLIP.map((line) => line.replace('Slip Cleaning Day', 'Slip Scrubbing')),
        HOUSE,
      ),
      true,
    );
    expect((await db.select().from(published)).map((p) => p.title).sort()).toEqual(['Open House', 'Slip Scrubbing']);
    expect(await inTx(db, (tx) => undoBatch(tx, id, change()))).toEqual({ undone: 2, stayed: [] });
    expect((await db.select().from(published)).map((p) => [p.listingId, p.title])).toEqual([[first?.id, 'Slip Cleaning Day']]);
    expect((await problem(inTx(db, (tx) => undoBatch(tx, id, change())))).title).toContain('undone already');
    expect(await actions(file(SLIP))).toEqual(['same Slip Cleaning Day']);
    const next = await bring(file(HOUSE));
    const [house] = await db.select().from(listing).where(eq(listing.title, 'Open House'));
    if (!house) throw new Error('nothing came in');
    await inTx(db, (tx) =>
      saveListing(tx, { id: house.id, content: { ...house.working, summary: 'Tea.' }, revision: house.revision }, change()),
    );
    expect(await inTx(db, (tx) => undoBatch(tx, next.id, change()))).toEqual({ undone: 0, stayed: ['Open House'] });
    expect((await readBatches(db)).map((b) => b.state).sort()).toEqual(['brought-in', 'undone', 'undone']);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('asks once what its words mean, makes what is wanted, and remembers', async () => {
    const id = await keep(file(HOUSE));
    const { open, batch } = await planOf(id);
    expect(open.map(({ kind, said, events }) => `${kind} ${said} ${events}`)).toEqual([
      'category Working parties 1',
      'organizer Harbour Board 1',
      'venue Old Pilot Station 1',
    ]);
    const target = { category: places.category, organizer: 'new', venue: 'new' };
    await inTx(db, (tx) =>
      decide(
        tx,
        batch,
        open.map((o) => ({ ...o, target: target[o.kind] })),
        {},
        EDITOR,
      ),
    );
    expect((await db.select().from(organizer))[0]).toMatchObject({ name: 'Harbour Board', mail: 'board@harbour.example' });
    const { items, open: rest } = await planOf(id);
    expect(rest).toEqual([]);
    const station = (await db.select().from(venue)).find((v) => v.name === 'Old Pilot Station');
    expect(items[0]?.content).toMatchObject({ venueIds: [station?.id], categoryIds: [places.category] });
    await inTx(db, (tx) => decide(tx, batch, [{ kind: 'venue', said: 'OLD PILOT  STATION', mail: '', target: '' }], {}, EDITOR));
    expect((await planOf(await keep(file(HOUSE)))).items[0]?.content.venueIds).toEqual([]);
    expect(await db.select().from(category)).toHaveLength(1);
  });

  it('of our own making is known by its UID, and leaves what it cannot say', async () => {
    const row = await inTx(db, async (tx) => {
      const made = await createListing(
        tx,
        { ...choir(places), text: '<p>Forty <strong>voices</strong>.</p>', website: 'https://choir.example' },
        change(),
      );
      return publishListing(tx, made.id, made.revision, change());
    });
    const own = [
      `UID:${row.id}@${HOST}`,
      'SUMMARY:Harbour Choir',
      'DTSTART;TZID=America/Halifax:20270323T190000',
      'DTEND;TZID=America/Halifax:20270323T210000',
      'RRULE:FREQ=WEEKLY;BYDAY=TU;COUNT=10',
      'LOCATION:Net Loft, Gannet Bay, Gannet',
      'CATEGORIES:Music & dance',
      'DESCRIPTION:Forty voices.',
      'URL:https://almanac.example/what/harbour-choir',
    ];
    expect(await actions(file(own))).toEqual(['same Harbour Choir']);
    const moved = own.map((line) => line.replace('20270323', '20270330'));
    expect(await actions(file(moved))).toEqual(['changed Harbour Choir']);
    expect(await actions(file(own.map((line) => line.replace(HOST, 'elsewhere.example'))))).toEqual(['new Harbour Choir']);
  });

  it('is written whole or not at all, cleans what it brings, and keeps as a draft what Proof stops', async () => {
    const script = [
      'UID:x@h',
      'SUMMARY:Script',
      'DTSTART:20270403T090000',
      'X-ALT-DESC;FMTTYPE=text/html:<p onclick="x()">Hi<script>alert(1)</script></p>',
      'URL:javascript:alert(1)',
    ];
    await bring(file(script));
    expect((await db.select().from(listing))[0]?.working).toMatchObject({ text: '<p>Hi</p>', website: '' });
    const untitled = ['UID:y@h', 'DTSTART:20270403T090000'];
    const { result } = await bring(file(untitled), true);
    expect(result.kept).toHaveLength(1);
    expect(await db.select().from(published)).toEqual([]);
    const { batch, items } = await planOf(await keep(file(SLIP, HOUSE)));
    const [slip, house] = items;
    if (!slip || !house) throw new Error('not planned');
    const before = (await db.select().from(listing)).length;
    await expect(
      inTx(db, (tx) =>
        bringIn(
          tx,
          batch,
          [slip, { ...house, content: { ...house.content, venueIds: ['01890000-0000-7000-8000-000000000000'] } }],
          false,
          change(),
        ),
      ),
    ).rejects.toThrow();
    expect(await db.select().from(listing)).toHaveLength(before);
    expect(await db.select().from(importItem)).toHaveLength(2);
  });

  it('that is none, is empty or is too large is refused with the reason, and an unknown one is not found', async () => {
    expect((await problem(keep('hello'))).title).toContain('no iCalendar file');
    expect((await problem(keep(''))).title).toContain('Choose a file');
    expect((await problem(inTx(db, (tx) => keepFile(tx, 'x', new Uint8Array(9_000_000), SETTINGS, EDITOR, NOW.ms)))).status).toBe(413);
    expect((await problem(readBatch(db, '01890000-0000-7000-8000-000000000000'))).status).toBe(404);
    const { batch, items } = await planOf(await keep(file(SLIP)));
    await inTx(db, (tx) => bringIn(tx, batch, items, false, change()));
    const { batch: done } = await planOf(batch.id);
    expect((await problem(inTx(db, (tx) => bringIn(tx, done, items, false, change())))).status).toBe(409);
  });
});
