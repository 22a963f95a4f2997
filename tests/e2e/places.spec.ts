import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const said = (page: Page) => page.locator('.note.good');

test('a venue is found by a slip of the hand, its pin is carried by keyboard, and readers of an area learn the area', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/venues/new');
  const name = page.getByLabel('Name', { exact: true });
  await name.fill('Hall of St Brides');
  await expect(page.getByText('Likely there already')).toContainText("St Bride's Hall");
  await name.fill('Sexton’s Kitchen');
  await expect(page.getByText('Likely there already')).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Find a place' }).fill('pilto row 9');
  await expect(page.getByRole('listbox', { name: 'Places found' }).getByRole('option').first()).toContainText(
    '9 Pilot Row, Port Amble, Amble',
  );
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Street and number')).toHaveValue('9 Pilot Row');
  await expect(page.getByLabel('Town')).toHaveValue('Port Amble');
  const lat = page.getByLabel('Latitude');
  const before = Number(await lat.inputValue());
  await page.getByRole('slider', { name: /pin/ }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(async () => Number(await lat.inputValue())).toBeGreaterThan(before);
  const pin = await page.getByRole('slider', { name: /pin/ }).boundingBox();
  if (!pin) throw new Error('the pin is not drawn');
  const carried = Number(await lat.inputValue());
  // By its foot, sixty pixels down.
  await page.mouse.move(pin.x + pin.width / 2, pin.y + pin.height - 12);
  await page.mouse.down();
  await page.mouse.move(pin.x + pin.width / 2, pin.y + pin.height + 48, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await lat.inputValue())).toBeLessThan(carried);
  await page.getByLabel(/Readers learn the area alone/).check();
  await page.getByLabel('Monday').fill('late');
  await page.getByLabel('Hearing loop').check();
  await expectAccessible(page, 'venue');
  await page.getByRole('button', { name: 'Save' }).click();
  // Nothing is lost by a mistake.
  await expect(page.getByText('“late” is not understood')).toBeVisible();
  await expect(page.getByLabel('Hearing loop')).toBeChecked();
  await expect(page.getByLabel('Street and number')).toHaveValue('9 Pilot Row');
  const exact = await lat.inputValue();
  await page.getByLabel('Monday').fill('9–17, 19:00–22:00');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(said(page)).toContainText('Sexton’s Kitchen is saved');
  const html = await (await page.request.get('/at/sextons-kitchen')).text();
  expect(html).toContain('Somewhere in this area');
  expect(html).toContain('Monday 09:00–17:00, 19:00–22:00');
  expect(html).not.toContain('Pilot Row');
  expect(html).not.toContain(exact);
  await page.context().close();
});

test('two venues become one, the old address leads on, and they are parted again', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/venues/new');
  await page.getByLabel('Name', { exact: true }).fill('The Old Net Loft');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('link', { name: 'The Old Net Loft' }).click();
  await page.getByLabel(/^Merge/).selectOption({ label: 'Net Loft' });
  await page.getByRole('button', { name: 'Merge' }).click();
  await expect(said(page)).toContainText('“The Old Net Loft” is part of “Net Loft” now');
  const moved = await page.request.get('/at/the-old-net-loft', { maxRedirects: 0 });
  expect([moved.status(), moved.headers().location]).toEqual([301, '/at/net-loft']);
  await page.getByRole('button', { name: 'Separate them again' }).click();
  await expect(said(page)).toContainText('“The Old Net Loft” is back');
  expect((await page.request.get('/at/the-old-net-loft', { maxRedirects: 0 })).status()).toBe(200);
  await page.goto('/desk/venues');
  await page.getByRole('link', { name: 'The Old Net Loft' }).click();
  await page.getByRole('button', { name: 'Put this venue in the bin' }).click();
  await expect(said(page)).toContainText('is in the bin');
  expect((await page.request.get('/at/the-old-net-loft')).status()).toBe(404);
  await page.getByRole('button', { name: 'Take it out of the bin' }).click();
  await page.getByRole('link', { name: 'Copy' }).click();
  await expect(page.getByText('Started as a copy of The Old Net Loft')).toBeVisible();
  await page.context().close();
});

