/**
 * Mail is a row written in the transaction that causes it, and sent after. Without a mail service it stays in the
 * mail tray, a page of the Desk, which is then all the delivery there is.
 */
import { and, asc, desc, eq, gte, inArray, isNotNull, isNull, lt, lte, or, sql } from 'drizzle-orm';
import nodemailer, { type Transporter } from 'nodemailer';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { outbox } from '../db/schema';
import type { SiteSettings } from '../site/settings';
import { serverWords } from '@/words/desk';

const w = serverWords.mailOutbox;

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

/** After each failed try the pause is longer, in minutes; after the last a mail stays and says why. */
const PAUSES = [1, 5, 30, 120];
/** A mail is tried so often. */
export const MAX_TRIES = PAUSES.length + 1;

const MINUTE = 60_000;
/** Whoever sends a mail has it for so long, in milliseconds: longer than one sending may take. */
const LEASE = 10 * MINUTE;
/** A service that says nothing for so long is given up for this try. */
const SILENCE = MINUTE;
/** One that dribbles on for so long too: well within the lease. */
const LONGEST = 5 * MINUTE;

type Claimed = typeof outbox.$inferSelect;

/** How many mails were tried as often as they are, and did not go. */
export async function countStuck(db: Db): Promise<number> {
  return db.$count(outbox, and(isNull(outbox.sentAt), gte(outbox.tries, MAX_TRIES), isNotNull(outbox.failure)));
}

/** Takes the oldest mail that waits, so that nobody else sends it meanwhile, whether in this process or another. */
async function claim(db: Db, at: Date): Promise<Claimed | undefined> {
  const free = and(
    isNull(outbox.sentAt),
    lt(outbox.tries, MAX_TRIES),
    or(isNull(outbox.claimedUntil), lt(outbox.claimedUntil, at)),
    or(isNull(outbox.nextTryAt), lte(outbox.nextTryAt, at)),
  );
  const oldest = db
    .select({ id: outbox.id })
    .from(outbox)
    .where(free)
    .orderBy(asc(outbox.createdAt), asc(outbox.id))
    .limit(1)
    .for('update', { skipLocked: true });
  const [mail] = await db
    .update(outbox)
    .set({ claimedUntil: new Date(at.getTime() + LEASE), tries: sql`${outbox.tries} + 1` })
    .where(inArray(outbox.id, oldest))
    .returning();
  return mail;
}

/** Mails are known by their row, whenever and by whomever they are sent: a service that got one twice can tell. */
const messageIdOf = (id: string, from: string): string => `<${id}@${/@([^\s>]+)/.exec(from)?.[1] ?? 'localhost'}>`;

/** How mail is sent: a service's address, from whom, and whether to stop before the next. */
export interface Sending {
  smtpUrl: string;
  settings: SiteSettings;
  clock?: () => Date;
  stopped?: () => boolean;
}

/**
 * Sends what waits, oldest first, one by one through SMTP; returns how many went. A mail that fails holds up no other, and is tried
 * again after a while. A process that ends between the service's answer and our note leaves one that is sent again, with the same Message-ID.
 */
export async function sendWaiting(
  db: Db,
  { smtpUrl, settings, clock = () => new Date(), stopped = () => false }: Sending,
): Promise<number> {
  let sent = 0;
  let transport: Transporter | undefined;
  try {
    for (let mail = await claim(db, clock()); mail; mail = stopped() ? undefined : await claim(db, clock())) {
      transport ??= nodemailer.createTransport({
        url: smtpUrl,
        connectionTimeout: SILENCE,
        greetingTimeout: SILENCE,
        socketTimeout: SILENCE,
      });
      const failure = await send(transport, mail, settings.mailFrom);
      const here = eq(outbox.id, mail.id);
      if (failure === undefined) {
        await db.update(outbox).set({ sentAt: clock(), claimedUntil: null, failure: null }).where(here);
        sent++;
      } else {
        const pause = PAUSES[mail.tries - 1];
        const nextTryAt = pause === undefined ? null : new Date(clock().getTime() + pause * MINUTE);
        await db.update(outbox).set({ claimedUntil: null, nextTryAt, failure }).where(here);
      }
    }
  } finally {
    transport?.close();
  }
  return sent;
}

/** Hands one mail to the service; says why it was not taken. */
async function send(transport: Transporter, mail: Claimed, from: string): Promise<string | undefined> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error(w.theMailServiceTook())), LONGEST).unref();
  });
  const { to, subject, text } = mail;
  try {
    await Promise.race([
      transport.sendMail({ from, to, subject, text, messageId: messageIdOf(mail.id, from), date: mail.createdAt }),
      late,
    ]);
    return undefined;
  } catch (error) {
    return error instanceof Error ? error.message.slice(0, 200) : String(error).slice(0, 200);
  } finally {
    clearTimeout(timer);
  }
}
