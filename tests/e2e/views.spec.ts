import { type Browser, expect, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, openSetting, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

interface How {
  width?: number;
  script?: boolean;
  dark?: boolean;
}
async function reader(
  browser: Browser,
  baseURL: string | undefined,
  { width = 1280, script = false, dark = false }: How = {},
): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width, height: 800 },
    javaScriptEnabled: script,
    colorScheme: dark ? 'dark' : 'light',
    baseURL,
  });
  return context.newPage();
}

const VIEWS = [
  '/week/2027-W11',
  '/day/2027-03-20',
  '/places/2027-03-20',
  '/places/2027-03-20?across=week',
  '/year/2027',
  '/year/2027?as=titles',
  '/half-year/2027-03',
];

test('every view of time is whole without a script, at every width, for whoever reads it how', async ({ browser, baseURL }) => {
  for (const { width, dark } of [{ width: 1280 }, { width: 1280, dark: true }, { width: 360 }, { width: 320 }]) {
    // The check of what assistive techniques get is a script, which these pages need for nothing else.
    const page = await reader(browser, baseURL, { width, dark: dark ?? false, script: true });
    for (const view of VIEWS) {
      expect((await page.goto(view))?.status(), view).toBe(200);
      await expectNoSidewaysScroll(page);
      if (width !== 320) await expectAccessible(page, `${view} at ${width}${dark ? ', dark' : ''}`);
    }
    await page.context().close();
  }
});

test('a week has hours, what goes on past midnight, and workdays alone; any of its days leads there', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL);
  await page.goto('/week/2027-03-18?kind=music-dance');
  expect(new URL(page.url()).pathname + new URL(page.url()).search).toBe('/week/2027-W11?kind=music-dance');
  const saturday = page.getByRole('region', { name: 'Saturday 20 March' });
  await expect(saturday.getByRole('link')).toHaveCount(2);
  await expect(page.getByRole('region', { name: 'Sunday 21 March' })).toHaveCount(1);
  await page.getByRole('link', { name: 'Workdays only' }).click();
  await expect(page.getByRole('region', { name: 'Saturday 20 March' })).toHaveCount(0);
  // The step to the next week keeps what is chosen, and so does a filter.
  await page.getByRole('link', { name: 'Week after' }).click();
  expect(page.url()).toContain('/week/2027-W12?kind=music-dance&days=work');
  await page.goto('/week/2027-W11?days=work');
  await page.getByText('Choose').click();
  await page.getByRole('checkbox', { name: /Music & dance/ }).check();
  await page.getByRole('button', { name: 'Show' }).click();
  expect(page.url()).toContain('days=work');
  expect(page.url()).toContain('kind=music-dance');
  await page.context().close();
});

test('moving between views keeps the place in time and what is chosen; on a phone the later ones fold', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL, { width: 360 });
  await page.goto('/week/2027-W20?kind=water-boats');
  const tabs = page.getByRole('navigation', { name: 'Views' });
  await expect(tabs.getByRole('link', { name: 'Year' })).toBeHidden();
  await tabs.getByText('More').click();
  await tabs.getByRole('link', { name: 'By place' }).click();
  expect(page.url()).toContain('/places/2027-05-17?kind=water-boats');
  await tabs.locator('summary').click();
  await tabs.getByRole('link', { name: 'Year' }).click();
  expect(page.url()).toContain('/year/2027?kind=water-boats');
  await tabs.getByRole('link', { name: 'Month' }).click();
  expect(page.url()).toContain('/month/2027-03?kind=water-boats');
  // The strip of a week: a day's numeral shows that day's dates under it.
  await page.goto('/week/2027-W11');
  await page
    .getByRole('navigation', { name: 'Days of the week' })
    .getByRole('link', { name: /Saturday 20 March/ })
    .click();
  await expect(page.locator('#chosen')).toContainText('Crab Count');
  await page.context().close();
});

