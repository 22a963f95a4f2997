/** What a coordinator sets is found in every view, page, feed and Desk page that shows it, and nowhere is it as it was. */
import { type Browser, expect, type Page } from '@playwright/test';
import { serveCopy, test } from './site';
import { chooseSetting, newListing, openSetting, sendEvent, signIn } from './support';

const READERS = [
  ...['/month/2027-03', '/week/2027-W11', '/day/2027-03-20', '/day/2027-03-20?as=list', '/list', '/list?words=choir', '/map/2027-03-17'],
  ...['/places/2027-03-20', '/places/2027-03-20?across=week', '/half-year/2027-03?as=titles', '/year/2027?as=titles'],
  ...['/what/harbour-choir', '/what/harbour-choir/2027-03-23', '/what/ceilidh-at-the-net-loft', '/at/st-brides-hall', '/by/harbour-choir'],
];
const FEEDS = ['/feed.rss', '/feed.atom', '/feed.json'];
const DESK = [
  '/desk/listings',
  '/desk/month/2027-03',
  '/desk/half-year/2027-03',
  '/desk/proof',
  '/desk/intake',
  '/desk/venues',
  '/desk/bring-in',
  '/desk/mail',
  '/desk/plain-files',
  '/desk/health',
];

/** What somebody reads there: a page's text as it is shown, a feed's own sentences. */
async function readAll(page: Page, url: string): Promise<Map<string, string>> {
  const read = new Map<string, string>();
  for (const at of [...READERS, ...DESK]) {
    // Readers' pages are whole as they come; the Desk's are once their scripts ran.
    const waitUntil = at.startsWith('/desk') ? 'load' : 'domcontentloaded';
    expect((await page.goto(at, { waitUntil }))?.status(), at).toBe(200);
    // The Desk's sheets are drawn by their scripts, some time after those are there.
    if (/^\/desk\/(month|half-year)\//.test(at)) await expect(page.locator('main'), at).toContainText(/Quay Market|Morning Swim/);
    // What people wrote is theirs: sentences of an event, of a remark, of what was sent in.
    read.set(
      at,
      // Only what is shown counts: text of folded and hidden parts comes with them.
      await page.evaluate(() => {
        const { body } = document;
        for (const own of body.querySelectorAll('.prose, [data-part="sentence"] ~ p, q, blockquote, .summary, option')) own.remove();
        // biome-ignore lint/performance/useDomNodeTextContent: what people see is what is asked.
        return body.innerText;
      }),
    );
  }
  for (const at of FEEDS) {
    const text = await (await page.request.get(url + at)).text();
    const said = [...text.matchAll(/<description>(.*?)<\/description>|<summary[^>]*>(.*?)<\/summary>|"summary":\s*"(.*?)"/gs)];
    read.set(at, said.map(([, a, b, c]) => (a ?? b ?? c ?? '').split(/\n|\\n/)[0]).join('\n'));
  }
  return read;
}

/** Changes settings, each in its section. */
async function set(page: Page, values: Readonly<Record<string, string>>): Promise<void> {
  const sections = new Map<string, [string, string][]>();
  await page.goto('/desk/set-up');
  for (const [name, value] of Object.entries(values)) {
    const at = ((await page.locator(`main a[href$="#${name}"]`).getAttribute('href')) ?? '').split('#')[0] ?? '';
    sections.set(at, [...(sections.get(at) ?? []), [name, value]]);
  }
  for (const [at, fields] of sections) {
    await page.goto(at);
    for (const [name, value] of fields) {
      const field = page.locator(`#${name}`);
      if (name === 'zone') await chooseSetting(page, 'Time zone', value, new RegExp(value.split('/').at(-1) ?? ''));
      else if ((await field.evaluate((one) => one.tagName)) === 'SELECT') await field.selectOption(value);
      else await field.fill(value);
    }
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('every page, feed').first()).toBeVisible();
  }
}

/** The mail to somebody who sends an event now, which says its dates. */
async function mailOf(page: Page, title: string): Promise<string> {
  await page.goto('/add');
  await sendEvent(page, title);
  await page.goto('/desk/mail');
  const mail = page.locator('main :is(article, li, tr, details)').filter({ hasText: title }).first();
  // A mail is folded: all of it counts.
  return (await mail.textContent()) ?? '';
}