test('an organizer gives new listings what they begin with; the order of several is changed by keyboard', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/listings/new');
  const find = page.getByRole('combobox', { name: 'Organizers' });
  await find.fill('harbour choir');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('grid', { name: 'Chosen: Categories' })).toContainText('Choirs');
  await expect(page.getByLabel('Contact name')).toHaveValue('Hester Quill');
  await find.fill('skiff');
  await page.keyboard.press('Enter');
  const chosen = page.getByRole('grid', { name: 'Chosen: Organizers' });
  await expect(chosen.getByRole('row')).toHaveCount(2);
  await chosen.getByRole('row', { name: 'Isles Skiff Club' }).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(chosen.getByRole('row').first()).toContainText('Isles Skiff Club');
  // The other way: its grip is pressed, arrows carry it, Enter puts it down.
  await chosen.getByRole('row').first().focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'Insert after Harbour Choir' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(chosen.getByRole('row').last()).toContainText('Isles Skiff Club');
  await find.fill('The Isles Skif Club');
  await page.getByRole('option', { name: /Make/ }).click();
  await expect(page.getByText('Likely there already')).toBeVisible();
  await expectAccessible(page, 'making an organizer');
  await page.keyboard.press('Escape');
  await page.goto('/desk/organizers');
  await page.getByRole('link', { name: 'Harbour Choir' }).click();
  await page.getByLabel('Profile 3: what it is called').fill('Pictures');
  await page.getByLabel('Profile 3: its address').fill('javascript:alert(1)');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('An address is written www.shore.example');
  await page.getByLabel('Profile 3: its address').fill('https://pictures.harbourchoir.example');
  await expectAccessible(page, 'organizer');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(said(page)).toContainText('Harbour Choir is saved');
  await page.goto('/by/harbour-choir');
  await expect(page.getByRole('link', { name: 'Pictures' })).toHaveAttribute('href', 'https://pictures.harbourchoir.example');
  await page.setViewportSize({ width: 360, height: 800 });
  await page.goto('/desk/venues/new');
  await expectNoSidewaysScroll(page);
  await page.context().close();
});

test('categories are put in order by keyboard and undone; tags are typed, merged, and chosen by readers', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/categories');
  const tree = page.getByRole('treegrid', { name: 'Categories in their order' });
  const names = async (): Promise<string[]> => (await tree.getByRole('row').locator('a').allTextContents()).slice(0, 4);
  await expect(tree.getByRole('row').first()).toContainText('Water & boats');
  const before = await names();
  await tree.getByRole('row', { name: 'Navigation' }).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByText('Kept.')).toBeVisible();
  expect(await names()).toEqual([before[0], before[2], before[1], before[3]]);
  await page.reload();
  await expect(tree.getByRole('row').nth(1)).toContainText('Navigation');
  await tree.getByRole('row', { name: 'Navigation' }).focus();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(page.getByText('Categories are two levels deep.')).toBeVisible();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(names).toEqual([before[0], before[2], before[1], before[3]]);
  await expectAccessible(page, 'categories');

  await page.goto('/desk/listings?words=low-tide');
  await page.locator('[data-rows] tbody a').first().click();
  for (const tag of ['Barefoot', 'For children']) {
    await page.getByRole('combobox', { name: 'Tags' }).fill(tag);
    await page.getByRole('option', { name: `Make “${tag}” …` }).click();
    await expect(page.getByRole('grid', { name: 'Chosen: Tags' })).toContainText(tag);
  }
  await page.getByRole('button', { name: 'Publish changes' }).click();
  await expect(page.locator('[data-note]')).toContainText('Published');
  await page.goto('/list?tag=barefoot');
  await expect(page.getByRole('link', { name: /Low-tide Walk/ }).first()).toBeVisible();
  // The tag is seen among what is chosen, stays when more is chosen, and can be taken off.
  const tag = page.getByRole('checkbox', { name: 'Barefoot' });
  await page.getByLabel(/Free of charge/).check();
  await expect(page).toHaveURL(/\?free=1&tag=barefoot$/);
  await expect(tag).toBeChecked();
  await tag.uncheck();
  await expect(page).toHaveURL(/\?free=1$/);
  await page.getByRole('link', { name: 'Clear filters' }).click();
  await expect(page.getByRole('link', { name: 'Clear filters' })).toBeHidden();
  await page.goto('/desk/tags');
  await expectAccessible(page, 'tags');
  await page.getByLabel('Merge Barefoot into').selectOption({ label: 'For children' });
  await page
    .getByRole('row', { name: /Barefoot/ })
    .first()
    .getByRole('button', { name: 'Merge' })
    .click();
  await expect(said(page)).toContainText('“Barefoot” is merged; 1 listing has changed.');
  const list = await (await page.request.get('/list?tag=for-children')).text();
  expect(list).toContain('Low-tide Walk');
  expect(await (await page.request.get('/list?tag=barefoot')).text()).not.toContain('Low-tide Walk');
  await page.context().close();
});

