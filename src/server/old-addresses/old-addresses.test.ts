import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { OldAddresses } from './old-addresses';
import { takeOldAddresses } from './take';

let db: Db;
const NOW = new Date('2027-03-17T12:00:00Z');
const PAGES = new Set(['/list', '/month', '/what/harbour-choir']);
const asked: string[] = [];
const site = () => ({
  db,
  siteUrl: () => 'https://almanac.example',
  host: () => 'almanac.example',
  ask: async (address: string) => {
    asked.push(address);
    return { status: PAGES.has(address) ? 200 : 404, type: 'text/html', body: Buffer.from('') };
  },
});
async function take(text: string, more: { dryRun?: boolean; replace?: boolean } = {}) {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-old-'));
  try {
    writeFileSync(path.join(folder, 'old.csv'), text);
    return await takeOldAddresses(site(), { path: path.join(folder, 'old.csv'), ...more });
  } finally {
    rmSync(folder, { recursive: true });
  }
}
const at = (address: string): URL => new URL(address, 'https://almanac.example');

beforeEach(async () => {
  db = await freshDb();
});

describe('old addresses', () => {
  it('lead on once they are taken, with their query or without, and are counted', async () => {
    const old = new OldAddresses(db, () => NOW);
    expect(await old.leadOn(at('/events.php?id=7'))).toBeUndefined();
    const report = await take(
      'old,new\n/events.php?id=7&lang=en,/what/harbour-choir\n/events.php,/list\n/calendar/,https://almanac.example/month#today',
    );
    expect(report).toMatchObject({ fresh: 3, changed: 0, same: 0, wrong: [], lost: [], answered: [], unasked: 0, removed: 0 });
    expect(await old.leadOn(at('/events.php?lang=en&id=7'))).toBe('/what/harbour-choir');
    expect(await old.leadOn(at('/events.php?id=8'))).toBe('/list');
    expect(await old.leadOn(at('/calendar'))).toBe('/month#today');
    expect(await old.leadOn(at('/calendar/'))).toBe('/month#today');
    expect(await old.leadOn(at('/nothing'))).toBeUndefined();
    expect(await old.all()).toEqual([
      { from: '/calendar', to: '/month#today', hits: 2, lastAt: NOW },
      { from: '/events.php', to: '/list', hits: 1, lastAt: NOW },
      { from: '/events.php?id=7&lang=en', to: '/what/harbour-choir', hits: 1, lastAt: NOW },
    ]);
    await Promise.all(Array.from({ length: 40 }, () => old.leadOn(at('/calendar'))));
    expect((await old.all())[0]?.hits).toBe(42);
  });

  it('say what is wrong with a line, what the site has itself, and what leads nowhere', async () => {
    const report = await take('/list,/month\n/a,/what/gone#x\n/b,https://elsewhere.example/\n/c');
    expect(report).toMatchObject({
      fresh: 2,
      answered: [{ line: 1, from: '/list' }],
      lost: [{ line: 2, to: '/what/gone#x' }],
      wrong: [
        { line: 3, reason: 'the new address is another site’s' },
        { line: 4, reason: 'an old and a new address belong on a line' },
      ],
    });
    await expect(takeOldAddresses(site(), { path: '/nowhere/at/all.csv' })).rejects.toThrow('cannot be read');
  });

  it('are changed by another table, forgotten only where that is asked for, and untouched by a dry run', async () => {
    const old = new OldAddresses(db, () => NOW);
    await take('/a,/list\n/b,/list');
    await old.leadOn(at('/a'));
    expect(await take('/a,/month\n/b,/list\n/c,/list', { dryRun: true })).toMatchObject({ fresh: 1, changed: 1, same: 1 });
    expect((await old.all()).map(({ from, to }) => `${from} ${to}`)).toEqual(['/a /list', '/b /list']);
    expect(await take('/a,/month', { replace: true, dryRun: true })).toMatchObject({ changed: 1, removed: 1 });
    expect(await old.all()).toHaveLength(2);
    expect(await take('/a,/month', { replace: true })).toMatchObject({ changed: 1, removed: 1 });
    // What was counted stays.
    expect(await old.all()).toEqual([{ from: '/a', to: '/month', hits: 1, lastAt: NOW }]);
    // A table of nothing forgets nothing.
    expect(await take('old,new\n', { replace: true })).toMatchObject({ removed: 0 });
    expect(await old.all()).toHaveLength(1);
  });

  it('are looked at up to a number, and the rest is said', async () => {
    asked.length = 0;
    const text = Array.from({ length: 2500 }, (_, i) => `/old/${i},/list`).join('\n');
    expect(await take(text)).toMatchObject({ fresh: 2500, unasked: 501 });
    expect(asked).toHaveLength(2000);
  });
});