/** An event whose only date is over. */
async function overOf(page: Page): Promise<string> {
  await newListing(page, 'Candle Dipping', 'Monday 1 March 2027 19:00 to 21:00');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(page.locator('[data-note]')).toContainText('Published');
  return '/what/candle-dipping';
}

/** In the texts that match it, where and what; people's own words that the demo has apart. */
function found(read: ReadonlyMap<string, string>, pattern: RegExp, own: readonly string[] = []): string[] {
  return [...read].flatMap(([at, text]) =>
    [...text.matchAll(pattern)].filter(([words]) => !own.includes(words)).map(([words]) => `${at}: ${words}`),
  );
}

async function coordinator(browser: Browser, url: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 }, javaScriptEnabled: true });
  // What is read is text.
  await context.route(/\.(woff2|avif|webp|jpg|png|svg)(\?|$)/, (route) => route.abort());
  const page = await context.newPage();
  await signIn(page, 'maud');
  return page;
}

/** A ferry’s time, as the people of the ceilidh wrote it. */
const OWN = ['23:40'];
const MONTHS =
  'January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sep|Oct|Nov|Dec';

test('what readers are not shown of a venue, Proof knows all the same', async ({ browser }) => {
  const served = await serveCopy('settings-proof', {});
  try {
    const page = await coordinator(browser, served.url);
    await openSetting(page, 'venueShows');
    const venues = page.getByRole('group', { name: 'What readers see of venues', exact: true });
    for (const fact of ['Capacity', 'Opening hours']) await venues.getByLabel(fact).uncheck();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('every page, feed').first()).toBeVisible();
    await page.goto('/at/st-brides-hall');
    await expect(page.locator('[data-part="facts"]')).not.toContainText('Capacity');
    await page.goto('/desk/listings?words=harbour+choir');
    await page.getByRole('link', { name: 'Harbour Choir', exact: true }).first().click();
    await page.getByLabel('People expected').fill('9000');
    await expect(page.getByText('holds 140; 9000 are expected').first()).toBeVisible();
    await page.context().close();
  } finally {
    await served.stop();
  }
});

