import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import type { BulkAction } from '@/core/listing/bulk-actions';
import { emptyContent } from '@/core/listing/fields';
import { startBulk, startUndo } from '../bulk/run';
import type { Db } from '../db/client';
import { edit, listing, organizer, outbox, published, submission, user, venue } from '../db/schema';
import { mergeListings } from '../listings/merge';
import { keepTimes, setTimes } from '../listings/publication-times';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import type { FormResult } from './form';
import type { SenderChanges } from './sender-changes';
import { countWaiting, readReceipt, readSteps } from './read';
import { decide, decideProposal, changeSubmission, sendForReview, submitEvent, takeBack } from './write';

let db: Db;
let places: Places;
let token = '';
const RUE = { id: null, name: 'Rue Dunlin', role: 'reader' as const };
const form = (part: Partial<FormResult> = {}): FormResult => ({
  ...{ content: choir(places), name: 'Rue Dunlin', mail: 'rue@dunlin.example', phone: '555-0177', message: '', where: '', who: '' },
  ...part,
});
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  token = await inTx(db, (tx) => submitEvent(tx, form(), change(RUE)));
});

const row = async () => {
  const hit = await readReceipt(db, token);
  if (!hit) throw new Error('no receipt');
  return hit;
};
const state = async () => (await row()).submission.state;
const own = async () => (await row()).listing;
const mails = async () => (await db.select().from(outbox).orderBy(outbox.createdAt, outbox.id)).map((m) => m.subject).slice(1);
const publish = async () => {
  const { id, revision } = await own();
  return inTx(db, (tx) => publishListing(tx, id, revision, change()));
};
const move = async (stage: 'draft' | 'in-review' | 'withdrawn' | 'binned') => {
  const { id } = await own();
  return inTx(db, (tx) => moveToStage(tx, id, stage, change()));
};
const bulk = async (action: BulkAction) => {
  const site = siteOf(db);
  const { id } = await own();
  const started = await inTx(db, (tx) => startBulk(tx, [id], action, change()));
  await site.jobs.wait(started.job, 20_000);
  return {
    undo: async () => {
      const job = await inTx(db, (tx) => startUndo(tx, started.run, change()));
      await site.jobs.wait(job, 20_000);
    },
  };
};
const decided = async (decision: 'publish' | 'return' | 'decline', note = 'A word.') => {
  const { submission: s } = await row();
  return inTx(db, (tx) => decide(tx, { id: s.id, decision, note }, change()));
};
const byTime = async (withdraw = false) => {
  await move('draft');
  const { id, revision } = await own();
  await inTx(db, (tx) =>
    setTimes(tx, id, { revision, publishAt: '2027-03-17T10:00', withdrawAt: withdraw ? '2027-03-17T10:30' : null }, change()),
  );
  const later = { day: NOW.day, minute: 600, ms: NOW.ms + 3_600_000 };
  return inTx(db, (tx) => keepTimes(tx, { now: withdraw ? { ...later, minute: 660, ms: NOW.ms + 7_200_000 } : later, settings: SETTINGS }));
};
const merged = async (isPublic: boolean) => {
  const other = await inTx(db, (tx) => createListing(tx, choir(places, { title: 'Choir of the Harbour' }), change()));
  if (isPublic) await inTx(db, (tx) => publishListing(tx, other.id, other.revision, change()));
  const { id, revision } = await own();
  return inTx(db, (tx) => mergeListings(tx, { id, revision }, other.id, change()));
};

