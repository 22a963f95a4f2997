import { type Browser, expect, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, openSetting, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

async function reader(browser: Browser, baseURL: string | undefined, { width = 1280, script = true, dark = false } = {}): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width, height: 800 },
    javaScriptEnabled: script,
    colorScheme: dark ? 'dark' : 'light',
    permissions: ['geolocation'],
    // Off Port Amble, to more places than anybody needs to know.
    geolocation: { latitude: 45.998_765, longitude: -60.123_456 },
    baseURL,
  });
  return context.newPage();
}
const chosen = (page: Page) => page.getByRole('list', { name: 'Your choices' }).getByRole('listitem');
const titles = (page: Page): Promise<string[]> => page.locator('table.days .what a').allTextContents();

test('Saturday’s free events near a place are three presses away, at a desk and on a phone', async ({ browser, baseURL }) => {
  const desk = await reader(browser, baseURL);
  await desk.goto('/list');
  await desk.getByRole('radio', { name: /^This weekend/ }).check();
  await desk.getByRole('checkbox', { name: /^Free of charge/ }).check();
  await desk.getByRole('checkbox', { name: /^Port Amble/ }).check();
  await expect(desk).toHaveURL(/\?place=Port\+Amble&on=weekend&free=1$/);
  await expect(chosen(desk)).toHaveText([/^free/, /^this weekend/, /^Port Amble/]);
  await expect(desk.locator('[data-part="chosen"] strong')).toHaveText(/^\d+ dates$/);
  const found = await titles(desk);
  expect(found).toContain('Shanty Hour');
  expect(found).not.toContain('Quay Market');
  await desk.context().close();

  const phone = await reader(browser, baseURL, { width: 360 });
  await phone.goto('/list');
  await phone.getByRole('link', { name: 'This weekend' }).click();
  await phone.getByRole('link', { name: 'Free of charge' }).click();
  await expect(phone).toHaveURL(/on=weekend&free=1$/);
  await phone.getByRole('button', { name: 'Near me' }).click();
  // The address has the position to a kilometre and no more.
  await expect(phone).toHaveURL(/near=46,-60\.12&on=weekend&free=1$/);
  await expect(chosen(phone).last()).toContainText('within 5 km of 46,-60.12');
  await expectAccessible(phone, 'found on a phone');
  await phone.context().close();
});

test('a form without a script asks the same; the sentence takes off part by part', async ({ browser, baseURL }) => {
  for (const width of [1280, 360]) {
    const page = await reader(browser, baseURL, { width, script: false });
    await page.goto('/list');
    if (width === 360) await page.locator('[data-summary]').click();
    await page.getByRole('radio', { name: /^This weekend/ }).check();
    await page.getByRole('checkbox', { name: /^Free of charge/ }).check();
    await page.locator('[data-group="near"] summary').click();
    await page.getByLabel('Place', { exact: true }).fill('pilots house');
    await page.getByLabel('Within').selectOption('1');
    await page.getByRole('button', { name: 'Show these' }).click();
    await expect(chosen(page)).toHaveText([/^free/, /^this weekend/, /^within 1 km of Pilots' House/]);
    await expect(page.locator('[data-part="ledger"]')).toContainText('0 km away');
    expect(await titles(page)).toContain('Shanty Hour');
    // The weekend is all: nothing is claimed of three years.
    const foot = page.getByText('That is all on the days you chose.');
    await expect(foot).toBeVisible();
    await page.getByRole('link', { name: 'Remove this weekend' }).click();
    await expect(foot).toHaveCount(0);
    await expect(chosen(page)).toHaveText([/^free/, /^within 1 km/]);
    await expectNoSidewaysScroll(page);
    await page.context().close();
  }
});

test('when nothing is left, it says which choice to take off, and how many there would be', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL, { script: false });
  await page.goto('/list?kind=market-food&on=weekend&part=evening');
  await expect(page.locator('[data-part="chosen"] strong')).toHaveText('0 dates');
  const drops = page.locator('[data-part="drop"] a');
  await expect(drops.first()).toHaveText(/^Without .+: \d+ dates?$/);
  const promised = Number(/(\d+) dates?$/.exec((await drops.first().textContent()) ?? '')?.[1]);
  await drops.first().click();
  await expect(page.locator('[data-part="chosen"] strong')).toHaveText(promised === 1 ? '1 date' : `${promised} dates`);
  await page.goto('/list?kind=market-food&part=evening&access=quiet-room&area=Skerry&on=tomorrow');
  await expect(page.locator('[data-part="drop"]')).toContainText('Taking off any one of your choices would not help');
  await page.context().close();
});

