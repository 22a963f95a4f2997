import { afterEach, describe, expect, it } from 'vitest';
import { type MailService, mailService } from '../../../tests/support/mail-service';
import { SETTINGS } from '../../../tests/support/db';
import { sendNow, testMail } from './test-mail';

let service: MailService | undefined;
afterEach(() => service?.close());

const FROM = 'desk@almanac.example';
const to = (address: string) => testMail(SETTINGS, 'https://almanac.example', address);

describe('a test mail', () => {
  it('goes at once, and says who was sent it', async () => {
    const got: string[] = [];
    service = await mailService((text) => got.push(text), { refuse: 'nobody@' });
    const sent = await sendNow(service.url, FROM, to('maud@almanac.example'));
    expect(sent).toEqual({ well: true, said: expect.stringContaining('maud@almanac.example') });
    expect(got).toHaveLength(1);
    expect(got[0]).toContain(`From: ${FROM}`);
    expect(got[0]).toContain('https://almanac.example');
  });

  it('says why it did not go', async () => {
    service = await mailService(() => undefined, { refuse: 'nobody@' });
    expect((await sendNow(service.url, FROM, to('nobody@almanac.example'))).said).toContain('refused the sender or the recipient');
    expect(await sendNow('smtp://127.0.0.1:1', FROM, to('maud@almanac.example'))).toEqual({
      well: false,
      said: expect.stringContaining('No mail service answers where ALMANAC_SMTP_URL says'),
    });
  });
});
