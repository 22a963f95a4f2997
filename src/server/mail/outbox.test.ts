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
function mailService(refuse: string): Promise<{ url: string; got: string[] }> {
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
            socket.write('250 taken\r\n');
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
  const mail = (to: string, subject = 'Your listing') => queueMail(db, { to, subject, text: 'It is published.' }, new Date());

  it('is sent once each; one that is refused holds up no other, and is given up after five tries', async () => {
    const { url, got } = await mailService('nobody@');
    await mail('nan@almanac.example');
    await mail('nobody@almanac.example');
    await mail('ivo@almanac.example');
    expect(await sendWaiting(db, url, settings)).toBe(2);
    for (let i = 0; i < 6; i++) expect(await sendWaiting(db, url, settings)).toBe(0);
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
    expect(await sendWaiting(db, 'smtp://127.0.0.1:1', settings)).toBe(0);
    expect((await db.select().from(outbox))[0]?.sentAt).toBeNull();
  });
});
