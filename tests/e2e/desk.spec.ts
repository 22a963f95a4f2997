import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, expectNoSidewaysScroll, newListing, pageOf, saved } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const heading = (page: Page) => page.locator('.editor-head h1');

/** Types into a React Aria date field by its segments. */
async function typeDate(page: Page, label: string, day: string, month: string, year: string): Promise<void> {
  const group = page.getByRole('group', { name: label, exact: true }).first();
  await group.getByRole('spinbutton', { name: /day/ }).click();
  await page.keyboard.type(`${day}${month}${year}`);
}
async function typeTime(page: Page, label: string, time: string): Promise<void> {
  const field = page
    .locator('input.clock')
    .and(page.getByLabel(label, { exact: true }))
    .first();
  await field.fill(time);
  await field.press('Enter');
}

for (const width of [1280, 360]) {
  test(`a weekly listing is typed, published and seen on month, list, map and page, at ${width} px`, async ({
    browser,
    request,
    baseURL,
  }) => {
    const page = await pageOf(browser, request, 'ivo', { width, baseURL });
    const title = `Rope Evening ${width}`;
    await page.goto('/desk/listings/new');
    await page.getByLabel('Title', { exact: true }).fill(title);
    await page.getByLabel('Summary', { exact: true }).fill('Splices, whippings and one good knot.');
    await page.getByRole('combobox', { name: 'Categories' }).fill('mend');
    await page.keyboard.press('Enter');
    await page.locator('.tiptap').click();
    await page.keyboard.type('Bring a knife and some patience.');
    await page.getByRole('button', { name: 'Set a date' }).click();
    await typeDate(page, 'Date', '24', '03', '2027');
    // As people write times: half past seven, and nine that same evening.
    await typeTime(page, 'Starts', '7.30 pm');
    await typeTime(page, 'Ends', '9');
    await page.getByLabel('Repeats').selectOption('weekly');
    await page.getByLabel('Goes on', { exact: true }).selectOption('count');
    await page.getByRole('spinbutton', { name: 'Dates' }).fill('5');
    await expect(page.locator('[data-readback]')).toContainText('Every Wednesday, 19:30–21:00, from 24 March 2027, 5 times. 5 dates.');
    await expect(page.locator('.dates-rail > li')).toHaveCount(5);
    await expect(page.locator('.strip-grid .on')).toHaveCount(5);
    await page.getByRole('combobox', { name: 'Venues' }).fill('net loft');
    await page.keyboard.press('Enter');
    await page.getByRole('combobox', { name: 'Organizers' }).fill('mending');
    await page.keyboard.press('Enter');
    await page.getByLabel('Cost', { exact: true }).selectOption('free');
    await expectAccessible(page, 'editor');
    await expectNoSidewaysScroll(page);
    await page.getByRole('button', { name: 'Publish', exact: true }).click();
    await saved(page, /Published/);
    await page.getByRole('link', { name: 'See the page' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(title);
    await expect(page.locator('.sentence')).toContainText('Every Wednesday');
    const reader = await (await browser.newContext({ viewport: { width, height: 800 }, baseURL })).newPage();
    await reader.goto('/month/2027-03?day=2027-03-24&words=rope+evening');
    await expect(
      reader
        .locator(width === 360 ? '.day-list' : 'table.month')
        .getByText(title)
        .first(),
    ).toBeVisible();
    await reader.goto('/list/2027-03-24');
    await expect(reader.getByRole('link', { name: title }).first()).toBeVisible();
    await reader.goto('/map/2027-03-24');
    await expect(reader.locator('.places').getByText(title).first()).toBeVisible();
    await reader.close();
    await page.close();
  });
}

test('in plain words: what is typed fills the controls, a control rewrites the words, and the dates are published', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Tide-mill Tour');
  const words = page.getByLabel('In words');
  const readback = page.locator('[data-readback]');
  await words.fill('every 1st and 3rd Sunday 7:40am for 2 hours, March to October, not in August');
  await expect(readback).toContainText(
    'On the first and third Sunday of every month in March to July, September and October of every year, 07:40–09:40, from 21 March 2027. 43 dates',
  );
  await expect(page.getByLabel('Repeats')).toHaveValue('month-weekday');
  await expect(page.locator('input.clock').first()).toHaveValue('07:40');
  await expect(words).toHaveValue(/^every 1st/);
  // A control that changes rewrites the words.
  await page.getByRole('group', { name: 'Which' }).getByLabel('3rd').uncheck();
  await expect(words).toHaveValue(
    /^On the first Sunday of every month in March to July, September and October of every year, 07:40–09:40, from .*\.$/,
  );
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(readback).toContainText('first and third Sunday');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(readback).toContainText('On the first Sunday');
  // What is not understood is said, what has two readings is asked.
  await words.fill('Tuesday 18 March 2027 at 7 with biscuits');
  await expect(page.locator('.phrase-notes')).toContainText('“biscuits” was not understood');
  await expect(page.locator('.phrase-box .echo mark')).toHaveText('biscuits');
  await expectAccessible(page, 'editor with questions');
  await page.getByRole('button', { name: 'Thursday 18 March 2027' }).click();
  await page.locator('.phrase-notes').getByRole('button', { name: '19:00' }).click();
  await words.fill('Thursday 18 March 2027 at 19:00, and Saturdays 10 to 4 for 3 weeks');
  await words.press('Enter');
  await expect(readback).toContainText('4 dates.');
  await page.getByRole('combobox', { name: 'Venues' }).fill('net loft');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await saved(page, /Published/);
  await page.goto('/month/2027-03?words=tide-mill');
  await expect(page.locator('table.month').getByText('Tide-mill').first()).toBeVisible();
  await page.close();
});

test('one date is cancelled with a note, another moved, a third left out', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings?words=Knots');
  await page.locator('[data-rows] tbody a').first().click();
  await page.locator('.dates-rail > li').first().waitFor();
  const keys = await page.locator('.dates-rail > li').evaluateAll((rows) => rows.map((row) => (row as HTMLElement).dataset.date ?? ''));
  const [first = '', second = '', third = ''] = keys.filter((key) => key > '2027-03-18');
  const row = (key: string) => page.locator(`.dates-rail > li[data-date="${key}"]`);
  await row(first).getByRole('button', { name: 'Change' }).click();
  await row(first).getByRole('button', { name: 'Cancel this date' }).click();
  await row(first).getByLabel('A note for readers').fill('No rope left');
  await row(second).getByRole('button', { name: 'Change' }).click();
  const at = row(second).getByLabel('at', { exact: true });
  await at.fill('18h15');
  await at.press('Enter');
  await row(third).getByRole('checkbox').uncheck();
  await page.getByRole('button', { name: 'Publish changes' }).click();
  await saved(page, /Published/);
  await page.goto('/what/knots-splices');
  await expect(page.locator('.strip a.off')).toHaveCount(1);
  await expect(page.locator('.strip a.moved')).toHaveCount(1);
  await page.locator('.strip a.off').click();
  await expect(page.locator('.next')).toContainText('Cancelled: No rope left');
  await page.close();
});

