import { type Browser, expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const picture = (): Promise<Buffer> =>
  sharp({ create: { width: 900, height: 600, channels: 3, background: '#86748f' } })
    .png()
    .toBuffer();

async function reader(browser: Browser, baseURL: string | undefined, width = 1280): Promise<Page> {
  return (await browser.newContext({ viewport: { width, height: 800 }, javaScriptEnabled: false, baseURL })).newPage();
}

/** Sends an event in as a stranger does; leads to its receipt. */
async function send(page: Page, fields: Record<string, string>): Promise<string> {
  await page.goto('/add');
  const all = { 'Your name': 'Rue Dunlin', 'Your mail address': 'rue@dunlin.example', Phone: '555-0177', ...fields };
  for (const [label, value] of Object.entries(all)) await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByRole('button', { name: 'Send it' }).click();
  await page.waitForURL(/\/receipt\//, { timeout: 20_000 });
  return page.url();
}

test('what a sender changes after an editor began is a change to decide; published from the table, it is settled and mailed', async ({
  browser,
  request,
  baseURL,
}) => {
  const rue = await reader(browser, baseURL);
  const receipt = await send(rue, {
    'What is it called?': 'Lantern Walk',
    Day: '2027-04-23',
    Starts: '8 pm',
    Where: 'causeway slip',
    'In your words': 'Bring a lantern.\n\nAnd a friend.',
    Cost: '$3',
  });
  await expect(rue.locator('[data-steps] li')).toHaveCount(1);
  // An editor begins: another text, with a heading that the form cannot show.
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/intake');
  await ivo.locator('.pile').getByText('Lantern Walk').click();
  await expect(ivo.locator('.from-them').first()).toContainText('555-0177');
  await ivo.keyboard.press('e');
  await ivo.getByLabel('Summary', { exact: true }).fill('Two miles of shore by lamplight.');
  await ivo.getByRole('button', { name: 'Save draft' }).click();
  await expect(ivo.locator('[data-note]')).toContainText('Saved');
  const editor = ivo.url();
  // The sender touches the cost alone.
  await rue.goto(receipt);
  await rue.locator('summary', { hasText: 'Change what you sent' }).click();
  await expect(rue.getByLabel('In your words')).toHaveValue('Bring a lantern.\n\nAnd a friend.');
  await rue.getByLabel('Cost', { exact: true }).fill('free');
  await rue.getByRole('button', { name: 'Send it again' }).click();
  await expect(rue.locator('[data-state="waiting"]')).toContainText('An editor had begun on it');
  await ivo.goto('/desk/intake');
  await ivo.locator('.pile').getByText('Lantern Walk').click();
  await expect(ivo.locator('.pile')).toContainText('changes to decide');
  const changes = ivo.locator('[data-changes]');
  await expect(changes).toContainText('Cost');
  await expect(changes).toContainText('$3');
  await expect(changes.getByRole('checkbox')).toHaveCount(1);
  await expectAccessible(ivo, 'Intake with changes');
  await ivo.keyboard.press('p');
  await expect(ivo.locator('[data-said]')).toContainText('changed something after you began');
  await changes.getByRole('button', { name: 'Take what is ticked' }).click();
  await expect(ivo.getByText('Taken into the listing.')).toBeVisible();
  // Published past Intake, from the table.
  await ivo.goto('/desk/listings?words=lantern+walk');
  await ivo.getByRole('button', { name: 'What to do with Lantern Walk' }).click();
  await ivo.getByRole('menuitem', { name: 'Publish' }).click();
  await expect(ivo.getByText('1 listing published.')).toBeVisible();
  await rue.reload();
  await expect(rue.locator('[data-state="published"]')).toBeVisible();
  await expect(rue.locator('[data-steps]')).toContainText('Published, Ivo Skerrit');
  await expect(rue.getByRole('button', { name: 'Send it again' })).toHaveCount(0);
  const page = await (await request.get('/what/lantern-walk')).text();
  expect(page).toContain('Two miles of shore by lamplight.');
  expect(page).toContain('And a friend.');
  expect(page).toMatch(/<dt[^>]*>Cost<\/dt><dd[^>]*>Free<\/dd>/);
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  await maud.goto('/desk/mail');
  await expect(maud.getByText('Published: Lantern Walk')).toBeVisible();
  await maud.goto('/desk/intake');
  await expect(maud.locator('.pile')).not.toContainText('Lantern Walk');
  // And nothing that the receipt's address is asked for changes what readers see.
  const before = await (await request.get('/what/lantern-walk')).text();
  for (const action of ['take-back', 'mend'])
    await request.post(receipt, {
      multipart: { action, title: 'Mine', day: '2027-04-24', name: 'x', mail: 'x@y.example' },
      maxRedirects: 0,
    });
  expect(await (await request.get('/what/lantern-walk')).text()).toBe(before);
  // Undone as one, it is read again, and its sender hears of that.
  await ivo.getByRole('button', { name: 'Undo all of it' }).click();
  await expect(ivo.getByText('1 listing put back')).toBeVisible();
  await rue.reload();
  await expect(rue.locator('[data-state="waiting"]')).toBeVisible();
  await maud.goto('/desk/mail');
  await expect(maud.getByText('Being read again: Lantern Walk')).toBeVisible();
  expect(editor).toContain('/desk/listings/');
  for (const one of [rue, ivo, maud]) await one.context().close();
});

for (const width of [1280, 360])
  test(`a refused form keeps its picture and says all at once; a new place comes along with one key, at ${width} px`, async ({
    browser,
    request,
    baseURL,
  }) => {
    const rue = await reader(browser, baseURL, width);
    await rue.goto('/add');
    const title = `Kelp Fire ${width}`;
    await rue.getByLabel('What is it called?').fill(title);
    await rue.getByLabel('Where', { exact: true }).fill('The Net Loft');
    await rue.getByLabel('Who organizes it').fill(`Kelp Cutters ${width}`);
    await rue.getByLabel('Website').fill('javascript:alert(1)');
    await rue.locator('input[name="picture"]').setInputFiles({ name: 'fire.png', mimeType: 'image/png', buffer: await picture() });
    await rue.getByLabel('Your name').fill('Rue Dunlin');
    await rue.getByLabel('Your mail address').fill('rue.dunlin.example');
    // The browser itself would stop at the first; what a browser without checks sends is answered whole.
    await rue.locator('form.form').evaluate((form: HTMLFormElement) => form.setAttribute('novalidate', ''));
    await rue.getByRole('button', { name: 'Send it' }).click();
    await expect(rue.getByRole('alert').first()).toContainText('Please look at 3 fields again');
    for (const words of ['On which day?', 'A website is written', 'A mail address needs'])
      await expect(rue.getByText(words).first()).toBeVisible();
    await expect(rue.getByLabel('Your mail address')).toHaveAttribute('aria-invalid', 'true');
    await expect(rue.locator(':focus')).toHaveAttribute('name', 'mail');
    await expect(rue.getByText('“fire.png” is here already')).toBeVisible();
    await expectNoSidewaysScroll(rue);
    await rue.getByLabel('Day', { exact: true }).fill('2027-05-01');
    await rue.getByLabel('Website').fill('www.kelp.example');
    await rue.getByLabel('Your mail address').fill('rue@dunlin.example');
    await rue.getByRole('button', { name: 'Send it' }).click();
    await rue.waitForURL(/\/receipt\//);
    await expect(rue.locator('figure img').first()).toBeVisible();
    await expect(rue.getByText('New to the site')).toContainText('Kelp Cutters');
    const ivo = await pageOf(browser, request, 'ivo', { width, baseURL });
    await ivo.goto('/desk/intake');
    await ivo.locator('.pile').getByText(title).click();
    const where = ivo.locator('[data-new-place="where"]');
    await expect(where).toContainText('“The Net Loft”');
    await where.getByLabel('It is Net Loft').check();
    await expect(ivo.locator('[data-new-place="who"]').getByLabel(/will be made/)).toBeChecked();
    await expectAccessible(ivo, 'Intake with new places');
    await ivo.locator('h1').click();
    await ivo.keyboard.press('p');
    await expect(ivo.getByText('Published; the sender has a mail.')).toBeVisible();
    await rue.goto(`/what/kelp-fire-${width}`);
    await expect(rue.locator('dl.facts').getByRole('link', { name: 'Net Loft' })).toBeVisible();
    await expect(rue.getByRole('link', { name: `Kelp Cutters ${width}` })).toBeVisible();
    await expect(rue.getByRole('link', { name: 'www.kelp.example' })).toHaveAttribute('href', 'https://www.kelp.example');
    await rue.context().close();
    await ivo.context().close();
  });

test('Escape leaves a note’s box where the decision began', async ({ browser, request, baseURL }) => {
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/intake');
  await ivo.keyboard.press('d');
  await expect(ivo.getByLabel(/What should be different/)).toBeFocused();
  await ivo.keyboard.press('Escape');
  await expect(ivo.getByRole('button', { name: /Decline/ })).toBeFocused();
  await ivo.context().close();
});

test('an organizer is removed by choice alone, said first, and brought back with everything', async ({ browser, request, baseURL }) => {
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/organizers');
  await ivo.getByRole('link', { name: 'Shore Wardens' }).click();
  const section = ivo.locator('section', { hasText: 'Remove it' }).last();
  await expect(section).toContainText(/It is used by \d+ listings, \d+ of them published: readers see the change at once/);
  const count = Number(/used by (\d+) listings/.exec((await section.textContent()) ?? '')?.[1]);
  expect(count).toBeGreaterThan(1);
  await section.getByRole('button', { name: `Remove this organizer from ${count} listings` }).click();
  // Nothing is preset: without an answer nothing goes.
  await expect(ivo).toHaveURL(/\/desk\/organizers\/[0-9a-f-]{36}$/);
  await section.getByLabel(/Instead, its/).selectOption({ label: 'no organizer' });
  await section.getByRole('button', { name: /Remove this organizer/ }).click();
  await expect(ivo.getByText(`“Kittiwick Shore Wardens” is removed from ${count} listings.`)).toBeVisible();
  expect(await (await request.get('/what/low-tide-walk')).text()).not.toContain('Shore Wardens</a>');
  await ivo.getByRole('button', { name: 'Undo' }).click();
  await expect(ivo.getByText(`“Kittiwick Shore Wardens” is back in ${count} listings.`)).toBeVisible();
  const page = await (await request.get('/what/low-tide-walk')).text();
  expect(page).toContain('Shore Wardens</a>');
  expect((await request.get('/by/kittiwick-shore-wardens')).status()).toBe(200);
  // The touched listings say it.
  await ivo.goto('/desk/listings?words=low-tide+walk');
  await ivo.locator('[data-rows] tbody a').first().click();
  await ivo.getByRole('link', { name: 'All versions, side by side' }).click();
  await expect(ivo.locator('.versions')).toContainText('removed “Kittiwick Shore Wardens”');
  await expect(ivo.locator('.versions')).toContainText('brought “Kittiwick Shore Wardens” back');
  await ivo.context().close();
});

test('two venues are two venues: list, map, filter, pages, files, table', async ({ browser, request, baseURL }) => {
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/listings/new');
  await ivo.getByLabel('Title', { exact: true }).fill('Two-hall Supper');
  await ivo.getByLabel('In words').fill('Saturday 20 March 2027 18:00 to 21:00');
  for (const typed of ['net l', 'glassh']) {
    await ivo.getByRole('combobox', { name: 'Venues' }).fill(typed);
    await ivo.keyboard.press('Enter');
  }
  await expect(ivo.getByRole('grid', { name: 'Chosen: Venues' })).toContainText('Net Loft');
  await expect(ivo.getByRole('grid', { name: 'Chosen: Venues' }).getByRole('link', { name: 'The Glasshouse' })).toHaveAttribute(
    'href',
    /\/desk\/venues\//,
  );
  // What is typed and not chosen is said, and never looks chosen.
  await ivo.getByRole('combobox', { name: 'Organizers' }).fill('harb');
  await ivo.getByLabel('Website').focus();
  await expect(ivo.getByText('“harb” is not chosen.')).toBeVisible();
  await ivo.getByRole('button', { name: 'Clear it' }).click();
  await ivo.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(ivo.locator('[data-note]')).toContainText('Published');
  const page = await ivo.context().newPage();
  await page.goto('/list/2027-03-20?words=two-hall');
  const row = page.locator('table.days tr', { hasText: 'Two-hall Supper' });
  await expect(row.getByRole('link', { name: 'Net Loft' })).toBeVisible();
  await expect(row.getByRole('link', { name: 'The Glasshouse' })).toBeVisible();
  const towns = [...((await row.locator('td').nth(2).textContent()) ?? '').matchAll(/, ([A-Z][\w ]+?)(?=The|$)/g)].map((m) => m[1] ?? '');
  expect(towns.length).toBe(2);
  for (const town of towns) {
    const filtered = await (await request.get(`/list/2027-03-20?place=${encodeURIComponent(town)}`)).text();
    expect(filtered, town).toContain('Two-hall Supper');
  }
  await page.goto('/map/2027-03-17');
  await expect(page.locator('.places > ol > li', { hasText: 'Two-hall Supper' })).toHaveCount(2);
  for (const venue of ['net-loft', 'the-glasshouse'])
    expect(await (await request.get(`/at/${venue}`)).text(), venue).toContain('Two-hall Supper');
  await page.goto('/what/two-hall-supper');
  await expect(page.locator('dl.facts').first().getByRole('link', { name: 'in your map' })).toHaveCount(2);
  const data = JSON.parse((await page.locator('script[type="application/ld+json"]').textContent()) ?? '{}');
  expect(data.location).toHaveLength(2);
  const file = (await (await request.get('/what/two-hall-supper/dates.ics')).text()).replace(/\r\n[ \t]/g, '');
  expect(file).toMatch(/LOCATION:Net Loft.*The Glasshouse/);
  await ivo.goto('/desk/listings?words=two-hall');
  await expect(ivo.locator('[data-rows] tbody tr')).toContainText('Net Loft, The Glasshouse');
  await ivo.context().close();
});

test('a row of the table is edited by one press, says what was saved, and takes it back there', async ({ browser, request, baseURL }) => {
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/listings?words=two-hall&columns=next,venue,organizer,tags,cost,stage');
  const row = ivo.locator('[data-rows] tbody tr').first();
  const cell = (name: string) => row.locator(`td[data-edit=${name}]`);
  // The table is read before it can be changed: the press counts once the page is alive.
  await expect(async () => {
    await cell('cost').click();
    await expect(ivo.getByRole('textbox', { name: 'Cost' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await ivo.getByRole('textbox', { name: 'Cost' }).fill('12,50');
  await ivo.keyboard.press('Enter');
  await expect(ivo.getByText('Saved: cost of “Two-hall Supper” is “$12.50”. The change waits to be published.')).toBeVisible();
  await expect(cell('cost')).toHaveText('$12.50');
  await ivo.getByRole('button', { name: 'Undo' }).click();
  await expect(ivo.getByText('Back: cost of “Two-hall Supper” is empty.')).toBeVisible();
  // A slow line: what is kept is all that was chosen, with the tag that is still being made.
  await ivo.route('**/api/v1/tags', async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await cell('tags').click();
  await ivo.getByRole('combobox', { name: 'Tags' }).fill('by lamplight');
  await ivo.getByRole('option', { name: 'Make “by lamplight” …' }).click();
  await ivo.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(cell('tags')).toHaveText('by lamplight');
  await cell('when').click();
  await expect(ivo.getByRole('dialog', { name: /First date/ })).toBeVisible();
  await expectAccessible(ivo, 'first date');
  const starts = ivo.getByLabel('Starts');
  await starts.fill('7.30 pm');
  await starts.press('Tab');
  await ivo.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(cell('when')).toHaveText('Sat 20 Mar 2027 19:30');
  // By keyboard: the row's menu, and its keys.
  await row.getByRole('link').focus();
  await ivo.keyboard.press('Shift+F10');
  await expect(ivo.getByRole('menuitem', { name: /Put in the bin/ })).toBeVisible();
  await ivo.keyboard.press('Escape');
  await row.getByRole('link').focus();
  await ivo.keyboard.press('Delete');
  await expect(ivo.getByText('1 listing put in the bin.')).toBeVisible();
  expect((await request.get('/what/two-hall-supper')).status()).toBe(404);
  await ivo.getByRole('button', { name: 'Undo all of it' }).click();
  await expect(ivo.getByText('1 listing put back')).toBeVisible();
  expect((await request.get('/what/two-hall-supper')).status()).toBe(200);
  await ivo.context().close();
});
