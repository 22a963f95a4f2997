import { expect, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const dayNumber = (text: string): number => Math.floor(Date.parse(`${text}T00:00Z`) / 86_400_000);
const cell = (page: Page, day: string) => page.locator(`[data-day="${dayNumber(day)}"]`);
const entry = (page: Page, day: string, title: string) => cell(page, day).locator('[data-key]').filter({ hasText: title }).first();
const notice = (page: Page) => page.locator('.ds-notice');
const grid = (page: Page) => page.getByRole('grid');
const settled = (page: Page) => expect(page.locator('.ds-new button').first()).toBeEnabled();

async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}
async function middle(of: ReturnType<Page['locator']>, at = 0.5): Promise<{ x: number; y: number }> {
  const box = await of.boundingBox();
  if (!box) throw new Error('it is not on the sheet');
  return { x: box.x + box.width * at, y: box.y + box.height / 2 };
}

/** A weekly listing of this test's own, published. */
async function makeWeekly(page: Page, title: string, start: string, weekday: number): Promise<string> {
  return page.evaluate(
    async ([name, first, day]) => {
      const rule = { freq: 'weekly', interval: 1, byMonth: [], byMonthDay: [], byDay: [{ weekday: day, nth: 0 }], weekStart: 0 };
      const recurrencePart = { start: first, length: { days: 0, minute: 660 }, rule, limit: { kind: 'count', count: 8 } };
      const content = {
        format: 1,
        title: name,
        shortTitle: '',
        summary: 'By the quay.',
        text: '',
        eventStatus: 'going-ahead',
        eventStatusNote: '',
        recurrence: { format: 3, zone: 'America/Halifax', parts: [recurrencePart], exdates: [], breaks: [] },
        changes: [],
        attendance: 'online',
        onlineAddress: 'https://quay.example/',
        venueIds: [],
        organizerIds: [],
        categoryIds: [],
        pictureId: null,
        cost: { kind: 'free' },
        website: '',
        contact: { name: '', phone: '', mail: '' },
        access: '',
        headline: false,
        visibility: 'public',
      };
      const headers = { 'content-type': 'application/json' };
      const made = await fetch('/api/v1/listings', { method: 'POST', headers, body: JSON.stringify({ content }) });
      const { id, revision } = await made.json();
      await fetch(`/api/v1/listings/${id}/publish`, { method: 'POST', headers, body: JSON.stringify({ revision }) });
      return id as string;
    },
    [title, start, weekday] as const,
  );
}

test('a date dragged to another day moves alone, then with the later ones, is undone, and reaches readers once published', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/month/2027-09');
  await makeWeekly(page, 'Rowing Talk', '2027-09-07T10:00', 1);
  await page.goto('/desk/month/2027-09?words=rowing+talk');
  await expect(entry(page, '2027-09-14', 'Rowing Talk')).toBeVisible();
  await expectAccessible(page, 'month of the Desk');
  await drag(page, await middle(entry(page, '2027-09-14', 'Rowing Talk'), 0.4), await middle(cell(page, '2027-09-16')));
  await expect(notice(page)).toContainText(
    '“Rowing Talk” moved to Thursday 16 September, was a Tuesday. Readers see it once it is published.',
  );
  await expect(entry(page, '2027-09-16', 'Rowing Talk')).toBeVisible();
  await expect(cell(page, '2027-09-14').locator('[data-key]')).toHaveCount(0);
  await expect(entry(page, '2027-09-21', 'Rowing Talk')).toBeVisible();
  await notice(page).getByRole('button', { name: 'Later ones too' }).click();
  await expect(notice(page)).toContainText('this and all later dates are 2 days later: Thursdays now');
  await expect(entry(page, '2027-09-23', 'Rowing Talk')).toBeVisible();
  await expect(entry(page, '2027-09-07', 'Rowing Talk')).toBeVisible();
  await expect(cell(page, '2027-09-21').locator('[data-key]')).toHaveCount(0);
  const reader = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL })).newPage();
  await reader.goto('/month/2027-09?words=rowing+talk');
  await expect(reader.locator('table.month .entry')).toHaveCount(4);
  await expect(reader.getByRole('link', { name: /Thursday 16 September, 1 date/ })).toHaveCount(0);
  await notice(page).getByRole('button', { name: 'Publish changes' }).click();
  await expect(notice(page)).toContainText('Published');
  await reader.reload();
  await expect(reader.getByRole('link', { name: /Thursday 16 September, 1 date/ })).toHaveCount(1);
  await notice(page).getByRole('button', { name: 'Undo' }).click();
  await expect(entry(page, '2027-09-14', 'Rowing Talk')).toBeVisible();
  await expect(entry(page, '2027-09-28', 'Rowing Talk')).toBeVisible();
  await notice(page).getByRole('button', { name: 'Redo' }).click();
  await expect(entry(page, '2027-09-16', 'Rowing Talk')).toBeVisible();
  await reader.close();
  await page.close();
});

