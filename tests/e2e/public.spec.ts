import { expect } from '@playwright/test';
import ICAL from 'ical.js';
import { expectAccessible, expectNoSidewaysScroll } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const VIEWS = [
  '/',
  '/month/2027-03',
  '/month/2027-04',
  '/list',
  '/list/2027-04-01',
  '/day/2027-03-20',
  '/map',
  '/what/low-tide-walk',
  '/what/low-tide-walk/2027-03-21',
  '/what/stargazers-weekend',
  '/at/net-loft',
  '/by/harbour-choir',
  '/add',
  '/subscribe',
  '/nowhere',
];

for (const scheme of ['light', 'dark'] as const) {
  for (const width of [1280, 360]) {
    // Each width and each theme once; all pairs of them with FULL=1, as in CI.
    if (process.env.FULL !== '1' && (width === 1280) !== (scheme === 'light')) continue;
    test(`every public page passes axe at ${width} px, ${scheme}`, async ({ browser, baseURL }) => {
      const context = await browser.newContext({ viewport: { width, height: 800 }, colorScheme: scheme, baseURL });
      const page = await context.newPage();
      for (const view of VIEWS) {
        await page.goto(view);
        await expectAccessible(page, `${view} ${width} ${scheme}`);
        await expectNoSidewaysScroll(page);
      }
      await context.close();
    });
  }
}

test('nothing scrolls sideways at 320 px', async ({ page }) => {
  await page.setViewportSize({ width: 320, height: 700 });
  for (const view of VIEWS) {
    await page.goto(view);
    await expectNoSidewaysScroll(page);
  }
});

test.describe('without JavaScript', () => {
  test.use({ javaScriptEnabled: false });

  test('month, list, map and page are whole', async ({ page }) => {
    await page.goto('/month/2027-03');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('March 2027');
    await expect(page.locator('table.month td')).toHaveCount(35);
    await expect(page.locator('td.today .num:visible')).toHaveText('17');
    // A press on the numeral opens the day.
    await expect(page.locator('td.today .num:visible')).toHaveAttribute('href', '/day/2027-03-17');
    await page
      .locator('table.month')
      .getByRole('link', { name: /Low-tide/ })
      .first()
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Low-tide Walk');
    await expect(page.locator('dl.facts').getByRole('link', { name: 'Causeway Slip' })).toBeVisible();
    await page.goto('/map/2027-03-17');
    await expect(page.locator('.chart svg.base path.land')).toHaveCount(1);
    await expect(page.locator('.places [data-place]').first()).toBeVisible();
  });

  test('filters work as a form and stand in the address', async ({ page }) => {
    // Untouched, the form shows everything that was there.
    await page.goto('/list/2027-03-17');
    const all = await page.locator('table.days .what a').count();
    await page.getByRole('button', { name: 'Show these' }).click();
    await expect(page.locator('table.days .what a')).toHaveCount(all);
    // One kind is one press.
    await page.getByRole('checkbox', { name: /^Music & dance/ }).check();
    await page.getByRole('button', { name: 'Show these' }).click();
    await expect(page).toHaveURL(/kind=music-dance/);
    const titles = await page.locator('table.days .what a').allTextContents();
    expect(titles).toContain('Harbour Choir');
    expect(titles).not.toContain('Quay Market');
  });

  test('a full day says how many more there are and opens', async ({ page }) => {
    await page.goto('/month/2027-03');
    const cell = page.locator('table.month td', {
      has: page.getByRole('link', { name: /Saturday 20 March, 1\d dates|Saturday 20 March, 9 dates/ }),
    });
    await cell.getByRole('link', { name: /and \d+ more/ }).click();
    await expect(page).toHaveURL(/\/day\/2027-03-20/);
    expect(await page.locator('table.days .what a').count()).toBeGreaterThanOrEqual(9);
  });

  test('on a phone the chosen day’s dates stand under the numerals', async ({ page }) => {
    await page.setViewportSize({ width: 360, height: 800 });
    await page.goto('/month/2027-03');
    await page.getByRole('link', { name: /Saturday 20 March/ }).click();
    await expect(page.locator('.day-list').getByRole('link', { name: 'Ceilidh at the Net Loft' })).toBeVisible();
  });
});

