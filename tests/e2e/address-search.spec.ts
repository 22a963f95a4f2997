/** Addresses found by a geocoder that the site names: taken with all their parts, and its bad days said where somebody types. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import { serveGeocoder } from '../../demo/geocoder';
import { serveCopy, test } from './site';
import { expectAccessible, openSetting, signIn } from './support';

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

test('a file of addresses is taken in by the operator, its broken rows named, and its houses are found', async ({ site, page }) => {
  const almanac = (...args: string[]) => {
    const { status, stdout, stderr } = spawnSync('node', ['dist/cli/main.mjs', 'places', ...args], {
      encoding: 'utf8',
      env: { ...process.env, ALMANAC_DATA: site.data },
    });
    return { status, said: stdout + stderr };
  };
  const file = path.join(site.data, 'isles.csv');
  const rows = [
    '-57.401,43.111,5,Lantern Row,Port Amble,K1A 0B1',
    '-57.402,43.112,7,Lantern Row,Port Amble,K1A 0B1',
    'west,north,9,Lantern Row,Port Amble,',
  ];
  writeFileSync(file, ['Weg,LAT,NUMBER,STREET,CITY,POSTCODE', ...rows].join('\n'));
  expect(almanac()).toEqual({ status: 0, said: expect.stringContaining('no address file yet') });
  expect(almanac('add', file)).toEqual({ status: 2, said: expect.stringContaining('No column is recognised as lng.') });
  expect(almanac('add', file, '--columns', 'lng')).toMatchObject({ status: 2 });
  const added = almanac('add', file, '--columns', 'lng=Weg', '--credit', 'Isles Survey');
  expect(added.status).toBe(3);
  expect(added.said).toContain('left out line 4: its position is not in degrees');
  expect(added.said).toContain('isles.csv: 2 addresses in 1 street, 1 row left out.');
  await signIn(page, 'maud');
  await page.goto('/desk/venues/new');
  await page.getByLabel('Find a place').fill('7 lantren row');
  await page.getByRole('option', { name: /7 Lantern Row.*from an address file/ }).click();
  await expect(page.getByLabel('Street and number')).toHaveValue('7 Lantern Row');
  await expect(page.getByLabel('Postcode')).toHaveValue('K1A 0B1');
  await expect(page.getByLabel('Latitude')).toHaveValue(/^43\.112/);
  await page.goto('/desk/set-up/map');
  await expect(page.getByText('isles.csv: 2 addresses in one street')).toContainText('one row was left out');
  await expectAccessible(page, 'settings with an address file');
  expect(almanac('remove', 'other.csv')).toEqual({ status: 1, said: expect.stringContaining('It has: isles.csv') });
  expect(almanac('remove', 'isles.csv').status).toBe(0);
  await page.reload();
  await expect(page.getByText('Send a file with every house')).toBeVisible();
});
