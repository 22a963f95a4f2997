import { type Browser, type BrowserContext, expect } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';
import { serveCopy, test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const reader = (browser: Browser, baseURL: string | undefined, more = {}): Promise<BrowserContext> =>
  browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL, ...more });

test('from a view to its events, one after another, and back to the view as it was', async ({ browser, baseURL }) => {
  const context = await reader(browser, baseURL);
  const page = await context.newPage();
  await page.goto('/list?kind=music-dance');
  const links = page.locator('[data-part="ledger"] .what a');
  const [first, second] = [await links.nth(1).textContent(), await links.nth(2).textContent()];
  await links.nth(1).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(first ?? '');
  const way = page.getByRole('navigation', { name: 'Where you came from' });
  await expect(way.getByRole('link')).toHaveCount(3);
  await expectAccessible(page, 'an event with the way back');
  await way.getByRole('link', { name: `Next event: ${second}` }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(second ?? '');
  await way.getByRole('link', { name: /^Back: From 17 March/ }).click();
  await expect(page).toHaveURL(/\/list\?kind=music-dance$/);
  // Whoever comes from elsewhere is offered no way back to where they never were.
  const stranger = await context.newPage();
  await stranger.goto('/what/harbour-choir');
  await expect(stranger.locator('[data-way-back] a')).toHaveCount(0);
  await context.close();
});

test('resting on a date shows what it is; Escape takes it away, and the keyboard gets the same', async ({ browser, baseURL }) => {
  const context = await reader(browser, baseURL);
  const page = await context.newPage();
  await page.goto('/month/2027-03');
  const link = page.locator('[data-view] a[href$="/what/harbour-choir/2027-03-23"]:visible').first();
  await link.hover();
  const peek = page.getByRole('tooltip');
  await expect(peek).toContainText('St Bride');
  await expect(peek).toContainText('23 March 2027');
  await expectAccessible(page, 'a peek');
  await page.keyboard.press('Escape');
  await expect(peek).toHaveCount(0);
  // Moved onto, it stays; left, it goes.
  await page.mouse.move(0, 0);
  await link.hover();
  await expect(peek).toBeVisible();
  await peek.hover({ position: { x: 20, y: 12 } });
  await peek.hover({ position: { x: 60, y: 30 } });
  await expect(peek).toBeVisible();
  await page.mouse.move(0, 0);
  await expect(peek).toHaveCount(0);
  await page.keyboard.press('Tab');
  await link.focus();
  await expect(peek).toContainText('St Bride');
  await expect(link).toHaveAttribute('aria-describedby', 'peek');
  await page.keyboard.press('Tab');
  await expect(page.locator('#peek:has-text("23 March 2027")')).toHaveCount(0);
  await context.close();
});

test('a finger’s first tap shows what a date is, its second opens it; elsewhere it goes away, and a list opens at once', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1100 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await page.goto('/week/2027-W12');
  const link = page.locator('[data-view] a[href$="/what/harbour-choir/2027-03-23"]:visible').first();
  await link.tap();
  const panel = page.getByRole('dialog', { name: 'Harbour Choir' });
  await expect(panel).toContainText('St Bride');
  await expect(panel.getByRole('link', { name: 'Open the event' })).toBeFocused();
  await expectAccessible(page, 'a peek by touch');
  await expectNoSidewaysScroll(page);
  await page.getByRole('heading', { level: 1 }).tap();
  await expect(panel).toHaveCount(0);
  await link.tap();
  await panel.getByRole('link', { name: 'Open the event' }).tap();
  await expect(page).toHaveURL(/\/what\/harbour-choir\/2027-03-23$/);
  await expect(page.locator('[data-way-back] a').first()).toBeVisible();
  await page.goBack();
  await link.tap();
  await expect(panel).toBeVisible();
  await link.tap();
  await expect(page).toHaveURL(/\/what\/harbour-choir\/2027-03-23$/);
  await page.goto('/list?from=2027-03-23');
  await page.locator('[data-part="ledger"] a[href*="/what/harbour-choir"]').first().tap();
  await expect(page).toHaveURL(/\/what\/harbour-choir/);
  await context.close();
});

test('the reader’s own clock is said on a press, at once for what is online, and where it is the same', async ({ browser, baseURL }) => {
  const berlin = await reader(browser, baseURL, { timezoneId: 'Europe/Berlin' });
  const page = await berlin.newPage();
  await page.goto('/what/shanty-hour/2027-03-20');
  const line = page.locator('[data-own-zone]');
  await expect(line).toBeHidden();
  await page.getByRole('button', { name: 'In my time zone' }).click();
  // Clocks change a week later there: four hours, not five.
  await expect(line).toHaveText(/^Your time \(Berlin\): Saturday,? 20 March.* 21:00\s?[–-]\s?22:00$/);
  await berlin.close();
  const halifax = await reader(browser, baseURL, { timezoneId: 'America/Halifax' });
  const here = await halifax.newPage();
  await here.goto('/what/shanty-hour/2027-03-20');
  await here.getByRole('button', { name: 'In my time zone' }).click();
  await expect(here.locator('[data-own-zone]')).toHaveText('Your clock (Halifax) shows the same time.');
  await halifax.close();
});

