import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, seedPlaces, SETTINGS } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { createListing, publishListing } from '../listings/write';
import type { Runtime } from '../runtime-type';
import { TRAP } from './form';
import { countRemarks, readRemark, readRemarks, receiveRemark, settleRemark } from './remarks';

let db: Db;
let rt: Runtime;
let listingId: string;
const at = (days: number): Date => new Date(NOW.ms + days * 86_400_000);

beforeEach(async () => {
  db = await freshDb();
  const places = await seedPlaces(db);
  const row = await inTx(db, (tx) => createListing(tx, choir(places), change()));
  await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
  listingId = row.id;
  rt = { db, now: () => NOW, settings: () => SETTINGS } as unknown as Runtime;
});

const send = (message: string, from = '198.51.100.7', more = {}) =>
  receiveRemark(rt, { message, name: 'Rue Dunlin', mail: '', ...more }, from, { listingId, date: '2027-03-23' });

describe('what readers say is wrong', () => {
  it('waits for an editor, is seen to, and may be opened again', async () => {
    await send('  It is at seven,\r\nnot at eight.  ');
    await send('The hall is closed.');
    const { open } = await readRemarks(db, at(0));
    expect(open.map(({ remark, title }) => [title, remark.message, remark.date, remark.senderName])).toEqual([
      ['Harbour Choir', 'It is at seven,\nnot at eight.', '2027-03-23', 'Rue Dunlin'],
      ['Harbour Choir', 'The hall is closed.', '2027-03-23', 'Rue Dunlin'],
    ]);
    const id = open[0]?.remark.id ?? '';
    await inTx(db, (tx) => settleRemark(tx, id, true, EDITOR, at(0)));
    expect(await countRemarks(db)).toBe(1);
    expect((await readRemarks(db, at(29))).settled.map(({ remark }) => [remark.id, remark.settledBy])).toEqual([[id, EDITOR.name]]);
    expect((await readRemarks(db, at(31))).settled).toEqual([]);
    await inTx(db, (tx) => settleRemark(tx, id, false, EDITOR, at(1)));
    expect(await countRemarks(db)).toBe(2);
    expect((await problem(inTx(db, (tx) => settleRemark(tx, newId(), true, EDITOR, at(0))))).kind).toBe('missing');
  });

  it('says what would be right, field by field, and takes nothing of it', async () => {
    const wrong = async (fields: Record<string, string>): Promise<string[]> =>
      (await problem((async () => readRemark(fields))())).fields.map(({ field }) => field);
    expect(await wrong({})).toEqual(['message']);
    expect(await wrong({ message: ' \n ', mail: 'rue' })).toEqual(['message', 'mail']);
    expect(await wrong({ message: 'x'.repeat(2001), name: 'y'.repeat(121) })).toEqual(['message', 'name']);
    expect(await wrong({ message: 'x', [TRAP]: 'http://spam.example' })).toEqual([TRAP]);
    await problem(send(''));
    expect(await countRemarks(db)).toBe(0);
  });

  it('is bounded by the address that it comes from', async () => {
    for (let i = 0; i < 10; i++) await send(`Remark ${i}`);
    expect((await problem(send('One more'))).kind).toBe('too-often');
    await send('From elsewhere', '198.51.100.8');
    expect(await countRemarks(db)).toBe(11);
  });
});