test('a cancelled and a moved date show on month, list, page and feed', async ({ page, request }) => {
  await page.goto('/month/2027-03?words=fiddle');
  await expect(page.locator('.entry.off', { hasText: 'Fiddle Session' })).toHaveCount(1);
  await page.goto('/month/2027-03?words=low-tide');
  await expect(page.locator('.entry.moved', { hasText: 'Low-tide' })).toContainText('06:55');
  await page.goto('/list/2027-03-21');
  const row = page.locator('tr', { hasText: 'Low-tide Walk' }).first();
  await expect(row).toContainText('06:55–08:55');
  await expect(row).toContainText('moved from 07:40');
  await page.goto('/what/fiddle-session/2027-03-27');
  await expect(page.locator('.next')).toContainText('Cancelled: the loft floor is being caulked');
  const feed = await (await request.get('/feed.ics?kind=music-dance')).text();
  const events = new ICAL.Component(ICAL.parse(feed)).getAllSubcomponents('vevent');
  const off = events.filter(
    (e) => e.getFirstPropertyValue('status') === 'CANCELLED' && String(e.getFirstPropertyValue('summary')).includes('Fiddle'),
  );
  expect(off).toHaveLength(1);
  expect(events.some((e) => String(e.getFirstPropertyValue('summary')) === 'Quay Market')).toBe(false);
});

test('filters act at once, with counts, and are announced', async ({ page }) => {
  await page.goto('/month/2027-03');
  // How many dates there are, not how many lines: where bands go, more lines have room.
  const dates = async (): Promise<number> =>
    Number(/(\d[\d,]*) dates? in/.exec((await page.locator('.under > span').first().textContent()) ?? '')?.[1] ?? 0);
  const before = await dates();
  expect(before).toBeGreaterThan(60);
  await page.getByLabel(/Free of charge/).check();
  await expect(page).toHaveURL(/free=1/);
  await expect.poll(dates).toBeLessThan(before);
  await expect(page.locator('[data-said]')).toContainText('free ·');
  await page.getByRole('searchbox').fill('ceilidh');
  await expect(page).toHaveURL(/words=ceilidh/);
  await expect(page.getByText('No matching events in March.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Clear filters' }).first()).toBeVisible();
  await page.reload();
  await expect(page.getByRole('searchbox')).toHaveValue('ceilidh');
});

test('one kind, one place, one press; more add; nothing ticked is everything again', async ({ page }) => {
  await page.goto('/list/2027-03-17');
  await expect(page.locator('.filters input[type=checkbox]:checked')).toHaveCount(0);
  const all = await page.locator('table.days .what a').count();
  await page.getByRole('checkbox', { name: /^Music & dance/ }).check();
  await expect(page).toHaveURL(/\?kind=music-dance$/);
  await page.getByRole('checkbox', { name: /^Market & food/ }).check();
  await expect(page).toHaveURL(/\?kind=market-food,music-dance$/);
  await page.getByRole('checkbox', { name: /^Music & dance/ }).uncheck();
  await page.getByRole('checkbox', { name: /^Gannet Bay/ }).check();
  await expect(page).toHaveURL(/\?kind=market-food&place=Gannet\+Bay$/);
  for (const name of [/^Market & food/, /^Gannet Bay/]) await page.getByRole('checkbox', { name }).uncheck();
  await expect(page).toHaveURL(/\/list\/2027-03-17$/);
  await expect(page.locator('table.days .what a')).toHaveCount(all);
});

test('a search shows each listing once with its dates, and a month without any says where there are some', async ({ page }) => {
  await page.goto('/list/2027-03-17?words=choir');
  await expect(page.getByText(/6 events found for “choir”/)).toBeVisible();
  const row = page.locator('table.days tr', { has: page.getByRole('link', { name: 'Harbour Choir', exact: true }) });
  await expect(row).toHaveCount(1);
  await expect(row).toContainText(/also 30 Mar, 6 Apr, 13 Apr and \d+ more, until/);
  // A slip is taken for what it is like, and said; what is like nothing too.
  await page.goto('/list/2027-03-17?words=harbor+chior');
  await expect(page.locator('[data-part="guesses"]')).toContainText('Nothing has “harbor”: “harbour” was looked for instead.');
  await expect(page.locator('[data-part="ledger"]')).toContainText('Harbour Choir');
  await page.goto('/month/2027-03?words=xyzzyx');
  await expect(page.getByText('Nothing has “xyzzyx”, or a word like it.')).toBeVisible();
  // The name of a kind finds its dates.
  await page.goto('/list/2027-03-17?words=workshops');
  await expect(page.locator('[data-part="ledger"] tbody tr').first()).toBeVisible();
  await page.goto('/month/2027-03?words=rehearsal');
  await expect(page.getByText('No matching events in March. 1 later: the next on Wednesday 7 April.')).toBeVisible();
  await page.getByRole('link', { name: /7 April/ }).click();
  await expect(page).toHaveURL(/\/month\/2027-04\?words=rehearsal/);
});

