import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, NOW, seedPlaces } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { oldSlug } from '../db/schema';
import { changeSlug, createListing, publishListing } from '../listings/write';
import type { Answer, Ask } from './ask';
import { LIST } from './folder';
import { formerAddresses } from './former';
import { PlainFiles, publishFiles, type PublishSource, readPublishInput } from './publish';

const html = (body: string, status = 200): Answer => ({ status, type: 'text/html', body: Buffer.from(body) });

describe('the public site as plain files', () => {
  let db: Db;
  let home: string;
  let folder: string;
  let pages: Map<string, Answer>;
  let state: string;
  let source: PublishSource;
  let asked: string[];

  beforeEach(async () => {
    db = await freshDb();
    home = await mkdtemp(path.join(tmpdir(), 'plain-files-'));
    folder = path.join(home, 'www');
    state = '1';
    asked = [];
    pages = new Map([
      ['/', html('<a href="/month/2027-03">M</a><a href="/add">Add</a><a href="/list/2039-01-01">Far</a>')],
      ['/month/2027-03', html('<a href="/">Home</a><a href="/what/choir">C</a><img src="/picture/1/2/a.jpg">')],
      ['/what/choir', html('<link rel="canonical" href="https://almanac.example/what/choir">')],
      ['/picture/1/2/a.jpg', { status: 200, type: 'image/jpeg', body: Buffer.from([1, 2, 3]) }],
      ['/sitemap.xml', { status: 200, type: 'application/xml', body: Buffer.from('<urlset></urlset>') }],
      ['/robots.txt', { status: 200, type: 'text/plain', body: Buffer.from('User-agent: *') }],
      ['/chart.json', { status: 200, type: 'application/json', body: Buffer.from('null') }],
      ['/404', html('<h1>None</h1><a href="/">Home</a>', 404)],
    ]);
    const ask: Ask = async (address) => {
      asked.push(address);
      return pages.get(address) ?? (pages.get('/404') as Answer);
    };
    source = {
      db,
      ask,
      now: () => ({ day: NOW.day, ms: NOW.ms }),
      settings: () => ({ firstWeekday: 1, secondLanguage: '', views: ['month', 'list'] }),
      siteUrl: () => 'https://almanac.example',
      state: () => state,
      dataFolder: path.join(home, 'data'),
    };
  });
  afterEach(async () => {
    await rm(home, { recursive: true, force: true });
  });

  const publish = (more: object = {}) => publishFiles(source, readPublishInput({ folder, ...more }));
  const text = (file: string): Promise<string> => readFile(path.join(folder, file), 'utf8');
  const all = async (): Promise<string[]> =>
    (await readdir(folder, { recursive: true, withFileTypes: true }))
      .filter((one) => one.isFile())
      .map((one) => path.relative(folder, path.join(one.parentPath, one.name)))
      .sort();
  const FILES = [
    '.plain-almanac-files.json',
    '404.html',
    'chart.json',
    'index.html',
    'month/2027-03/index.html',
    'picture/1/2/a.jpg',
    'robots.txt',
    'sitemap.xml',
    'what/choir/index.html',
  ];

  it('writes everything that can be reached, once, and says what is left out', async () => {
    expect(await publish()).toEqual({
      files: 8,
      made: 8,
      changed: 0,
      removed: 0,
      server: 1,
      beyond: 1,
      months: 12,
      url: null,
      answers: null,
      dead: [],
    });
    expect(await all()).toEqual(FILES);
    expect(new Set(asked).size).toBe(asked.length);
    expect(await text('index.html')).toBe('<a href="./month/2027-03/index.html">M</a><a>Add</a><a>Far</a>');
    expect(await text('what/choir/index.html'), 'nobody knows the whole address').toBe('');
    expect(await text('404.html')).toContain('href="./index.html"');
  });

  it('leads to an address and a server where they are named, and does so again when nobody says otherwise', async () => {
    const named = { url: 'https://parish.example/events/', server: 'https://almanac.example' };
    expect(await publish(named)).toMatchObject({ url: 'https://parish.example/events', answers: 'https://almanac.example' });
    const first = await text('index.html');
    expect(first).toBe(
      '<a href="/events/month/2027-03/">M</a><a href="https://almanac.example/add">Add</a><a href="https://almanac.example/list/2039-01-01">Far</a>',
    );
    expect(await publish()).toMatchObject({ files: 8, made: 0, changed: 0, removed: 0, url: 'https://parish.example/events' });
    expect(await text('index.html')).toBe(first);
    expect(await publish({ url: '', months: 3 })).toMatchObject({ url: null, answers: 'https://almanac.example', months: 3 });
    expect(await text('index.html')).toContain('"./month/2027-03/index.html"');
  });

  it('writes what changed alone, takes away what is no more, and leaves files of others', async () => {
    await publish();
    await writeFile(path.join(folder, 'CNAME'), 'parish.example');
    const old = new Date(1_000_000);
    for (const file of FILES.slice(1)) await utimes(path.join(folder, file), old, old);
    pages.set('/month/2027-03', html('<a href="/">Home</a><b>New</b>'));
    expect(await publish()).toMatchObject({ files: 6, made: 0, changed: 1, removed: 2 });
    expect(await all()).toEqual([...FILES.slice(0, 5), 'CNAME', 'robots.txt', 'sitemap.xml'].sort());
    expect(existsSync(path.join(folder, 'what')), 'empty folders go too').toBe(false);
    const untouched = await Promise.all(['index.html', 'robots.txt'].map(async (file) => (await stat(path.join(folder, file))).mtimeMs));
    expect(untouched).toEqual([1_000_000, 1_000_000]);
    // Somebody emptied a file by hand: it is put right.
    await writeFile(path.join(folder, 'robots.txt'), '');
    expect(await publish()).toMatchObject({ changed: 1 });
    expect(await text('robots.txt')).toBe('User-agent: *');
  });

  it('writes over nothing that it did not write', async () => {
    await mkdir(folder);
    await writeFile(path.join(folder, 'index.html'), 'My parish');
    await expect(publish()).rejects.toThrow(/index\.html is there already and was not written by this site/);
    expect(await all()).toEqual(['index.html']);
    expect(await text('index.html')).toBe('My parish');
  });

  it('leaves the copy as it was where a page cannot be read', async () => {
    await publish();
    const before = await Promise.all(FILES.map(text));
    pages.set('/', html('<a href="/month/2027-03">New</a>'));
    pages.set('/month/2027-03', html('Busy', 503));
    await expect(publish()).rejects.toThrow('These pages could not be read: /month/2027-03 (503)');
    expect(await Promise.all(FILES.map(text))).toEqual(before);
    expect(await all()).toEqual(FILES);
    source.ask = async () => Promise.reject(new Error('no socket'));
    await expect(publish()).rejects.toThrow('no socket');
    expect(await all()).toEqual(FILES);
  });

  it('reads again what changed while it was read, so that no page links to what was withdrawn meanwhile', async () => {
    const ask = source.ask;
    pages.set('/', html('<a href="/what/gone">Gone</a>'));
    source.ask = async (address, copy) => {
      if (address === '/what/gone') {
        state = '2';
        pages.set('/', html('<a href="/what/choir">C</a>'));
      }
      return ask(address, copy);
    };
    await publish();
    expect(await text('index.html')).toContain('./what/choir/index.html');
    expect(await all()).not.toContain('what/gone/index.html');
  });

  it('has the page of what is missing where somebody’s text links to nothing, and names that link', async () => {
    pages.set(
      '/',
      html('<a href="/what/gone">Gone</a><a href="/what/..%2f..%2fup">Up</a><a href="/what/%ff">Odd</a><img src="/picture/9/9/gone.jpg">'),
    );
    const report = await publish();
    expect(report).toMatchObject({ dead: ['/picture/9/9/gone.jpg', '/what/gone'], server: 2 });
    expect(await text('what/gone/index.html')).toBe('<h1>None</h1><a href="../../index.html">Home</a>');
    expect(await all()).not.toContain('picture/9/9/gone.jpg');
    expect(await readdir(home)).toEqual(['www']);
    expect((await publish()).changed).toBe(0);
  });

  it('goes on after it was cut off while files were put in place', async () => {
    await publish();
    pages.set('/month/2027-03', html('<a href="/what/bell">B</a>'));
    pages.set('/what/bell', html('Bell'));
    await publish();
    // As a kill leaves it: the list knows old and new, one file is still the old one, another is half there.
    const list = JSON.parse(await text(LIST));
    await writeFile(path.join(folder, LIST), JSON.stringify({ ...list, whole: false, files: { ...list.files, 'old/index.html': 'x' } }));
    await writeFile(path.join(folder, 'what/bell/index.html'), 'Be');
    await mkdir(path.join(folder, '.plain-almanac-new'));
    await mkdir(path.join(folder, 'old'));
    await writeFile(path.join(folder, 'old/index.html'), 'Old');
    expect(await publish()).toMatchObject({ changed: 1, removed: 1 });
    expect(await text('what/bell/index.html')).toBe('Bell');
    expect(await all()).not.toContain('old/index.html');
    expect(existsSync(path.join(folder, '.plain-almanac-new'))).toBe(false);
    expect(JSON.parse(await text(LIST))).toMatchObject({ format: 1, whole: true });
  });

  it.each([
    [{ folder: '' }, 'folder', 'Say which folder'],
    [{ url: 'parish.example' }, 'url', 'An address looks like'],
    [{ server: 'javascript:alert(1)' }, 'server', 'An address looks like'],
    [{ url: 'https://parish.example/?a=1' }, 'url', 'An address looks like'],
    [{ months: 61 }, 'months', '0 to 60'],
    [{ months: 'soon' }, 'months', '0 to 60'],
  ])('refuses %o at its field', (wrong, field, message) => {
    expect(() => readPublishInput({ folder, ...wrong })).toThrow(
      expect.objectContaining({ fields: [expect.objectContaining({ field, message: expect.stringContaining(message) })] }),
    );
  });

  it('goes neither into the data folder nor around it, nor where a file is', async () => {
    for (const bad of ['data', 'data/www', '.'])
      await expect(publish({ folder: path.join(home, bad) })).rejects.toThrow(/may not lie in the data folder/);
    await writeFile(path.join(home, 'file'), '');
    await expect(publish({ folder: path.join(home, 'file') })).rejects.toThrow('is no folder that can be written');
    await mkdir(folder);
    await writeFile(path.join(folder, LIST), '{"format":2');
    await expect(publish()).rejects.toThrow('nothing is known of the copy beside it');
  });

  it('leads on from addresses that things had', async () => {
    const places = await seedPlaces(db);
    const row = await inTx(db, (tx) => createListing(tx, choir(places), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    const draft = await inTx(db, (tx) => createListing(tx, choir(places, { title: 'A draft' }), change()));
    await inTx(db, (tx) => changeSlug(tx, row.id, 'new-name', change()));
    await inTx(db, (tx) => changeSlug(tx, draft.id, 'secret-name', change()));
    const [was] = await db.select().from(oldSlug).where(eq(oldSlug.listingId, row.id));
    expect(await formerAddresses(db)).toEqual([`/what/${was?.slug}`]);
    pages.set(`/what/${was?.slug}`, { status: 301, type: '', location: '/what/choir', body: Buffer.from('') });
    await publish({ url: 'https://parish.example' });
    const lead = await text(`what/${was?.slug}/index.html`);
    expect(lead).toContain('<meta http-equiv="refresh" content="0; url=/what/choir/">');
  });

  it('is written once at a time, and remembers how that went', async () => {
    const files = new PlainFiles(source, folder);
    const input = readPublishInput({ folder });
    const one = files.write(input);
    await expect(files.write(input)).rejects.toThrow('being written already');
    expect(files.writing).toBeDefined();
    await one;
    expect(files.writing).toBeUndefined();
    expect(files.last).toMatchObject({ folder, report: { files: 8 } });
    expect(await files.list()).toMatchObject({ whole: true, asked: { months: 12 } });
    source.ask = async () => Promise.reject(new Error('no socket'));
    await expect(files.write(input)).rejects.toThrow();
    expect(files.last).toMatchObject({ failure: expect.any(Error) });
  });
});
