import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { Postgres, postgresFolder } from '../support/postgres';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const CLI = 'dist/cli/main.mjs';
const run = (args: string[], env: Record<string, string> = {}, input = '') =>
  spawnSync('node', [CLI, ...args], { encoding: 'utf8', input, env: { ...process.env, ALMANAC_NOW: '', ...env } });

test('the socket is the owner’s alone, and a folder in use or a taken port is said so', ({ site }) => {
  expect(statSync(path.join(site.data, 'almanac.sock')).mode & 0o777).toBe(0o600);
  const port = new URL(site.url).port;
  const taken = run(['serve'], { PORT: port, ALMANAC_DATA: mkdtempSync(path.join(tmpdir(), 'alm-')) });
  expect([taken.status, taken.stderr]).toEqual([1, expect.stringContaining(`Port ${port} is taken`)]);
  const inUse = run(['serve'], { PORT: '0', ALMANAC_DATA: site.data });
  expect([inUse.status, inUse.stderr]).toEqual([1, expect.stringContaining('is in use by another server')]);
});

test('an unwritable folder, a frozen clock outside a demo, an unknown command: one sentence each', () => {
  const unwritable = run(['serve'], { PORT: '0', ALMANAC_DATA: '/etc/hostname/almanac' });
  expect([unwritable.status, unwritable.stderr]).toEqual([1, expect.stringContaining('cannot be written')]);
  const frozen = run(['serve'], { PORT: '0', ALMANAC_NOW: '2027-03-17T09:00', ALMANAC_DATA: mkdtempSync(path.join(tmpdir(), 'alm-')) });
  expect([frozen.status, frozen.stderr.trim().split('\n').length]).toEqual([1, 1]);
  expect(run(['explode']).stderr).toContain('There is no command');
  expect(run(['serve', '--nonsense']).status).toBe(2);
  expect([run(['export', '--demo']).status, run(['import', 'x.ics', 'y.ics']).status, run(['export', 'nowhere/all.ics']).status]).toEqual([
    2, 2, 2,
  ]);
  expect(run(['--help']).stdout).toContain('almanac user add');
  expect(run(['version']).stdout).toMatch(/^\d+\.\d+\.\d+/);
});

test('the operator brings a file in and gives everything out; what a site gave out is known again', ({ site }) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const env = { ALMANAC_DATA: site.data, ALMANAC_FROM: folder };
  expect(run(['export', 'all.ics'], env).status).toBe(0);
  const dry = run(['import', 'all.ics', '--dry-run'], env);
  // Readers' copies went out: where changes wait to be published, these differ from what is being worked on.
  expect(dry.stdout.trim().split('\n').at(-1), dry.stdout).toMatch(
    /^0 would be new, \d changed, \d{2,3} as they are, 0 older, 0 not readable\.$/,
  );
  // Working copies come back as they are, whatever the file.
  for (const [flag, name] of [
    ['--json', 'all.json'],
    ['--csv', 'all.csv'],
  ] as const) {
    expect(run(['export', name, flag], env).status).toBe(0);
    const back = run(['import', name, '--dry-run'], env);
    // Drafts that another journey left ending before they begin, or with a rule that never gives a date, are said as they stand: their words
    // for when come back to be mended.
    const pattern =
      flag === '--json' ? /^0 would be new, 0 changed, \d{2,3} as they are/ : /^0 would be new, [0-2] changed, \d{2,3} as they are/;
    expect(back.stdout.trim().split('\n').at(-1), back.stdout).toMatch(pattern);
  }
  expect(run(['export', '--dates'], env).stdout.split('\n').length).toBeGreaterThan(1000);
  expect(run(['export', '--dates', '--csv'], env).stderr).toContain('Choose one');
  const all = JSON.parse(run(['export', '--json'], env).stdout) as { kind: string; listings: { content: { title: string } }[] };
  expect(all.kind).toBe('plain-almanac');
  expect(all.listings.length).toBeGreaterThan(60);
  expect(run(['import'], env).stderr).toContain('Say which file');
  expect(run(['import', 'none.ics'], env).stderr).toContain('cannot be read');
});

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

