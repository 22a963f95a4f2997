/** Days of the year: holidays of a country by ticks, lines of one's own, a calendar's file, seasons, a second calendar; read everywhere from one source. */
import { expect } from '@playwright/test';
import { test } from './site';
import { expectAccessible, expectNoSidewaysScroll, signIn } from './support';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const cell = (day: number): string => `[data-view] td:has(a.num[href*="/day/2027-03-${day}"])`;

test('a coordinator chooses a country’s days, writes lines and takes a calendar’s file; readers and Proof know them', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/set-up');
  await page.getByRole('main').getByRole('link', { name: 'Days of the year' }).click();
  const lines = page.getByLabel('Lines of your own');
  await expect(lines).toHaveValue(/Good Friday\n/);
  await expect(page.getByRole('region', { name: 'The coming year' })).toContainText('Isles Day');
  await expectAccessible(page, 'days of the year');

  // A chosen country shows its regions, and its days with a tick where they are days off.
  await page.getByLabel('Holidays of').selectOption('Canada');
  await expect(page.getByLabel('Region')).toBeVisible();
  await page.getByLabel('Region').selectOption('Nova Scotia');
  const off = page.getByRole('group', { name: 'Days off' });
  await expect(off.getByRole('checkbox', { name: /^Canada Day/ })).toBeChecked();
  await off.getByRole('checkbox', { name: /^Labour Day/ }).uncheck();
  await page.getByRole('checkbox', { name: /Patrick.s Day/ }).check();

  // What is wrong is said at its field, and nothing else is lost.
  const before = await lines.inputValue();
  await lines.fill(`${before}\n20 March to 24 March Mud Week\n32 Smarch Nothing`);
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByText('“32 Smarch Nothing”, was not understood').first()).toBeVisible();
  await expect(page.getByLabel('Region')).toHaveValue('NS');
  await expect(page.getByRole('group', { name: 'Days off' }).getByRole('checkbox', { name: /^Labour Day/ })).not.toBeChecked();
  await lines.fill(`${before}\n20 March to 24 March Mud Week\n10 minutes after sunset on Saturdays Lamps lit`);

  await page.getByLabel('A calendar file of such days').setInputFiles({
    name: 'school.ics',
    mimeType: 'text/calendar',
    buffer: Buffer.from(
      [
        'BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Isles//EN',
        'BEGIN:VEVENT\nUID:1@isles.example\nSUMMARY:Bridge opening\nDTSTART;VALUE=DATE:20270311\nEND:VEVENT',
        'BEGIN:VEVENT\nUID:2@isles.example\nSUMMARY:Council\nDTSTART:20270312T190000\nEND:VEVENT\nEND:VCALENDAR',
      ].join('\n'),
    ),
  });
  await page.getByRole('button', { name: 'Add its days to the lines' }).click();
  await expect(page.getByRole('status')).toContainText(
    '1 line was added. Read it below, then press Save. Left out, since no line can say it: Council.',
  );
  await expect(lines).toHaveValue(/11 March 2027 Bridge opening$/);
  await page.getByLabel('A second calendar').selectOption('persian');
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByText('Saved. Every sheet')).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /^Labour Day/ })).not.toBeChecked();

  // A month’s sheet: red names, plain names, spans where they begin and where a week does, the other calendar.
  await page.goto('/month/2027-03');
  await expect(page.locator(cell(11))).toContainText('Bridge opening');
  await expect(page.locator(`${cell(11)}`)).toHaveClass(/redday/);
  await expect(page.locator(cell(17))).toContainText(/Patrick.s Day/);
  await expect(page.locator(cell(20))).toContainText('Mud Week');
  await expect(page.locator(cell(20))).toContainText(/Spring equinox 17:2\d/);
  await expect(page.locator(cell(20))).toContainText(/Lamps lit 19:\d\d/);
  await expect(page.locator(cell(20))).not.toHaveClass(/redday/);
  await expect(page.locator(cell(23))).not.toContainText('Mud Week');
  await expect(page.locator(cell(22))).toContainText('Mud Week');
  await expect(page.locator(cell(14))).toContainText('Clocks go forward 02:00');
  await expect(page.locator(cell(21))).toContainText(/1 Farvardin|1 Far/);
  await page.goto('/month/2027-09');
  await expect(page.locator('[data-view]')).not.toContainText('Labour Day');

  // A day by its hours says it above them.
  await page.goto('/day/2027-03-20');
  await expect(page.locator('[data-part="said"]')).toHaveText(/^Mud Week · Lamps lit 19:\d\d · Spring equinox 17:2\d · 29 Esfand 1405/);
  // A day, a list, a week; the reader’s language; a time to go to by its name.
  for (const at of ['/day/2027-03-17', '/list/2027-03-17', '/week/2027-03-17']) {
    await page.goto(at);
    await expect(page.locator('[data-view]'), at).toContainText(/Patrick.s Day/);
  }
  await page.goto('/go?when=canada+day&view=day');
  await expect(page).toHaveURL(/\/day\/2027-07-01/);
  await page.goto('/desk/month/2027-03');
  await expect(page.locator('[data-day]').filter({ hasText: 'Bridge opening' })).toBeVisible();
  await page.goto('/desk/listings?words=harbour+choir');
  await page.getByRole('link', { name: 'Harbour Choir', exact: true }).first().click();
  await expect(page.locator('main')).not.toContainText('is Mud Week');
});

