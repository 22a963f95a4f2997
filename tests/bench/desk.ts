/** Measurements of the Desk at 10,000 listings with 300,000 dates: the table, its search and views, and Proof of one listing. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { dayOf, isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { rule } from '@/core/recurrence/model';
import { SITE_ACTOR } from '@/server/accounts/roles';
import { openDatabase } from '@/server/db/client';
import { category, organizer, venue } from '@/server/db/schema';
import { BLANK_ORGANIZER, saveOrganizer } from '@/server/organizers/write';
import { BLANK_VENUE } from '@/server/venues/input';
import { saveVenue } from '@/server/venues/write';
import { buildMany, insertTables } from '@/server/listings/insert-many';
import { DEMO_SETTINGS } from '../../demo/seed';
import { signInCookie } from './sign-in';

const TODAY = dayOf(2027, 3, 17);
const LISTINGS = 10_000;
const PORT = 4396;
const BASE = `http://127.0.0.1:${PORT}`;
const FIRST = ['Harbour', 'Lantern', 'Shore', 'Kelp', 'Causeway', 'Skerry', 'Island', 'Quay', 'Spring', 'Winter', 'Salt', 'Gannet'];
const SECOND = ['Choir', 'Seed', 'Rope', 'Boat', 'Bird', 'Bread', 'Star', 'Lamp', 'Book', 'Skiff', 'Story', 'Fiddle', 'Chart', 'Film'];
const THIRD = ['Evening', 'Swap', 'Workshop', 'Walk', 'Fair', 'Supper', 'Concert', 'Talk', 'Class', 'Club', 'Market', 'Count', 'Gathering'];

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const at = <T>(list: readonly T[], i: number): T => list[i % list.length] as T;
const quantile = (list: number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))] ?? 0;

function content(i: number, ids: { categories: string[]; venues: string[]; organizers: string[] }): ListingContent {
  const hour = 8 + (i % 12);
  return {
    ...emptyContent(),
    title: `${at(FIRST, i)} ${at(SECOND, i * 7)} ${at(THIRD, i * 11)} ${i}`,
    summary: 'Rope, tea and a story from the outer islands.',
    text: '<p>Come as you are.</p>',
    categoryIds: [at(ids.categories, i)],
    venueIds: [at(ids.venues, i * 7)],
    organizerIds: [at(ids.organizers, i * 7)],
    cost: { kind: 'free' },
    recurrence: {
      format: 3,
      zone: 'America/Halifax',
      parts: [
        {
          start: `${isoDay(TODAY - 60 + (i % 700))}T${String(hour).padStart(2, '0')}:00`,
          length: { days: 0, minute: hour * 60 + 90 },
          rule: rule('weekly'),
          limit: { kind: 'count', count: 30 },
        },
      ],
      exdates: [],
      breaks: [],
    },
  };
}

async function serve(folder: string): Promise<ChildProcess> {
  const server = spawn('node', ['dist/cli/main.mjs', 'serve', '--demo'], {
    env: { ...process.env, PORT: String(PORT), ALMANAC_DATA: folder, ALMANAC_NOW: '2027-03-17T09:00' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on('data', (text) => String(text).includes('Serving') && resolve());
    server.on('exit', () => reject(new Error('the server did not start; is it built?')));
  });
  return server;
}

const stop = (server: ChildProcess): Promise<unknown> => {
  const ended = new Promise((resolve) => server.on('exit', resolve));
  server.kill('SIGTERM');
  return ended;
};

/** As many halls and clubs as a site of this size has: about thirty listings each. */
const PLACES = 300;