describe('a submission has one fate, whichever way its listing goes', () => {
  const ways: [name: string, go: () => Promise<unknown>, state: string, mail: string[]][] = [
    ['published in Intake', () => decided('publish', ''), 'published', ['Published: Harbour Choir']],
    ['published from its editor, the table or a row', publish, 'published', ['Published: Harbour Choir']],
    ['published with many at once', () => bulk({ kind: 'publish' }), 'published', ['Published: Harbour Choir']],
    ['published by its time', () => byTime(), 'published', ['Published: Harbour Choir']],
    ['down again before it was out, by its times', () => byTime(true), 'declined', ['Not published: Harbour Choir']],
    ['declined in Intake', () => decided('decline'), 'declined', ['Not published: Harbour Choir']],
    ['withdrawn', () => move('withdrawn'), 'declined', ['Not published: Harbour Choir']],
    ['binned', () => move('binned'), 'declined', ['Not published: Harbour Choir']],
    ['withdrawn with many at once', () => bulk({ kind: 'withdraw' }), 'waiting', []],
    ['binned with many at once', () => bulk({ kind: 'bin' }), 'declined', ['Not published: Harbour Choir']],
    ['merged into one that readers see', () => merged(true), 'merged', ['Already known: Harbour Choir']],
    ['merged into a draft', () => merged(false), 'merged', ['Already known: Harbour Choir']],
    ['returned', () => decided('return'), 'returned', ['A question about: Harbour Choir']],
    ['taken on as an editor’s draft', () => move('draft'), 'waiting', []],
    ['published, then taken off', async () => [await publish(), await move('withdrawn')], 'published', ['Published: Harbour Choir']],
    [
      'binned, then published after all',
      async () => [await move('binned'), await move('draft'), await publish()],
      'published',
      ['Not published: Harbour Choir', 'Published: Harbour Choir'],
    ],
    [
      'published with many at once, and that taken back',
      async () => (await bulk({ kind: 'publish' })).undo(),
      'waiting',
      ['Published: Harbour Choir', 'Being read again: Harbour Choir'],
    ],
    [
      'binned with many at once, and that taken back',
      async () => (await bulk({ kind: 'bin' })).undo(),
      'waiting',
      ['Not published: Harbour Choir', 'Being read again: Harbour Choir'],
    ],
    ['published changes later', async () => [await publish(), await publish()], 'published', ['Published: Harbour Choir']],
  ];
  for (const [name, go, fate, sent] of ways)
    it(`${name}: ${fate}, ${sent.length ? sent.map((s) => s.split(':')[0]).join(', then ') : 'no mail'}`, async () => {
      await go();
      expect([await state(), await mails()]).toEqual([fate, sent]);
      // What readers see and what the receipt says never part.
      const { listing: l, submission: s } = await row();
      const [out] = await db.select().from(published).where(eq(published.listingId, l.id));
      if (out) expect(s.state).toBe('published');
      if (s.state === 'waiting') expect(l.stage).not.toBe('binned');
    });

  it('is written in the same transaction: what fails leaves neither', async () => {
    const { id, revision } = await own();
    const failing = inTx(db, async (tx) => {
      await publishListing(tx, id, revision, change());
      throw new Error('the disk is full');
    });
    await expect(failing).rejects.toThrow('disk');
    expect([await state(), await mails(), (await own()).stage]).toEqual(['waiting', [], 'in-review']);
  });

  it('carries the site’s address and says where a merged one went on', async () => {
    await merged(true);
    const [mail] = (await db.select().from(outbox)).filter((m) => m.subject.startsWith('Already'));
    expect(mail?.text).toContain('“Choir of the Harbour”');
    expect(mail?.text).toContain(`${SETTINGS.address}/what/choir-of-the-harbour`);
    expect((await row()).submission.intoId).not.toBeNull();
  });

  it('keeps its steps with their times', async () => {
    await decided('return', 'Which hall?');
    const { submission: s } = await row();
    await inTx(db, (tx) => changeSubmission(tx, s, senderChanges({}, []), change(RUE)));
    await publish();
    expect((await readSteps(db, s)).map((step) => step.what.code)).toEqual(['sent', 'returned', 'sent again', 'published']);
  });
});

const senderChanges = (
  part: Partial<FormResult['content']>,
  parts: SenderChanges['parts'],
  said: Partial<FormResult> = {},
): SenderChanges => ({
  ...form({ content: choir(places, part), ...said }),
  parts,
});
const quickFix = async (one: SenderChanges) => {
  const { submission: s } = await row();
  return inTx(db, (tx) => changeSubmission(tx, s, one, change(RUE)));
};

