/** The map: rings that never cover each other, a list in step with what is seen, the days that were chosen. */
import { expect } from '@playwright/test';
import { test } from './site';
import { expectAccessible } from './support';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

test('marks that would cover each other are one, and a press leads into the list', async ({ page }) => {
  await page.setViewportSize({ width: 380, height: 800 });
  await page.goto('/map/2027-03-17');
  await expect(page.locator('button.place').first()).toBeVisible({ timeout: 40_000 });
  const boxes = (await page.locator('button.place').all()).map((mark) => mark.boundingBox());
  const all = (await Promise.all(boxes)).flatMap((box) => box ?? []);
  for (const [i, a] of all.entries()) for (const b of all.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(34);
  const single = page.locator('button.place:not([aria-label*="places"])').first();
  await single.click();
  await expect(page.locator('.places li.on a').first()).toBeFocused();
  await expect(page.locator('.chart [role=status]')).toContainText('in the list');
  // The list scrolls under the pointer, which points at nothing by resting: what was pressed stays shown.
  const name = await page.locator('.places li.on a').first().textContent();
  await expect(page.locator('.chart [role=status]')).toContainText(name ?? '?');
});

test('the chart moves, and list and chart point at each other', async ({ page }) => {
  await page.goto('/map/2027-03-17');
  const place = page.locator('button.place').first();
  await expect(place).toBeVisible({ timeout: 40_000 });
  await place.click();
  await expect(page.locator('.places li.on')).toHaveCount(1);
});

test('the list moves in step with the chart: what is in this part, how much that is, and all of it again', async ({ page }) => {
  await page.goto('/map/2027-03-17');
  await expect(page.locator('button.place').first()).toBeVisible({ timeout: 40_000 });
  const words = page.locator('[data-part="on-map"]');
  const places = page.locator('[data-place]:visible');
  const whole = (await words.textContent()) ?? '';
  const all = await places.count();
  expect(all).toBeGreaterThan(5);
  await page.getByRole('button', { name: 'Zoom in' }).press('Enter');
  await expect(words).toHaveText(/^\d+ dates? in this part of the map, at \d+ places?$/);
  expect(await places.count()).toBeLessThan(all);
  await expect(page.locator('[data-part="in-step"]')).toHaveText((await words.textContent()) ?? '');
  // The same by the rings: those that are seen have the places that are listed.
  const names = await places.locator('h2').allTextContents();
  expect(await words.textContent()).toContain(`at ${names.length} place`);
  await expectAccessible(page, 'a part of the map');
  await page.getByRole('button', { name: 'Show all of it' }).click();
  await expect(words).toHaveText(whole);
  await expect(places).toHaveCount(all);
  await expect(page.getByRole('button', { name: 'Show all of it' })).toBeHidden();
  // What the keyboard comes to in the list is marked on the chart, and stays so where rings are grouped anew.
  await places.first().locator('a').first().focus();
  await expect(page.locator('button.place.on')).toHaveCount(1);
  const rings = await page.locator('button.place').count();
  for (let i = 0; i < 3; i++) await page.locator('.maplibregl-ctrl-zoom-out').click();
  await expect.poll(() => page.locator('button.place').count()).toBeLessThan(rings);
  await expect(page.locator('button.place.on')).toHaveCount(1);
});

test('the map is of the days that were chosen, says what is not on it by why, and a part of it has an address', async ({
  page,
  request,
}) => {
  await page.goto('/map?from=2027-03-01&to=2027-04-20');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 March – 20 April 2027');
  await expect(page.locator('[data-place]').first()).toContainText(/Mon 1 Mar|Tue 2 Mar|Wed 3 Mar|Thu 4 Mar|Fri 5 Mar/);
  const off = page.getByText(/^Not on the map: /);
  const reasons = [...((await off.textContent()) ?? '').matchAll(/(\d+) (online|without a venue)/g)].map(([, n]) => Number(n));
  expect(reasons).toHaveLength(2);
  await off.click();
  expect(await page.locator('details:has(> summary:text("Not on the map")) li').count()).toBe(reasons.reduce((sum, n) => sum + n, 0));
  await page.goto('/map?from=2027-03-01&to=2028-04-20');
  await expect(page.getByText('Only the first 92 days are shown here')).toBeVisible();
  const placesOf = async (query: string): Promise<number> =>
    ((await (await request.get(`/map/2027-03-17${query}`)).text()).match(/data-place=/g) ?? []).length;
  const all = await placesOf('');
  expect(await placesOf('?part=-180,-90,180,90')).toBe(all);
  expect(await placesOf('?part=0,0,1,1')).toBe(0);
  for (const odd of ['?part=', '?part=1,2', '?part=NaN,0,0,0', '?part=9,9,1,1', `?part=${'1,'.repeat(900)}`])
    expect(await placesOf(odd), odd).toBe(all);
});