test('a reader goes to a time in words, and is told where words name none', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL);
  const goTo = async (words: string): Promise<string> => {
    await page.getByText('Go to ▾').click();
    await page.getByLabel('A date, in words').fill(words);
    await page.getByRole('button', { name: 'Go', exact: true }).click();
    return page.url().replace(baseURL ?? '', '');
  };
  await page.goto('/places/2027-03-20?rows=kind&kind=music-dance');
  expect(await goTo('weekend after next')).toBe('/places/2027-04-03?kind=music-dance&rows=kind');
  expect(await goTo('easter')).toBe('/places/2027-03-28?kind=music-dance&rows=kind');
  await page.goto('/month/2027-03');
  expect(await goTo('december')).toBe('/month/2027-12');
  expect(await goTo('every now and then')).toContain('/month/2027-12?unread=');
  await expect(page.getByRole('alert')).toContainText('“every now and then” is not a date we understand');
  await page.getByText('Go to ▾').click();
  await page.getByRole('list', { name: 'Months of 2027' }).getByRole('link', { name: 'May' }).click();
  expect(page.url()).toContain('/month/2027-05');
  await page.context().close();
});

test('by place: what happens beside what, by venue, island, kind and organizer', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL);
  await page.goto('/places/2027-03-20');
  const row = (name: string) => page.getByRole('row').filter({ has: page.getByRole('rowheader', { name }) });
  await expect(row('Causeway Slip')).toContainText('Crab Count');
  await expect(row('Lantern Quay Workshop')).toContainText('Tool Library');
  await page.getByRole('link', { name: 'kinds', exact: true }).click();
  await expect(row('Market & food').first()).toContainText('Quay Market');
  await page.getByRole('link', { name: 'organizers', exact: true }).click();
  expect(await page.getByRole('rowheader').count()).toBeGreaterThan(3);
  // What is chosen stays whole through steps, several of a kind too.
  await page.goto('/places/2027-03-20?kind=music-dance,market-food&rows=kind&across=week');
  await page.getByRole('link', { name: 'Week after' }).click();
  expect(page.url()).toContain('/places/2027-03-27?kind=market-food,music-dance&rows=kind&across=week');
  await page.goto('/week/2027-W11?days=work');
  await expect(page.getByRole('link', { name: /Saturday 20 March/ })).toHaveCount(0);
  await page.goto('/places/2027-03-20');
  await page.getByRole('link', { name: 'islands and towns' }).click();
  await page.getByRole('link', { name: 'days of the week' }).click();
  expect(page.url()).toContain('rows=area&across=week');
  await expect(page.getByRole('columnheader', { name: 'Sunday 21 March' })).toBeVisible();
  await page.context().close();
});

test('the year counts what is on, and a date of it opens the day', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL);
  await page.goto('/year/2027');
  await expect(page.getByRole('table')).toHaveCount(12);
  await page.getByRole('link', { name: /^Saturday 20 March, 12 dates/ }).click();
  expect(page.url()).toContain('/day/2027-03-20');
  await expect(page.getByRole('region', { name: 'Saturday 20 March' }).getByText('Quay Market')).toBeVisible();
  await page.getByRole('link', { name: 'As a list' }).click();
  await expect(page.getByRole('table')).toContainText('Quay Market');
  await page.goto('/half-year/2027-10');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('October 2027 – March 2028');
  await page.context().close();
});

test('a publisher chooses which views there are, their order, and the first', async ({ browser, request, baseURL }) => {
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  await openSetting(maud, 'views');
  await maud.getByRole('textbox', { name: 'Week', exact: true }).fill('1');
  await maud.getByRole('textbox', { name: 'Month', exact: true }).fill('2');
  await maud.getByRole('textbox', { name: 'Map', exact: true }).fill('');
  await maud.locator('input[name="view-day"]').fill('x');
  await maud.getByLabel('First view', { exact: true }).selectOption('week');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByText('A number, or nothing').first()).toBeVisible();
  await maud.locator('input[name="view-day"]').fill('');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByText('A number, or nothing')).toHaveCount(0);
  const page = await reader(browser, baseURL);
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('15–21 March');
  const tabs = await page.getByRole('navigation', { name: 'Views' }).getByRole('link').allTextContents();
  expect(tabs.slice(0, 2)).toEqual(['Week', 'Month']);
  expect(tabs).not.toContain('Map');
  expect(tabs).not.toContain('Day');
  expect((await page.goto('/map/2027-03-20'))?.status()).toBe(200);
  // Phones may begin with another one, whoever asked before.
  await openSetting(maud, 'views');
  await maud.getByLabel('First view on phones').selectOption('list');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByLabel('First view on phones')).toHaveValue('list');
  const phone = await (
    await browser.newContext({ userAgent: 'Mozilla/5.0 (Linux; Android 14) Mobile', isMobile: true, javaScriptEnabled: false, baseURL })
  ).newPage();
  for (let twice = 0; twice < 2; twice++) {
    const answer = await phone.goto('/');
    expect(answer?.headers().vary).toContain('user-agent');
    await expect(phone.locator('[data-part="views"] [aria-current="page"]').first()).toHaveText('List');
    await page.goto('/');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('15–21 March');
  }
  expect((await phone.goto('/list'))?.headers().vary).not.toContain('user-agent');
  await phone.context().close();
  await openSetting(maud, 'views');
  await maud.getByRole('textbox', { name: 'Week', exact: true }).fill('');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByText('This is the first view, so it needs a number.').first()).toBeVisible();
  for (const one of [maud, page]) await one.context().close();
});