describe('what a sender changes', () => {
  it('goes in while nobody has begun', async () => {
    await quickFix(senderChanges({ cost: { kind: 'words', words: 'a cake' } }, ['cost']));
    expect((await own()).working.cost).toEqual({ kind: 'words', words: 'a cake' });
    expect((await row()).submission.proposal).toBeNull();
  });

  const begun: [string, () => Promise<unknown>][] = [
    [
      'saved something',
      async () => {
        const l = await own();
        await inTx(db, (tx) =>
          saveListing(tx, { id: l.id, content: { ...l.working, text: '<p>Ours.</p>', pictureId: null }, revision: l.revision }, change()),
        );
      },
    ],
    [
      'typed something that is not saved',
      async () => {
        const l = await own();
        await db.insert(user).values({ id: 'ivo', name: 'Ivo Skerrit', email: 'ivo@almanac.example' });
        const at = new Date(NOW.ms);
        await db
          .insert(edit)
          .values({ userId: 'ivo', key: l.id, listingId: l.id, content: emptyContent(), revision: 1, changedAt: at, seenAt: at });
      },
    ],
  ];
  for (const [name, begin] of begun)
    it(`lies beside the text once an editor has ${name}`, async () => {
      await begin();
      const before = (await own()).working;
      await quickFix(senderChanges({ text: '<p>Mine.</p>', title: 'My Choir' }, ['text', 'title']));
      await quickFix(senderChanges({ cost: { kind: 'unsaid' } }, ['cost']));
      expect((await own()).working).toEqual(before);
      const { submission: s } = await row();
      expect(s.proposal?.parts.sort()).toEqual(['cost', 'text', 'title']);
      expect(await countWaiting(db)).toBe(1);
      await expect(decided('publish', '')).rejects.toThrow('Rue Dunlin changed something after you began');
      await inTx(db, (tx) => decideProposal(tx, s.id, ['cost'], change()));
      const after = (await own()).working;
      expect(after).toEqual({ ...before, cost: { kind: 'unsaid' } });
      await expect(inTx(db, (tx) => decideProposal(tx, s.id, [], change()))).rejects.toThrow('already');
      await decided('publish', '');
      expect(await state()).toBe('published');
    });

  it('is still to be decided when the listing went out by another way, and then changes what readers see only when taken', async () => {
    await begun[0]?.[1]();
    await quickFix(senderChanges({ title: 'My Choir' }, ['title']));
    await publish();
    expect([await state(), await countWaiting(db)]).toEqual(['published', 1]);
    const { submission: s, listing: l } = await row();
    const title = async () => (await db.select().from(published).where(eq(published.listingId, l.id)))[0]?.title;
    expect(await title()).toBe('Harbour Choir');
    await inTx(db, (tx) => decideProposal(tx, s.id, ['title'], change()));
    expect([await title(), await countWaiting(db), await mails()]).toEqual(['My Choir', 0, ['Published: Harbour Choir']]);
  });

  it('changes nothing that readers see, whatever its receipt asks', async () => {
    await publish();
    const { submission: s, listing: l } = await row();
    const out = async () => JSON.stringify(await db.select().from(published).where(eq(published.listingId, l.id)));
    const before = await out();
    expect(await problem(inTx(db, (tx) => takeBack(tx, s, change(RUE))))).toMatchObject({ kind: 'conflict' });
    expect(await problem(inTx(db, (tx) => changeSubmission(tx, s, senderChanges({ title: 'x' }, ['title']), change(RUE))))).toMatchObject({
      kind: 'conflict',
    });
    // Even a row that was left open by a fault of before.
    await db.update(submission).set({ state: 'waiting' });
    expect(await problem(inTx(db, (tx) => takeBack(tx, s, change(RUE))))).toMatchObject({ kind: 'conflict' });
    await quickFix(senderChanges({ title: 'x' }, ['title']));
    expect(await out()).toBe(before);
    expect((await own()).working.title).toBe('Harbour Choir');
  });
});

describe('a place and people that are new', () => {
  const open = async (where: string, who: string) => {
    token = await inTx(db, (tx) =>
      submitEvent(tx, form({ content: choir(places, { title: 'Kelp Walk', venueIds: [], organizerIds: [] }), where, who }), change(RUE)),
    );
    return (await row()).submission.id;
  };
  const venueNames = async () => (await db.select().from(venue).orderBy(venue.name)).map((v) => v.name);
  it('come along with one key', async () => {
    const id = await open('Kelp Steps', 'Kelp Friends');
    await inTx(db, (tx) => decide(tx, { id, decision: 'publish', note: '' }, change()));
    expect(await venueNames()).toEqual(['Kelp Steps', 'Net Loft']);
    const [out] = await db.select().from(published);
    const [made] = await db.select().from(organizer);
    expect(made?.name).toBe('Kelp Friends');
    expect([out?.content.organizerIds, out?.content.venueIds.length]).toEqual([[made?.id], 1]);
  });
  it('are the one that is chosen, or left out', async () => {
    const id = await open('the loft', 'Kelp Friends');
    await inTx(db, (tx) =>
      decide(tx, { id, decision: 'publish', note: '', places: { where: places.venue, who: 'leave-out' } }, change(EDITOR)),
    );
    const [out] = await db.select().from(published);
    expect([await venueNames(), out?.venueId, out?.content.organizerIds]).toEqual([['Net Loft'], places.venue, []]);
  });
  it('are not made when Proof stops it', async () => {
    token = await inTx(db, (tx) =>
      submitEvent(tx, form({ content: choir(places, { website: 'javascript:x', venueIds: [] }), where: 'Kelp Steps' }), change(RUE)),
    );
    await expect(decided('publish', '')).rejects.toThrow('website');
    expect(await venueNames()).toEqual(['Net Loft']);
  });
});

describe('a contributor’s own', () => {
  it('is taken back when they put it in the bin or make it a draft, and nobody writes to them', async () => {
    await db.insert(user).values({ id: 'nan', name: 'Nan Tarbert', email: 'nan@almanac.example', role: 'contributor' });
    const nan = { id: 'nan', name: 'Nan Tarbert', role: 'contributor' as const };
    for (const stage of ['binned', 'draft'] as const) {
      const made = await inTx(db, (tx) => createListing(tx, choir(places, { title: `Knots ${stage}` }), change(nan)));
      await inTx(db, (tx) => sendForReview(tx, made.id, made.revision, 'nan@almanac.example', change(nan)));
      const count = (await mails()).length;
      await inTx(db, (tx) => moveToStage(tx, made.id, stage, change(nan)));
      const [s] = await db.select().from(submission).where(eq(submission.listingId, made.id));
      expect([s?.state, (await mails()).length]).toEqual(['taken-back', count]);
    }
    expect(await db.select().from(listing).where(eq(listing.stage, 'in-review'))).toHaveLength(1);
  });
});
