import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import type { BulkAction } from '@/core/listing/bulk-actions';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { bulkItem, job, link, listing, occurrence, published } from '../db/schema';
import { cancelJob } from '../jobs/runner';
import { read } from '../problem';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import type { Runtime } from '../runtime-type';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { checkAction, chosenIds } from './chosen';
import { bulkInput } from './input';
import { planBulk } from './plan';
import { setTimes } from '../listings/publication-times';
import { bulking, readReport, startBulk, startUndo } from './run';

let db: Db;
let places: Places;
let site: Runtime;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  site = siteOf(db);
});
const make = (title: string, part: Partial<ListingContent> = {}) =>
  inTx(db, (tx) => createListing(tx, choir(places, { title, ...part }), change()));
const publish = async (title: string, part: Partial<ListingContent> = {}) => {
  const row = await make(title, part);
  return inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
};
const rowOf = async (id: string) => (await db.select().from(listing).where(eq(listing.id, id)))[0] as typeof listing.$inferSelect;
const hall = async () => (await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR))).id;
const run = async (ids: string[], action: BulkAction, by: Actor = EDITOR) => {
  const started = await inTx(db, (tx) => startBulk(tx, ids, action, change(by)));
  const done = await site.jobs.wait(started.job, 20_000);
  return { id: started.run, said: done.said, state: done.state };
};
const startHeadlines = (rows: { id: string }[]) => {
  const ids = rows.map((row) => row.id);
  return inTx(db, (tx) => startBulk(tx, ids, { kind: 'headline', on: true }, change()));
};
const undo = async (id: string) => {
  const started = await inTx(db, (tx) => startUndo(tx, id, change()));
  return (await site.jobs.wait(started, 20_000)).said;
};
/** Everything but what counts changes. */
const everything = async () => ({
  listings: (await db.select().from(listing).orderBy(listing.id)).map(({ revision: _r, changedAt: _c, ...row }) => row),
  published: (await db.select().from(published).orderBy(published.listingId)).map(
    ({ sequence: _s, changedAt: _c, publishedAt: _p, ...row }) => row,
  ),
  links: (await db.select().from(link)).map((l) => JSON.stringify(l)).sort(),
  dates: (await db.select().from(occurrence)).map((o) => JSON.stringify(o)).sort(),
});
const GONE = '01890000-0000-7000-8000-000000000000';

