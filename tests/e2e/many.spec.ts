import { expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, expectNoSidewaysScroll, newListing, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const boxes = (page: Page): Locator => page.locator('[data-rows] tbody input[name=chosen]');
const note = (page: Page, text: RegExp) => expect(page.locator('[data-note]')).toContainText(text);

test('many listings: what will be done is said first, then done, then undone as one', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings?stage=published&sort=title');
  for (const n of [0, 1, 2]) await boxes(page).nth(n).check();
  await expect(page.getByText('3 listings chosen')).toBeVisible();
  await expectAccessible(page, 'table with chosen listings');
  await page.getByLabel('What to do with them').selectOption('publish');
  await expect(page.getByRole('dialog')).toContainText('None of them can be. 3 cannot:');
  await expect(page.getByRole('dialog')).toContainText('each is published as it stands');
  await page.keyboard.press('Escape');
  await page.getByLabel('What to do with them').selectOption('withdraw');
  await expect(page.getByRole('dialog')).toContainText('3 listings will be withdrawn.');
  await expectAccessible(page, 'what an action will do');
  await page.getByRole('button', { name: 'Withdraw', exact: true }).click();
  await expect(page.locator('.run-report')).toContainText('3 listings withdrawn.');
  await page.getByRole('button', { name: 'Undo all of it' }).click();
  await expect(page.locator('.run-report')).toContainText('3 listings put back.');
  await page.goto('/desk/listings?stage=withdrawn');
  await expect(page.locator('.empty')).toBeVisible();
  await page.context().close();
});

test('the table by keyboard: found with a slip, edited in the row, kept as a view', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings');
  await page.getByLabel('Find').fill('mendng bench');
  await page.keyboard.press('Enter');
  await page.waitForURL(/words=mendng/);
  await page.goto('/desk/listings?words=mending+bech&columns=next,venue,category,stage');
  const row = page.locator('[data-rows] tbody tr').first();
  await expect(row).toContainText('Mending Bench');
  await row.getByRole('link').focus();
  await page.keyboard.press('F2');
  await page.getByLabel('Title', { exact: true }).fill('Mending Bench, Tuesdays');
  await page.keyboard.press('Enter');
  await expect(row).toContainText('Mending Bench, Tuesdays');
  await expect(row).toContainText('changes wait');
  // Arrows walk past the date to the venue, Enter opens it.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.getByLabel('Venue', { exact: true }).last().selectOption({ label: 'Net Loft' });
  await page.keyboard.press('Enter');
  await expect(page.locator('.cell-field')).toHaveCount(0);
  await expect(row).toContainText('Net Loft');
  await page.keyboard.press('Space');
  await expect(page.getByText('1 listing chosen')).toBeVisible();
  await page.getByLabel('Keep this view as').fill('Mending');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mending');
  await page.goto('/desk/views/mending');
  await expect(page.locator('[data-rows] tbody tr').first()).toContainText('Mending Bench, Tuesdays');
  await page.getByRole('button', { name: /Delete the view/ }).click();
  await expect(page.locator('.note.good')).toContainText('The view is gone');
  await page.setViewportSize({ width: 360, height: 800 });
  await page.goto('/desk/listings?next=30');
  await expectNoSidewaysScroll(page);
  // What was changed is taken back for the journeys that follow.
  await page.goto('/desk/listings?words=mending+bench');
  await page.getByRole('link', { name: 'Mending Bench, Tuesdays' }).click();
  await page.getByRole('link', { name: 'All versions, side by side' }).click();
  await expect(page.getByRole('row', { name: /Title/ })).toHaveCount(0);
  await page.getByRole('link', { name: /1 .*created it/ }).click();
  await page.getByRole('button', { name: 'Bring version 1 back' }).click();
  await expect(page.locator('.note.good')).toContainText('It is as it was in version 1');
  await page.context().close();
});

test('Proof: mended with one key, answered for with a reason, and many at once', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'KELP SUPPER', 'Friday 9 April 2027 at 18:00 to 20:00');
  await page.getByLabel('Summary', { exact: true }).fill('Every Tuesday, free of bones.');
  // What nobody has been in is not scolded; a section is looked at when it is left.
  await expect(page.getByRole('region', { name: 'Proof' })).not.toContainText('No venue');
  await page.getByLabel('Website').focus();
  const validation = page.getByRole('region', { name: 'Proof' });
  await expect(validation).toContainText('The summary says “Tuesday”, but the date is a Friday');
  await validation.getByRole('button', { name: /all in capitals/ }).focus();
  await page.keyboard.press('m');
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Kelp supper');
  await page.getByRole('button', { name: 'Save draft' }).click();
  await note(page, /Saved/);
  const matter = validation.getByRole('listitem').filter({ hasText: 'No picture' });
  await matter.getByRole('button', { name: 'Right as it is' }).click();
  await page.getByLabel('Why it is right as it is').fill('A drawing comes later');
  await page.keyboard.press('Enter');
  await expect(validation.getByText('1 accepted')).toBeVisible();
  await expectAccessible(page, 'Proof beside the form');
  await page.reload();
  await expect(validation.getByText('1 accepted')).toBeVisible();
  // A lookalike: the same supper under another name.
  await newListing(page, 'Kelp Suppers', 'Friday 9 April 2027 at 18:00');
  await expect(validation).toContainText('“Kelp supper” may be the same event');
  await validation.getByRole('button', { name: 'Side by side' }).click();
  await expect(page.getByRole('dialog')).toContainText('Is it “Kelp supper”?');
  await expectAccessible(page, 'two listings side by side');
  await page.keyboard.press('Escape');
  // What is open is listed for all of them, once Proof had its pause.
  await expect(async () => {
    await page.goto('/desk/proof?kind=weekday-differs');
    await expect(page.getByRole('link', { name: 'Kelp supper' })).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  await expectAccessible(page, 'Proof page');
  await page.getByLabel('Choose Kelp supper').check();
  await page.getByLabel('Why they are right as they are').fill('Said on purpose');
  await page.getByRole('button', { name: 'Accept the chosen ones' }).click();
  await expect(page.locator('.note.good')).toContainText('1 answer kept');
  await page.setViewportSize({ width: 360, height: 800 });
  await page.goto('/desk/proof');
  await expectNoSidewaysScroll(page);
  await page.context().close();
});

