/** A mail service that takes its time, asked by two processes at once. */
import { openDatabase } from '@/server/db/client';
import { queueMail } from '@/server/mail/outbox';
import { mailService } from '../support/mail-service';
import { serve } from '../support/served';
import { type Figures, now, wait } from './ordeal';
import { sharing, twoProcesses } from './two-processes';

const MAILS = 24;

export async function slowMails(figures: Figures): Promise<void> {
  const taken = new Map<string, number>();
  const service = await mailService(
    (text) => {
      const subject = /^Subject: (.*)$/m.exec(text)?.[1] ?? '';
      taken.set(subject, (taken.get(subject) ?? 0) + 1);
    },
    { slow: 2_500 },
  );
  await twoProcesses(async ([one], server) => {
    const { db, close } = await openDatabase({ folder: server.folder, root: process.cwd(), url: server.url });
    await db.transaction(async (tx) => {
      for (let i = 0; i < MAILS; i++)
        await queueMail(tx, { to: 'rue@dunlin.example', subject: `Slow mail ${i}`, text: 'Read.' }, new Date());
    });
    await close();
    // Two more, which know the service; the first two have none.
    const env = { ...sharing(server), ALMANAC_SMTP_URL: service.url };
    const senders = await Promise.all(['three', 'four'].map((name) => serve({ data: `${server.folder}/${name}`, env, errors: 'ignore' })));
    const start = now();
    const slow = (): string[] => [...taken.keys()].filter((subject) => subject.startsWith('Slow mail'));
    while (slow().length < MAILS && now() - start < 300_000) await wait(500);
    // Whoever would send one twice has time to.
    await wait(15_000);
    figures.say(`${slow().length} mails at 2.5 s each by two processes in ${((now() - start - 15_000) / 1000).toFixed(0)} s`);
    figures.is('mails sent', slow().length, MAILS);
    figures.is('mails sent more than once', slow().filter((subject) => (taken.get(subject) ?? 0) > 1).length, 0);
    await Promise.all(senders.map((sender) => sender.stop()));
    figures.is('the others live', Number(one.process.exitCode === null), 1);
  });
  service.close();
}