test('hours, dates, the first weekday, the zone, the lengths of lists and the name reach every page, feed and Desk page that shows them', async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const served = await serveCopy('settings', {});
  try {
    const page = await coordinator(browser, served.url);
    const afternoon = /\b(1[3-9]|2[0-3]):[0-5]\d\b/g;
    const before = await readAll(page, served.url);
    const timed = [...before].filter(([, text]) => afternoon.test(text) || text.match(afternoon)).map(([at]) => at);
    expect(timed.length).toBeGreaterThan(15);

    const proofSays = (pattern: RegExp) => async (): Promise<number> => {
      await page.goto('/desk/proof');
      return ((await page.locator('main').textContent()) ?? '').match(pattern)?.length ?? 0;
    };
    const dayMonth = new RegExp(`\\b\\d{1,2} (${MONTHS})\\b`, 'g');
    await set(page, { hours: '12', date: 'month-day' });
    // Proof looks at everything again, in the background.
    for (const pattern of [afternoon, dayMonth]) await expect.poll(proofSays(pattern), { timeout: 60_000 }).toBe(0);
    const american = await readAll(page, served.url);
    expect.soft(found(american, afternoon, OWN), 'times of 24 hours').toEqual([]);
    for (const at of timed) expect.soft(american.get(at), at).toMatch(/\d ?(am|pm)\b/);
    expect.soft(found(american, dayMonth), 'the day before the month').toEqual([]);
    await set(page, { date: 'iso' });
    await expect.poll(proofSays(new RegExp(`\\b(${MONTHS}) \\d{1,2}\\b`, 'g')), { timeout: 60_000 }).toBe(0);
    const iso = await readAll(page, served.url);
    // A day of every year has no year to be written with.
    expect
      .soft(
        found(iso, new RegExp(`\\b(\\d{1,2} (${MONTHS})|(${MONTHS}) \\d{1,2})\\b(?!, every| – | of every)`, 'g')),
        'months by their names',
      )
      .toEqual([]);

    // Files that other programs read say days and times as those do.
    expect.soft(await (await page.request.get('/dates.csv')).text()).toMatch(/,2027-\d\d-\d\d,\d\d:\d\d,/);

    await set(page, { firstWeekday: '6', zone: 'Europe/London', beforeFirst: 'Bring a lantern.', afterLast: 'See you next year.' });
    for (const at of ['/month/2027-03', '/desk/month/2027-03']) {
      await page.goto(at);
      await expect
        .soft(
          page
            .locator('[role=columnheader], thead th')
            .filter({ hasText: /^(Mon|Sun)/ })
            .first(),
          at,
        )
        .toHaveText(/^Sun/);
    }
    await page.goto('/week/2027-03-17');
    await expect.soft(page.getByRole('heading', { level: 1 })).toContainText('2027-03-14');

    for (const at of ['/month/2027-03', '/what/harbour-choir', '/subscribe']) {
      await page.goto(at);
      await expect.soft(page.locator('[data-part="foot"]'), at).toContainText('London');
    }
    await page.goto('/what/ceilidh-at-the-net-loft');
    await expect.soft(page.locator('[data-part="next-date"]')).toContainText('Bring a lantern.');
    await page.goto('/what/harbour-choir');
    await expect.soft(page.locator('[data-part="next-date"]')).not.toContainText('Bring a lantern.');
    expect.soft(await (await page.request.get('/fr/what/ceilidh-at-the-net-loft')).text()).not.toContain('Bring a lantern.');
    await page.goto(await overOf(page));
    await expect.soft(page.locator('[data-part="next-date"]')).toHaveText('See you next year.');

    const SHOWN = [
      '/what/ceilidh-at-the-net-loft',
      '/at/net-loft',
      '/by/net-loft-dances',
      '/feed.ics',
      '/api/open/v1/venues',
      '/api/open/v1/organizers',
    ];
    const said = async (): Promise<Map<string, boolean>> => {
      const read = await Promise.all(SHOWN.map(async (at): Promise<[string, string]> => [at, await (await page.request.get(at)).text()]));
      return new Map(read.map(([at, text]) => [at, text.replace(/\r?\n[ \t]/g, '').includes('555-0134')]));
    };
    expect
      .soft([...(await said())].filter(([, shown]) => shown).map(([at]) => at))
      .toEqual(['/what/ceilidh-at-the-net-loft', '/at/net-loft', '/by/net-loft-dances', '/api/open/v1/venues']);
    await openSetting(page, 'venueShows');
    // One number for both.
    for (const name of ['What readers see of venues', 'What readers see of organizers'])
      await page.getByRole('group', { name, exact: true }).getByLabel('Phone').uncheck();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('every page, feed').first()).toBeVisible();
    expect.soft([...(await said())].filter(([, shown]) => shown).map(([at]) => at)).toEqual([]);

    await set(page, { listLength: '10', shortLength: '3' });
    await page.goto('/list');
    const days = await page.locator('[data-part="ledger"] .what a').count();
    expect.soft(days).toBeLessThan(20);
    await set(page, { name: 'The Outer Almanac' });
    const named = [...READERS, '/subscribe', '/add'];
    for (const at of named) {
      const text = await (await page.request.get(at)).text();
      expect.soft(text, at).toContain('The Outer Almanac');
      expect.soft(text.includes('Kittiwick Isles Almanac'), at).toBe(false);
    }
    // Mails that go out from now on are its, too; they name no dates.
    const mail = await mailOf(page, 'Raft race by the new name');
    expect.soft(mail).toContain('has reached The Outer Almanac');
    expect.soft(mail).not.toMatch(/\d{4}-\d\d-\d\dT|\b14:00\b/);
    for (const at of [...FEEDS, '/feed.ics', '/site.webmanifest'])
      expect.soft(await (await page.request.get(at)).text(), at).toContain('The Outer Almanac');
    await page.context().close();
  } finally {
    await served.stop();
  }
});
