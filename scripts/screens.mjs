// Makes docs/screenshots/ anew from a fresh demo, its clock frozen.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';

const PORT = '4398';
const data = mkdtempSync(path.join(tmpdir(), 'almanac-screens-'));
const server = spawn('node', ['dist/cli/main.mjs', 'serve', '--demo'], {
  env: { ...process.env, PORT, ALMANAC_DATA: data, ALMANAC_NOW: '2027-03-17T09:00' },
});
await new Promise((resolve, reject) => {
  server.stdout.on('data', (text) => String(text).includes('Serving') && resolve());
  server.stderr.on('data', (text) => process.stderr.write(text));
  server.on('exit', () => reject(new Error('the demo did not start; is it built?')));
});
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const base = `http://127.0.0.1:${PORT}`;

async function shot(name, address, { width = 1280, height = 800, dark = false, storage, before, wait = 300 } = {}) {
  const context = await browser.newContext({ viewport: { width, height }, colorScheme: dark ? 'dark' : 'light', storageState: storage });
  const page = await context.newPage();
  await page.goto(base + address);
  await before?.(page);
  await page.waitForTimeout(wait);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
  console.log(`docs/screenshots/${name}.png`);
}

const context = await browser.newContext();
const signIn = await context.newPage();
await signIn.goto(`${base}/desk/sign-in`);
await signIn.fill('[name=email]', 'maud@almanac.example');
await signIn.fill('[name=password]', 'kittiwick-isles-1');
await signIn.click('main button[type=submit]');
await signIn.waitForURL('**/desk/today');
const storage = await context.storageState();
await context.close();

await shot('month', '/month/2027-03');
await shot('month-dark', '/month/2027-03', { dark: true });
await shot('week', '/week/2027-W11');
await shot('places', '/places/2027-03-20');
await shot('year', '/year/2027');
await shot('list', '/list?on=weekend&free=1&near=Port+Amble');
await shot('map', '/map/2027-03-17', { before: (page) => page.waitForSelector('button.place', { timeout: 60_000 }), wait: 1500 });
await shot('event', '/what/low-tide-walk');
await shot('add', '/add');
await shot('phone-month', '/month/2027-03?day=2027-03-20', { width: 360, height: 800 });
await shot('today', '/desk/today', { storage });
await shot('intake', '/desk/intake', { storage });
await shot('editor', '/desk/listings?words=low-tide', {
  storage,
  wait: 800,
  before: async (page) => {
    await page.click('[data-rows] tbody a');
    await page.waitForSelector('.tiptap');
    await page.evaluate(() => document.getElementById('when')?.scrollIntoView());
  },
});
await shot('desk-month', '/desk/month/2027-03', {
  storage,
  wait: 900,
  before: async (page) => {
    const day = (text) => page.locator(`[data-day="${Math.floor(Date.parse(`${text}T00:00Z`) / 86_400_000)}"]`);
    const choir = day('2027-03-23').locator('[data-key]').filter({ hasText: 'Harbour' });
    await choir.waitFor();
    await choir.dragTo(day('2027-03-26'));
    await page.getByText('moved to Friday').waitFor();
  },
});
await shot('bring-in', '/desk/bring-in', {
  storage,
  before: async (page) => {
    await page.setInputFiles('#file', 'demo/harbour-board.ics');
    await page.click('text=Look at it');
    await page.waitForSelector('.preview');
  },
});
await shot('venue', '/desk/venues', {
  storage,
  wait: 900,
  before: async (page) => {
    await page.getByRole('link', { name: "St Bride's Hall" }).first().click();
    await page.waitForSelector('.pin');
    // The field finds once the page is alive.
    await page.waitForSelector('astro-island:not([ssr])');
    await page.waitForTimeout(800);
    await page.getByRole('combobox', { name: 'Find a place' }).fill('chapl brae 3');
    await page.getByRole('listbox', { name: 'Places found' }).waitFor();
  },
});
await shot('settings', '/desk/set-up/time', {
  storage,
  before: async (page) => {
    await page.waitForSelector('input[role="combobox"]');
    await page.getByLabel('Times', { exact: true }).selectOption('12');
    await page.getByRole('combobox', { name: 'Currency' }).fill('poun');
    await page.getByRole('option').first().waitFor();
    await page.waitForTimeout(700);
  },
});
await shot('proof', '/desk/proof?kind=lookalike', {
  storage,
  before: async (page) => {
    // Proof looks at everything after a pause.
    for (let i = 0; i < 60 && (await page.getByText('not looked at yet').count()); i++) {
      await page.waitForTimeout(500);
      await page.reload();
    }
    await page.goto(`${base}/desk/proof?kind=venue-closed`);
  },
});
await firstVisit();
await browser.close();
server.kill('SIGTERM');
await new Promise((resolve) => server.on('exit', resolve));
rmSync(data, { recursive: true, force: true });

/** A site that nobody has begun with has its own server and an empty folder. */
async function firstVisit() {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-first-'));
  const empty = spawn('node', ['dist/cli/main.mjs', 'serve'], {
    env: { ...process.env, PORT: '4399', ALMANAC_DATA: folder, ALMANAC_NOW: '' },
  });
  const address = await new Promise((resolve) => {
    let said = '';
    empty.stdout.on('data', (text) => {
      said += text;
      const found = /http:\S+first-visit\S+/.exec(said);
      if (found) resolve(found[0]);
    });
  });
  const context = await browser.newContext({ viewport: { width: 1280, height: 1100 } });
  const page = await context.newPage();
  await page.goto(address);
  // Faces that come too late are left out; now they are here.
  await page.reload();
  await page.fill('#name', 'Kittiwick Isles Almanac');
  await page.fill('#town', 'haifax');
  await page.locator('#towns input').first().waitFor({ timeout: 60_000 });
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: 'docs/screenshots/first-visit.png' });
  console.log('docs/screenshots/first-visit.png');
  await context.close();
  empty.kill('SIGTERM');
  await new Promise((resolve) => empty.on('exit', resolve));
  rmSync(folder, { recursive: true, force: true });
}