test('what was found is marked, titles first, and words in quotation marks stand together', async ({ browser, baseURL }) => {
  const page = await reader(browser, baseURL, { script: false });
  await page.goto('/list?words=choir');
  expect((await titles(page)).slice(0, 2)).toEqual(['Harbour Choir', 'Harbour Choir: open rehearsal']);
  await expect(page.locator('[data-part="ledger"] mark').first()).toHaveText('Choir');
  await page.goto(`/list?words=${encodeURIComponent('"the net loft"')}`);
  expect((await titles(page))[0]).toBe('Ceilidh at the Net Loft');
  const together = (await titles(page)).length;
  await page.goto('/list?words=the+net+loft');
  expect((await titles(page)).length).toBeGreaterThanOrEqual(together);
  await page.context().close();
});

test('what nobody can answer is said, and never fails', async ({ browser, request, baseURL }) => {
  const page = await reader(browser, baseURL, { script: false });
  await page.goto('/list?near=Atlantis&on=someday&kind=no-such-kind&upto=cheap');
  const missing = page.locator('[data-part="missing"]');
  await expect(missing).toContainText('We know no place called “Atlantis”');
  for (const part of ['on=someday', 'kind=no-such-kind', 'upto=cheap']) await expect(missing).toContainText(part);
  await page.context().close();
  const many = Array.from({ length: 2_000 }, (_, i) => `k${i}`).join(',');
  for (const query of [
    `kind=${many}`,
    'near=91,200',
    'near=%00',
    'near=0,0&within=99999',
    `words=${'%22'.repeat(900)}x`,
    `words=${'y'.repeat(4_000)}`,
    'from=99999-01-01&to=0000-00-00',
    'from=2027-04-01&to=2027-03-01',
    'upto=1e309',
    'access=__proto__,constructor',
    `area=${'%F0%9F%90%9F'.repeat(200)}`,
  ])
    for (const view of ['/list', '/month/2027-03', '/week/2027-W11', '/places/2027-03-20', '/year/2027', '/map', '/feed.rss', '/dates.csv'])
      expect((await request.get(`${view}?${query}`)).status(), `${view}?${query.slice(0, 60)}`).toBeLessThan(500);
});

test('all venues, organizers and tags have a page, in both languages', async ({ browser, baseURL }) => {
  for (const { width, dark } of [
    { width: 1280, dark: false },
    { width: 360, dark: true },
  ]) {
    const page = await reader(browser, baseURL, { width, dark });
    for (const path of ['/at', '/by', '/tags', '/fr/at']) {
      expect((await page.goto(path))?.status(), path).toBe(200);
      await expectAccessible(page, path);
      await expectNoSidewaysScroll(page);
    }
    await page.goto('/at');
    await page.locator('main').getByRole('link', { name: 'Net Loft' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Net Loft');
    await page.context().close();
  }
});

test('a publisher chooses what readers choose by; what a link chose is kept all the same', async ({ browser, request, baseURL }) => {
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  await openSetting(maud, 'filters');
  const filters = maud.getByRole('group', { name: 'Filters and their order' });
  const groups = await filters.getByRole('textbox').all();
  for (const field of groups) await field.fill('');
  await filters.getByRole('textbox', { name: 'Area' }).fill('2');
  await filters.getByRole('textbox', { name: 'Venue' }).fill('x');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByText('A number, or nothing').first()).toBeVisible();
  await filters.getByRole('textbox', { name: 'Venue' }).fill('1');
  await maud.getByRole('button', { name: 'Save' }).click();
  await expect(maud.getByText('A number, or nothing')).toHaveCount(0);
  const page = await reader(browser, baseURL);
  await page.goto('/list');
  expect(await page.locator('[data-group]').evaluateAll((all) => all.map((one) => one.getAttribute('data-group')))).toEqual([
    'venue',
    'area',
  ]);
  await page.goto('/list?kind=music-dance');
  await page.locator('[data-group="area"] summary').click();
  await page.getByRole('checkbox', { name: /^Amble/ }).check();
  await expect(page).toHaveURL(/\?kind=music-dance&area=Amble$/);
  await expectAccessible(page, 'filters of a publisher’s choice');
  for (const one of [maud, page]) await one.context().close();
});
