/** What a coordinator can ask of the settings: do mails arrive, is the site reached under its address. */
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Actor } from '../accounts/roles';
import { user } from '../db/schema';
import { queueMail } from '../mail/outbox';
import { testMail } from '../mail/test-mail';
import { refused } from '../problem';
import type { Runtime } from '../runtime-type';
import type { Now } from './clock';
import { lookAtAddress, type Reached, tokenFor } from './reach';
import { settingsWords } from '@/words/desk';

const w = settingsWords.checks;

/** Sends a test mail to whoever asks; without a mail service it is in the mail tray. */
export async function checkMail(
  { db, sendNow, settings, addresses }: Pick<Runtime, 'db' | 'sendNow' | 'settings' | 'addresses'>,
  by: Actor,
  now: Now,
): Promise<Reached> {
  const [account] = await db
    .select({ email: user.email })
    .from(user)
    .where(eq(user.id, by.id ?? ''));
  if (!account) throw refused();
  const mail = testMail(settings(), addresses.primary(), account.email);
  if (sendNow) return sendNow(mail);
  await db.transaction((tx) => queueMail(tx, mail, new Date(now.ms)));
  return { well: true, said: w.mailTray() };
}

/** Asks the site under its own address whether it is there. */
export function checkAddress({ addresses, sign }: Pick<Runtime, 'addresses' | 'sign'>): Promise<Reached> {
  const nonce = randomUUID();
  return lookAtAddress(addresses.primary(), nonce, tokenFor(sign, nonce));
}
