import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { HOST, siteOf, tableOf } from '../../../tests/support/site';
import type { Db } from '../db/client';
import { category, importItem, importRow, job, listing, occurrence, organizer, published, venue } from '../db/schema';
import { cancelJob, type Job } from '../jobs/runner';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, publishListing, saveListing } from '../listings/write';
import { findPublished } from '../public/listing';
import type { Runtime } from '../runtime-type';
import { importing, readBatches, startImport, startImportUndo } from './import-jobs';
import { answerRows, readPreview } from './import-preview';
import { decide } from './import-decisions';
import type { Planned } from './import-plan';
import { choose, keepFile, look, readBatch } from './import-file';

let db: Db;
let places: Places;
let site: Runtime;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  site = siteOf(db);
});

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

const keep = (text: string): Promise<string> => keepFile(site, { name: 'isles.ics', bytes: new TextEncoder().encode(text) }, EDITOR);

type Shown = Planned & { n: number; chosen: boolean };
async function planOf(id: string): Promise<{ items: Shown[]; open: string[] }> {
  const { summary } = await readBatch(db, id);
  const { rows } = await readPreview(site, id, { action: '', page: 1 });
  return { items: rows, open: (summary?.open ?? []).map(({ kind, said, events }) => `${kind} ${said} ${events}`) };
}
async function ended(id: string): Promise<Job> {
  return site.jobs.wait(id, 20_000);
}
async function bringKept(id: string, publish = false): Promise<Job['input']> {
  const { input, state } = await ended(await inTx(db, (tx) => startImport(tx, id, publish, change())));
  expect(state).toBe('done');
  return input;
}
async function bring(text: string, publish = false) {
  const id = await keep(text);
  return { id, result: await bringKept(id, publish) };
}
async function takeBack(id: string): Promise<{ undone: number; stayed: string[] }> {
  const { input } = await ended(await inTx(db, (tx) => startImportUndo(tx, id, change())));
  return { undone: input.made ?? 0, stayed: (input.kept ?? []).map((k) => k.title) };
}
const actions = async (text: string) => (await planOf(await keep(text))).items.map(({ action, title }) => `${action} ${title}`);

