import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, seedPlaces, SETTINGS } from '../../../tests/support/db';
import type { ListingContent } from '@/core/listing/content';
import type { SentPart } from '@/core/listing/sent';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { outbox, submission, user } from '../db/schema';
import { Problem } from '../problem';
import { createListing } from '../listings/write';
import { findPublished } from '../public/listing';
import type { FormResult } from './form';
import type { SenderChanges } from './sender-changes';
import { countWaiting, readReceipt, readWaiting } from './read';
import { decide, changeSubmission, sendForReview, submitEvent, takeBack } from './write';

let db: Db;
let places: Places;
const site = SETTINGS.address;
const rue: Actor = { id: null, name: 'Rue Dunlin', role: 'reader' };
const sent = () => ({
  content: choir(places),
  name: 'Rue Dunlin',
  mail: 'rue@dunlin.example',
  message: 'First time here.',
  where: '',
  who: '',
  phone: '555-0177',
});
const fixed = (part: Partial<ListingContent>, parts: SentPart[], said: Partial<FormResult> = {}): SenderChanges => ({
  ...sent(),
  ...said,
  content: choir(places, part),
  parts,
});
const submit = () => inTx(db, (tx) => submitEvent(tx, sent(), change(rue)));
const waitingId = async (): Promise<string> => (await readWaiting(db))[0]?.submission.id ?? '';
const mails = () => db.select().from(outbox).orderBy(outbox.createdAt, outbox.id);

beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

describe('a stranger’s event', () => {
  it('waits, and its receipt is found by its private address alone', async () => {
    const token = await submit();
    expect(await countWaiting(db)).toBe(1);
    expect((await readReceipt(db, token))?.submission.state).toBe('waiting');
    expect(await readReceipt(db, `${token}x`)).toBeUndefined();
    const [row] = await db.select().from(submission);
    expect(JSON.stringify(row)).not.toContain(token);
    expect((await mails())[0]).toMatchObject({ to: 'rue@dunlin.example' });
    expect((await mails())[0]?.text).toContain(`${site}/receipt/${token}`);
  });

  it('is published by a decision, with a mail', async () => {
    await submit();
    await inTx(db, async (tx) => decide(tx, { id: await idIn(tx), decision: 'publish', note: '' }, change()));
    expect(await findPublished(db, 'harbour-choir')).toBeDefined();
    expect((await mails()).map((m) => m.subject)).toEqual(['Received: Harbour Choir', 'Published: Harbour Choir']);
  });

  it('is decided once: the second is told who was first', async () => {
    await submit();
    const id = await waitingId();
    await inTx(db, (tx) =>
      decide(tx, { id, decision: 'decline', note: 'Not on these isles.' }, change({ ...EDITOR, name: 'Maud Petrel' })),
    );
    const second = inTx(db, (tx) => decide(tx, { id, decision: 'publish', note: '' }, change()));
    await expect(second).rejects.toThrow('Maud Petrel declined it already.');
    expect(await findPublished(db, 'harbour-choir')).toBeUndefined();
  });

  it('needs a word when it is returned or declined', async () => {
    await submit();
    const id = await waitingId();
    for (const decision of ['return', 'decline'] as const) {
      await expect(inTx(db, (tx) => decide(tx, { id, decision, note: '  ' }, change()))).rejects.toThrow('Write a line');
    }
    expect(await countWaiting(db)).toBe(1);
  });

  it('is mended on its receipt and waits again, then can be published', async () => {
    const token = await submit();
    await inTx(db, async (tx) => decide(tx, { id: await idIn(tx), decision: 'return', note: 'Which hall?' }, change()));
    const hit = await readReceipt(db, token);
    expect([hit?.submission.state, hit?.submission.note]).toEqual(['returned', 'Which hall?']);
    if (!hit) return;
    await inTx(db, (tx) => changeSubmission(tx, hit.submission, fixed({ title: 'Harbour Choir at the Loft' }, ['title']), change(rue)));
    const [again] = await readWaiting(db);
    expect([again?.listing.title, again?.submission.changes]).toEqual(['Harbour Choir at the Loft', 1]);
    await inTx(db, (tx) => decide(tx, { id: again?.submission.id ?? '', decision: 'publish', note: '' }, change()));
    const done = await readReceipt(db, token);
    expect(done?.submission.state).toBe('published');
  });

  it('cannot be mended or taken back once it is decided', async () => {
    const token = await submit();
    await inTx(db, async (tx) => decide(tx, { id: await idIn(tx), decision: 'publish', note: '' }, change()));
    const hit = await readReceipt(db, token);
    if (!hit) throw new Error('no receipt');
    await expect(inTx(db, (tx) => changeSubmission(tx, hit.submission, fixed({ title: 'Mine' }, ['title']), change(rue)))).rejects.toThrow(
      Problem,
    );
    await expect(inTx(db, (tx) => takeBack(tx, hit.submission, change(rue)))).rejects.toThrow(Problem);
    expect(await findPublished(db, 'harbour-choir')).toBeDefined();
  });

  it('that Proof stops stays in the pile', async () => {
    await inTx(db, (tx) => submitEvent(tx, { ...sent(), content: choir(places, { website: 'javascript:x' }) }, change(rue)));
    await expect(inTx(db, async (tx) => decide(tx, { id: await idIn(tx), decision: 'publish', note: '' }, change()))).rejects.toThrow(
      'website',
    );
    expect(await countWaiting(db)).toBe(1);
  });
});

async function idIn(tx: Db): Promise<string> {
  return (await readWaiting(tx))[0]?.submission.id ?? '';
}

describe('a contributor’s listing', () => {
  it('is sent for review, and only by its owner', async () => {
    await db.insert(user).values({ id: 'nan', name: 'Nan Tarbert', email: 'nan@almanac.example', role: 'contributor' });
    const nan: Actor = { id: 'nan', name: 'Nan Tarbert', role: 'contributor' };
    const row = await inTx(db, (tx) => createListing(tx, choir(places), change(nan)));
    await expect(inTx(db, (tx) => sendForReview(tx, row.id, row.revision, 'x@y.example', change({ ...nan, id: 'ivo' })))).rejects.toThrow(
      Problem,
    );
    await inTx(db, (tx) => sendForReview(tx, row.id, row.revision, 'nan@almanac.example', change(nan)));
    expect((await readWaiting(db))[0]?.listing.stage).toBe('in-review');
    await inTx(db, async (tx) => decide(tx, { id: await idIn(tx), decision: 'publish', note: '' }, change()));
    expect((await mails()).at(-1)).toMatchObject({ to: 'nan@almanac.example' });
  });
});
