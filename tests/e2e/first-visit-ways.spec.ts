/** Other ways to begin with a site: on a phone without a script, below a path, by keyboard, from a file of answers. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import { serve } from '../support/served';
import { NEXT_YEAR, openPage, PASSWORD, run, test } from './new-site';
import { expectAccessible, expectNoSidewaysScroll } from './support';

test('without a script, on a phone: a town that nobody knows is pressed on the chart', async ({ browser, site }) => {
  const page = await openPage(browser, site.served, { javaScriptEnabled: false, viewport: { width: 360, height: 740 } });
  await page.goto(site.served.setUp ?? '');
  await expectNoSidewaysScroll(page);
  await page.getByLabel('Name of the site', { exact: true }).fill('Kittiwick Isles Almanac');
  await page.getByLabel('Town', { exact: true }).fill('Port Amble');
  await page.getByLabel('Your name', { exact: true }).fill('Maud Petrel');
  await page.getByLabel('Mail address', { exact: true }).fill('maud@almanac.example');
  // The earth, then closer: the isles lie east of America.
  const chart = page.getByRole('button', { name: /^Chart\. Press/ });
  await chart.click({ position: { x: 110, y: 45 } });
  await expect(page.getByLabel('Your name', { exact: true })).toHaveValue('Maud Petrel');
  await expect(page.getByRole('radio', { name: 'None of these: the point on the chart' })).toBeChecked();
  const first = await page.getByLabel('Latitude', { exact: true }).inputValue();
  await chart.click({ position: { x: 160, y: 60 } });
  expect(Number(await page.getByLabel('Latitude', { exact: true }).inputValue())).toBeGreaterThan(Number(first));
  await page.getByRole('button', { name: 'Farther away' }).click();
  await page.getByLabel('Latitude', { exact: true }).fill('43.18');
  await page.getByLabel('Longitude', { exact: true }).fill('-57.45');
  await page.getByRole('radio', { name: 'People who know a passphrase' }).check();
  await page.getByLabel('Passphrase', { exact: true }).fill('Three brown gulls');
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Make this almanac' }).click();
  await page.waitForURL('**/desk/first-steps');
  await expectNoSidewaysScroll(page);
  await page.goto('/map');
  await expect(page.locator('svg.base')).toBeVisible();

  // Who knows the passphrase may send, whatever its capitals; who does not is told at the field, with all that was typed.
  const reader = await openPage(browser, site.served, { javaScriptEnabled: false });
  await reader.goto('/add');
  await reader.getByLabel('Passphrase').fill('two gulls');
  await reader.getByLabel('What is it called?').fill('Rope Day');
  await reader.getByLabel('Day', { exact: true }).fill(NEXT_YEAR);
  await reader.getByLabel('Your name').fill('Edda Tern');
  await reader.getByLabel('Your mail address').fill('edda@isles.example');
  await reader.getByRole('button', { name: 'Send it' }).click();
  await expect(reader.getByText('That is not the passphrase.').first()).toBeVisible();
  await expect(reader.getByLabel('What is it called?')).toHaveValue('Rope Day');
  await reader.getByLabel('Passphrase').fill('three  BROWN gulls');
  await reader.getByRole('button', { name: 'Send it' }).click();
  await reader.waitForURL(/\/receipt\//);
});

test('below a path of its host it is live, too', async ({ browser, site }) => {
  await site.served.stop();
  site.served = await serve({ data: site.data, demo: false, env: { ALMANAC_PATH: '/events' } });
  expect(site.served.setUp).toContain('/events/first-visit?key=');
  const page = await openPage(browser, site.served);
  await page.goto(site.served.setUp ?? '');
  await page.getByLabel('Name of the site', { exact: true }).fill('Kittiwick Isles Almanac');
  await expect(page.locator('#seen-name')).toContainText('Kittiwick');
  await page.getByLabel('Latitude', { exact: true }).fill('43.18');
  await page.getByLabel('Longitude', { exact: true }).fill('-57.45');
  await expect(page.getByRole('radio', { name: 'None of these: the point on the chart' })).toBeChecked();
  await page.getByLabel('Your name', { exact: true }).fill('Maud Petrel');
  await page.getByLabel('Mail address', { exact: true }).fill('maud@almanac.example');
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Make this almanac' }).click();
  await page.waitForURL('**/events/desk/first-steps');
  await expect(page.getByRole('link', { name: 'Add a venue' })).toBeVisible();
});

