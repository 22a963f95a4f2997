/** A site carried elsewhere: its old addresses, the whole of it in an archive, a backup, another database. */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { Postgres, postgresFolder } from '../support/postgres';
import { CLI, run } from './almanac';
import { test } from './site';

// Journeys of one file share a site and build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

test('addresses of a former site lead on by a table, are counted, and go along with the site', async ({ site }) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const env = { ALMANAC_DATA: site.data, ALMANAC_FROM: folder };
  writeFileSync(
    path.join(folder, 'old.csv'),
    'old,new\n/events.php?id=7,/what/harbour-choir\n/b,https://elsewhere.example/x\n/list,/month\n',
  );
  const asked = (address: string) => fetch(site.url + address, { redirect: 'manual' });
  expect((await asked('/events.php?id=7')).status).toBe(404);
  const taken = run(['addresses', 'old.csv'], env);
  // What was left out is said, and the exit code tells it too.
  expect([taken.status, taken.stdout]).toEqual([
    3,
    expect.stringContaining('left out line 3, “/b, https://elsewhere.example/x”: the new address is another site’s.'),
  ]);
  expect(taken.stdout).toContain('the site has a page of its own at /list');
  expect(taken.stdout).toContain('2 new, 0 changed, 0 as they were, 1 left out.');
  const led = await asked('/events.php?id=7');
  expect([led.status, led.headers.get('location')]).toEqual([301, '/what/harbour-choir']);
  expect((await asked('/list')).status).toBe(200);
  expect((await asked('/b')).status).toBe(404);
  expect((await fetch(`${site.url}/events.php?id=7`, { method: 'POST' })).status).toBe(405);
  writeFileSync(path.join(folder, 'one.csv'), '/events.php?id=7,/what/harbour-choir\n');
  expect(run(['addresses', 'one.csv', '--replace'], env).stdout).toContain('0 new, 0 changed, 1 as they were, 1 removed, 0 left out.');
  expect(run(['addresses'], env).stdout).toMatch(
    / 1 {2}\/events\.php\?id=7 → \/what\/harbour-choir {2}last on [\d-]+\n1 old address, followed 1 time\.\n$/,
  );
  expect(run(['addresses', 'none.csv'], env)).toMatchObject({ status: 2, stderr: expect.stringContaining('cannot be read') });
  expect(run(['addresses', '--replace'], env).status).toBe(2);
  rmSync(folder, { recursive: true, force: true });
});

test('the operator carries the whole site to an empty folder; given out again it is the same', ({ site }) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const [from, to] = [
    { ALMANAC_DATA: site.data, ALMANAC_FROM: folder },
    { ALMANAC_DATA: path.join(folder, 'data'), ALMANAC_FROM: folder, ALMANAC_NOW: '' },
  ];
  const untimed = (text: string): string => text.replace(/"madeAt": "[^"]*"/, '');
  expect(run(['export', '--site', 'isles.zip'], from).stdout).toMatch(/isles\.zip: [\d.]+ MB/);
  const back = run(['import', '--site', 'isles.zip'], to);
  expect(back.stdout, back.stderr).toMatch(
    /\d+ listings, \d+ venues, \d+ organizers, \d+ categories, \d+ tags, \d+ pictures\. The settings/,
  );
  expect(back.status, back.stdout).toBe(0);
  expect(untimed(run(['export', '--json'], to).stdout)).toBe(untimed(run(['export', '--json'], from).stdout));
  expect(run(['rebuild'], to).stdout).toContain(' 0 differed');
  expect(run(['addresses'], to).stdout).toContain('1 old address, followed');
  const twice = run(['import', '--site', 'isles.zip'], to);
  expect([twice.status, twice.stderr]).toEqual([1, expect.stringContaining('An archive fills an empty site')]);
  const plain = run(['import', 'isles.zip'], to);
  expect([plain.status, plain.stderr]).toEqual([2, expect.stringContaining('almanac import --site')]);
  const mixed = run(['export', '--site', '--csv'], from);
  expect([mixed.status, mixed.stderr]).toEqual([2, expect.stringContaining('does not take --csv')]);
});

/** Serves a folder for a while. */
async function serving<T>(env: Record<string, string>, run: (address: string) => Promise<T>): Promise<T> {
  const server = spawn('node', [CLI, 'serve'], { env: { ...process.env, ALMANAC_NOW: '', ...env, PORT: '0' } });
  let out = '';
  const address = await new Promise<string>((resolve, reject) => {
    for (const stream of [server.stdout, server.stderr])
      stream.on('data', (part) => {
        out += part;
        const found = /Serving (http:\S+)/.exec(out);
        if (found?.[1]) resolve(found[1]);
      });
    server.on('exit', () => reject(new Error(out)));
  });
  const ended = new Promise((resolve) => server.on('exit', resolve));
  try {
    return await run(address);
  } finally {
    server.kill('SIGINT');
    await ended;
  }
}