test('on six months: a date is dragged to another day, a break is drawn, by keyboard the same; a rule is parted; a clash shows', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL, height: 1000 });
  await newListing(page, 'Ferry Quiz', 'Tuesdays 19:00-21:00 from 6 April 2027, 12 times');
  const grid = page.getByRole('grid', { name: /^Dates on six months/ });
  const day = (text: string) => grid.getByRole('gridcell', { name: new RegExp(`^${text}:`) });
  const readback = page.locator('[data-readback]');
  await expect(grid.locator('.on')).toHaveCount(12);
  await expectAccessible(page, 'six months');
  // By pointer: a date to the Monday before it, then empty days as a break.
  await day('Tuesday 13 April 2027').dragTo(day('Monday 12 April 2027'));
  await expect(page.getByText('Moved to Monday 12 April 2027: a Monday, was a Tuesday.')).toBeVisible();
  await expect(day('Monday 12 April 2027')).toHaveAccessibleName(/19:00, moved here$/);
  await day('Wednesday 14 April 2027').dragTo(day('Friday 30 April 2027'));
  await expect(readback).toContainText('with a break 14–30 April');
  await expect(readback).toContainText('10 dates.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(readback).toContainText('12 dates.');
  // By keyboard: the same on other days, an extra date, one left out.
  await grid.focus();
  await day('Tuesday 4 May 2027').click();
  await page.keyboard.press('m');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Moved to Wednesday 5 May 2027: a Wednesday, was a Tuesday.')).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(readback).toContainText('also on Thursday 6 May 2027, 19:00–21:00');
  await page.keyboard.press('b');
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('b');
  await expect(readback).toContainText('with a break 6–20 May');
  await page.getByRole('button', { name: 'Undo' }).click();
  await day('Tuesday 11 May 2027').click();
  await page.keyboard.press('Delete');
  await expect(readback).toContainText('except 11 May');
  // This and all later dates: the rule is parted, nothing moves.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'This and all later dates' }).click();
  await expect(page.getByText('2. Rule')).toBeVisible();
  await expect(readback).toContainText('12 dates.');
  // The hall is taken on some of these evenings by a choir.
  await page.getByRole('combobox', { name: 'Venues' }).fill('bride hall');
  await page.keyboard.press('Enter');
  await expect(page.locator('.dates-rail .clash').first()).toBeVisible();
  await expect(page.getByText(/, \d+ clash(es)?$/)).toBeVisible();
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await saved(page, /Published/);
  await page.goto('/month/2027-04?words=ferry+quiz');
  await expect(page.locator('table.month').getByText('Ferry Quiz').first()).toBeVisible();
  const feed = await (await request.get('/feed.ics?words=ferry+quiz')).text();
  expect(feed).toContain('RECURRENCE-ID;TZID=America/Halifax:20270413T190000');
  await page.close();
});

