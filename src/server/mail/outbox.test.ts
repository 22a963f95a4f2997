import { createServer, type Server } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freshDb, SETTINGS } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { outbox } from '../db/schema';
import { queueMail, readTray, sendWaiting } from './outbox';

let db: Db;
let server: Server | undefined;
beforeEach(async () => {
  db = await freshDb();
});
afterEach(() => void server?.close());

/** A mail service of a few lines that takes mail, or refuses whom it is told to. */
function mailService(refuse: string, slow = 0): Promise<{ url: string; got: string[] }> {
  const got: string[] = [];
  server = createServer((socket) => {
    let data: string | undefined;
    socket.write('220 ready\r\n');
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      for (const line of bytes.toString().split('\r\n').slice(0, -1)) {
        if (data !== undefined) {
          if (line !== '.') data += `${line}\n`;
          else {
            got.push(data);
            data = undefined;
            setTimeout(() => socket.write('250 taken\r\n'), slow);
          }
        } else if (line === 'DATA') {
          data = '';
          socket.write('354 go on\r\n');
        } else if (line === 'QUIT') socket.end('221 bye\r\n');
        else socket.write(line.startsWith('RCPT') && line.includes(refuse) ? '550 no such box\r\n' : '250 ok\r\n');
      }
    });
  });
  const listening = server;
  return new Promise((done) =>
    listening.listen(0, '127.0.0.1', () => done({ url: `smtp://127.0.0.1:${(listening.address() as { port: number }).port}`, got })),
  );
}

describe('mail', () => {
  const settings = { ...SETTINGS, mailFrom: 'desk@almanac.example' };
  const NOW = Date.UTC(2027, 2, 17, 12);
  const triesOf = async (name: string): Promise<number> =>
    (await db.select().from(outbox)).find((row) => row.to.startsWith(name))?.tries ?? 0;
  const mail = (to: string, subject = 'Your listing') => queueMail(db, { to, subject, text: 'It is published.' }, new Date(NOW));

  it('is sent once each; one that is refused holds up no other, and is given up after five tries', async () => {
    const { url, got } = await mailService('nobody@');
    await mail('nan@almanac.example');
    await mail('nobody@almanac.example');
    await mail('ivo@almanac.example');
    let at = NOW;
    const sending = { smtpUrl: url, settings, clock: () => new Date(at) };
    expect(await sendWaiting(db, sending)).toBe(2);
    // Not at once again, and each time after a longer pause.
    const tried: number[] = [];
    for (let minute = 1; minute <= 300; minute++) {
      at += 60_000;
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
    const { url, got } = await mailService('nobody@', 40);
    for (let i = 0; i < 12; i++) await mail(`reader${i}@almanac.example`, `Receipt ${i}`);
    const senders = Array.from({ length: 4 }, () => sendWaiting(db, { smtpUrl: url, settings }));
    expect((await Promise.all(senders)).reduce((a, b) => a + b)).toBe(12);
    expect(got).toHaveLength(12);
    expect(new Set(got.map((text) => /^Message-ID: (.*)$/m.exec(text)?.[1])).size).toBe(12);
  });

  it('is taken up again when whoever had it ended, as the same mail', async () => {
    const { url, got } = await mailService('nobody@');
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
    const { url } = await mailService('nobody@');
    await mail('nan@almanac.example');
    await mail('ivo@almanac.example');
    expect(await sendWaiting(db, { smtpUrl: url, settings, stopped: () => true })).toBe(1);
  });
});
