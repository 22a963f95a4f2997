/** A mail that somebody asks for to see whether mails arrive: handed to the service at once, and what it said in words. */
import nodemailer from 'nodemailer';
import type { SiteSettings } from '../site/settings';
import type { Mail } from './outbox';
import { settingsWords } from '@/words/desk';

const w = settingsWords.checks;

/** A service that has not taken the mail after so many seconds is given up. */
const PATIENCE = 20;

/** The test mail of a site to one person. */
export const testMail = ({ name }: Pick<SiteSettings, 'name'>, address: string, to: string): Mail => ({
  to,
  subject: w.mailSubject({ name }),
  text: w.mailText({ name, address }),
});

/** Hands a mail to the service and returns what became of it, as a sentence; `well` when the service took it. Never throws. */
export async function sendNow(smtpUrl: string, from: string, mail: Mail): Promise<{ well: boolean; said: string }> {
  const wait = PATIENCE * 1000;
  const transport = nodemailer.createTransport({
    url: smtpUrl,
    connectionTimeout: wait,
    greetingTimeout: wait,
    socketTimeout: wait,
    dnsTimeout: wait,
  });
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(Object.assign(new Error('late'), { code: 'ETIMEDOUT' })), wait).unref();
  });
  try {
    await Promise.race([transport.sendMail({ from, ...mail }), late]);
    return { well: true, said: w.mailSent({ to: mail.to }) };
  } catch (error) {
    const { code = '', message = '' } = error as { code?: string; message?: string };
    const why = message.replace(/\s+/g, ' ').slice(0, 200);
    if (code === 'EAUTH') return { well: false, said: w.mailRefused() };
    if (code === 'EENVELOPE') return { well: false, said: w.mailSender({ why }) };
    if (code === 'ETIMEDOUT') return { well: false, said: w.mailSlow({ seconds: PATIENCE }) };
    if (['ESOCKET', 'ECONNECTION', 'EDNS', 'ECONNREFUSED', 'ENOTFOUND'].includes(code)) return { well: false, said: w.mailNobody({ why }) };
    return { well: false, said: w.mailOther({ why }) };
  } finally {
    clearTimeout(timer);
    transport.close();
  }
}

/** Whether a site has a service that takes mails, and the way to hand it one at once. */
export const mailService = (
  smtpUrl: string | undefined,
  settings: () => Pick<SiteSettings, 'mailFrom'>,
): { sendsMail: boolean; sendNow: ((mail: Mail) => Promise<{ well: boolean; said: string }>) | undefined } => ({
  sendsMail: smtpUrl !== undefined,
  sendNow: smtpUrl === undefined ? undefined : (mail) => sendNow(smtpUrl, settings().mailFrom, mail),
});