test('what is typed survives a reload, a lost connection, and the end of the session', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Kept through everything');
  await expect(page.getByText('kept, not saved yet')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Kept through everything');
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Save draft' }).click();
  await saved(page, /No connection/);
  await page.context().setOffline(false);
  await page.context().clearCookies();
  await page.getByRole('button', { name: 'Save draft' }).click();
  const dialog = page.getByRole('dialog', { name: 'Your session has ended' });
  await dialog.getByLabel('Mail address').fill('ivo@almanac.example');
  await dialog.getByLabel('Password').fill('kittiwick-isles-2');
  await dialog.getByRole('button', { name: 'Sign in and save' }).click();
  await saved(page, /Saved/);
  await expect(page).toHaveURL(/\/desk\/listings\/[0-9a-f-]{36}/);
  await page.reload();
  await expect(heading(page)).toHaveText('Kept through everything');
  await page.close();
});

test('two editors: the second sees what changed and chooses; parts that do not collide both stay', async ({
  browser,
  request,
  baseURL,
}) => {
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await maud.goto('/desk/listings?words=Boat+Jumble');
  await maud.locator('[data-rows] tbody a').first().click();
  await heading(maud).waitFor();
  await ivo.goto(maud.url());
  await heading(ivo).waitFor();
  await maud.getByLabel('Title', { exact: true }).fill('Boat Jumble by Maud');
  await maud.getByLabel('Access').fill('Level cobbles');
  await maud.getByRole('button', { name: 'Save working copy' }).click();
  await saved(maud, /Saved/);
  await ivo.getByLabel('Title', { exact: true }).fill('Boat Jumble by Ivo');
  await ivo.getByLabel('Summary', { exact: true }).fill('Half a mast, by Ivo.');
  await ivo.getByRole('button', { name: 'Save working copy' }).click();
  const dialog = ivo.getByRole('dialog', { name: /Maud Petrel saved this listing/ });
  await expect(dialog).toContainText('Boat Jumble by Maud');
  await expect(dialog).toContainText('Boat Jumble by Ivo');
  await expect(dialog.locator('legend')).toHaveText(['Title']);
  await dialog.getByRole('radio', { name: 'Maud Petrel’s' }).check();
  await dialog.getByRole('button', { name: 'Save it like this' }).click();
  await saved(ivo, /Saved/);
  await ivo.reload();
  await expect(ivo.getByLabel('Title', { exact: true })).toHaveValue('Boat Jumble by Maud');
  await expect(ivo.getByLabel('Access')).toHaveValue('Level cobbles');
  await expect(ivo.getByLabel('Summary', { exact: true })).toHaveValue('Half a mast, by Ivo.');
  await maud.close();
  await ivo.close();
});