describe('whose event a row is', () => {
  const table = (...rows: string[]) => ['Id,Title,Date,Venue', ...rows].join('\n');
  const keepAs = (name: string, text: string): Promise<string> => keepFile(site, { name, bytes: new TextEncoder().encode(text) }, EDITOR);
  const seen = async (id: string) =>
    (await planOf(id)).items.map(({ action, title, doubt }) => `${action} ${title}${doubt ? `: ${doubt}` : ''}`);
  const sayAll = async (id: string, answer: 'same' | 'new') => {
    const context = await site.jobContext();
    return inTx(db, (tx) => answerRows(tx, id, 'all', answer, context));
  };
  const titles = async () => (await db.select().from(listing)).map((l) => l.title).sort();

  it('two clubs’ tables with the same numbers are different events, and neither changes the other’s', async () => {
    const choir = await keepAs('choir 2027.csv', table('1,Harbour Choir,2027-04-01,Net Loft', '2,Choir Tea,2027-04-08,Net Loft'));
    await bringKept(choir);
    const boats = await keepAs('skiffs.csv', table('1,Skiff Race,2027-05-01,Net Loft', '2,Skiff Supper,2027-05-02,Net Loft'));
    expect(await seen(boats)).toEqual(['new Skiff Race', 'new Skiff Supper']);
    await bringKept(boats);
    expect(await titles()).toEqual(['Choir Tea', 'Harbour Choir', 'Skiff Race', 'Skiff Supper']);
    // The same club's next file changes its own; a number that stands for something else now is asked about.
    const next = await keepAs('choir (2).csv', table('1,Harbour Choir,2027-04-02,Net Loft', '2,Summer Outing,2027-07-01,Net Loft'));
    expect(await seen(next)).toEqual(['changed Harbour Choir', 'maybe Summer Outing: Under this name came “Choir Tea” the last time.']);
    await bringKept(next);
    expect(await titles()).toEqual(['Choir Tea', 'Harbour Choir', 'Skiff Race', 'Skiff Supper']);
    const answered = await keepAs('choir (3).csv', table('2,Summer Outing,2027-07-01,Net Loft'));
    expect(await sayAll(answered, 'new')).toBe(1);
    expect(await seen(answered)).toEqual(['new Summer Outing']);
    expect((await readBatch(db, answered)).summary?.counts).toEqual({ new: 1 });
  });

  it('a row number in a table, and a place in a calendar, are no identity', async () => {
    await bringKept(await keepAs('a.csv', 'No,Title,Date\n1,Low-tide Walk,2027-04-01'));
    const other = await keepAs('a.csv', 'No,Title,Date\n1,Seed Swap,2027-04-10');
    expect(await seen(other)).toEqual(['new Seed Swap']);
    const bare = (title: string) => file([`SUMMARY:${title}`, 'DTSTART:20270601T100000']);
    await bring(bare('Rope Day'));
    expect(await actions(bare('Net Day'))).toEqual(['new Net Day']);
  });

  it('what is here already by its title and first day, or by its UID from elsewhere, is asked, and changed only after a yes', async () => {
    await bring(file(SLIP));
    const again = await keepAs('other club.ics', file(SLIP.map((line) => line.replace('T120000', 'T130000'))));
    expect(await seen(again)).toEqual(['maybe Slip Cleaning Day: It came before from “isles”, with the same UID.']);
    expect((await problem(bringKept(again))).title).toContain('Nothing is chosen');
    const like = await keepAs('board.csv', table('9,Slip cleaning day,2027-04-03,Net Loft'));
    expect((await seen(like))[0]).toMatch(/^maybe Slip cleaning day: A listing of this title is here already/);
    await sayAll(again, 'same');
    expect(await seen(again)).toEqual(['changed Slip Cleaning Day']);
    expect(await bringKept(again)).toMatchObject({ made: 0, changed: 1 });
    expect(await db.select().from(listing)).toHaveLength(1);
  });
});

