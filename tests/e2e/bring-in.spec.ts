import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const CALENDAR = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'BEGIN:VEVENT',
  'UID:slip-1@harbour.example',
  'SUMMARY:Slip Scrubbing Day',
  'DTSTART;TZID=America/Halifax:20270403T090000',
  'DTEND;TZID=America/Halifax:20270403T120000',
  'RRULE:FREQ=MONTHLY;BYDAY=1SA;COUNT=6',
  'EXDATE;TZID=America/Halifax:20270605T090000',
  'LOCATION:Port Amble Slip',
  'CATEGORIES:Working parties',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:slip-1@harbour.example',
  'RECURRENCE-ID;TZID=America/Halifax:20270501T090000',
  'SUMMARY:Slip Scrubbing Day',
  'DTSTART;TZID=America/Halifax:20270502T100000',
  'DTEND;TZID=America/Halifax:20270502T130000',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:fog@harbour.example',
  'SUMMARY:Fog Signal Test',
  'DTSTART:20270230T110000',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:house@harbour.example',
  'SUMMARY:Pilots’ Open House',
  'DTSTART;VALUE=DATE:20270410',
  'LOCATION:Old Pilot Station',
  'END:VEVENT',
  'END:VCALENDAR',
].join('\r\n');

for (const width of [1280, 360]) {
  test(`a calendar file is looked at, decided, brought in, seen, and taken back, at ${width} px`, async ({ browser, request, baseURL }) => {
    const page = await pageOf(browser, request, 'ivo', { width, baseURL });
    await page.goto('/desk/bring-in');
    await expectAccessible(page, 'bring in');
    await page.getByLabel('or its text').fill('no calendar');
    await page.getByRole('button', { name: 'Look at it' }).click();
    await expect(page.getByRole('alert')).toContainText('This is no table');
    await expect(page.getByLabel('or its text')).toHaveValue('no calendar');
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'alm-')), 'harbour.ics');
    writeFileSync(file, CALENDAR);
    await page.setInputFiles('#file', file);
    await page.getByRole('button', { name: 'Look at it' }).click();
    await expect(page.getByRole('status').first()).toContainText('2 new, 0 changed, 0 as they are, 0 older, 1 not readable');
    await expect(page.getByText('Line 20, “Fog Signal Test”: There is no date')).toBeVisible();
    await expect(page.getByText('Saturday 1 May 2027, 09:00 moves to Sunday 2 May 2027, 10:00')).toBeVisible();
    await expectAccessible(page, 'preview');
    await expectNoSidewaysScroll(page);
    // The first time, whichever width that is, the site is told what their word means; then it knows.
    if (await page.getByLabel('Category “Working parties”').count()) {
      await page.getByLabel('Category “Working parties”').selectOption({ label: 'Town business' });
      await page.getByRole('button', { name: 'Keep these and look again' }).click();
    }
    await expect(page.getByLabel('Category “Working parties”')).toHaveCount(0);
    await page.getByLabel('Import Pilots’ Open House').uncheck();
    await page.getByLabel('and publish it at once').check();
    await page.getByRole('button', { name: 'Import what is ticked' }).click();
    await expect(page.getByText('Imported: 1 new, 0 changed.')).toBeVisible();
    await page.goto('/what/slip-scrubbing-day');
    await expect(page.locator('.sentence')).toContainText('On the first Saturday of every month');
    await page.goto('/month/2027-05?day=2027-05-02&words=slip');
    await expect(
      page
        .locator(width === 360 ? '.day-list' : 'table.month')
        .getByText('Slip')
        .first(),
    ).toBeVisible();
    const feed = await (await request.get('/feed.ics?words=slip+scrubbing')).text();
    expect(feed).toContain('DTSTART;TZID=America/Halifax:20270502T100000');
    // The same file again changes nothing.
    await page.goto('/desk/bring-in');
    await page.setInputFiles('#file', file);
    await page.getByRole('button', { name: 'Look at it' }).click();
    await expect(page.getByRole('status').first()).toContainText('1 new, 0 changed, 1 as they are');
    await page.goto('/desk/bring-in');
    await page.getByRole('button', { name: 'Undo this import' }).first().click();
    await expect(page.getByText('Undone: 1 listing.')).toBeVisible();
    expect((await request.get('/what/slip-scrubbing-day')).status()).toBe(404);
    await page.close();
  });
}

