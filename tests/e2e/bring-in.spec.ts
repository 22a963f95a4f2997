import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';

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
    await expect(page.getByRole('alert')).toContainText('no iCalendar file');
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
    if (width === 1280) {
      await page.getByLabel('Category “Working parties”').selectOption({ label: 'Town business' });
      await page.getByRole('button', { name: 'Keep these and look again' }).click();
    }
    await expect(page.getByLabel('Category “Working parties”')).toHaveCount(0);
    await page.getByLabel('Bring in Pilots’ Open House').uncheck();
    await page.getByLabel('and publish it at once').check();
    await page.getByRole('button', { name: 'Bring in what is ticked' }).click();
    await expect(page.getByText('Brought in: 1 new, 0 changed.')).toBeVisible();
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
    await page.getByRole('button', { name: 'Take it back' }).first().click();
    await expect(page.getByText('Taken back: 1 listing.')).toBeVisible();
    expect((await request.get('/what/slip-scrubbing-day')).status()).toBe(404);
    await page.close();
  });
}

test('what a whole site gives out comes back as it is', async ({ request }) => {
  const feed = await (await request.get('/feed.ics')).text();
  expect(feed.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(40);
  expect(readFileSync('docs/formats.md', 'utf8')).toContain('plain-almanac-listings');
});