test('on a phone the filters are folded by HTML: nothing moves, and they open without a script', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ viewport: { width: 360, height: 800 }, baseURL });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const sum = { value: 0 };
    Object.assign(globalThis, { shift: sum });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) sum.value += (entry as unknown as { value: number }).value;
    }).observe({ type: 'layout-shift', buffered: true });
  });
  for (const path of ['/list/2027-03-17', '/month/2027-03']) {
    await page.goto(path);
    await page.waitForTimeout(800);
    expect(await page.evaluate(() => (globalThis as unknown as { shift: { value: number } }).shift.value), path).toBeLessThan(0.01);
    await expect(page.getByRole('checkbox', { name: /^Music & dance/ })).toBeHidden();
  }
  await context.close();
  const plain = await (await browser.newContext({ viewport: { width: 360, height: 800 }, javaScriptEnabled: false, baseURL })).newPage();
  await plain.goto('/list/2027-03-17');
  await plain.locator('.filters summary').first().click();
  await plain.getByRole('checkbox', { name: /^Music & dance/ }).check();
  await plain.getByRole('button', { name: 'Show these' }).click();
  await expect(plain).toHaveURL(/kind=music-dance/);
  await plain.context().close();
});

test('the map’s styles come with the map alone; on a phone an event says when, where and cost before its text', async ({
  page,
  request,
}) => {
  for (const path of ['/', '/month/2027-03', '/list', '/what/low-tide-walk']) {
    const styles = [...(await (await request.get(path)).text()).matchAll(/rel="stylesheet" href="([^"]+)"/g)].map((m) => m[1] ?? '');
    for (const href of styles) expect(await (await request.get(href)).text(), `${path} ${href}`).not.toContain('.maplibregl-canvas');
  }
  await page.setViewportSize({ width: 360, height: 800 });
  await page.goto('/what/harbour-choir');
  const top = async (selector: string) => (await page.locator(selector).first().boundingBox())?.y ?? Number.NaN;
  const [when, where, cost, text] = [
    await top('.next'),
    await top('dt:text-is("Where")'),
    await top('dt:text-is("Cost")'),
    await top('.prose'),
  ];
  expect(when < where && where < cost && cost < text).toBe(true);
  expect(cost).toBeLessThan(800);
});

test('next is the next that happens: a cancelled date before it is said beside it, and search engines hear of the other', async ({
  page,
}) => {
  await page.goto('/what/fiddle-session');
  const data = JSON.parse((await page.locator('script[type="application/ld+json"]').textContent()) ?? '{}');
  expect(data.eventStatus).toBe('https://schema.org/EventScheduled');
  await expect(page.locator('.next strong')).not.toContainText('27 March');
  await expect(page.locator('.next')).toContainText(/Sat 27 Mar.*cancelled/);
});

test('a venue’s dates go on in pages, with their count', async ({ page }) => {
  await page.goto('/at/st-brides-hall');
  const heading = page.getByRole('heading', { name: /Coming dates/ });
  const total = Number(/(\d[\d,]*)/.exec((await heading.textContent()) ?? '')?.[1]?.replace(',', ''));
  expect(total).toBeGreaterThan(100);
  let shown = 0;
  for (let number = 2; ; number++) {
    shown += await page.locator('table.days .what a').count();
    const next = page.getByRole('link', { name: 'Later dates ›' });
    if (!(await next.count())) break;
    await next.click();
    await page.waitForURL(`**?page=${number}`);
  }
  // What is kept on top stands in its day too.
  expect(shown).toBeGreaterThanOrEqual(total);
  await expect(page.getByText(/Page (\d+) of \1/)).toBeVisible();
});

