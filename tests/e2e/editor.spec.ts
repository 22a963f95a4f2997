import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, expectNoSidewaysScroll, newListing, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const note = (page: Page, text: RegExp) => expect(page.locator('[data-note]')).toContainText(text);
const picture = (colour: string): Promise<Buffer> =>
  sharp({ create: { width: 1200, height: 800, channels: 3, background: colour } })
    .png()
    .toBuffer();

test('a refused publish leads to the field and says all of it; an untouched form is not scolded', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings/new');
  const validation = page.getByRole('region', { name: 'Proof' });
  await expect(validation).toContainText('shows here as you go');
  await expect(validation.locator('li .sign.red')).toHaveCount(0);
  // When comes right after the title.
  expect(await page.locator('.editor section.part h2').allTextContents()).toEqual([
    'What',
    'When',
    'Where',
    'Who',
    'Words',
    'Details',
    'Pictures',
    'Stage',
  ]);
  await page.getByLabel('Website').fill('not an address');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await note(page, /more below/);
  await expect(page.getByLabel('Title', { exact: true })).toBeFocused();
  await expect(validation).not.toContainText('shows here as you go');
  await expect(page.locator('#details .wrong')).toBeVisible();
  await expect(page.locator('#when .wrong')).toBeVisible();
  await page.context().close();
});

test('forms read what people type: an address, an amount, a web address, a last day, breaks one after the other', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Boat Hanging', 'every Tuesday 19:00 to 21:00 from 23 March 2027 for 12 dates');
  await page.getByLabel('Website').fill('www.skiffs.example');
  await page.getByLabel('Cost', { exact: true }).selectOption('amount');
  await page.getByLabel(/Amount in/).fill('$12,5');
  await page.getByLabel('Access').focus();
  await expect(page.getByLabel('Website')).toHaveValue('https://www.skiffs.example');
  await expect(page.getByLabel(/Amount in/)).toHaveValue('12.50');
  for (const n of [1, 2]) {
    await page.getByRole('button', { name: 'Add a break' }).click();
    await expect(page.getByRole('button', { name: 'Remove the break' })).toHaveCount(n);
  }
  await expect(page.locator('[data-readback]')).toContainText('with breaks 23 March – 5 April and 6–19 April');
  const address = page.getByLabel('Web address');
  await expect(page.getByText('/what/boat-hanging; it comes from the title')).toBeVisible();
  await address.fill('hanging the boats');
  await page.getByRole('button', { name: 'Save draft' }).click();
  await note(page, /“hanging-the-boats” would do/);
  await address.fill('hanging-the-boats');
  await page.getByRole('button', { name: 'Save draft' }).click();
  await note(page, /Saved/);
  await page.getByLabel('Web address').fill('boats');
  await page.getByRole('button', { name: 'Change the address' }).click();
  // A draft has no page of readers: the note leads to its preview.
  await expect(page.locator('[data-note]').getByRole('link', { name: 'See the preview' })).toHaveAttribute('href', /\/preview$/);
  await page.context().close();
});

test('a half-typed listing is offered to a new one, never put in unasked, and comes back after a reload', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Half-typed Supper');
  await page.waitForTimeout(600);
  await page.reload();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Half-typed Supper');
  await page.goto('/desk/listings');
  await page.getByRole('link', { name: 'New listing' }).click();
  await expect(page.getByText('You began a listing “Half-typed Supper”')).toBeVisible();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('');
  await page.getByRole('button', { name: 'Continue here' }).click();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Half-typed Supper');
  await expect(page.getByText('You began a listing')).toHaveCount(0);
  // It is dropped for the journeys that follow.
  await page.goto('/desk/listings');
  await page.getByRole('link', { name: 'New listing' }).click();
  await page.getByRole('button', { name: 'Drop it' }).click();
  await expect(page.getByText('You began a listing')).toHaveCount(0);
  await page.waitForTimeout(500);
  await page.context().close();
});

