/** Words for when: what is not understood puts no date, is kept, stops publishing, and is mended where it stands. */
import { expect } from '@playwright/test';
import { expectAccessible, signIn } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

test('words that are not understood are kept with the draft, asked about and stop publishing, until they are mended', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/listings/new');
  await page.getByLabel('Title', { exact: true }).fill('Slip Choir');
  const words = page.getByLabel('In words');
  await words.fill('Tusdays 7pm when the tide is low');
  const notes = page.locator('.phrase-notes');
  await expect(notes).toContainText('No date is put while this is open');
  await expect(notes).toContainText('“when the tide is low” was not understood');
  await expectAccessible(page, 'open words');
  await page.getByRole('button', { name: 'Save draft' }).click();
  await page.waitForURL(/listings\/[0-9a-f-]{36}/);
  await page.reload();
  await expect(words).toHaveValue('Tusdays 7pm when the tide is low');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(page.getByText('change these words or take them out').first()).toBeVisible();
  // A refusal leads to the words themselves.
  await expect(words).toBeFocused();
  await notes.getByRole('button', { name: 'Tuesdays', exact: true }).click();
  await expect(words).toHaveValue('Tuesdays 7pm when the tide is low');
  await notes.getByRole('button', { name: 'Take “when the tide is low” out' }).click();
  await expect(page.locator('[data-readback]')).toContainText('Every Tuesday, 19:00');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(page.getByText('change these words or take them out')).toHaveCount(0);
  await expect(page.getByText('Published', { exact: true }).first()).toBeVisible();
});

test('months come every year, and one press makes it the one year', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/listings/new');
  const words = page.getByLabel('In words');
  await words.fill('every Tuesday 7pm, not in August');
  const back = page.locator('[data-readback]');
  await expect(back).toContainText('except every August');
  await page.getByRole('button', { name: 'Only 2027' }).click();
  await expect(words).toHaveValue('every Tuesday 7pm, not in August 2027');
  await expect(back).toContainText('with a break 1–31 August');
  // By the controls: the months of a rule can be chosen, and other weekdays.
  await words.fill('every Tuesday 7pm, September to May');
  await expect(page.getByLabel('Repeats')).toHaveValue('weekly');
  await expect(page.getByRole('checkbox', { name: 'Sep', exact: true })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Jul', exact: true })).not.toBeChecked();
});

test('a first day that nobody set moves with the weekdays', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/listings/new');
  await page.getByLabel('Title', { exact: true }).fill('Rope Hour');
  await page.getByRole('button', { name: 'Set a date' }).click();
  await page.getByLabel('Repeats').selectOption('weekly');
  const when = page.locator('#when');
  await when.getByRole('checkbox', { name: 'Fri' }).check();
  await when.getByRole('checkbox', { name: 'Wed' }).uncheck();
  await expect(page.locator('[data-readback]')).toContainText('Every Friday');
  await expect(when.getByText('is not a date that the rule names')).toHaveCount(0);
});

test('the readers’ form takes words, asks what is open, and a slip is named', async ({ page }) => {
  await page.goto('/add');
  await page.getByLabel('What is it called?').fill('Quay Choir');
  await page.getByLabel('In words').fill('Tusdays 7pm, 13 April to 29 June');
  await page.getByLabel('Your name').fill('Rue Dunlin');
  await page.getByLabel('Your mail address').fill('rue@dunlin.example');
  const send = page.locator('main form button').last();
  await send.click();
  await expect(page.getByText('“Tusdays” was not understood: write “Tuesdays”.').first()).toBeVisible();
  await page.getByLabel('In words').fill('Tuesdays 7pm, 13 April to 29 June');
  await send.click();
  await page.waitForURL(/\/receipt\//);
  await expect(page.getByText('Every Tuesday, 19:00, from 13 April to 29 June 2027').first()).toBeVisible();
});

test('several lines pasted into the header’s field open the page that reads them, one by one', async ({ page }) => {
  await signIn(page, 'maud');
  await page.locator('#one-line').evaluate((field) => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Saturday 3 April at Net Loft\n2pm Knots\n3pm Splices');
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await page.waitForURL('**/desk/entry');
  await expect(page.getByLabel('A line for each listing')).toHaveValue('Saturday 3 April at Net Loft\n2pm Knots\n3pm Splices');
  await expect(page.getByRole('group', { name: 'Splices' })).toContainText('place from the line before');
});

test('a copy takes dates as the editor does', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/listings?words=Harbour+Choir');
  await page
    .getByRole('link', { name: /Harbour Choir/ })
    .first()
    .click();
  await page.waitForURL(/listings\/[0-9a-f-]{36}/);
  await page.getByRole('button', { name: /Copy/ }).first().click();
  await page.getByLabel('When is it?').fill('every Tuesday from 2 January 2029 to 30 June 2029');
  await expect(page.getByRole('dialog')).toContainText('from 2 January to 30 June 2029');
});

test('dates that hang on the sun: typed, changed by the controls, published, and each read at its own time', async ({ page, request }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/listings/new');
  await page.getByLabel('Title', { exact: true }).fill('Lamp Walk at Dusk');
  await page.getByLabel('In words').fill('Fridays 18 minutes before sunset for 90 minutes, from 2 April 2027, 8 times');
  const back = page.locator('[data-readback]');
  await expect(back).toContainText('Every Friday, 18 minutes before sunset for 1 hour 30 minutes');
  const when = page.locator('#when');
  await expect(when.getByLabel('By the sun')).toBeChecked();
  await expect(when.getByLabel('Lasts, in minutes')).toHaveValue('90');
  // A date that is left out stays left out when the whole series begins at another time.
  await page.locator('[data-date^="2027-04-09"]').getByRole('checkbox').uncheck();
  await when.getByLabel('Starts').selectOption('after sunset');
  await when.getByLabel('Minutes', { exact: true }).fill('10');
  await when.getByLabel('Ends', { exact: true }).selectOption('at a time');
  await when.getByLabel('Ends at').fill('21:30');
  await when.getByLabel('Ends at').blur();
  await expect(back).toContainText('10 minutes after sunset until 21:30');
  await expect(back).toContainText('except 9 April');
  await expectAccessible(page, 'starts by the sun');
  await page.getByRole('combobox', { name: 'Venues' }).fill('net loft');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(page.getByText('Published', { exact: true }).first()).toBeVisible();
  await page.goto('/what/lamp-walk-at-dusk/2027-04-16');
  await expect(page.locator('main')).toContainText('19:44–21:30');
  await expect(page.locator('main')).toContainText('every Friday, 10 minutes after sunset until 21:30');
  await page.goto('/what/lamp-walk-at-dusk/2027-05-21');
  await expect(page.locator('main')).toContainText('20:23–21:30');
  const feed = (await (await request.get('/feed.ics?words=lamp+walk+dusk')).text()).replaceAll('\r\n ', '');
  expect(feed.match(/DTSTART[^\r]*/g)?.slice(-7)).toContain('DTSTART;TZID=America/Halifax:20270416T194400');
  expect(feed).not.toContain('20270409T');
  // Off again, it begins by the clock.
  await page.goto('/desk/listings/new');
  await page.getByLabel('In words').fill('every Friday at sunset from 2 April 2027');
  await when.getByLabel('By the sun').uncheck();
  await expect(back).toContainText('Every Friday, 19:17');
});