test('a reader’s good copy is answered without rendering', async ({ request }) => {
  const first = await request.get('/month/2027-03');
  const etag = first.headers().etag;
  expect(etag).toBeTruthy();
  expect((await request.get('/month/2027-03', { headers: { 'if-none-match': etag ?? '' } })).status()).toBe(304);
  expect((await request.get('/month/2027-04', { headers: { 'if-none-match': etag ?? '' } })).status()).toBe(200);
});

test('the month prints on one sheet', async ({ page }) => {
  await page.goto('/month/2027-03');
  const pdf = await page.pdf({ preferCSSPageSize: true });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1);
});

test('titles, canonical addresses, sitemap, structured data', async ({ page, request }) => {
  await page.goto('/what/low-tide-walk/2027-03-21');
  await expect(page).toHaveTitle(/Low-tide Walk, Sunday 21 March 2027/);
  expect(await page.locator('link[rel="canonical"]').getAttribute('href')).toMatch(/\/what\/low-tide-walk\/2027-03-21$/);
  const data = JSON.parse((await page.locator('script[type="application/ld+json"]').textContent()) ?? '{}');
  expect(data).toMatchObject({
    '@type': 'Event',
    startDate: '2027-03-21T06:55:00-03:00',
    eventStatus: 'https://schema.org/EventRescheduled',
  });
  const sitemap = await (await request.get('/sitemap.xml')).text();
  expect(sitemap).toContain('/what/low-tide-walk</loc>');
  expect(sitemap).not.toContain('autumn-ferry-concert');
});

test('the calendar file of one date and of all', async ({ request }) => {
  const one = await request.get('/what/low-tide-walk/2027-03-21/date.ics');
  expect(one.headers()['content-type']).toContain('text/calendar');
  expect(await one.text()).toContain('DTSTART;TZID=America/Halifax:20270321T065500');
  const all = await (await request.get('/what/low-tide-walk/dates.ics')).text();
  expect(all).toContain('RRULE:FREQ=MONTHLY;BYDAY=1SU,3SU');
});

test('a lost reader is helped, and unknown names never fail', async ({ page, request }) => {
  const response = await page.goto('/what/low-tide-wal');
  expect(response?.status()).toBe(404);
  await expect(page.getByRole('link', { name: 'Low-tide Walk' })).toBeVisible();
  for (const path of [
    '/month/2027-13',
    '/month/x',
    '/list/2027-02-31',
    '/day/9999-01-01',
    '/map/no',
    '/at/nowhere',
    '/by/__proto__',
    '/what/low-tide-walk/nonsense',
    '/picture/x/3',
    '/receipt/x',
    '/%00',
  ]) {
    const answer = await request.get(path, { maxRedirects: 0 });
    expect([400, 404], path).toContain(answer.status());
    expect(await answer.text(), path).not.toMatch(/at .*\.(ts|mjs|astro):\d+/);
  }
  for (const query of ['?kind=__proto__', '?words=%25%5F%27--', '?place=x&free=9', `?words=${'x'.repeat(3000)}`]) {
    expect((await request.get(`/month/2027-03${query}`)).status(), query).toBe(200);
  }
});

test('a reader learns nothing of drafts', async ({ request }) => {
  expect((await request.get('/what/autumn-ferry-concert')).status()).toBe(404);
  for (const path of ['/list/2027-04-20', '/month/2027-04', '/feed.ics', '/sitemap.xml'])
    expect(await (await request.get(path)).text()).not.toContain('Autumn Ferry');
  expect(await (await request.get('/autumn-ferry-concert')).text()).not.toContain('Autumn Ferry Concert');
});

test('with the system’s own colours only the current view is underlined', async ({ browser, baseURL }) => {
  const page = await (await browser.newContext({ forcedColors: 'active', baseURL })).newPage();
  await page.goto('/month/2027-03');
  const edges = await page
    .locator('.views > a')
    .evaluateAll((links) => links.map((link) => [link.getAttribute('aria-current'), getComputedStyle(link).borderBottomColor]));
  const ground = await page.evaluate(() => {
    const probe = document.body.appendChild(document.createElement('i'));
    probe.style.color = 'Canvas';
    return getComputedStyle(probe).color;
  });
  for (const [current, edge] of edges) expect(edge === ground, `${current}: ${edge}`).toBe(current === null);
  await page.context().close();
});