async function fill(folder: string): Promise<number> {
  const { db, close } = await openDatabase({ folder, root: process.cwd() });
  await db.transaction(async (tx) => {
    for (let i = 0; i < PLACES; i++) {
      const name = `${at(FIRST, i)} ${at(SECOND, i * 5)} ${i}`;
      await saveVenue(tx, null, { ...BLANK_VENUE, name: `${name} Hall`, town: 'Port Amble' }, SITE_ACTOR);
      await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: `${name} Club` }, SITE_ACTOR);
    }
  });
  const ids = {
    categories: (await db.select({ id: category.id }).from(category)).map((r) => r.id),
    venues: (await db.select({ id: venue.id }).from(venue)).map((r) => r.id),
    organizers: (await db.select({ id: organizer.id }).from(organizer)).map((r) => r.id),
  };
  const change = { by: SITE_ACTOR, now: { day: TODAY, minute: 540, ms: TODAY * 86_400_000 }, settings: DEMO_SETTINGS };
  let dates = 0;
  for (let from = 0; from < LISTINGS; from += 200) {
    await db.transaction(async (tx) => {
      const items = Array.from({ length: 200 }, (_, k) => ({ content: content(from + k, ids), publish: (from + k) % 5 > 0 }));
      const { rows } = await buildMany(tx, items, { jobId: null, change, fallback: ids.categories[0] as string });
      dates += rows.occurrence?.length ?? 0;
      await insertTables(tx, rows);
    });
  }
  // Proof has looked at all of them: its turns in the background would be measured too.
  await db.execute(
    sql`insert into validation_state (listing_id, revision, day) select id, revision, ${TODAY} from listing on conflict do nothing`,
  );
  await db.execute(
    sql`insert into validation_note (listing_id, key, kind, severity, field, sentence) select id, 'picture-missing', 'picture-missing', 'warning', 'picture', 'No picture' from listing where address like '%5' on conflict do nothing`,
  );
  await close();
  return dates;
}

export interface DeskFigures {
  dates: number;
  /** milliseconds at the 95th percentile */
  empty: number;
  pages: { name: string; p95: number; p50: number }[];
  validation: { p95: number; p50: number };
  emptyP50: number;
}

export async function measureDesk(): Promise<DeskFigures> {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-desk-'));
  try {
    await stop(await serve(folder));
    const dates = await fill(folder);
    const server = await serve(folder);
    try {
      return { dates, ...(await measure()) };
    } finally {
      await stop(server);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function measure(): Promise<Omit<DeskFigures, 'dates'>> {
  const cookie = await signInCookie(BASE);
  const get = async (address: string): Promise<number> => {
    const start = now();
    const response = await fetch(`${BASE}${address}`, { headers: { cookie } });
    await response.text();
    if (response.status !== 200) throw new Error(`${address} was answered with ${response.status}`);
    return now() - start;
  };
  // What runs once after a start is over by then.
  await new Promise((resolve) => setTimeout(resolve, 8000));
  const table = await (await fetch(`${BASE}/desk/listings?words=harbour`, { headers: { cookie } })).text();
  const id = /data-id="([0-9a-f-]{36})"/.exec(table)?.[1] ?? '';
  const venueId = /<option value="([0-9a-f-]{36})"[^>]*>Net Loft/.exec(table)?.[1] ?? '';
  const asked: [string, string][] = [
    ['the table', '/desk/listings'],
    ['by next date, page 40', '/desk/listings?sort=next&page=40'],
    ['searched with a slip', '/desk/listings?words=harbuor+chior'],
    [
      'a kept view: published, one venue, next month, four columns',
      `/desk/listings?stage=published&venue=${venueId}&next=30&sort=next&columns=next,venue,organizer,stage`,
    ],
    ['with open matters', '/desk/listings?having=problems&sort=title'],
  ];
  const times = new Map<string, number[]>([['empty', []], ['proof', []], ...asked.map(([name]): [string, number[]] => [name, []])]);
  const kept = await (await fetch(`${BASE}/api/v1/listings/${id}`, { headers: { cookie } })).json();
  const validation = async (): Promise<number> => {
    const start = now();
    const response = await fetch(`${BASE}/api/v1/proof`, {
      method: 'POST',
      body: JSON.stringify({ id, content: kept.content }),
      headers: { cookie, 'content-type': 'application/json', origin: BASE },
    });
    await response.text();
    if (response.status !== 200) throw new Error(`Proof was answered with ${response.status}`);
    return now() - start;
  };
  for (let round = -15; round < 60; round++) {
    const take = (name: string, ms: number): void => {
      if (round >= 0) times.get(name)?.push(ms);
    };
    take('empty', await get('/desk/empty'));
    for (const [name, address] of asked) take(name, await get(address));
    take('proof', await validation());
  }
  const of = (name: string): number[] => times.get(name) ?? [];
  return {
    empty: quantile(of('empty'), 0.95),
    emptyP50: quantile(of('empty'), 0.5),
    pages: asked.map(([name]) => ({ name, p95: quantile(of(name), 0.95), p50: quantile(of(name), 0.5) })),
    validation: { p95: quantile(of('proof'), 0.95), p50: quantile(of('proof'), 0.5) },
  };
}
