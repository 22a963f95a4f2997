/** Addresses found by a geocoder that the site names: taken with all their parts, and its bad days said where somebody types. */
import { expect } from '@playwright/test';
import { serveGeocoder } from '../../demo/geocoder';
import { serveCopy, test } from './site';
import { openSetting, signIn } from './support';

test('an address is found by the service, taken with its parts, and its silence is said beside what the site knows', async ({
  browser,
}) => {
  const [well, hanging] = [await serveGeocoder(), await serveGeocoder('hangs')];
  const served = await serveCopy('address-search', { ALMANAC_GEOCODER_PRIVATE: '1' });
  try {
    const page = await browser.newPage({ baseURL: served.url });
    await signIn(page, 'maud');
    await openSetting(page, 'geocoder');
    await page.getByLabel('Address search').fill('search.example');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('An address of a search service is written').first()).toBeVisible();
    await page.getByLabel('Address search').fill(well.url);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved. Every page')).toBeVisible();
    await page.goto('/desk/venues/new');
    await page.getByLabel('Find a place').fill('3 signal terrace');
    await page
      .getByRole('option', { name: /from the address search/ })
      .first()
      .click();
    await expect(page.getByLabel('Postcode')).toHaveValue('K1A 0B1');
    await expect(page.getByLabel('Street and number')).toHaveValue('3 Signal Terrace');
    expect(well.asked.at(-1)).toBe('3 signal terrace');
    await openSetting(page, 'geocoder');
    await page.getByLabel('Address search').fill(hanging.url);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved. Every page')).toBeVisible();
    await page.goto('/desk/venues/new');
    await page.getByLabel('Find a place').fill('chapel brae');
    await expect(page.getByText('127.0.0.1 did not answer in time; this is what the site knows itself.')).toBeVisible();
    await expect(page.getByRole('option', { name: /Chapel Brae/ }).first()).toBeVisible();
    await page.context().close();
  } finally {
    await served.stop();
    for (const one of [well, hanging]) await one.close();
  }
});

test('a service in a private network is asked nothing unless the operator allows it', async ({ page }) => {
  const service = await serveGeocoder();
  try {
    await signIn(page, 'maud');
    await openSetting(page, 'geocoder');
    await page.getByLabel('Address search').fill(service.url);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved. Every page')).toBeVisible();
    await page.goto('/desk/venues/new');
    await page.getByLabel('Find a place').fill('chapel brae');
    await expect(page.getByText('127.0.0.1 is in a private network')).toBeVisible();
    expect(service.asked).toEqual([]);
  } finally {
    await service.close();
  }
});
