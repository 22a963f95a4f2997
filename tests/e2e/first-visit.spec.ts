/** From an empty folder to a published listing on the map of a town: in any part of the world, by whoever has the key, after kills. */
import { execFileSync } from 'node:child_process';
import { expect, type Page } from '@playwright/test';
import { NEXT_YEAR, openPage, PASSWORD, run, test } from './new-site';
import { expectAccessible } from './support';

const CLI = 'dist/cli/main.mjs';

/** What is typed, chosen or pressed, counted. */
function counting(page: Page) {
  const did: string[] = [];
  const note = (what: string): void => void did.push(what);
  return {
    did,
    fill: async (label: string, text: string) => {
      note(label);
      await page.getByLabel(label, { exact: true }).fill(text);
    },
    press: async (name: string) => {
      note(name);
      await page.getByRole('button', { name, exact: true }).click();
    },
    follow: async (name: string) => {
      note(name);
      await page.getByRole('link', { name, exact: true }).first().click();
    },
    choose: async (name: string | RegExp) => {
      note(String(name));
      await page.getByRole('radio', { name }).check();
    },
    other: async (what: string, act: () => Promise<unknown>) => {
      note(what);
      await act();
    },
  };
}

/** Towns on three continents: what is typed, which is meant, and how a date, a time and a week read there. */
const TOWNS = [
  {
    typed: 'haifax',
    town: 'Halifax, Nova Scotia, Canada',
    zone: 'America/Halifax',
    currency: 'CAD',
    week: 'Su',
    time: '10:30 am',
    holidays: { holidayCountry: 'CA', holidayRegion: 'NS' },
  },
  {
    typed: 'bergen norway',
    town: /^Bergen, .*Norway/,
    zone: 'Europe/Oslo',
    currency: 'NOK',
    week: 'Mo',
    time: '10:30',
    holidays: { holidayCountry: 'NO', holidayRegion: '' },
  },
  {
    typed: 'Aswan',
    town: /^Aswan, .*Egypt|^Aswan, Egypt/,
    zone: 'Africa/Cairo',
    currency: 'EGP',
    week: 'Sa',
    time: '10:30 am',
    holidays: { holidayCountry: 'EG', holidayRegion: '' },
  },
];

