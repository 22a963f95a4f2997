import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, newListing, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const note = (page: Page, text: RegExp) => expect(page.locator('[data-note]')).toContainText(text);
/** Types a day into a field of segments. */
async function day(page: Page, group: string, digits: string): Promise<void> {
  await page.getByRole('group', { name: group, exact: true }).getByRole('spinbutton').first().click();
  await page.keyboard.type(digits);
}

test('a listing is set to go out and come down by itself; what cannot be is said at the field', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Lamp Oil Evening', 'Friday 9 April 2027 19:00 to 21:00');
  await page.getByLabel('Goes out by itself').check();
  await day(page, 'Day', '01012020');
  await expect(page.getByText('That time is past')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Set these times' })).toBeDisabled();
  await day(page, 'Day', '01042098');
  await expect(page.getByText('more than five years ahead')).toBeVisible();
  const year = 2027;
  await day(page, 'Day', `0104${year}`);
  await page.getByRole('button', { name: 'Set these times' }).click();
  await note(page, /goes out by itself/);
  await expect(page.locator('.editor-head .stage')).toHaveText('Scheduled');
  await expect(page.locator('.editor-head')).toContainText(new RegExp(`goes out \\w+day 1 April ${year}, 09:00`));
  await expectAccessible(page, 'a scheduled listing');
  await page.goto('/desk/listings?stage=scheduled&words=lamp+oil');
  await expect(page.locator('[data-rows] tbody tr')).toHaveCount(1);
  await expect(page.locator('[data-rows]')).toContainText(/out .*1 Apr.* 09:00/);
  expect((await request.get('/what/lamp-oil-evening')).status()).toBe(404);
  await page.locator('[data-rows] tbody a').first().click();
  await page.getByLabel('Goes out by itself').uncheck();
  await page.getByRole('button', { name: 'Clear these times' }).click();
  await note(page, /no times any more/);
  await expect(page.locator('.editor-head .stage')).toHaveText('Draft');
  await page.context().close();
});

test('the preview shows it wherever readers meet it; “Go to” opens anything by keyboard', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings');
  await page.keyboard.press('Alt+g');
  const field = page.getByRole('combobox', { name: 'Go to' });
  await expect(field).toBeFocused();
  await field.pressSequentially('cielidh net');
  await expect(page.locator('#go-list').getByRole('option').first()).toContainText('Ceilidh at the Net Loft');
  await expectAccessible(page, 'go to');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Ceilidh at the Net Loft');
  await page.goto(`${page.url().split('?')[0]}/preview`);
  await expect(page.locator('.preview-lines .entry')).toHaveCount(2);
  // The demo's busiest day: a headline stands there first, whatever else there is.
  await expect(page.getByText('That day is full')).toHaveCount(0);
  await expect(page.locator('.preview-week td', { hasText: 'Ceilidh' }).locator('.entry').first()).toContainText('Ceilidh');
  await expect(page.locator('.preview-week')).toContainText('Maritime Week');
  await expect(page.locator('.preview-list')).toContainText('Fiddles from three islands');
  await expect(page.locator('.preview-found')).toContainText('/ what / ceilidh-at-the-net-loft');
  await expect(page.locator('.preview-card img')).toHaveAttribute('width', '1200');
  const frame = page.frameLocator('iframe');
  await expect(frame.getByRole('heading', { level: 1 })).toHaveText('Ceilidh at the Net Loft');
  await expect(frame.locator('html')).toHaveAttribute('data-theme', 'light');
  await expectAccessible(page, 'the preview');
  await page.getByRole('link', { name: 'Phone' }).click();
  await page.getByRole('link', { name: 'Dark' }).click();
  await expect(frame.locator('html')).toHaveAttribute('data-theme', 'dark');
  expect((await page.locator('iframe').boundingBox())?.width).toBe(362);
  await page.setViewportSize({ width: 360, height: 740 });
  await page.reload();
  await expectNoSidewaysScroll(page);
  // Nothing is called so; a slip is no dead end.
  await page.keyboard.press('Alt+g');
  await page.getByRole('combobox', { name: 'Go to' }).fill('xylophone');
  await expect(page.getByText('Nothing matches.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: 'Go to' })).toBeHidden();
  await page.context().close();
});

test('what is kept on top stands first in the list, and in its day too', async ({ page }) => {
  await page.goto('/list');
  await expect(page.locator('.days .on-top')).toContainText('Kept on top');
  await expect(page.locator('.days .on-top')).toContainText('Ceilidh at the Net Loft');
  await expect(page.locator('.days').getByRole('link', { name: 'Ceilidh at the Net Loft' })).not.toHaveCount(1);
  await expectAccessible(page, 'the list with something on top');
});