describe('many listings at once', () => {
  it('give listings their times again when they are undone, as far as those are still to come', async () => {
    const [coming, soon, live] = [await make('Coming'), await make('Soon'), await publish('Live')];
    const set = async (id: string, publishAt: string | null, withdrawAt: string | null) => {
      const { revision } = await rowOf(id);
      await inTx(db, (tx) => setTimes(tx, id, { revision, publishAt, withdrawAt }, change()));
    };
    await set(coming.id, '2027-04-01T09:00', '2027-05-01T09:00');
    await set(soon.id, '2027-03-18T09:00', null);
    await set(live.id, null, '2027-05-01T09:00');
    const before = await everything();
    const done = await run([coming.id, soon.id, live.id], { kind: 'draft' });
    expect((await rowOf(coming.id)).publishAt).toBeNull();
    await undo(done.id);
    expect(await everything()).toEqual(before);
    // By the next time one of them is past.
    const again = await run([soon.id, coming.id], { kind: 'bin' });
    site = siteOf(db, { now: { ...NOW, day: NOW.day + 2, ms: NOW.ms + 2 * 86_400_000 } });
    await undo(again.id);
    expect([(await rowOf(soon.id)).stage, (await rowOf(coming.id)).stage]).toEqual(['draft', 'scheduled']);
  });
  it('say first what can be done, do just that, and name what stayed', async () => {
    const good = await make('Good');
    const bad = await make('Without a date', { recurrence: null });
    const live = await publish('Live');
    const ids = [good.id, bad.id, live.id, GONE];
    const plan = await planBulk(db, ids, { kind: 'publish' }, change());
    expect(plan).toEqual({
      can: 1,
      cannotCount: 3,
      cannot: [
        { titles: ['Without a date'], count: 1, reason: 'no date yet' },
        { titles: ['Live'], count: 1, reason: 'it is published as it stands' },
        { titles: ['Without a title'], count: 1, reason: 'it was removed meanwhile' },
      ],
    });
    const { id, said, state } = await run(ids, { kind: 'publish' });
    expect([state, said]).toEqual(['done', '1 listing published, 3 stayed as they were.']);
    const report = await readReport(db, id, EDITOR);
    expect([report.done, report.stayed.map((s) => s.reason)]).toEqual([
      1,
      ['no date yet', 'it is published as it stands', 'it was removed meanwhile'],
    ]);
    expect((await db.select().from(published)).map((p) => p.title).sort()).toEqual(['Good', 'Live']);
  });

  it('count every one that stays, with its reason, and name the first of each', async () => {
    const drafts = [];
    for (let i = 1; i <= 30; i++) drafts.push((await make(`Draft ${i}`)).id);
    const empty = await make('Without a date', { recurrence: null });
    const plan = await planBulk(db, [...drafts, empty.id], { kind: 'draft' }, change());
    expect(plan).toEqual({
      can: 0,
      cannotCount: 31,
      cannot: [{ reason: 'it is a draft already', count: 31, titles: ['Draft 1', 'Draft 2', 'Draft 3'] }],
    });
    const { id } = await run([empty.id, ...drafts, GONE], { kind: 'draft' });
    const { stayed } = await readReport(db, id, EDITOR);
    expect(stayed.map(({ reason, count, titles }) => [reason, count, titles.length])).toEqual([
      ['it is a draft already', 31, 20],
      ['it was removed meanwhile', 1, 1],
    ]);
    expect(stayed[0]?.titles.slice(0, 2)).toEqual(['Without a date', 'Draft 1']);
    expect(stayed[1]?.titles).toEqual(['one that is gone']);
  });

  it('move to another venue, readers see it at once, and all of it is undone as one', async () => {
    const venue = await hall();
    const live = await publish('Live');
    const draft = await make('Draft');
    const waiting = await publish('Waiting');
    await inTx(db, (tx) =>
      saveListing(tx, { id: waiting.id, content: { ...waiting.working, summary: 'Not yet seen' }, revision: waiting.revision }, change()),
    );
    const online = await make('Online', { attendance: 'online', onlineAddress: 'https://x.example' });
    const before = await everything();
    const { id, said } = await run([live.id, draft.id, waiting.id, online.id], { kind: 'venue', id: venue });
    expect(said).toBe('3 listings moved, 1 stayed as it was.');
    const [copy] = await db.select().from(published).where(eq(published.listingId, live.id));
    expect([copy?.venueId, (await rowOf(draft.id)).working.venueIds, (await rowOf(live.id)).edited]).toEqual([venue, [venue], false]);
    // What waited goes on waiting, and readers do not see half of it.
    const [still] = await db.select().from(published).where(eq(published.listingId, waiting.id));
    expect([still?.venueId, (await rowOf(waiting.id)).edited]).toEqual([places.venue, true]);
    expect(await undo(id)).toBe('3 listings put back.');
    expect(await everything()).toEqual(before);
    expect((await problem(inTx(db, (tx) => startUndo(tx, id, change())))).title).toContain('taken back already');
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('shift their dates, rules and single changes with them; those whose rules cannot follow stay', async () => {
    const weekly = await publish('Weekly', {
      changes: [{ original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: 'cancelled', note: '' }],
    });
    const rule = { freq: 'monthly' as const, interval: 1, byMonth: [], byMonthDay: [1, 15], byDay: [], weekStart: 0 };
    const twice = await make('Twice a month', {
      recurrence: {
        format: 3,
        zone: SETTINGS.zone,
        parts: [{ start: '2027-04-01T19:00', length: null, rule, limit: { kind: 'count', count: 6 } }],
        exdates: [],
        breaks: [],
      },
    });
    const { id, said } = await run([weekly.id, twice.id], { kind: 'shift', days: 1 });
    expect(said).toBe('1 listing shifted, 1 stayed as it was.');
    const row = await rowOf(weekly.id);
    expect([row.working.recurrence?.parts[0]?.start, row.working.changes[0]?.original, row.nextDay]).toEqual([
      '2027-03-24T19:00',
      '2027-03-31T19:00',
      NOW.day + 7,
    ]);
    await undo(id);
    expect((await rowOf(weekly.id)).working.recurrence?.parts[0]?.start).toBe('2027-03-23T19:00');
  });

  it('leave to others what they changed since, and take out only what was done', async () => {
    const venue = await hall();
    const [one, two, three] = [await make('One'), await make('Two'), await make('Three')];
    const { id } = await run([one.id, two.id, three.id], { kind: 'venue', id: venue });
    const edit = async (row: { id: string }, part: Partial<ListingContent>) => {
      const now = await rowOf(row.id);
      await inTx(db, (tx) => saveListing(tx, { id: row.id, content: { ...now.working, ...part }, revision: now.revision }, change()));
    };
    await edit(one, { summary: 'Somebody’s words' });
    await edit(two, { venueIds: [] });
    expect(await undo(id)).toBe('2 listings put back; 1 could not be.');
    expect((await rowOf(one.id)).working).toMatchObject({ summary: 'Somebody’s words', venueIds: [places.venue] });
    expect((await rowOf(two.id)).working.venueIds).toEqual([]);
    expect((await readReport(db, id, EDITOR)).stayed).toEqual([
      { titles: ['Two'], count: 1, reason: 'the same was changed by somebody since' },
    ]);
  });

  it('change stages and go back to them', async () => {
    const live = await publish('Live');
    const draft = await make('Draft');
    const withdrawn = await inTx(db, async (tx) =>
      moveToStage(tx, (await createListing(tx, choir(places, { title: 'Gone' }), change())).id, 'withdrawn', change()),
    );
    const before = await everything();
    const { id } = await run([live.id, draft.id, withdrawn.id], { kind: 'bin' });
    expect(await db.select().from(published)).toEqual([]);
    await undo(id);
    expect(await everything()).toEqual(before);
    const back = await run([live.id], { kind: 'withdraw' });
    expect((await rowOf(live.id)).stage).toBe('withdrawn');
    await undo(back.id);
    expect((await rowOf(live.id)).stage).toBe('published');
  });

  it('are a contributor’s own alone, and never published by them', async () => {
    const nan: Actor = { id: null, name: 'Nan', role: 'contributor' };
    const others = await make('Others');
    const plan = await planBulk(db, [others.id], { kind: 'publish' }, change(nan));
    expect(plan.cannot[0]?.reason).toBe('this listing belongs to somebody else; ask an editor');
    const { said } = await run([others.id], { kind: 'bin' }, nan);
    expect(said).toBe('0 listings put in the bin, 1 stayed as it was.');
  });

  it('are cancelled half way, and what was done goes back', async () => {
    const rows: { id: string }[] = [];
    for (let i = 0; i < 9; i++) rows.push(await make(`No ${i}`));
    const started = await startHeadlines(rows);
    // The first piece is done, then somebody cancels.
    const [row] = await db.select().from(job).where(eq(job.id, started.job));
    const context = await site.jobContext();
    await inTx(db, (tx) => bulking.step(tx, row as typeof job.$inferSelect, 6, context));
    expect(await Promise.all(rows.map(async (r) => (await rowOf(r.id)).working.headline))).toEqual([
      ...Array(6).fill(true),
      false,
      false,
      false,
    ]);
    await inTx(db, (tx) => cancelJob(tx, started.job, EDITOR));
    expect((await site.jobs.wait(started.job, 20_000)).state).toBe('cancelled');
    expect((await db.select().from(bulkItem)).map((i) => i.state).sort()).toEqual(['', '', '', ...Array(6).fill('undone')]);
    for (const row of rows) expect((await rowOf(row.id)).working.headline).toBe(false);
  });

  it('go on after the process ended', async () => {
    const rows: { id: string }[] = [];
    for (let i = 0; i < 15; i++) rows.push(await make(`No ${i}`));
    const started = await startHeadlines(rows);
    await site.jobs.stop();
    expect((await db.select().from(job).where(eq(job.id, started.job)))[0]?.state).toBe('running');
    expect((await siteOf(db).jobs.wait(started.job, 20_000)).said).toBe('15 listings changed.');
  });
});

describe('what is asked of many', () => {
  it('is bounded, and points to what is there', async () => {
    const bad = async (raw: unknown) => (await problem((async () => read(bulkInput, raw))())).fields.map((f) => f.field.split('.')[0]);
    expect(await bad({ ids: [], query: '', action: { kind: 'bin' } })).toEqual(['ids']);
    expect(await bad({ ids: ['x'], action: { kind: 'bin' } })).toEqual(['ids']);
    expect(await bad({ ids: [], action: { kind: 'burn' } })).toEqual(['action']);
    expect(await bad({ ids: [], action: { kind: 'shift', days: 0 } })).toEqual(['action']);
    expect(await bad({ ids: [], action: { kind: 'shift', days: 40_000 } })).toEqual(['action']);
    expect((await problem(checkAction(site, { kind: 'venue', id: GONE }))).title).toContain('That venue is gone');
    expect((await problem(chosenIds(site, EDITOR, { ids: [] }))).title).toContain('Choose some');
    await make('One');
    await make('Two');
    expect(await chosenIds(site, EDITOR, { query: 'words=two' })).toHaveLength(1);
    expect(await chosenIds(site, { id: 'nan', name: 'Nan', role: 'contributor' }, { query: '' })).toEqual([]);
  });
});