test('contradictions are caught at once, each with its mend', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Contradiction');
  await page.getByRole('button', { name: 'Set a date' }).click();
  await typeDate(page, 'Date', '24', '03', '2027');
  await typeTime(page, 'Starts', '22:00');
  await typeTime(page, 'Ends', '01:30');
  await page.getByRole('button', { name: 'Read it as the next day' }).click();
  await expect(page.getByText('the next day', { exact: true })).toBeVisible();
  await page.getByLabel('Repeats').selectOption('weekly');
  await page.getByRole('group', { name: 'On' }).getByLabel('Thu').check();
  await page.getByRole('group', { name: 'On' }).getByLabel('Wed').uncheck();
  await expect(page.getByText('is not a date that the rule names')).toBeVisible();
  await page.getByRole('button', { name: 'Begin on Thursday 25 March 2027', exact: true }).click();
  await expect(page.locator('[data-readback]')).toContainText('Every Thursday, 22:00–01:30, from 25 March 2027');
  await page.getByLabel('Repeats').selectOption('never');
  await page.locator('.dates-rail input[type="checkbox"]').first().uncheck();
  await expect(page.getByText('Nothing is left').first()).toBeVisible();
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await saved(page, /Nothing is left/);
  await page.close();
});

test('a venue is made in place; a picture is sent and described; a program is refused', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Picture Evening');
  await page.getByRole('combobox', { name: 'Venues' }).fill('Old Kelp Store');
  await page.getByText('Make “Old Kelp Store”').click();
  const dialog = page.getByRole('dialog', { name: 'Make a venue' });
  await dialog.getByLabel('Street').fill('x'.repeat(201));
  await dialog.getByRole('button', { name: 'Make it' }).click();
  await expect(dialog).toContainText('At most 200 characters');
  // Its position is looked up from this.
  await dialog.getByLabel('Street').fill('12 Kelp Lane');
  await dialog.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('#where .chip')).toContainText('Old Kelp Store');
  // One without an address gets no pin, and Proof says so of it alone.
  await page.getByRole('combobox', { name: 'Venues' }).fill('Net Shed');
  await page.getByText('Make “Net Shed”').click();
  await dialog.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('.proof')).toContainText('Net Shed has no position yet');
  await expect(page.locator('.proof')).not.toContainText('Old Kelp Store has no position');
  await page
    .getByLabel(/Choose a picture/)
    .setInputFiles({ name: 'sun.png', mimeType: 'image/png', buffer: Buffer.from('#!/bin/sh\nexit 1\n') });
  await expect(page.getByText('This is no picture of a kind we take')).toBeVisible();
  const picture = await sharp({ create: { width: 700, height: 400, channels: 3, background: '#c8b38a' } })
    .jpeg()
    .toBuffer();
  await page.getByLabel(/Choose a picture/).setInputFiles({ name: 'kelp.jpg', mimeType: 'image/jpeg', buffer: picture });
  await page.getByLabel('What it shows').fill('The kelp store at low water');
  await page.getByLabel('Made by').fill('Shore Wardens');
  await page.getByLabel('Title', { exact: true }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Save draft' }).click();
  await saved(page, /Saved/);
  await page.reload();
  await expect(page.getByLabel('What it shows')).toHaveValue('The kelp store at low water');
  await page.close();
});

test('by keyboard alone: sign in, find, open, type, save', async ({ browser, baseURL }) => {
  const page = await (await browser.newContext({ baseURL })).newPage();
  await page.goto('/desk/sign-in');
  const until = async (done: () => Promise<boolean>, key = 'Tab', most = 60): Promise<void> => {
    for (let i = 0; i < most; i++) {
      if (await done()) return;
      await page.keyboard.press(key);
    }
    throw new Error('the keyboard did not get there');
  };
  const focused = (expression: string) => () => page.evaluate((selector) => document.activeElement?.matches(selector) ?? false, expression);
  await until(focused('#email'));
  await page.keyboard.type('ivo@almanac.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('kittiwick-isles-2');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/desk/today');
  await until(() => page.evaluate(() => document.activeElement?.textContent?.trim() === 'Listings'));
  await page.keyboard.press('Enter');
  await page.waitForURL('**/desk/listings');
  await until(focused('#words'));
  await page.keyboard.type('Wreck Walk');
  await page.keyboard.press('Enter');
  await page.waitForURL(/words=Wreck/);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await heading(page).waitFor();
  await until(focused('input[name="shortTitle"]'));
  await page.keyboard.type('Wreck');
  await page.keyboard.press('Control+s');
  await saved(page, /Saved/);
  await page.close();
});