test('two editors see each other, what is typed is found on another machine, and versions stand side by side', async ({
  browser,
  request,
  baseURL,
}) => {
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/listings?words=tool+library');
  await ivo.locator('[data-rows] tbody a').first().click();
  await ivo.getByLabel('Summary', { exact: true }).fill('Typed, and not saved.');
  const address = ivo.url();
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  await expect(async () => {
    await maud.goto(address);
    await expect(maud.locator('.editor-head')).toContainText('Ivo Skerrit has it open too and is changing it', { timeout: 8000 });
  }).toPass({ timeout: 50_000 });
  // Another machine of Ivo's: nothing is in its browser.
  const other = await pageOf(browser, request, 'ivo', { baseURL });
  await other.goto(address);
  await expect(other.getByLabel('Summary', { exact: true })).toHaveValue('Typed, and not saved.');
  await note(other, /is back/);
  await maud.goto('/desk/listings?words=tool+library');
  await expect(maud.locator('[data-rows] tbody')).toContainText('not saved yet: Ivo Skerrit');
  await other.getByRole('button', { name: 'Save working copy' }).click();
  await note(other, /Saved/);
  await other.goto(`${address}/versions`);
  await expect(other.locator('table.sides ins').first()).toBeVisible();
  await expect(other.locator('table.sides')).toContainText('Typed, and not saved.');
  await expectAccessible(other, 'versions');
  for (const page of [ivo, maud, other]) await page.context().close();
});

test('effort: how many interactions the usual work takes', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  let count = 0;
  const click = async (what: Locator): Promise<void> => {
    count++;
    await what.click();
  };
  const type = async (text: string): Promise<void> => {
    count++;
    await page.keyboard.type(text);
  };
  const press = async (key: string): Promise<void> => {
    count++;
    await page.keyboard.press(key);
  };
  const said: string[] = [];
  const measure = (what: string, most: number): void => {
    said.push(`${what}: ${count} (at most ${most})`);
    expect(count, what).toBeLessThanOrEqual(most);
    count = 0;
  };

  // A weekly listing with venue, organizer, category and picture. The title has the focus when the form opens.
  await page.goto('/desk/listings/new');
  await expect(page.getByLabel('Title', { exact: true })).toBeFocused();
  await type('Concertina Evening');
  await click(page.getByLabel('In words'));
  await type('every Monday from 5 April 2027 19:00 to 21:00, 6 times');
  await click(page.getByRole('combobox', { name: 'Venues' }));
  await type('net loft');
  await press('Enter');
  await click(page.getByRole('combobox', { name: 'Organizers' }));
  // Their usual category comes along.
  await type('harbour ch');
  await press('Enter');
  count++;
  const png = await sharp({ create: { width: 1200, height: 800, channels: 3, background: '#0c5a63' } })
    .png()
    .toBuffer();
  await page.locator('input[type=file]').last().setInputFiles({ name: 'fiddle.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByRole('group', { name: 'The chosen picture' })).toBeVisible();
  await click(page.getByRole('button', { name: 'Publish', exact: true }));
  await note(page, /Published/);
  await expect(page.getByRole('grid', { name: 'Chosen: Categories' })).toContainText('Choirs');
  measure('a weekly listing', 12);

  // One of its dates is cancelled.
  await click(
    page
      .locator('.dates-rail > li')
      .nth(2)
      .getByRole('button', { name: /^Change/ }),
  );
  await click(page.getByRole('button', { name: 'Cancel this date' }));
  await click(page.getByRole('button', { name: 'Publish changes' }));
  await note(page, /Published/);
  measure('a single date cancelled', 3);

  // The whole copied for another season.
  await click(page.getByRole('button', { name: 'Copy', exact: true }));
  await type('4 October 2027');
  await press('Enter');
  await page.waitForURL((url) => url.pathname !== '/desk/listings/new' && url.pathname.startsWith('/desk/listings/'));
  await expect(page.locator('.editor-head .stage')).toHaveText('Draft');
  await click(page.getByRole('button', { name: 'It is right as it is' }));
  await expect(page.getByRole('button', { name: 'It is right as it is' })).toHaveCount(0);
  await click(page.getByRole('button', { name: 'Publish', exact: true }));
  await note(page, /Published/);
  measure('a copied event with its new date published', 5);

  // Forty and more moved to another venue.
  await page.goto('/desk/listings?sort=title');
  await click(page.getByLabel('Choose all on this page'));
  count++;
  await page.getByLabel('What to do with them').selectOption('venue');
  count++;
  await page.locator('#bulk-target').selectOption({ label: 'Skerry Schoolroom' });
  await expect(page.getByRole('dialog')).toContainText(/4\d listings will be moved/);
  await click(page.getByRole('button', { name: 'Move to a venue' }));
  await expect(page.locator('.run-report')).toContainText(/4\d listings moved/, { timeout: 60_000 });
  measure('forty listings moved to another venue', 6);
  await page.getByRole('button', { name: 'Undo all of it' }).click();
  await expect(page.locator('.run-report')).toContainText(/4\d listings put back/, { timeout: 60_000 });
  console.log(`effort: ${said.join('; ')}`);
  await page.context().close();
});