test('addresses that name no time are said to be none, quickly', async ({ request }) => {
  for (const at of [
    '/week/2027-W54',
    '/week/2027-02-30',
    '/year/99999',
    '/year/1800',
    '/half-year/2027',
    '/places/2027-W11',
    '/week/%00',
  ]) {
    const began = Date.now();
    const status = (await request.get(at, { maxRedirects: 0 })).status();
    expect([400, 404], at).toContain(status);
    expect(Date.now() - began, at).toBeLessThan(5_000);
  }
  const odd = await request.get(`/go?view=week&at=2027-W54&when=${'x'.repeat(4000)}&rows=%3Cscript%3E`, { maxRedirects: 0 });
  expect(odd.status()).toBe(302);
  expect(odd.headers().location).toMatch(/^\/week\/2027-W11\?unread=x{60}$/);
  expect((await request.get('/places/2027-03-20?page=99999&rows=nothing&across=x')).status()).toBe(200);
});

test('a view names its feeds, which are called by what is chosen; an event names what is like it', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await reader(browser, baseURL);
  await page.goto('/week/2027-W11?kind=music-dance&free=1');
  const feeds = await page
    .locator('link[rel="alternate"][href^="/feed."]')
    .evaluateAll((links) => links.map((link) => link.getAttribute('href')));
  expect(feeds).toEqual(['ics', 'rss', 'atom', 'json'].map((kind) => `/feed.${kind}?kind=music-dance&free=1`));
  // What nobody understands of the address, or is taken for something else, stands in the name: it is all that whoever follows a feed sees.
  const odd = `kind=music-dance&on=someday&words=chior`;
  for (const kind of ['ics', 'rss', 'atom', 'json']) {
    const text = (await (await request.get(`/feed.${kind}?${odd}`)).text()).replace(/\r\n /g, '').replaceAll('&amp;', '&');
    expect(text, kind).toMatch(/Kittiwick Isles Almanac: Music & dance.*on=someday.*choir/);
  }
  expect(await (await request.get(`/dates.geojson?${odd}`)).json()).toMatchObject({
    notUnderstood: [expect.stringContaining('on=someday'), expect.stringContaining('choir')],
  });
  const table = await request.get(`/dates.csv?${odd}`);
  expect([table.status(), await table.text()]).toEqual([422, expect.stringContaining('on=someday')]);
  for (const feed of feeds) {
    const answer = await request.get(feed ?? '');
    expect(answer.status(), feed ?? '').toBe(200);
    expect(await answer.text(), feed ?? '').toMatch(/Kittiwick Isles Almanac: Music &(amp;)? dance\\?, free/);
    // Whoever asks again gets "not modified".
    const again = await request.get(feed ?? '', { headers: { 'if-none-match': answer.headers().etag ?? '' } });
    expect(again.status(), feed ?? '').toBe(304);
  }
  const { features } = (await (await request.get('/dates.geojson?kind=music-dance')).json()) as {
    features: { properties: { url: string } }[];
  };
  expect(features.length).toBeGreaterThan(3);
  expect((await request.get(new URL(features[0]?.properties.url ?? '').pathname)).status()).toBe(200);
  await page.goto('/what/harbour-choir');
  const related = page.getByRole('region', { name: 'More like this' });
  await expect(related.getByRole('link').first()).toBeVisible();
  await related.getByRole('link').first().click();
  expect(new URL(page.url()).pathname).toMatch(/^\/what\/(?!harbour-choir\/)/);
  await page.context().close();
});
