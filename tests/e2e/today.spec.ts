/** What a day at the Desk begins with. */
import { expect } from '@playwright/test';
import { test } from './site';
import { expectAccessible, pageOf, signIn } from './support';

test('a day begins with what is on and what waits; each leads there, a contributor sees what is theirs', async ({
  page,
  browser,
  request,
  baseURL,
}) => {
  await signIn(page, 'maud');
  await page.getByRole('navigation', { name: 'Desk' }).getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Wednesday 17 March');
  await expect(page.getByRole('region', { name: 'Today' })).toContainText('Mending Bench');
  await expect(page.getByRole('region', { name: 'Tomorrow' })).toContainText('Tool Library');
  await expectAccessible(page, 'today at the Desk');
  await page.getByRole('link', { name: '3 events are waiting in Intake' }).click();
  await expect(page).toHaveURL(/\/desk\/intake$/);
  const nan = await pageOf(browser, request, 'nan', { baseURL });
  await nan.goto('/desk/today');
  await expect(nan.getByRole('heading', { level: 1 })).toHaveText('Wednesday 17 March');
  await expect(nan.getByRole('region', { name: 'What waits' })).not.toContainText('Intake');
  await nan.context().close();
});
