import { expect } from '@playwright/test';
import { expectAccessible, openSetting, pageOf, signIn } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

test('tables: a category is added and removed, the fallback says why it stays; set-up reaches the pages', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'maud', { baseURL });
  await page.goto('/desk/categories/new');
  await page.getByLabel('Name').fill('Tides');
  await page.getByLabel('or an ink of your own').fill('yellow');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('An ink is written #0c5a63').first()).toBeVisible();
  await page.getByLabel('or an ink of your own').fill('#ffe000');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status').first()).toContainText('saved');
  await page.getByRole('link', { name: 'Tides' }).click();
  await expect(page.getByText('(adjusted)').first()).toBeVisible();
  await page.getByRole('button', { name: 'Remove this category' }).click();
  await expect(page.getByRole('link', { name: 'Tides' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Town business' }).click();
  await expect(page.getByText('This is the fallback')).toBeVisible();
  await openSetting(page, 'hours');
  await page.getByLabel('Times', { exact: true }).selectOption('12');
  await page.getByLabel('First weekday').selectOption('6');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  await openSetting(page, 'lat');
  await page.getByLabel('Latitude').fill('north');
  await page.getByLabel('Directions on the web').fill('https://map.example/?at={lat},{lng}');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The latitude is a number').first()).toBeVisible();
  await page.getByLabel('Latitude').fill('43.2');
  await page.getByRole('button', { name: 'Save' }).click();
  // It is said once, and not again after a reload.
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  await expect(page).toHaveURL(/\/desk\/set-up\/map(#|$)/);
  await page.reload();
  await expect(page.getByText('Saved. Every page')).toHaveCount(0);
  await page.goto('/month/2027-03');
  await expect(page.locator('table.month thead th').nth(1)).toContainText('Sun');
  await expect(page.locator('.entry .t').first()).toContainText('am');
  await page.goto('/what/low-tide-walk');
  await expect(page.getByRole('link', { name: 'on the web' })).toHaveAttribute(
    'href',
    /^https:\/\/map\.example\/\?at=43\.\d{5},-57\.\d{5}$/,
  );
  await openSetting(page, 'mapAddress');
  await page.getByLabel('Directions on the web').fill('');
  await page.getByRole('button', { name: 'Save' }).click();
  await openSetting(page, 'hours');
  await page.getByLabel('Times', { exact: true }).selectOption('24');
  await page.getByLabel('First weekday').selectOption('0');
  await page.getByRole('button', { name: 'Save' }).click();
  for (const path of ['/desk/listings', '/desk/venues', '/desk/categories', '/desk/people', '/desk/mail', '/desk/set-up']) {
    await page.goto(path);
    await expectAccessible(page, path);
  }
  await page.close();
});

test('somebody is invited, joins by the mail’s link, and can sign in; a contributor sends for review', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'maud', { baseURL });
  await page.goto('/desk/people');
  await page.getByLabel('Name', { exact: true }).fill('Olaf Brae');
  await page.getByLabel('Mail address').fill('olaf@almanac.example');
  await page.getByRole('button', { name: 'Send the invitation' }).click();
  await page.goto('/desk/mail');
  await page.getByText('Your invitation to').first().click();
  const href = await page.locator('details[open] a').first().getAttribute('href');
  const olaf = await (await browser.newContext({ baseURL })).newPage();
  await olaf.goto(new URL(href ?? '').pathname);
  await olaf.getByLabel('A password').fill('too short');
  await olaf.getByLabel('A password').evaluate((input) => input.removeAttribute('minlength'));
  await olaf.getByRole('button', { name: 'Join' }).click();
  await expect(olaf.getByRole('alert')).toContainText('at least 12');
  await olaf.getByLabel('A password').fill('seven quiet herrings');
  await olaf.getByRole('button', { name: 'Join' }).click();
  await olaf.getByLabel('Mail address').fill('olaf@almanac.example');
  await olaf.getByLabel('Password').fill('seven quiet herrings');
  await olaf.getByRole('button', { name: 'Sign in' }).click();
  await olaf.waitForURL('**/desk/today');
  await expect(olaf.getByText('You have no listings yet')).toBeVisible();
  await olaf.getByRole('link', { name: 'Type the first one' }).click();
  await olaf.waitForURL('**/desk/listings/new');
  await olaf.getByLabel('Title', { exact: true }).fill('Olaf’s Evening');
  await olaf.getByRole('button', { name: 'Set a date' }).click();
  await olaf.getByRole('button', { name: 'Send for review' }).click();
  await expect(olaf.locator('[data-note]')).toContainText(/Sent for review/);
  await page.goto('/desk/intake');
  await expect(page.locator('.pile')).toContainText('Olaf’s Evening');
  await olaf.close();
  await page.close();
});

test('a forgotten password is chosen anew by the link of a mail, once, and ends other sessions', async ({ browser, request, baseURL }) => {
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  const nan = await (await browser.newContext({ baseURL })).newPage();
  await signIn(nan, 'nan');
  const reader = await (await browser.newContext({ baseURL })).newPage();
  const ask = async (email: string): Promise<void> => {
    await reader.goto('/desk/forgotten');
    await reader.getByLabel('Mail address of your account').fill(email);
    await reader.getByRole('button', { name: 'Send the link' }).click();
    await expect(reader.getByText('If there is an account')).toBeVisible();
  };
  const linkOf = async (): Promise<string> => {
    await maud.goto('/desk/mail');
    await maud.getByText('A new password for').first().click();
    const href = new URL((await maud.locator('details[open] a').first().getAttribute('href')) ?? '');
    return href.pathname + href.search;
  };
  const choose = async (link: string, password: string): Promise<void> => {
    await reader.goto(link);
    await reader.getByLabel('New password').fill(password);
    await reader.getByRole('button', { name: 'Keep it' }).click();
  };
  await ask('nobody@almanac.example');
  await ask('nan@almanac.example');
  const link = await linkOf();
  await expect(maud.getByText('to nobody@almanac.example')).toHaveCount(0);
  await choose(link, 'eleven calm puffins');
  await reader.waitForURL('**/desk/sign-in');
  await nan.goto('/desk/listings');
  await expect(nan).toHaveURL(/sign-in/);
  await choose(link, 'twelve calm puffins');
  await expect(reader.getByRole('alert')).toContainText('used already');
  await reader.goto('/desk/sign-in');
  await reader.getByLabel('Mail address').fill('nan@almanac.example');
  await reader.getByLabel('Password').fill('eleven calm puffins');
  await reader.getByRole('button', { name: 'Sign in' }).click();
  await reader.waitForURL('**/desk/today');
  await reader.getByRole('button', { name: 'Sign out' }).click();
  await reader.goto('/desk/listings');
  await expect(reader).toHaveURL(/sign-in/);
  // Back to the demo's own password, which the tests after this one use.
  await ask('nan@almanac.example');
  await choose(await linkOf(), 'kittiwick-isles-3');
  await reader.waitForURL('**/desk/sign-in');
  for (const page of [maud, nan, reader]) await page.close();
});