test('a picture in the text has a side, a width, words and a link, and comes from the library too', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Pictured Talk', 'Friday 9 April 2027 19:00 to 21:00');
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Before the picture.');
  await page.getByRole('button', { name: 'Insert one you have' }).click();
  await page.getByRole('dialog').getByLabel('Search').fill('ferry');
  await expect(page.getByRole('dialog').getByText(/found/)).toBeVisible();
  await page.getByRole('dialog').locator('.frame').first().click();
  await page.locator('.writing img').click();
  const tools = page.getByRole('group', { name: 'The chosen picture' });
  await tools.getByLabel('Side').selectOption('left');
  await tools.getByLabel('Width').selectOption('third');
  await tools.getByLabel('What it shows').fill('The ferry at noon');
  await tools.getByLabel('Leads to').fill('javascript:alert(1)');
  await tools.getByLabel('What it shows').focus();
  await expect(tools.getByText('A link is written')).toBeVisible();
  await tools.getByLabel('Leads to').fill('ferry.example/times');
  await tools.getByLabel('What it shows').focus();
  await expect(tools.getByLabel('Leads to')).toHaveValue('https://ferry.example/times');
  await expectAccessible(page, 'a picture in the text');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await note(page, /Published/);
  for (const [width, part] of [
    [1280, 0.4],
    [360, 1.01],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto('/what/pictured-talk');
    const link = page.locator('.prose a[href="https://ferry.example/times"]');
    await expect(link.locator('img')).toHaveAttribute('alt', 'The ferry at noon');
    const [shown, prose] = [await link.locator('img').boundingBox(), await page.locator('.prose').boundingBox()];
    expect((shown?.width ?? 0) / (prose?.width ?? 1), `${width}`).toBeLessThan(part);
    if (width === 360) expect((shown?.width ?? 0) / (prose?.width ?? 1)).toBeGreaterThan(0.9);
    await expectNoSidewaysScroll(page);
  }
  // Whoever may edit it is led there from the public page, and nobody else.
  await expect(page.getByRole('link', { name: 'Edit', exact: true })).toHaveAttribute('href', /\/desk\/listings\//);
  const stranger = await browser.newContext({ baseURL });
  expect(await (await stranger.request.get('/what/pictured-talk')).text()).not.toContain('/desk/listings/');
  await stranger.close();
  await page.context().close();
});

test('a logo that is still on its way is waited for', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.route('**/api/v1/pictures', async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await page.goto('/desk/organizers/new');
  await page.getByLabel('Name', { exact: true }).fill('Slow Boat Society');
  await page
    .locator('.field', { hasText: 'Logo' })
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'logo.png', mimeType: 'image/png', buffer: await picture('#0c5a63') });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved as soon as the picture is here')).toBeVisible();
  await expect(page.getByText('Slow Boat Society is saved')).toBeVisible({ timeout: 20_000 });
  await page.goto('/by/slow-boat-society');
  await expect(page.locator('.logo img')).toBeVisible();
  await page.context().close();
});

test('on a phone publishing, Proof and the dates stay in reach, and the Desk’s menu folds without a script', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL, width: 360 });
  await page.goto('/desk/listings/new');
  const bar = page.getByRole('navigation', { name: 'In reach' });
  await expect(bar).toBeInViewport();
  await page.getByLabel('Title', { exact: true }).fill('Phone Supper');
  await page.getByLabel('In words').fill('Saturday 10 April 2027 18:00 to 20:00');
  await expect(bar.getByRole('link', { name: '1 date' })).toBeVisible();
  await bar.getByRole('link', { name: '1 date' }).click();
  await expect(page.getByRole('region', { name: 'All dates' }).getByText('Sat 10 Apr')).toBeInViewport();
  await bar.getByRole('button', { name: 'Publish' }).click();
  await note(page, /Published/);
  await expectAccessible(page, 'editor on a phone');
  await expect(page.getByRole('link', { name: 'Places & people', exact: true })).toBeHidden();
  await page.locator('.deskbar summary').click();
  await page.getByRole('link', { name: 'Places & people', exact: true }).click();
  await expect(page).toHaveURL(/\/desk\/venues/);
  await page.goto('/desk/listings?words=phone+supper');
  const card = page.locator('[data-rows] tbody tr').first();
  await expect(card).toContainText('Published');
  expect((await card.locator('td[data-edit=stage]').boundingBox())?.x).toBeLessThan(200);
  await expectNoSidewaysScroll(page);
  await page.context().close();
});

test('after an action the choice stays, for the next one; new tags are made with it', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings?sort=title&columns=tags,stage');
  const boxes = page.locator('[data-rows] tbody input[type=checkbox]');
  for (const n of [1, 3]) await boxes.nth(n).check();
  await page.getByLabel('What to do with them').selectOption('tag');
  await page.getByRole('dialog').getByRole('combobox', { name: 'Tags' }).fill('spring tides');
  await page.getByRole('option', { name: 'Make “spring tides” …' }).click();
  await expect(page.getByRole('dialog')).toContainText('2 listings will be tagged.');
  await expectAccessible(page, 'tagging many');
  await page.getByRole('button', { name: 'Tag', exact: true }).click();
  await expect(page.locator('.run-report')).toContainText('2 listings tagged.');
  await expect(page.getByText('2 listings chosen')).toBeVisible();
  await expect(boxes.nth(1)).toBeChecked();
  await page.getByRole('button', { name: 'Undo all of it' }).click();
  await expect(page.locator('.run-report')).toContainText('2 listings put back.');
  await page.context().close();
});
