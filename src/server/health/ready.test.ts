import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { queueMail } from '../mail/outbox';
import { readReadiness } from './ready';

const NOW = new Date('2027-03-17T12:00:00Z');
let db: Db;
beforeEach(async () => {
  db = await freshDb();
});

describe('readiness', () => {
  it('is the database’s and the disk’s; mails and jobs that wait are told', async () => {
    const site = { db, hasRoom: () => true, sendsMail: true };
    const well = { ready: true, database: 'ok', disk: 'ok', oldestJobSeconds: null, oldestMailSeconds: null };
    expect(await readReadiness(site, NOW)).toEqual(well);
    await queueMail(db, { to: 'nan@almanac.example', subject: 'Your listing', text: 'Published.' }, new Date(NOW.getTime() - 90_000));
    expect(await readReadiness(site, NOW)).toEqual({ ...well, oldestMailSeconds: 90 });
    expect(await readReadiness({ ...site, sendsMail: false }, NOW)).toEqual(well);
    expect(await readReadiness({ ...site, hasRoom: () => false }, NOW)).toMatchObject({ ready: false, disk: 'full' });
  });
  it('is not there while the database says nothing, and whoever asks is told in time', async () => {
    const silent = { select: () => new Promise(() => undefined), execute: () => new Promise(() => undefined) } as unknown as Db;
    const before = performance.now();
    expect(await readReadiness({ db: silent, hasRoom: () => true, sendsMail: true }, NOW)).toMatchObject({
      ready: false,
      database: 'no-answer',
    });
    expect(performance.now() - before).toBeLessThan(10_000);
    const broken = { execute: () => Promise.reject(new Error('gone')) } as unknown as Db;
    expect(await readReadiness({ db: broken, hasRoom: () => true, sendsMail: true }, NOW)).toMatchObject({ ready: false });
  });
});