test('the operator makes the first coordinator of an empty site, with a password on standard input', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const env = { ALMANAC_DATA: folder };
  const add = (password: string, mail: string) => run(['user', 'add', '--name', 'Maud Petrel', '--mail', mail], env, password);
  expect(add('short', 'maud@almanac.example').stderr).toContain('at least 12 characters');
  expect(add('a long enough password\n', 'maud@almanac.example').stdout).toContain('can sign in as coordinator');
  expect(add('a long enough password', 'maud@almanac.example').stderr).toContain('account with this mail address already');
  const server = spawn('node', [CLI, 'serve'], { env: { ...process.env, ...env, ALMANAC_NOW: '', PORT: '0' } });
  let out = '';
  const address = await new Promise<string>((resolve, reject) => {
    server.stdout.on('data', (part) => {
      out += part;
      const found = /Serving (http:\S+)/.exec(out);
      if (found?.[1]) resolve(found[1]);
    });
    server.on('exit', () => reject(new Error(out)));
  });
  const page = await (await fetch(`${address}/desk/sign-in`)).text();
  expect(page).not.toContain('This is a demo');
  const wrong = await fetch(`${address}/desk/sign-in`, {
    method: 'POST',
    body: new URLSearchParams({ email: 'maud@almanac.example', password: 'kittiwick-isles-1' }),
    redirect: 'manual',
  });
  expect(wrong.status).toBe(401);
  // Nothing of a password is cut off: one character more is another password.
  const longer = await fetch(`${address}/desk/sign-in`, {
    method: 'POST',
    body: new URLSearchParams({ email: 'maud@almanac.example', password: 'a long enough passwordx' }),
    redirect: 'manual',
  });
  expect(longer.status).toBe(401);
  const right = await fetch(`${address}/desk/sign-in`, {
    method: 'POST',
    body: new URLSearchParams({ email: 'maud@almanac.example', password: 'a long enough password' }),
    redirect: 'manual',
  });
  expect(right.status).toBe(303);
  expect((await fetch(`${address}/`)).status).toBe(200);
  const ended = new Promise((resolve) => server.on('exit', resolve));
  server.kill('SIGINT');
  expect(await ended).toBe(0);
  rmSync(folder, { recursive: true, force: true });
});

test('chunked bodies and spoken sockets do no harm', async ({ baseURL }) => {
  const { hostname, port } = new URL(baseURL ?? '');
  const answerTo = (said: string): Promise<string> =>
    new Promise((resolve) => {
      const socket = net.connect(Number(port), hostname, () => socket.write(said));
      socket.once('data', (data) => {
        resolve(String(data));
        socket.destroy();
      });
    });
  expect(await answerTo('POST /add HTTP/1.1\r\nHost: x\r\nTransfer-Encoding: chunked\r\n\r\n5\r\nhello\r\n0\r\n\r\n')).toContain('411');
  // A picture of 2 GB is refused by what it says of itself, before any of it is taken.
  const huge = await answerTo(
    'POST /api/v1/pictures HTTP/1.1\r\nHost: x\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: 2147483648\r\n\r\n--x\r\n',
  );
  expect(huge).toContain(' 413 ');
  expect(huge).toContain('larger than 20 MB');
});

test('what ships to browsers holds no server code and stays within its size', () => {
  const folder = 'dist/client/_astro';
  const files = readdirSync(folder).filter((f) => f.endsWith('.js'));
  expect(files.length).toBeGreaterThan(5);
  const size = (name: string): number =>
    files.filter((f) => f.startsWith(name)).reduce((n, f) => Math.max(n, statSync(path.join(folder, f)).size), 0);
  for (const file of files) {
    const text = readFileSync(path.join(folder, file), 'utf8');
    for (const word of ['drizzle', 'pglite', 'node:fs', 'better-auth', 'sanitize-html', 'listing_link', 'kittiwick-isles-1'])
      expect(text.includes(word), `${file} holds ${word}`).toBe(false);
  }
  expect(size('ListingEditor')).toBeLessThan(400_000);
  expect(size('Writing')).toBeLessThan(480_000);
  expect(size('ChartMap')).toBeLessThan(1_200_000);
  expect(size('ViewFrame')).toBeLessThan(8_000);
});
