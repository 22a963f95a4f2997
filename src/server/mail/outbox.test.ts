import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freshDb, SETTINGS } from '../../../tests/support/db';
import { type MailService, mailService } from '../../../tests/support/mail-service';
import type { Db } from '../db/client';
import { outbox } from '../db/schema';
import { queueMail, readTray, sendWaiting } from './outbox';

let db: Db;
let service: MailService | undefined;
beforeEach(async () => {
  db = await freshDb();
});
afterEach(() => service?.close());

async function takingMail(slow = 0): Promise<{ url: string; got: string[] }> {
  const got: string[] = [];
  service = await mailService((text) => got.push(text), { refuse: 'nobody@', slow });
  return { url: service.url, got };
}

describe('mail', () => {
  const settings = { ...SETTINGS, mailFrom: 'desk@almanac.example' };
  const NOW = Date.UTC(2027, 2, 17, 12);
  const triesOf = async (name: string): Promise<number> =>
    (await db.select().from(outbox)).find((row) => row.to.startsWith(name))?.tries ?? 0;
  const mail = (to: string, subject = 'Your listing') => queueMail(db, { to, subject, text: 'It is published.' }, new Date(NOW));

  it('is sent once each; one that is refused holds up no other, and is given up after five tries', async () => {
    const { url, got } = await takingMail();
    await mail('nan@almanac.example');
    await mail('nobody@almanac.example');
    await mail('ivo@almanac.example');
    let at = NOW;
    const sending = { smtpUrl: url, settings, clock: () => new Date(at) };
    expect(await sendWaiting(db, sending)).toBe(2);
    // Not at once again, and each time after a longer pause.
    const tried: number[] = [];
    for (const minute of [0.5, 1, 3, 5.5, 6, 20, 35.5, 36, 100, 155.5, 156, 400]) {
      at = NOW + minute * 60_000;
      const before = await triesOf('nobody');
      expect(await sendWaiting(db, sending)).toBe(0);
      if ((await triesOf('nobody')) > before) tried.push(minute);
    }
    expect(tried).toEqual([1, 6, 36, 156]);
    expect(got).toHaveLength(2);
    expect(got[0]).toContain('From: desk@almanac.example');
    const { mails, total } = await readTray(db, 1);
    expect(total).toBe(3);
    const refused = mails.find((m) => m.to.startsWith('nobody'));
    expect([refused?.tries, refused?.sentAt, refused?.failure]).toEqual([5, null, expect.stringContaining('550')]);
  });

  it('takes no headers from its subject, and waits when there is no service', async () => {
    await mail('nan@almanac.example', 'Hello\r\nBcc: everybody@almanac.example');
    const [row] = await db.select().from(outbox);
    expect(row?.subject).toBe('Hello Bcc: everybody@almanac.example');
    expect(await sendWaiting(db, { smtpUrl: 'smtp://127.0.0.1:1', settings })).toBe(0);
    expect((await db.select().from(outbox))[0]?.sentAt).toBeNull();
  });

  it('is sent once however many send at the same time, and however slow the service is', async () => {
    const { url, got } = await takingMail(40);
    for (let i = 0; i < 12; i++) await mail(`reader${i}@almanac.example`, `Receipt ${i}`);
    const senders = Array.from({ length: 4 }, () => sendWaiting(db, { smtpUrl: url, settings }));
    expect((await Promise.all(senders)).reduce((a, b) => a + b)).toBe(12);
    expect(got).toHaveLength(12);
    expect(new Set(got.map((text) => /^Message-ID: (.*)$/m.exec(text)?.[1])).size).toBe(12);
  });

  it('is taken up again when whoever had it ended, as the same mail', async () => {
    const { url, got } = await takingMail();
    await mail('nan@almanac.example');
    let at = NOW;
    const sending = { smtpUrl: url, settings, clock: () => new Date(at) };
    // A process that was killed after the service took the mail and before it was noted.
    await sendWaiting(db, sending);
    await db.update(outbox).set({ sentAt: null, claimedUntil: new Date(NOW + 600_000) });
    expect(await sendWaiting(db, sending)).toBe(0);
    at += 600_001;
    expect(await sendWaiting(db, sending)).toBe(1);
    const ids = got.map((text) => /^Message-ID: (.*)$/m.exec(text)?.[1]);
    expect(ids[0]).toMatch(/@almanac\.example>$/);
    expect(ids[1]).toBe(ids[0]);
  });

  it('ends after the mail under way when it is told to stop', async () => {
    const { url } = await takingMail();
    await mail('nan@almanac.example');
    await mail('ivo@almanac.example');
    expect(await sendWaiting(db, { smtpUrl: url, settings, stopped: () => true })).toBe(1);
  });
});