test('an event is shared by its address, sent by mail, and printed with a code that leads back', async ({ browser, baseURL }) => {
  const context = await reader(browser, baseURL, { permissions: ['clipboard-read', 'clipboard-write'] });
  const page = await context.newPage();
  await page.goto('/what/harbour-choir');
  await page.getByRole('button', { name: 'Share' }).click();
  await expect(page.locator('[data-share-said]')).toHaveText('The address was copied.');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(`${baseURL}/what/harbour-choir`);
  const mail = decodeURIComponent((await page.getByRole('link', { name: 'Send by mail' }).getAttribute('href')) ?? '');
  expect(mail).toContain(`${baseURL}/what/harbour-choir`);
  expect(mail).toContain('Every Tuesday');
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('[data-part="share"]')).toBeHidden();
  await expect(page.locator('[data-part="event"] svg path[stroke]').first()).toBeVisible();
  await context.close();
  const plain = await reader(browser, baseURL, { javaScriptEnabled: false, viewport: { width: 360, height: 800 } });
  const phone = await plain.newPage();
  await phone.goto('/what/harbour-choir');
  await expect(phone.getByRole('link', { name: 'Send by mail' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Share' })).toHaveCount(0);
  await expectNoSidewaysScroll(phone);
  await plain.close();
});

test('a reader says what is wrong, without a script; an editor sees to it, and opens it again', async ({ browser, request, baseURL }) => {
  const plain = await reader(browser, baseURL, { javaScriptEnabled: false, viewport: { width: 360, height: 800 } });
  const phone = await plain.newPage();
  await phone.goto('/what/shanty-hour/2027-03-20');
  await phone.getByRole('link', { name: 'Something wrong? Tell us' }).click();
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Tell us what is wrong');
  await phone.getByLabel('What is wrong?').fill('It begins at six.');
  await phone.getByLabel('Mail address').fill('rue@dunlin');
  await phone.getByRole('button', { name: 'Send it' }).click();
  await expect(phone.getByText('A mail address needs a name, an @ and a domain').first()).toBeVisible();
  await expect(phone.getByLabel('What is wrong?')).toHaveValue('It begins at six.');
  await phone.getByLabel('Mail address').fill('rue@dunlin.example');
  await phone.getByRole('button', { name: 'Send it' }).click();
  await expect(phone.getByRole('status')).toContainText('Thank you. An editor will look at it.');
  await expectNoSidewaysScroll(phone);
  await phone.goto('/fr/what/shanty-hour/tell');
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText('Dites-nous ce qui ne va pas');
  await plain.close();

  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/intake');
  await ivo.getByRole('link', { name: '1 reader says that something is wrong' }).click();
  await expect(ivo.getByText('It begins at six.')).toBeVisible();
  await expect(ivo.getByRole('link', { name: 'Shanty Hour' })).toHaveAttribute('href', /^\/desk\/listings\//);
  await expectAccessible(ivo, 'what readers say is wrong');
  await ivo.getByRole('button', { name: 'Done Shanty Hour' }).click();
  await expect(ivo.getByRole('region', { name: 'To deal with' })).toContainText('Nothing to deal with');
  await ivo.getByRole('button', { name: 'Open again Shanty Hour' }).click();
  await expect(ivo.getByRole('region', { name: 'To deal with' })).toContainText('It begins at six.');
  await ivo.context().close();
  // A contributor sees none of it.
  const nan = await pageOf(browser, request, 'nan', { baseURL });
  expect((await nan.goto('/desk/remarks'))?.status()).toBe(403);
  await nan.context().close();
});

test('what a server answered before everything was at hand is answered anew afterwards', async ({ request }) => {
  const served = await serveCopy('early', {});
  try {
    const read = async () => {
      const answer = await request.get(`${served.url}/what/harbour-choir`);
      return { tag: answer.headers().etag, related: (await answer.text()).includes('data-part="related"') };
    };
    const first = await read();
    await expect.poll(async () => (await read()).related, { message: 'listings like it' }).toBe(true);
    // Everything may have come at hand while the first one was made: then it has them under its own tag.
    const { tag } = await read();
    expect(first.related || tag !== first.tag, 'a page without them has another tag').toBe(true);
  } finally {
    await served.stop();
  }
});
