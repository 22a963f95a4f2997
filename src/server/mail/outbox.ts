/**
 * Mail is a row written in the transaction that causes it, and sent after. Without a mail service it stays in the
 * mail tray, a page of the Desk, which is then all the delivery there is.
 */
import { and, asc, desc, eq, isNull, lt, sql } from 'drizzle-orm';
import nodemailer from 'nodemailer';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { outbox } from '../db/schema';
import type { SiteSettings } from '../site/settings';

/** A mail to be sent. */
export interface Mail {
  to: string;
  subject: string;
  text: string;
}

/** Writes a mail down in the transaction of what it tells of; it is sent afterwards. */
export async function queueMail(tx: Db, mail: Mail, at: Date): Promise<void> {
  // A line break in a header would let its writer add headers of their own.
  const subject = mail.subject.replace(/[\r\n]+/g, ' ').slice(0, 200);
  await tx.insert(outbox).values({ id: newId(), to: mail.to, subject, text: mail.text, createdAt: at });
}

/** One page of the mail tray, the latest first, and how many there are. */
export async function readTray(db: Db, page: number): Promise<{ mails: (typeof outbox.$inferSelect)[]; total: number }> {
  const mails = await db
    .select()
    .from(outbox)
    .orderBy(desc(outbox.createdAt), desc(outbox.id))
    .limit(50)
    .offset((page - 1) * 50);
  const [count] = await db.select({ n: sql<number>`count(*)::int` }).from(outbox);
  return { mails, total: count?.n ?? 0 };
}

/** A mail is tried so often, then it stays and says why. */
export const MAX_TRIES = 5;

/** Sends what waits, oldest first, through SMTP; returns how many went. One failing mail does not hold up the others. */
export async function sendWaiting(db: Db, smtpUrl: string, settings: SiteSettings): Promise<number> {
  const waiting = await db
    .select()
    .from(outbox)
    .where(and(isNull(outbox.sentAt), lt(outbox.tries, MAX_TRIES)))
    .orderBy(asc(outbox.createdAt))
    .limit(50);
  if (!waiting.length) return 0;
  const transport = nodemailer.createTransport(smtpUrl);
  let sent = 0;
  for (const mail of waiting) {
    try {
      await transport.sendMail({ from: settings.mailFrom, to: mail.to, subject: mail.subject, text: mail.text });
      await db.update(outbox).set({ sentAt: new Date() }).where(eq(outbox.id, mail.id));
      sent++;
    } catch (error) {
      const failure = error instanceof Error ? error.message.slice(0, 200) : 'unknown';
      await db
        .update(outbox)
        .set({ tries: mail.tries + 1, failure })
        .where(eq(outbox.id, mail.id));
    }
  }
  transport.close();
  return sent;
}