test('a backup made while the site is served is the same site in another folder: pages, accounts, sessions', async ({ site }) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const from = { ALMANAC_DATA: site.data, ALMANAC_FROM: folder };
  const to = { ALMANAC_DATA: path.join(folder, 'data'), ALMANAC_FROM: folder, ALMANAC_NOW: '' };
  const made = run(['backup', 'isles.zip'], from);
  expect(made.stdout, made.stderr).toMatch(/isles\.zip: [\d.]+ MB, [\d,]+ rows, accounts and mails too/);
  for (const name of ['isles.zip', 'isles.zip.secret']) expect(statSync(path.join(folder, name)).mode & 0o777).toBe(0o600);
  expect(run(['restore', 'isles.zip'], { ...from }).stderr).toContain('Stop it first');
  const back = run(['restore', 'isles.zip'], to);
  expect(back.stdout, back.stderr).toMatch(/\d+ listings, \d+ pictures, \d+ accounts\.\nThe secret is the one that lay beside/);
  expect(readFileSync(path.join(to.ALMANAC_DATA, 'secret'), 'utf8')).toBe(readFileSync(path.join(site.data, 'secret'), 'utf8'));
  expect(run(['restore', 'isles.zip'], to).stderr).toContain('A backup fills an empty site');
  // Both under the same clock: pages say what is today, and dates go as far as from there.
  const clock = { ALMANAC_DEMO: '1', ALMANAC_NOW: '2027-03-17T09:00' };
  const checked = run(['check', '--mend'], { ...to, ...clock });
  expect([checked.status, checked.stdout]).toEqual([0, expect.stringContaining('all is as it should be')]);
  await serving({ ...to, ...clock }, async (address) => {
    // An event's page has its address in a mail and, as a code, on paper too.
    const plain = (text: string, own: string): string =>
      text
        .replaceAll(own, '')
        .replaceAll(encodeURIComponent(own), '')
        .replaceAll(/<path stroke="#000000" d="[^"]*"/g, '');
    for (const page of ['/month/2027-03', '/list/2027-03-17', '/what/low-tide-walk', '/at/net-loft', '/feed.ics', '/map/2027-03-17']) {
      const [one, other] = await Promise.all([site.url, address].map(async (own) => plain(await (await fetch(own + page)).text(), own)));
      expect(other?.replaceAll(/DTSTAMP:\S+/g, ''), page).toBe(one?.replaceAll(/DTSTAMP:\S+/g, ''));
    }
    const body = new URLSearchParams({ email: 'maud@almanac.example', password: 'kittiwick-isles-1' });
    const signedIn = await fetch(`${address}/desk/sign-in`, { method: 'POST', body, redirect: 'manual' });
    expect(signedIn.status).toBe(303);
    const cookie = signedIn.headers
      .getSetCookie()
      .map((one) => one.split(';')[0])
      .join('; ');
    const health = await (await fetch(`${address}/desk/health`, { headers: { cookie } })).text();
    expect(health).toContain('This site makes no backups by itself');
  });
  for (const args of [['backup'], ['restore'], ['move', 'nowhere'], ['check', '--demo']])
    expect(run(args, to).status, args.join(' ')).toBe(2);
  rmSync(folder, { recursive: true, force: true });
});

test('the operator moves a site to a database server and back', async () => {
  const bin = postgresFolder();
  test.skip(!bin, 'Debian’s postgresql is not installed');
  const server = await Postgres.start(bin as string);
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const here = { ALMANAC_DATA: path.join(folder, 'data'), ALMANAC_FROM: folder };
  const there = { ...here, DATABASE_URL: server.url };
  try {
    const add = (env: Record<string, string>) =>
      run(['user', 'add', '--name', 'Maud Petrel', '--mail', 'maud@almanac.example'], env, 'a long enough password');
    expect(add(here).status).toBe(0);
    const moved = run(['move', server.url], here);
    expect([moved.status, moved.stdout], moved.stderr).toEqual([0, expect.stringContaining('0 listings, 0 pictures, 1 account.')]);
    expect(add(there).stderr).toContain('account with this mail address already');
    const checked = run(['check'], there);
    expect([checked.status, checked.stdout]).toEqual([0, expect.stringContaining('all is as it should be')]);
    // Nothing is written over, neither there nor on the way back.
    expect(run(['move', server.url], here).stderr).toContain('this one has 1 account');
    expect(run(['move', 'data'], there).stderr).toContain('this one has 1 account');
    expect(run(['move', 'back'], there).status).toBe(0);
    expect(add({ ALMANAC_DATA: path.join(folder, 'back') }).stderr).toContain('account with this mail address already');
    expect(readFileSync(path.join(folder, 'back', 'secret'), 'utf8')).toBe(readFileSync(path.join(folder, 'data', 'secret'), 'utf8'));
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