for (const { typed, town, zone, currency, week, time, holidays } of TOWNS)
  test(`from an empty folder to a published listing on the map of a town, in ${zone}`, async ({ browser, site }) => {
    const page = await openPage(browser, site.served);
    const started = Date.now();
    const { did, fill, press, follow, choose, other } = counting(page);
    await other('the address that the console printed', () => page.goto(site.served.setUp ?? ''));
    expect(page.url()).toBe(`${site.served.url}/first-visit`);
    await fill('Name of the site', 'Kittiwick Isles Almanac');
    await expect(page.locator('#seen-name')).toContainText('Kittiwick Isles Almanac');
    await fill('Town', typed);
    await expect(page.getByRole('radio', { name: town }).first()).toBeChecked();
    await expect(page.locator('#seen-town thead th').first()).toHaveText(week);
    await fill('Your name', 'Maud Petrel');
    await fill('Mail address', 'maud@almanac.example');
    await fill('Password', PASSWORD);
    await choose('A club or a society');
    await expect(page.locator('#seen-kinds')).toContainText('Outings');
    await press('Make this almanac');
    await page.waitForURL('**/desk/first-steps');
    await expect(page.getByRole('heading', { name: 'What comes first' })).toBeVisible();

    await follow('Add a venue');
    await fill('Name', 'Net Loft');
    const chart = page.locator('svg.base');
    // On a busy machine the chart is seen before it answers: somebody who sees no pin presses again.
    await other('the chart', () =>
      expect(async () => {
        await chart.click({ position: { x: 200, y: 120 } });
        await expect(page.getByLabel('Latitude')).not.toHaveValue('', { timeout: 2000 });
      }).toPass(),
    );
    await press('Save');
    await expect(page.getByText(/saved/i).first()).toBeVisible();
    const line = page.getByLabel('A listing in one line');
    await other('one line', () => line.fill('Rope Day tomorrow 10:30 at Net Loft, free'));
    await other('Enter', () => line.press('Enter'));
    await page.waitForURL('**/desk/entry**');
    await press('Make 1 draft');
    await press('Publish');
    await expect(page.locator('[data-note]')).toContainText('Published');
    expect(did.length, did.join(', ')).toBeLessThanOrEqual(25);
    expect(Date.now() - started).toBeLessThan(180_000);

    await page.goto('/list');
    await expect(page.getByRole('link', { name: 'Rope Day' }).first()).toBeVisible();
    await expect(page.locator('main')).toContainText(time);
    await page.goto('/map');
    await expect(page.locator('[data-part="places"]')).toContainText('Net Loft');
    await expect(page.locator('svg.base .shore, svg.base .cut').first()).toBeAttached();
    await expect(page.locator('[data-part="credits"]')).toContainText('GeoNames');
    // The world in tiles: what is drawn, what is not, and what keeps for ever.
    const tiles = await page.locator('astro-island[component-url*="ChartMap"]').getAttribute('props');
    const version = /\/base\/([0-9a-f]{16})\//.exec(tiles ?? '')?.[1];
    const tile = (at: string, headers = {}) => page.request.get(`/base/${at}`, { headers });
    const whole = await tile(`${version}/0/0/0`);
    expect([whole.status(), whole.headers()['content-type']]).toEqual([200, 'application/x-protobuf']);
    expect(whole.headers()['cache-control']).toContain('immutable');
    expect((await tile(`${version}/0/0/0`, { 'accept-encoding': 'identity' })).headers()['content-encoding']).toBeUndefined();
    expect((await tile(`${version}/0/0/0`, { 'if-none-match': whole.headers().etag ?? '' })).status()).toBe(304);
    expect((await tile(`${version}/8/10/160`)).status()).toBe(204);
    for (const none of [
      '0123456789abcdef/0/0/0',
      `${version}/9/0/0`,
      `${version}/1/2/0`,
      `${version}/1/-1/0`,
      `${version}/1/x/0`,
      `${version}/1/0/1e0`,
    ])
      expect((await tile(none)).status(), none).toBe(404);
    await page.goto('/desk/first-steps');
    for (const done of ['Add a venue', 'Write the first listing', 'Publish a date']) await expect(page.getByText(done)).toContainText('');
    await expect(page.getByRole('link', { name: 'Publish a date' })).toHaveCount(0);
    const settings = JSON.parse(
      execFileSync('node', [CLI, 'export', '--json'], { encoding: 'utf8', env: { ...process.env, ALMANAC_DATA: site.data } }),
    ) as {
      site: { settings: { zone: string; currency: string; holidayCountry: string; holidayRegion: string } };
    };
    expect(settings.site.settings).toMatchObject({ zone, currency, ...holidays });
  });

test('nothing is known of a site that nobody has begun with, and only the key of its console opens it, once', async ({ browser, site }) => {
  const { url, setUp } = site.served;
  for (const at of ['/', '/desk', '/desk/sign-in', '/list', '/feed.ics', '/api/open/v1', '/first-visit', '/add']) {
    const answer = await fetch(url + at, { redirect: 'manual' });
    expect(answer.status, at).toBe(503);
    expect(await answer.text(), at).toContain('This site has not been set up yet.');
  }
  expect((await fetch(`${url}/healthz`)).status).toBe(200);
  const posted = await fetch(`${url}/first-visit`, {
    method: 'POST',
    body: new URLSearchParams({ do: 'done', name: 'Mine', mail: 'ivo@almanac.example' }),
  });
  expect(posted.status).toBe(503);
  const wrong = await fetch(`${url}/first-visit?key=${'x'.repeat(32)}`);
  expect([wrong.status, await wrong.text()]).toEqual([403, expect.stringContaining('almanac setup')]);

  const maud = await openPage(browser, site.served);
  await maud.goto(setUp ?? '');
  await maud.getByLabel('Name of the site', { exact: true }).fill('Kittiwick Isles Almanac');
  await expect(maud.locator('#seen-name')).toContainText('Kittiwick');
  // The same address in the same browser goes on; in another it is used up.
  await maud.goto(setUp ?? '');
  await expect(maud.getByLabel('Name of the site', { exact: true })).toHaveValue('Kittiwick Isles Almanac');
  const ivo = await openPage(browser, site.served);
  expect((await ivo.goto(setUp ?? ''))?.status()).toBe(403);
  await expect(ivo.getByRole('alert')).toContainText('opened in another browser already');
  // Another address ends the first; what was answered is kept.
  const other = /http:\S+/.exec(run(site, ['setup']).stdout)?.[0] ?? '';
  await ivo.goto(other);
  await expect(ivo.getByLabel('Name of the site', { exact: true })).toHaveValue('Kittiwick Isles Almanac');
  await maud.reload();
  await expect(maud.getByRole('alert')).toContainText('Another address for setting up was opened');

  await ivo.getByLabel('Town', { exact: true }).fill('Xqzwv');
  await expect(ivo.locator('#towns')).toContainText('No town of that name is known here');
  await ivo.getByRole('radio', { name: 'People who know a passphrase' }).check();
  await ivo.getByRole('button', { name: 'Make this almanac' }).click();
  await expect(ivo.getByRole('alert')).toContainText('5 answers need another look');
  await expect(ivo.getByLabel('Town', { exact: true })).toHaveAttribute('aria-invalid', 'true');
  await expectAccessible(ivo, 'answers that are missing');
});