describe('a calendar file', () => {
  it('is looked at without writing anything, comes in, and a second run changes nothing', async () => {
    const text = file(SLIP, HOUSE);
    expect(await actions(text)).toEqual(['new Slip Cleaning Day', 'new Open House']);
    expect(await db.select().from(listing)).toEqual([]);
    const { result } = await bring(text, true);
    expect(result).toMatchObject({ made: 2, kept: [] });
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
    const id = await keep(file(later));
    const { items } = await planOf(id);
    expect(items[0]?.differences.map((d) => d.what)).toEqual(['When']);
    expect(items[0]?.differences[0]?.after).toContain('10:00–12:00');
    await bringKept(id);
    const [after] = await db.select().from(listing);
    expect(after?.working).toMatchObject({ title: 'Slip Day', summary: 'Bring a brush.' });
    expect(after?.working.recurrence?.parts[0]?.start).toBe('2027-04-03T10:00');
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
    expect(await takeBack(id)).toEqual({ undone: 2, stayed: [] });
    expect((await db.select().from(published)).map((p) => [p.listingId, p.title])).toEqual([[first?.id, 'Slip Cleaning Day']]);
    expect((await problem(inTx(db, (tx) => startImportUndo(tx, id, change())))).title).toContain('undone already');
    expect(await actions(file(SLIP))).toEqual(['same Slip Cleaning Day']);
    const next = await bring(file(HOUSE));
    const [house] = await db.select().from(listing).where(eq(listing.title, 'Open House'));
    if (!house) throw new Error('nothing came in');
    await inTx(db, (tx) =>
      saveListing(tx, { id: house.id, content: { ...house.working, summary: 'Tea.' }, revision: house.revision }, change()),
    );
    expect(await takeBack(next.id)).toEqual({ undone: 0, stayed: ['Open House'] });
    // What stays is its editor's own from now on, and seen.
    expect((await tableOf(db)).rows.map((r) => r.title)).toContain('Open House');
    expect((await readBatches(db)).map((b) => b.state).sort()).toEqual(['imported', 'undone', 'undone']);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('asks once what its words mean, makes what is wanted, and remembers', async () => {
    const id = await keep(file(HOUSE));
    expect((await planOf(id)).open).toEqual(['category Working parties 1', 'organizer Harbour Board 1', 'venue Old Pilot Station 1']);
    const batch = await readBatch(db, id);
    const target = { category: places.category, organizer: 'new', venue: 'new' };
    const decisions = (batch.summary?.open ?? []).map((o) => ({ ...o, target: target[o.kind] }));
    await inTx(db, (tx) => decide(tx, batch, decisions, {}, EDITOR));
    await look(site, id, EDITOR, 1);
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
    expect(await actions(file(own.map((line) => line.replace(HOST, 'elsewhere.example'))))).toEqual(['maybe Harbour Choir']);
  });

  it('is cleaned, and stays a draft where Proof stops it', async () => {
    const script = [
      'UID:x@h',
      'SUMMARY:Script',
      'DTSTART:20270403T090000',
      'X-ALT-DESC;FMTTYPE=text/html:<p onclick="x()">Hi<script>alert(1)</script></p>',
      'URL:javascript:alert(1)',
    ];
    await bring(file(script));
    expect((await db.select().from(listing))[0]?.working).toMatchObject({ text: '<p>Hi</p>', website: '' });
    const { result } = await bring(file(['UID:y@h', 'DTSTART:20270403T090000']), true);
    expect(result.kept).toHaveLength(1);
    expect(await db.select().from(published)).toEqual([]);
    expect(await db.select().from(importItem)).toHaveLength(2);
  });

  it('that is none, is empty or is too large is refused with the reason, and an unknown one is not found', async () => {
    expect((await problem(keep('hello'))).title).toContain('This is no table');
    expect((await problem(keep('BEGIN:VCARD\nEND:VCARD'))).title).toContain('not a calendar file');
    expect((await problem(keep(''))).title).toContain('Choose a file');
    const large = { name: 'x', bytes: new Uint8Array(21_000_000) };
    expect((await problem(keepFile(site, large, EDITOR))).kind).toBe('too-large');
    expect((await problem(readBatch(db, '01890000-0000-7000-8000-000000000000'))).kind).toBe('missing');
    const { id } = await bring(file(SLIP));
    expect((await problem(inTx(db, (tx) => startImport(tx, id, false, change())))).kind).toBe('conflict');
    const other = await keep(file(HOUSE));
    await inTx(db, (tx) => choose(tx, other, [0], new Set()));
    expect((await problem(inTx(db, (tx) => startImport(tx, other, false, change())))).title).toContain('Nothing is chosen');
    await inTx(db, (tx) => choose(tx, other, [0], new Set([0])));
    expect(await bringKept(other)).toMatchObject({ made: 1 });
  });
});

/** So many events, each with three dates. */
const many = (count: number): string =>
  file(
    ...Array.from({ length: count }, (_, i) => [
      `UID:many-${i}@harbour.example`,
      `SUMMARY:Watch ${i % 7}`,
      'DTSTART;TZID=America/Halifax:20270403T090000',
      'RRULE:FREQ=WEEKLY;COUNT=3',
      'LOCATION:Net Loft',
    ]),
  );
const seen = async (): Promise<string[]> => [
  ...(await tableOf(db)).rows.map((r) => r.title),
  ...((await findPublished(db, 'watch-0')) ? ['page'] : []),
];

describe('many listings', () => {
  it('come in by pieces that nobody sees, and are all seen with one update; they go the same way', async () => {
    const looks: number[] = [];
    const watching = siteOf(db, {
      works: {
        import: {
          ...importing,
          step: async (tx, row, size, context) => {
            const step = await importing.step(tx, row, Math.min(size, 9), context);
            if (row.hidden) looks.push((await tableOf(tx)).total);
            return step;
          },
        },
      },
    });
    const id = await keep(many(40));
    const jobId = await inTx(db, (tx) => startImport(tx, id, true, change()));
    const { state, input, done, total } = await watching.jobs.wait(jobId, 20_000);
    expect([state, input.made, done, total]).toEqual(['done', 40, 40, 40]);
    expect(looks.length).toBeGreaterThan(4);
    expect(looks.every((n) => n === 0)).toBe(true);
    expect(await seen()).toHaveLength(41);
    expect(await db.select().from(occurrence)).toHaveLength(120);
    expect((await db.select().from(listing)).map((l) => l.slug)).toContain('watch-0-6');
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
    expect(new Set((await planOf(await keep(many(40)))).items.map((i) => i.action))).toEqual(new Set(['same']));
    await inTx(db, (tx) => startImportUndo(tx, id, change()));
    // Out of sight at once, gone piece by piece.
    expect(await seen()).toEqual([]);
    expect(await db.select().from(listing)).toHaveLength(40);
    site.jobs.wake();
    await site.jobs.wait((await db.select().from(job).where(eq(job.kind, 'import-undo')))[0]?.id ?? '', 20_000);
    expect(await db.select().from(listing)).toEqual([]);
    expect((await readBatch(db, id)).state).toBe('undone');
  });

  it('are taken away again when somebody cancels, or a piece fails; then the file can be brought in anew', async () => {
    const id = await keep(many(20));
    const stopAt = (n: number, how: (row: Job) => Promise<void>) => {
      let pieces = 0;
      return siteOf(db, {
        works: {
          import: {
            ...importing,
            step: async (tx, row, _size, context) => {
              if (++pieces === n) await how(row);
              return importing.step(tx, row, 3, context);
            },
          },
        },
      });
    };
    const begin = () => inTx(db, (tx) => startImport(tx, id, true, change()));
    const cancelled = await begin();
    const stop = stopAt(3, async () => {
      // A piece is under way: the wish to cancel is written when it is over.
      setTimeout(() => void inTx(db, (tx) => cancelJob(tx, cancelled, EDITOR)), 0);
    });
    expect((await stop.jobs.wait(cancelled, 20_000)).state).toBe('cancelled');
    expect([await db.select().from(listing), (await readBatch(db, id)).state]).toEqual([[], 'previewed']);
    const failing = stopAt(4, async () => {
      throw new Error('the disk is full');
    });
    const failed = await failing.jobs.wait(await begin(), 20_000);
    expect([failed.state, failed.said]).toEqual(['failed', 'Something failed on our side.']);
    expect([await db.select().from(listing), await db.select().from(importItem)]).toEqual([[], []]);
    expect(await bringKept(id, true)).toMatchObject({ made: 20 });
    expect((await problem(inTx(db, (tx) => cancelJob(tx, failed.id, EDITOR)))).kind).toBe('conflict');
  });

  it('go on where they were when the process ended', async () => {
    const id = await keep(many(12));
    const jobId = await inTx(db, (tx) => startImport(tx, id, false, change()));
    let pieces = 0;
    const dying = siteOf(db, {
      works: {
        import: {
          ...importing,
          step: (tx, row, _size, context) => {
            if (++pieces === 3) void dying.jobs.stop();
            return importing.step(tx, row, 2, context);
          },
        },
      },
    });
    dying.jobs.wake();
    await dying.jobs.stop().catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(await seen()).toEqual([]);
    const { state, input } = await ended(jobId);
    expect([state, input.made]).toEqual(['done', 12]);
    expect(await db.select().from(importRow)).toHaveLength(12);
  });
});