test('a table with days in plain words is read, its columns corrected, its problems named, and comes in', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  const table = [
    'What;Dates;Place;Fee;Remarks',
    'Sail Repair Class;every other Wednesday 19.30-21 from 7 April 2027, 4 times;Net Loft;free;Bring thread',
    'Gull Count;3/4;Port Amble Slip;;',
    'Dory Day;Saturday 10 April 2027, 10 to 4;Net Loft;$5;',
    ';12 April 2027;;;',
  ].join('\n');
  await page.goto('/desk/bring-in');
  await page.getByLabel('or its text').fill(table);
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('status').first()).toContainText('2 new, 0 changed, 0 as they are, 0 older, 2 not readable');
  await expect(page.getByText('Line 3, “Gull Count”: “3/4” could be two dates')).toBeVisible();
  await expect(page.getByText('Line 5: It has no title.')).toBeVisible();
  await expect(page.getByText('Every other Wednesday, 19:30–21:00')).toBeVisible();
  await expectAccessible(page, 'preview of a table');
  // "Remarks" says nothing of what it is: somebody does, once.
  await page.getByText('5 columns').click();
  await page.getByLabel('Remarks').selectOption({ label: 'Summary' });
  await page.getByRole('button', { name: 'Read it this way, now and next time' }).click();
  await page.getByText('5 columns').click();
  await expect(page.getByLabel('Remarks')).toHaveValue('summary');
  await page.getByLabel('and publish it at once').check();
  await page.getByRole('button', { name: 'Import what is ticked' }).click();
  await expect(page.getByText('Imported: 2 new, 0 changed.')).toBeVisible();
  await page.goto('/what/sail-repair-class');
  await expect(page.getByText('Bring thread').first()).toBeVisible();
  // The same headers are known the next time, and the same rows are known again.
  await page.goto('/desk/bring-in');
  await page.getByLabel('or its text').fill(table);
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('status').first()).toContainText('0 new, 0 changed, 2 as they are');
  const csv = await (await page.request.get('/desk/export/listings.csv?words=sail+repair')).text();
  expect(csv).toContain('Every other Wednesday');
  await page.goto('/desk/bring-in');
  await page.getByRole('button', { name: 'Undo this import' }).first().click();
  await expect(page.getByText('Undone: 2 listings.')).toBeVisible();
  await page.close();
});

test('thousands of events come in while the site goes on answering, unseen until all are there, and go when cancelled', async ({
  browser,
  request,
  baseURL,
}) => {
  const event = (i: number): string =>
    `BEGIN:VEVENT\r\nUID:tide-${i}@harbour.example\r\nSUMMARY:Tide Watch ${i}\r\nDTSTART;TZID=America/Halifax:20270403T090000\r\nRRULE:FREQ=WEEKLY;COUNT=4\r\nLOCATION:Net Loft\r\nEND:VEVENT\r\n`;
  const calendar = `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${Array.from({ length: 2500 }, (_, i) => event(i)).join('')}END:VCALENDAR\r\n`;
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'alm-')), 'tides.ics');
  writeFileSync(file, calendar);
  const look = async (): Promise<void> => {
    await page.goto('/desk/bring-in');
    await page.setInputFiles('#file', file);
    await page.getByRole('button', { name: 'Look at it' }).click();
    await expect(page.getByRole('status').first()).toContainText('2,500 new', { timeout: 60_000 });
  };
  await look();
  await page.getByRole('button', { name: 'After ›' }).click();
  await expect(page.getByText('Page 2 of 25')).toBeVisible();
  await page.getByLabel('and publish it at once').check();
  await page.getByRole('button', { name: 'Import what is ticked' }).click();
  await expect(page.getByText('Nothing shows until all of it')).toBeVisible();
  await expectAccessible(page, 'progress');
  const read = async (): Promise<number> =>
    Number(/([\d,]+) dates? in/.exec(await (await request.get('/month/2027-04?words=tide+watch')).text())?.[1]?.replace(',', ''));
  expect(await read()).toBe(0);
  await page.getByRole('button', { name: 'Cancel and undo' }).click();
  await expect(page.getByRole('status').first()).toContainText('2,500 new', { timeout: 60_000 });
  expect((await request.get('/what/tide-watch-1')).status()).toBe(404);

  await page.getByLabel('and publish it at once').check();
  await page.getByRole('button', { name: 'Import what is ticked' }).click();
  // Readers are answered all the while, and never see a part of it.
  const seen = new Set<number>();
  await expect(async () => {
    seen.add(await read());
    expect(await page.getByText('This file has been imported already').count()).toBe(1);
  }).toPass({ timeout: 120_000, intervals: [200] });
  expect([...seen].filter((n) => n !== 0 && n !== 10_000)).toEqual([]);
  expect((await request.get('/what/tide-watch-2499')).status()).toBe(200);
  // A day that is opened under a month or week has so many lines, and leads to the rest.
  for (const view of ['/month/2027-04', '/week/2027-W13']) {
    const page = await (await request.get(`${view}?day=2027-04-03`)).text();
    const under = page.slice(page.indexOf('id="chosen"'));
    expect(under.match(/<a href="\/what\/tide-watch-/g)?.length, view).toBeLessThanOrEqual(40);
    expect(under, view).toMatch(/<a href="\/day\/2027-04-03">See all 2,5\d\d dates of this day/);
  }
  await page.goto('/desk/bring-in');
  await page.getByRole('button', { name: 'Undo this import' }).first().click();
  await expect(page.getByText(/Undone: 2,500 listings|being undone/).first()).toBeVisible();
  expect(await read()).toBe(0);
  // What was said once does not stay in the way: the line of the file says how it stands.
  await expect(async () => {
    await page.reload();
    await expect(page.getByText('being undone')).toHaveCount(0, { timeout: 200 });
  }).toPass({ timeout: 90_000 });
  await page.close();
});

test('what a whole site gives out comes back as it is', async ({ request }) => {
  const feed = await (await request.get('/feed.ics')).text();
  expect(feed.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(40);
  expect(readFileSync('docs/formats.md', 'utf8')).toContain('"kind": "plain-almanac"');
});