test('each answer is kept when the server is killed, and the next address goes on', async ({ browser, site }) => {
  const steps: [said: string, act: (page: Page) => Promise<unknown>, kept: (page: Page) => Promise<unknown>][] = [
    [
      'name',
      (p) => p.getByLabel('Name of the site', { exact: true }).fill('Kittiwick Isles Almanac'),
      (p) => expect(p.locator('#seen-name')).toContainText('Kittiwick'),
    ],
    [
      'town',
      (p) => p.getByLabel('Town', { exact: true }).fill('bergen, norway'),
      (p) => expect(p.getByRole('radio', { name: /Norway/ }).first()).toBeChecked(),
    ],
    [
      'who',
      (p) => p.getByLabel('Mail address', { exact: true }).fill('maud@almanac.example'),
      (p) => expect(p.getByLabel('Mail address', { exact: true })).toHaveValue('maud@almanac.example'),
    ],
    [
      'kinds',
      (p) => p.getByRole('radio', { name: 'A house with a programme' }).check(),
      (p) => expect(p.locator('#seen-kinds')).toContainText('Exhibitions'),
    ],
    [
      'senders',
      (p) => p.getByRole('radio', { name: 'Nobody' }).check(),
      (p) => expect(p.locator('#seen-senders')).toContainText('No link'),
    ],
  ];
  for (const [i, [said, act]] of steps.entries()) {
    const page = await openPage(browser, site.served);
    await page.goto(site.served.setUp ?? '');
    for (const [, , kept] of steps.slice(0, i)) await kept(page);
    const sent = page.waitForResponse((answer) => answer.request().method() === 'POST');
    await act(page);
    expect((await sent).status(), said).toBe(200);
    await page.context().close();
    await site.again();
  }
  const page = await openPage(browser, site.served);
  await page.goto(site.served.setUp ?? '');
  await page.getByLabel('Your name', { exact: true }).fill('Maud Petrel');
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Make this almanac' }).click();
  await page.waitForURL('**/desk/first-steps');
  // Set up, it stays so: no key opens it any more, and readers find no form.
  const after = await site.again();
  expect(after.setUp).toBeUndefined();
  expect(run(site, ['setup']).stderr).toContain('set up already');
  await page.context().close();
  const reader = await openPage(browser, after);
  await reader.goto('/add');
  await expect(reader.getByRole('heading', { name: 'Add an event' })).toBeVisible();
  await expect(reader.locator('form')).toHaveCount(0);
  await expect(reader.getByRole('link', { name: 'Add an event' })).toHaveCount(0);
  const sent = await reader.request.post('/add', {
    multipart: { title: 'Rope Day', day: NEXT_YEAR, name: 'Rue Dunlin', mail: 'rue@dunlin.example' },
  });
  expect(sent.status()).toBe(403);
});