test('it is whole without a script, on a phone in the dark', async ({ browser, site }) => {
  const context = await browser.newContext({
    baseURL: site.url,
    javaScriptEnabled: false,
    colorScheme: 'dark',
    viewport: { width: 360, height: 740 },
  });
  const page = await context.newPage();
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/days');
  await expectNoSidewaysScroll(page);
  await page.getByLabel('Holidays of').selectOption('Antarctica');
  await page.getByRole('button', { name: 'Show these days' }).click();
  await expect(page.getByText('Nothing is known of the holidays of Antarctica')).toBeVisible();
  await page.getByLabel('Holidays of').selectOption('Norway');
  await page.getByRole('button', { name: 'Show these days' }).click();
  await expect(page.getByRole('checkbox', { name: /Constitution Day/ })).toBeChecked();
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByText('Saved. Every sheet')).toBeVisible();
  await page.goto('/month/2027-05');
  await page.goto('/day/2027-05-17');
  await expect(page.locator('main')).toContainText('Constitution Day');
  await context.close();
});

test('contributors and editors do not come there', async ({ page }) => {
  await signIn(page, 'nan');
  expect((await page.goto('/desk/set-up/days'))?.status()).toBe(403);
});

test('own opening hours and a day’s picture stand in the days of months and weeks', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/days');
  const hours = page.getByRole('group', { name: 'Your own opening hours' });
  for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday']) await hours.getByLabel(day).fill('9-17');
  await hours.getByLabel('Saturday').fill('tide to tide');
  await page.getByLabel('A picture for').selectOption('Bridge opening');
  await page.getByRole('button', { name: 'From the library' }).click();
  await page.getByRole('dialog').locator('button.frame').first().click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByText('“tide to tide” is not understood').first()).toBeVisible();
  // What was chosen beside it is still there.
  await expect(page.getByLabel('A picture for')).toHaveValue('Bridge opening');
  await expect(page.getByRole('button', { name: 'Take it off' })).toBeVisible();
  await hours.getByLabel('Saturday').fill('10-12');
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByText('Saved. Every sheet')).toBeVisible();
  await expect(page.getByLabel('Bridge opening: keep it')).toBeChecked();
  await expect(hours.getByLabel('Sunday')).toHaveValue('closed');
  await expectAccessible(page, 'days with pictures and hours');
  await page.goto('/month/2027-03');
  await expect(page.locator(cell(11)).locator('picture img')).toHaveJSProperty('complete', true);
  await expect(page.locator(cell(16))).toContainText('9–17');
  await expect(page.locator(cell(20))).toContainText('10–12');
  await expect(page.locator(cell(21))).toContainText('Closed');
  // A red-letter day is no working day.
  await expect(page.locator(cell(11))).toContainText('Closed');
  await expectAccessible(page, 'a month with hours');
  await page.goto('/week/2027-03-11');
  await expect(page.locator('[data-part="hours"]')).toContainText('Open 09:00–17:00');
  await page.goto('/fr/day/2027-03-16');
  await expect(page.locator('main')).toContainText('Ouvert 9 h');
  // One press takes it all back.
  await page.goto('/desk/set-up/days');
  await page.getByLabel('Bridge opening: keep it').uncheck();
  await page.getByRole('button', { name: 'Save' }).last().click();
  await expect(page.getByLabel('Bridge opening: keep it')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Bridge opening: keep it')).toBeChecked();
});
