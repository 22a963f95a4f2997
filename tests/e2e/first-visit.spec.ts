/** From an empty folder to a published listing on the map of a town: in any part of the world, on a phone, without a script, by keyboard, after kills. */
import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, type BrowserContextOptions, test as base, expect, type Page } from '@playwright/test';
import { type Served, serve } from '../support/served';
import { expectAccessible, expectNoSidewaysScroll } from './support';

const CLI = 'dist/cli/main.mjs';
const PASSWORD = 'herring ladder plum';
/** A real site has the real clock. */
const NEXT_YEAR = `${new Date().getFullYear() + 1}-06-20`;

interface NewSite {
  data: string;
  served: Served;
  /** ends the process at once, and starts it again */
  again: () => Promise<Served>;
}

/** A site of its own that nobody has begun with; its folder goes when the journey is over. */
const test = base.extend<{ site: NewSite }, { begun: string }>({
  // An empty folder is begun with once, since that takes long; each journey has a copy of what came of it.
  begun: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads what a fixture needs from this pattern.
    async ({}, use) => {
      const data = mkdtempSync(path.join(tmpdir(), 'alm-begun-'));
      await (await serve({ data, demo: false })).stop();
      await use(data);
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  site: async ({ browser, begun }, use) => {
    const data = mkdtempSync(path.join(tmpdir(), 'alm-first-'));
    cpSync(begun, data, { recursive: true, filter: (file) => !file.endsWith('.sock') });
    const site: NewSite = {
      data,
      served: await serve({ data, demo: false }),
      again: async () => {
        await site.served.ended('SIGKILL');
        site.served = await serve({ data, demo: false });
        return site.served;
      },
    };
    await use(site);
    // Pages that stay open make the next journey's wait, up to its keys.
    for (const context of browser.contexts()) await context.close();
    await site.served.stop();
    rmSync(data, { recursive: true, force: true });
  },
});

/** A browser on the site, in which asking any other host fails the journey. */
async function openPage(browser: Browser, { url }: Served, options: BrowserContextOptions = {}): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: url, ...options });
  await context.route('**/*', (route) => {
    const asked = new URL(route.request().url());
    if (asked.protocol !== 'data:' && asked.protocol !== 'blob:') expect(asked.host, asked.href).toBe(new URL(url).host);
    return route.continue();
  });
  return context.newPage();
}

const run = (site: NewSite, args: string[], input = '') =>
  spawnSync('node', [CLI, ...args], { encoding: 'utf8', input, env: { ...process.env, ALMANAC_DATA: site.data } });

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
  await page.waitForURL('**/desk/listings');
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