test('by keyboard alone, in the dark; axe has nothing to say', async ({ browser, site }) => {
  const page = await openPage(browser, site.served, { colorScheme: 'dark', viewport: { width: 360, height: 740 } });
  await page.goto(site.served.setUp ?? '');
  const tabTo = async (id: string): Promise<void> => {
    for (let presses = 0; presses < 40; presses++) {
      await page.keyboard.press('Tab');
      if ((await page.evaluate(() => document.activeElement?.id || document.activeElement?.textContent?.trim())) === id) return;
    }
    throw new Error(`${id} is not reached by Tab`);
  };
  await tabTo('name');
  await page.keyboard.type('Kittiwick Isles Almanac');
  await tabTo('town');
  await page.keyboard.type('halifax');
  await expect(page.getByRole('radio', { name: 'Halifax, Nova Scotia, Canada' })).toBeChecked();
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('radio', { name: /^Halifax, England/ })).toBeChecked();
  await expect(page.locator('#seen-town')).toContainText('£12');
  // What was put in place anew keeps the focus.
  await expect(page.getByRole('radio', { name: /^Halifax, England/ })).toBeFocused();
  await expectAccessible(page, 'the first visit');
  await expectNoSidewaysScroll(page);
  await tabTo('whoName');
  await page.keyboard.type('Maud Petrel');
  await tabTo('mail');
  await page.keyboard.type('maud@almanac.example');
  await tabTo('password');
  await page.keyboard.type(PASSWORD);
  await tabTo('Make this almanac');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/desk/first-steps');
  await expectAccessible(page, 'what comes first');
  await page.getByRole('button', { name: 'Put this list away' }).click();
  await expect(page.getByText('The list is put away.')).toBeVisible();
  await page.goto('/desk');
  await page.waitForURL('**/desk/today');
  await page.goto('/desk/first-steps');
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('link', { name: 'Add a venue' })).toBeVisible();
});

test('a file of answers sets a site up without a browser, and what is wrong with it is said', async ({ site }) => {
  const answers = {
    name: 'Kittiwick Isles Almanac',
    position: { lat: 43.18, lng: -57.45 },
    who: { name: 'Maud Petrel', mail: 'maud@almanac.example', password: PASSWORD },
    senders: 'passphrase',
    passphrase: 'three brown gulls',
  };
  const file = path.join(site.data, 'answers.json');
  const setUp = (what: unknown) => {
    writeFileSync(file, typeof what === 'string' ? what : JSON.stringify(what));
    return run(site, ['setup', '--json', file]);
  };
  expect(setUp('{')).toMatchObject({ status: 2, stderr: expect.stringContaining('not JSON') });
  expect(setUp({ ...answers, town: 'Xqzwv', position: undefined })).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('No town called “Xqzwv”'),
  });
  expect(setUp({ ...answers, passphrase: '' })).toMatchObject({ status: 2, stderr: expect.stringContaining('Choose a passphrase') });
  expect(run(site, ['setup', '--json', `${file}.none`]).status).toBe(2);
  expect(run(site, ['setup', file]).status).toBe(2);
  const done = setUp(answers);
  expect(done).toMatchObject({ status: 0, stdout: expect.stringContaining('“Kittiwick Isles Almanac” is set up') });
  expect(done.stdout).not.toContain(PASSWORD);
  expect(setUp(answers)).toMatchObject({ status: 1, stderr: expect.stringContaining('set up already') });
  // What is empty says so, and what fills it.
  for (const at of ['/month', '/map', '/year', '/list']) {
    const page = await (await fetch(site.served.url + at)).text();
    expect(page, at).toMatch(/No events here yet\.|No dates from here on\./);
    expect(page.match(/href="\/add"/g)?.length, at).toBe(2);
  }
});