test('with Ctrl a copy stays, an edge lengthens, days drawn begin a listing, and all of it is undone', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/month/2027-10');
  await makeWeekly(page, 'Knot Clinic', '2027-10-05T10:00', 1);
  await page.goto('/desk/month/2027-10?words=knot+clinic');
  await page.keyboard.down('Control');
  await drag(page, await middle(entry(page, '2027-10-12', 'Knot Clinic'), 0.4), await middle(cell(page, '2027-10-15')));
  await page.keyboard.up('Control');
  await expect(notice(page)).toContainText('has an extra date on Fri 15 Oct');
  await expect(entry(page, '2027-10-15', 'Knot Clinic')).toBeVisible();
  await expect(entry(page, '2027-10-12', 'Knot Clinic')).toBeVisible();
  await notice(page).getByRole('button', { name: 'As a listing of its own' }).click();
  await expect(notice(page)).toContainText('is a draft of its own');
  await expect(entry(page, '2027-10-15', 'Knot Clinic')).toHaveClass(/draft/);
  await drag(
    page,
    await middle(entry(page, '2027-10-19', 'Knot Clinic').locator('[data-edge=end]')),
    await middle(cell(page, '2027-10-21')),
  );
  await expect(notice(page)).toContainText('“Knot Clinic” ends Thu 21 Oct');
  await expect(page.locator('.ds-band').filter({ hasText: 'Knot Clinic' })).toBeVisible();
  await notice(page).getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.ds-band').filter({ hasText: 'Knot Clinic' })).toHaveCount(0);

  await page.goto('/desk/month/2027-10?stage=draft');
  await drag(page, await middle(cell(page, '2027-10-26')), await middle(cell(page, '2027-10-28')));
  await expect(page.getByLabel('Title')).toBeFocused();
  await page.keyboard.type('Seed Days');
  await page.getByLabel('A date on each day').check();
  await page.getByLabel('Starts').fill('14.30');
  await page.getByLabel('Title').press('Enter');
  await expect(notice(page)).toContainText('“Seed Days” is a draft.');
  await expect(entry(page, '2027-10-27', '14:30')).toBeVisible();
  await grid(page).press('Control+z');
  await expect(cell(page, '2027-10-27').locator('[data-key]')).toHaveCount(0);
  await grid(page).press('Control+y');
  await expect(entry(page, '2027-10-28', 'Seed Days')).toBeVisible();
  await page.close();
});

test('the same by keyboard alone, on the month and on half a year', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/month/2027-11');
  await makeWeekly(page, 'Lamp Talk', '2027-11-02T10:00', 1);
  await page.goto('/desk/month/2027-11?words=lamp+talk');
  await grid(page).focus();
  // From 1 November: a day on, pick up, two days on, put down.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press(' ');
  await expect(notice(page)).toContainText('“Lamp Talk” to Tuesday 2 November');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(notice(page)).toContainText('Thursday 4 November, was a Tuesday');
  await page.keyboard.press('Enter');
  await expect(entry(page, '2027-11-04', 'Lamp Talk')).toBeVisible();
  await settled(page);
  // Escape leaves a date where it was; Ctrl+Enter puts down a copy.
  await page.keyboard.press(' ');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Escape');
  await expect(notice(page)).toContainText('Left where it was');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press(' ');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+Enter');
  await expect(entry(page, '2027-11-05', 'Lamp Talk')).toBeVisible();
  await settled(page);
  // Shift and an arrow draw the end out.
  await page.keyboard.press(' ');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(notice(page)).toContainText('“Lamp Talk” ends Saturday 6 November');
  await page.keyboard.press('Enter');
  await expect(page.locator('.ds-band').filter({ hasText: 'Lamp Talk' })).toBeVisible();
  await settled(page);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.ds-band')).toHaveCount(0);
  await settled(page);
  // Letters begin a listing on three days.
  await page.getByRole('link', { name: 'Half a year' }).click();
  await expect(page).toHaveURL(/half-year\/2027-11\?words=lamp\+talk/);
  await page.getByRole('button', { name: 'Show everything' }).click();
  await grid(page).focus();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Tab');
  await grid(page).focus();
  await page.keyboard.type('Lantern Fair');
  await expect(page.getByLabel('Title')).toHaveValue('Lantern Fair');
  await expect(page.locator('.ds-new h3')).toContainText('28–30 Dec');
  await page.keyboard.press('Enter');
  await expect(notice(page)).toContainText('“Lantern Fair” is a draft.');
  await expect(cell(page, '2027-12-29').locator('.ds-bar')).toHaveCount(1);
  await expectAccessible(page, 'half a year of the Desk');
  await page.close();
});

test('half a year moves dates between months; a phone reads the month and moves by tapping; a contributor has only their own', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/half-year/2028-01');
  await makeWeekly(page, 'Chart Evening', '2028-01-04T10:00', 1);
  await page.goto('/desk/half-year/2028-01?words=chart+evening');
  await drag(page, await middle(cell(page, '2028-01-11').locator('.w')), await middle(cell(page, '2028-03-15')));
  await expect(notice(page)).toContainText('Wednesday 15 March, was a Tuesday');
  await expect(cell(page, '2028-03-15').locator('.w')).toHaveText('Chart Evening');
  await notice(page).getByRole('button', { name: 'Undo' }).click();
  await expect(cell(page, '2028-01-11').locator('.w')).toHaveText('Chart Evening');
  await page.close();

  const phone = await pageOf(browser, request, 'ivo', { width: 360, baseURL });
  await phone.goto('/desk/month/2028-01?words=chart+evening');
  await expectNoSidewaysScroll(phone);
  await cell(phone, '2028-01-18').click();
  await phone.getByRole('button', { name: 'Move', exact: true }).click();
  await cell(phone, '2028-01-19').click();
  await expect(notice(phone)).toContainText('Wednesday 19 January, was a Tuesday');
  await expect(phone.locator('.ds-panel')).toContainText('Chart Evening');
  await expectAccessible(phone, 'month of the Desk at 360 px');
  await phone.goto('/desk/half-year/2028-01');
  await expectNoSidewaysScroll(phone);
  await phone.close();

  const nan = await pageOf(browser, request, 'nan', { baseURL });
  await nan.goto('/desk/month/2028-01');
  await expect(nan.locator('.ds-head h1')).toHaveText('January 2028');
  await expect(nan.getByText('Chart Evening')).toHaveCount(0);
  await nan.close();
});