test('a listing in one line from anywhere; a pasted mail becomes rows, corrected before all are made', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/venues');
  await page.keyboard.press('Alt+n');
  await page.keyboard.type('Shanty practice tue 7pm at Net Loft, free, music');
  await page.keyboard.press('Enter');
  await expect(page.locator('.chips-line')).toContainText('title Shanty practice');
  await expect(page.locator('.readback-line')).toContainText('Tuesday 23 March 2027, 19:00');
  await expect(page.getByLabel('Venue')).toHaveValue(/./);
  await expectAccessible(page, 'one line');
  await page.getByRole('button', { name: 'Make 1 draft' }).click();
  await page.waitForURL(/\/desk\/listings\/[0-9a-f-]{36}/);
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Shanty practice');
  // A place that is no venue yet is named as one, and made in place.
  await page.goto(`/desk/entry?line=${encodeURIComponent('Puffin Talk tue 7pm at Puffin Hide, free')}`);
  await expect(page.locator('.chips-line')).toContainText('place at Puffin Hide');
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Puffin Talk');
  await page.getByRole('button', { name: 'Make it a venue' }).click();
  await expect(page.getByRole('dialog').getByLabel('Name')).toHaveValue('Puffin Hide');
  await page.getByRole('dialog').getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByLabel('Venue').locator('option:checked')).toHaveText('Puffin Hide');
  await expect(page.locator('.chips-line')).toContainText('venue at Puffin Hide');
  await page.goto('/desk/entry');
  await page
    .getByLabel(/A line for each listing/)
    .fill(
      'Hi Ivo,\nSaturday 3 April:\n10:00-11:00 Bread Talk at the Bread Oven\n11:30 Net Knots\nShanty practice tue 7pm at Net Loft\nthe rest comes later',
    );
  await expect(page.locator('.entry-row')).toHaveCount(4);
  await expect(page.getByRole('button', { name: 'Make 3 drafts' })).toBeVisible();
  await expect(page.getByText('“Shanty practice” may be the same event')).toBeVisible();
  await page.getByLabel('Make “Shanty practice”').uncheck();
  await page.locator('.entry-row').nth(1).getByLabel('When').fill('3 April 12:00');
  await expect(page.locator('.entry-row').nth(1)).toContainText('12:00');
  await page.getByRole('button', { name: 'Make 2 drafts' }).click();
  await expect(page.getByText('2 drafts made')).toBeVisible();
  await page.setViewportSize({ width: 360, height: 800 });
  await expectNoSidewaysScroll(page);
  await page.context().close();
});
