/** The settings: found by words, in sections, tried beside a sample, saved and taken back; what is switched off is not in the bar. */
import { expect } from '@playwright/test';
import { test } from './site';
import { chooseSetting, expectAccessible, expectNoSidewaysScroll, openSetting, pageOf, signIn } from './support';

test('a setting is found with a slip, tried in the sample, saved, taken back and put back', async ({ page }) => {
  await signIn(page, 'maud');
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByLabel('Find a setting').fill('curency');
  await page.keyboard.press('Enter');
  await page.locator('#found').getByRole('link', { name: 'Currency' }).click();
  const sample = page.getByRole('region', { name: 'As it will read' });
  await expect(sample).toContainText('$12.50');
  await chooseSetting(page, 'Currency', 'euro', /^EUR/);
  await expect(sample).toContainText('€12.50');
  await page.getByLabel('Times', { exact: true }).selectOption('12');
  await expect(sample).toContainText('7:30 pm');
  // A zone by its city, never typed blind; what is in no list is chosen by nobody.
  await page.getByRole('combobox', { name: 'Time zone' }).and(page.locator('input')).fill('Gannet');
  await expect(page.getByText('Nothing in the list is called “Gannet”.')).toBeVisible();
  // Left like that it says again what is chosen.
  await page.keyboard.press('Tab');
  await expect(page.getByRole('combobox', { name: 'Time zone' })).toHaveValue(/^Halifax/);
  await chooseSetting(page, 'Time zone', 'tokio', /^Tokyo, Asia, UTC\+9/);
  await expect(sample).toContainText('9 pm');
  // Nothing of it is saved yet.
  expect(await (await page.request.get('/day/2027-03-20')).text()).not.toMatch(/\d pm\b/);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  await expect(page.getByText(/^Last change, .* by Maud Petrel: Time zone, Times and Currency\.$/)).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Currency' })).toHaveValue(/^EUR/);
  await expectAccessible(page, 'time and place');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('Undone. It is as it was before.')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Time zone' })).toHaveValue(/^Halifax/);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('combobox', { name: 'Currency' })).toHaveValue(/^EUR/);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('combobox', { name: 'Currency' })).toHaveValue(/^CAD/);
});

test('every section is whole on a phone, in the dark and without scripts', async ({ browser, request, baseURL }) => {
  const phone = await pageOf(browser, request, 'maud', { baseURL, width: 360, height: 740 });
  await phone.emulateMedia({ colorScheme: 'dark' });
  for (const at of ['', '/site', '/time', '/map', '/readers', '/sending', '/mail']) {
    await phone.goto(`/desk/set-up${at}`);
    await expectNoSidewaysScroll(phone);
    await expectAccessible(phone, `settings${at} on a phone`);
  }
  await phone.context().close();
  const plain = await browser.newContext({ javaScriptEnabled: false, baseURL });
  const page = await plain.newPage();
  await signIn(page, 'maud');
  await openSetting(page, 'currency');
  await page.locator('select[name="currency"]').selectOption('JPY');
  await page.getByLabel('Horizon, months').fill('much');
  await page.getByRole('button', { name: 'Save' }).click();
  // What was chosen is kept beside what is wrong.
  await expect(page.getByText('The horizon is a number').first()).toBeVisible();
  await expect(page.locator('select[name="currency"]')).toHaveValue('JPY');
  await expect(page.getByLabel('Horizon, months')).toHaveValue('much');
  await plain.close();
});

test('two coordinators with one section open: the second is told, loses nothing, and may save all the same', async ({
  page,
  browser,
  request,
  baseURL,
}) => {
  await signIn(page, 'maud');
  await openSetting(page, 'listLength');
  const other = await pageOf(browser, request, 'maud', { baseURL });
  await openSetting(other, 'shortLength');
  await other.getByLabel('Lines in short lists').fill('5');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByText('Saved. Every page')).toBeVisible();
  await page.getByLabel('Dates on a list page').fill('25');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('Somebody changed these settings after you opened them');
  await expect(page.getByLabel('Dates on a list page')).toHaveValue('25');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  await other.context().close();
});

test('a test mail and the site’s address answer in words', async ({ page }) => {
  await signIn(page, 'maud');
  await openSetting(page, 'mailFrom');
  await page.getByRole('button', { name: 'Send a test mail' }).click();
  await expect(page.getByRole('status')).toContainText('the test mail is in the mail tray');
  await page.goto('/desk/mail');
  await expect(page.locator('main')).toContainText('A test mail from Kittiwick Isles Almanac');
  await openSetting(page, 'address');
  await page.getByRole('button', { name: 'Is the site reachable there?' }).click();
  await expect(page.getByRole('status')).toContainText('leads only to the machine that the site runs on');
  await page.getByLabel('Address of the site').fill('http://127.0.0.1:9');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  await page.getByRole('button', { name: 'Is the site reachable there?' }).click();
  await expect(page.locator('#check').getByRole('status')).toContainText('could not be asked');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel('Address of the site')).toHaveValue('');
});

test('what is switched off leaves the bar once nothing waits; an editor has no settings', async ({ page, browser, request, baseURL }) => {
  await signIn(page, 'maud');
  const bar = page.getByRole('navigation', { name: 'Desk' });
  expect(await bar.getByRole('link').count()).toBeLessThanOrEqual(8);
  await openSetting(page, 'senders');
  await page.getByLabel('Who may send events in').selectOption('nobody');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Every page')).toBeVisible();
  // Three were sent in before: somebody still has to decide.
  await expect(bar.getByRole('link', { name: /Intake/ })).toBeVisible();
  expect((await page.goto('/add'))?.status()).not.toBe(500);
  await page.goto('/desk/intake');
  const beside = page.getByRole('navigation', { name: 'Intake' });
  await expect(beside.getByRole('link', { name: 'Remarks' })).toBeVisible();
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  for (const at of ['/desk/set-up', '/desk/set-up/time']) expect((await ivo.goto(at))?.status()).toBe(403);
  await ivo.context().close();
  expect((await page.goto('/desk/set-up/nothing'))?.status()).toBe(404);
  // Going to a setting by its name, from anywhere.
  await page.goto('/desk/listings');
  await page.getByRole('button', { name: 'Go to' }).click();
  await page.keyboard.type('passphrase');
  await page.getByRole('option', { name: /Passphrase/ }).click();
  await expect(page).toHaveURL(/\/desk\/set-up\/sending#passphrase$/);
});
