/** Single dates of a listing in the rail beside the editor: pressed while clashes are found, and one that is elsewhere. */
import { expect } from '@playwright/test';
import { test } from './site';
import { expectAccessible, newListing, pageOf, saved } from './support';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

test('a press on a date counts, though a clash is found between its beginning and its end', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  let answer: () => void = () => undefined;
  const pressed = new Promise<void>((resolve) => {
    answer = resolve;
  });
  const day = Date.UTC(2027, 3, 2) / 86_400_000;
  await page.route('**/api/v1/bookings?*', async (route) => {
    const venue = new URL(route.request().url()).searchParams.get('venues');
    await pressed;
    await route.fulfill({ json: [['Rope Splicing', 'other', day, 18 * 60, day, 20 * 60, venue]] });
  });
  await newListing(page, 'Pressed Lecture', 'Fridays 18:00-19:30 from 2 April 2027, 3 times');
  await page.getByRole('combobox', { name: 'Venues' }).fill('net loft');
  await page.keyboard.press('Enter');
  const second = page.locator('[data-date="2027-04-09T18:00"]');
  await second.getByRole('button', { name: 'Change' }).hover();
  await page.mouse.down();
  const answered = page.waitForResponse('**/api/v1/bookings?*');
  answer();
  await (await answered).finished();
  // Long enough for the answer to be drawn, were it not held back.
  await page.waitForTimeout(300);
  await expect(page.getByText('clashes with')).toHaveCount(0);
  await page.mouse.up();
  await expect(second.getByLabel('Place')).toBeVisible();
  await expect(page.locator('[data-date="2027-04-02T18:00"]')).toContainText('Rope Splicing');
  await page.close();
});

test('one date is elsewhere: said in the rail, on its page, in the list, in the feed, and free where the others are', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Buoy Lecture', 'Fridays 18:00-19:30 from 2 April 2027, 3 times');
  const venues = page.getByRole('combobox', { name: 'Venues' });
  await venues.fill('net loft');
  // What clashes there is asked for: it is waited for, so that nothing moves when a date is pressed.
  const clashes = page.waitForResponse('**/api/v1/bookings?*');
  await venues.press('Enter');
  await clashes;
  const second = page.locator('[data-date="2027-04-09T18:00"]');
  await second.getByRole('button', { name: 'Change' }).click();
  await second.getByLabel('Place').selectOption({ label: 'Lantern Quay Workshop' });
  await expect(second.locator('.one')).toContainText('at Lantern Quay Workshop');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await saved(page, /Published/);
  const reader = await (await browser.newContext({ baseURL })).newPage();
  await reader.goto('/what/buoy-lecture/2027-04-09');
  await expect(reader.locator('.facts').first()).toContainText('In a different place on this date, not in Net Loft');
  await expect(reader.locator('.facts').first()).toContainText('Lantern Quay Workshop');
  await expectAccessible(reader, 'a date that is elsewhere');
  await reader.goto('/what/buoy-lecture/2027-04-16');
  await expect(reader.locator('.facts').first()).not.toContainText('Elsewhere');
  await reader.goto('/list/2027-04-09?words=buoy');
  await expect(reader.locator('tr').filter({ hasText: 'Buoy Lecture' }).first()).toContainText('elsewhere this time');
  const feed = (await (await request.get('/feed.ics?words=buoy+lecture')).text()).replaceAll('\r\n ', '');
  expect(feed.match(/LOCATION:[^\r]*/g)).toEqual([
    expect.stringContaining('LOCATION:Net Loft'),
    expect.stringContaining('LOCATION:Lantern Quay Workshop'),
  ]);
  await reader.close();
  await page.close();
});
