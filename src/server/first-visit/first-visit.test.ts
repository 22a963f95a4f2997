import { eq } from 'drizzle-orm';
import { yearMarks } from '../../../tests/support/year-marks';
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb, inTx } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { STARTING_KINDS, STARTING_SETS } from '@/core/category/starting-sets';
import { contrast, inksOf, SURFACES } from '@/core/colour/colour';
import { ICONS } from '@/core/colour/icons';
import { type Chart, type ChartFeature, type Point, projection, type StoredChart, writeBounds } from '@/core/geo/geo';
import { type Auth, createAuth } from '../accounts/auth';
import { createAccount } from '../accounts/write';
import type { Db } from '../db/client';
import { audit, category, setting, user } from '../db/schema';
import { createListing } from '../listings/write';
import { chartAfterMove, keepChart, writeBaseChart } from '../site/chart';
import { readSettings } from '../site/read';
import { TaskWorker } from '../worker/task-worker';
import { World, zoneAt } from '../world/world';
import { change, choir, seedPlaces } from '../../../tests/support/db';
import { hideFirstSteps, readFirstSteps, stepsLeft } from './first-steps';
import { setUpSite } from './finish';
import { lookAt, townKey } from './follows';
import { showForm, takeForm } from './form';
import { closerTo, EARTH, fartherFrom, pressed, viewOf } from './pin';
import { readSetup } from './setup-file';
import { type Answers, isSetUp, keepAnswers, NO_ANSWERS, readAnswers } from './state';

let db: Db;
let auth: Auth;
const world = new World('world', new TaskWorker(undefined));
const PASSWORD = 'kittiwick-isles-1';
beforeEach(async () => {
  db = await freshDb();
  auth = createAuth(db, { secret: 's'.repeat(40), siteUrl: () => 'http://127.0.0.1', siteName: () => 'Kittiwick Isles Almanac' });
});

/** A point in open ocean, where the isles lie. */
const ISLES = { place: 'pin', lat: '43.18', lng: '-57.45', country: 'CA' };
const ANSWERS: Answers = {
  ...NO_ANSWERS,
  ...ISLES,
  ...{ name: 'Kittiwick Isles Almanac', town: 'Port Amble', whoName: 'Maud Petrel', mail: 'Maud@almanac.example' },
};
const setUp = (part: Partial<Answers> = {}, password = PASSWORD) =>
  setUpSite({ db, auth, world, yearMarks: yearMarks() }, { ...ANSWERS, ...part }, password);
const value = async (key: string): Promise<unknown> => (await db.select().from(setting)).find((row) => row.key === key)?.value;

describe('a site that nobody has begun with', () => {
  it('is not set up until it has an account, settings or a listing', async () => {
    expect(await isSetUp(db)).toBe(false);
    await inTx(db, (tx) => keepAnswers(tx, ANSWERS));
    expect(await isSetUp(db)).toBe(false);
    await inTx(db, (tx) =>
      createAccount(
        tx,
        auth,
        { name: 'Maud Petrel', email: 'maud@almanac.example', role: 'coordinator', password: PASSWORD },
        { id: null, name: 'x', role: 'coordinator' },
      ),
    );
    expect(await isSetUp(db)).toBe(true);
    db = await freshDb();
    const places = await seedPlaces(db);
    expect(await isSetUp(db)).toBe(false);
    await inTx(db, (tx) => createListing(tx, choir(places), change()));
    expect(await isSetUp(db)).toBe(true);
  });

  it('becomes one of the answers: settings, chart, categories, an account, and what comes first', async () => {
    await inTx(db, (tx) => keepAnswers(tx, ANSWERS));
    await setUp({ kinds: 'house', senders: 'passphrase', passphrase: 'three brown gulls' });
    const { settings } = await readSettings(db);
    expect(settings).toMatchObject({
      ...{ name: 'Kittiwick Isles Almanac', lat: 43.18, lng: -57.45, country: 'CA', currency: 'CAD', firstWeekday: 6, hours: '12' },
      ...{ date: 'month-day', senders: 'passphrase', passphrase: 'three brown gulls', holidayCountry: 'CA', english: 'en-CA' },
    });
    expect(await db.select({ name: user.name, email: user.email, role: user.role }).from(user)).toEqual([
      { name: 'Maud Petrel', email: 'maud@almanac.example', role: 'coordinator' },
    ]);
    const rows = await db.select().from(category).orderBy(category.position);
    expect(rows.filter((row) => !row.parentId).map((row) => row.name)).toEqual([
      ...['Concerts', 'Plays', 'Films', 'Exhibitions', 'Words', 'Workshops', 'For children', 'About the house'],
    ]);
    // What fits nowhere else is no concert.
    expect(rows.filter((row) => row.fallback).map((row) => row.name)).toEqual(['About the house']);
    const chart = (await value('chart')) as Chart;
    expect(chart.bounds.south).toBeLessThan(43.18);
    expect(chart).toMatchObject({ format: 2 });
    expect(await value('first-visit')).toBeUndefined();
    expect(await value('first-steps')).toEqual({ format: 1, hidden: false });
    expect((await db.select().from(audit)).length).toBeGreaterThan(8);
    expect(JSON.stringify(await db.select().from(setting))).not.toContain(PASSWORD);
  });

  it('says everything that is missing at once, and writes nothing', async () => {
    const found = await problem(setUp({ name: '', place: '', town: 'Xqzwv', whoName: '', mail: 'maud', senders: 'passphrase' }, 'short'));
    expect(found.fields.map(({ field }) => field)).toEqual(['name', 'town', 'whoName', 'mail', 'password', 'passphrase']);
    expect(found.fields.find(({ field }) => field === 'town')?.message).toContain('No town called “Xqzwv”');
    expect(await isSetUp(db)).toBe(false);
    expect(await db.select().from(category)).toEqual([]);
  });

  it('is set up once: of two at the same time one is told', async () => {
    const done = await Promise.allSettled([setUp(), setUp({ mail: 'ivo@almanac.example', whoName: 'Ivo Skerrit' })]);
    expect(done.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const lost = done.find((one) => one.status === 'rejected');
    expect(String(lost?.reason)).toContain('Somebody else has set this site up');
    expect(await db.select().from(user)).toHaveLength(1);
  });

  it('keeps what was answered, never a password, and takes nothing that is none of it', async () => {
    await inTx(db, (tx) => keepAnswers(tx, { ...ANSWERS, hours: '12' }));
    expect(await readAnswers(db)).toEqual({ ...ANSWERS, hours: '12' });
    await db
      .update(setting)
      .set({ value: { format: 1, answers: { name: 'x'.repeat(500), kinds: 'nothing', place: 'Mars', zone: 'Mars' } } });
    expect(await readAnswers(db)).toEqual({ ...NO_ANSWERS, zone: 'Mars' });
  });
});

describe('what follows from the town', () => {
  it('follows until it was chosen otherwise', async () => {
    const { place, follows, settled } = await lookAt(world, ANSWERS);
    expect(place).toMatchObject({ lat: 43.18, lng: -57.45, label: 'Port Amble' });
    expect(follows).toMatchObject({ currency: 'CAD', firstWeekday: 6, hours: '12', date: 'month-day' });
    const own = await lookAt(world, { ...ANSWERS, firstWeekday: '0', hours: '24', date: 'iso', currency: 'EUR', zone: 'America/Halifax' });
    expect(own.settled).toMatchObject({ currency: 'EUR', firstWeekday: 0, hours: '24', date: 'iso', zone: 'America/Halifax' });
    expect(own.follows).toEqual(follows);
    expect(settled.country).toBe('CA');
    expect((await lookAt(world, { ...ANSWERS, currency: 'xx', zone: 'Mars/Hill' })).settled.currency).toBe('CAD');
  });
  it('every town of the world has a zone, a currency and habits', async () => {
    const table = JSON.parse(readFileSync('world/towns.json', 'utf8')) as { lat: number[]; lng: number[]; countries: string[] };
    const zones = new Set<string>();
    for (let i = 0; i < table.lat.length; i += 499)
      zones.add(zoneAt({ lat: (table.lat[i] as number) / 1e4, lng: (table.lng[i] as number) / 1e4 }));
    expect([...zones].filter((zone) => zone === 'UTC' || zone.startsWith('Etc/'))).toEqual([]);
    expect(zones.size).toBeGreaterThan(100);
    for (const country of table.countries)
      expect(world.currencyOf(country) ?? (country === 'AQ' ? 'none' : undefined), country).toBeDefined();
  });
  it('nothing is known before the first answer', async () => {
    const look = await lookAt(world, NO_ANSWERS);
    expect([look.place, look.towns]).toEqual([undefined, []]);
    expect(look.settled.zone).toBe('UTC');
  });
});

describe('the chart that is pressed', () => {
  it('comes closer with each press, and back to the whole earth', () => {
    let view = EARTH;
    const target = { lat: 43.18, lng: -57.45 };
    let point = target;
    for (let presses = 0; presses < 5; presses++) {
      const shown = viewOf(writeBounds(view), undefined);
      const [x, y] = projection(shown, 320, 200)(target);
      const hit = pressed({ 'pin.x': String(Math.round(x)), 'pin.y': String(Math.round(y)) }, shown);
      if (!hit) throw new Error('off the earth');
      point = hit;
      view = closerTo(hit, shown);
    }
    expect(Math.abs(point.lat - target.lat) + Math.abs(point.lng - target.lng)).toBeLessThan(0.25);
    for (let back = 0; back < 5; back++) view = fartherFrom(view);
    expect(view).toEqual(EARTH);
  });
  it.each<Record<string, string>>([
    {},
    { 'pin.x': '' },
    { 'pin.x': '-1', 'pin.y': '5' },
    { 'pin.x': '5', 'pin.y': '900' },
    { 'pin.x': 'a', 'pin.y': 'b' },
  ])('nothing is pressed by %j', (fields) => expect(pressed(fields, EARTH)).toBeUndefined());
  it.each(['', 'a,b,c,d', '1,2,3', '5,5,1,1', '999,0,1000,1', '-180,-58,180,80,1'])('what is no view (%s) is the place’s', (text) =>
    expect(viewOf(text, undefined)).toEqual(EARTH),
  );
});

describe('the form as it was posted', () => {
  const posted = (part: Record<string, string>) => takeForm(world, { ...ANSWERS, ...part });
  it('degrees typed over those of a town mean the point, without a script too; unchanged they mean the town', async () => {
    const town = (JSON.parse(readFileSync('world/towns.json', 'utf8')) as { names: string }).names.split('\n')[0] ?? '';
    const { look } = await showForm(world, { ...NO_ANSWERS, town });
    if (!look.place) throw new Error('no town');
    const chosen = {
      town,
      place: townKey(look.place),
      lat: String(look.place.lat),
      lng: String(look.place.lng),
      shown: townKey(look.place),
    };
    expect((await posted(chosen)).look.place).toEqual(look.place);
    const moved = await posted({ ...chosen, lat: '43,18', lng: '−57.45' });
    expect(moved.answers.place).toBe('pin');
    expect(moved.look.place).toMatchObject({ lat: 43.18, lng: -57.45 });
    // What is none of the earth is kept as it was typed, and is no place.
    const wrong = await posted({ ...chosen, lat: '943.18' });
    expect([wrong.answers.lat, wrong.look.place]).toEqual(['943.18', undefined]);
  });
  it('a press comes closer, “farther” goes back, and what is shown stays while the point is in it', async () => {
    const first = await posted({ view: writeBounds(EARTH), 'pin.x': '110', 'pin.y': '45' });
    expect(first.answers.place).toBe('pin');
    const view = writeBounds(first.bounds);
    const { lat, lng } = first.answers;
    expect((await posted({ view, lat, lng, shown: `${lat},${lng}` })).bounds).toEqual(viewOf(view, undefined));
    const back = await posted({ view, lat, lng, do: 'farther' });
    expect(back.bounds.north - back.bounds.south).toBeGreaterThan(first.bounds.north - first.bounds.south);
    const away = await posted({ view, lat: '-60', lng: '170', shown: `${lat},${lng}` });
    expect(away.bounds.north).toBeLessThan(-59);
  });
});

describe('the answers in a file', () => {
  const FILE = {
    name: 'Isles',
    position: { lat: 43.18, lng: -57.45 },
    who: { name: 'Maud Petrel', mail: 'maud@almanac.example', password: PASSWORD },
  };
  it('are the same as those of a form', async () => {
    const { answers, password } = await readSetup(world, { ...FILE, firstWeekday: 'Monday', kinds: 'club' });
    expect(password).toBe(PASSWORD);
    expect(answers).toEqual({
      ...NO_ANSWERS,
      ...ISLES,
      country: '',
      name: 'Isles',
      firstWeekday: '0',
      kinds: 'club',
      whoName: 'Maud Petrel',
      mail: 'maud@almanac.example',
    });
  });
  it('refuse what they do not know, and a town that could be several', async () => {
    expect((await problem(readSetup(world, { ...FILE, nam: 'x' }))).fields[0]?.field).toBe('');
    const { position: _, ...noPlace } = FILE;
    const table = JSON.parse(readFileSync('world/towns.json', 'utf8')) as { names: string };
    const names = table.names.split('\n');
    const seen = new Set<string>();
    const twice = names.find((name) => /^[A-Z][a-z]{6,}$/.test(name) && (seen.has(name) || !seen.add(name))) ?? '';
    const several = await problem(readSetup(world, { ...noPlace, town: twice }));
    expect(several.fields).toEqual([{ field: 'town', message: expect.stringContaining('could be several towns') }]);
    expect((await problem(readSetup(world, { ...noPlace, town: 'Xqzwv' }))).fields[0]?.message).toContain('No town called');
    const once =
      names.find(
        (name) => /^[A-Z][a-z]{8,}$/.test(name) && names.filter((other) => other.toLowerCase() === name.toLowerCase()).length === 1,
      ) ?? '';
    const { answers } = await readSetup(world, { ...noPlace, town: once });
    expect((await world.towns(once)).map(townKey)).toContain(answers.place);
  });
});

describe('starting sets', () => {
  it.each(STARTING_SETS)('%s: each kind has a mark of its own that can be read', (set) => {
    const kinds = STARTING_KINDS[set];
    expect(kinds.length).toBeGreaterThan(0);
    expect(new Set(kinds.map(({ shape, ink }) => `${shape} ${ink}`)).size).toBe(kinds.length);
    for (const { ink, icon } of kinds) {
      expect(contrast(inksOf(ink).light, SURFACES.light.sheet)).toBeGreaterThan(4.4);
      expect(icon === '' || Object.hasOwn(ICONS, icon), icon).toBe(true);
    }
  });
});

describe('what comes first', () => {
  const rt = (part: object = {}) =>
    ({
      db,
      sendsMail: false,
      storedSettings: () => ({ address: '' }),
      backups: { folder: '/b', list: async () => [] },
      ...part,
    }) as unknown as Parameters<typeof readFirstSteps>[0];
  it('ticks itself off, is put away and brought back; other sites have none', async () => {
    expect(await readFirstSteps(rt())).toBeUndefined();
    await setUp();
    const steps = await readFirstSteps(rt());
    expect(steps && stepsLeft(steps)).toBe(7);
    const places = await seedPlaces(db);
    await inTx(db, (tx) => createListing(tx, choir(places), change()));
    expect(await readFirstSteps(rt({ sendsMail: true, storedSettings: () => ({ address: 'https://almanac.example' }) }))).toEqual({
      ...{ venue: true, listing: true, published: false, mail: true, address: true, backup: false, invite: false },
    });
    await inTx(db, (tx) => hideFirstSteps(tx, true));
    expect(await readFirstSteps(rt())).toBeUndefined();
    await inTx(db, (tx) => hideFirstSteps(tx, false));
    expect(await readFirstSteps(rt())).toBeDefined();
  });
});

describe('the chart of the site', () => {
  const boundsNow = async (): Promise<number | undefined> => ((await value('chart')) as Chart | undefined)?.bounds.west;
  const move = async (from: Point, to: Point): Promise<void> => {
    const chart = await chartAfterMove({ db, world }, from, to);
    if (chart) await inTx(db, (tx) => writeBaseChart(tx, chart, world.version()));
  };
  const [here, there] = [
    { lat: 43.18, lng: -57.45 },
    { lat: 43.18, lng: -40 },
  ];
  it('follows its middle while it is cut from the world; a site without one gets one', async () => {
    await move(here, here);
    const first = await boundsNow();
    expect(first).toBeLessThan(-57.45);
    await move(here, here);
    expect(await boundsNow()).toBe(first);
    await move(here, there);
    expect(await boundsNow()).toBeCloseTo((first ?? 0) + 17.45, 6);
  });
  it('keeps a drawing of the site’s own, also one that was kept before drawings stood beside the coasts', async () => {
    const bounds = { west: 1, south: 1, east: 2, north: 2 };
    const shore = { type: 'LineString' as const, coordinates: [[1, 1] as [number, number], [2, 2] as [number, number]] };
    const features: ChartFeature[] = [{ type: 'Feature', properties: { kind: 'ferry' }, geometry: shore }];
    await db.insert(setting).values({ key: 'chart', value: { format: 1, bounds, features } });
    await move(here, there);
    expect(await value('chart')).toMatchObject({ format: 2, own: { bounds, features } });
    expect(await boundsNow()).toBeLessThan(-40);
  });
  it('is cut anew where the world is another, and only there; a drawing stays, and so does a middle that was moved meanwhile', async () => {
    const rt = (moves?: () => Promise<void>) => ({
      db,
      settings: () => here,
      world: {
        version: () => 'another',
        chartAround: async (middle: Point) => {
          await moves?.();
          return world.chartAround(middle);
        },
      },
    });
    // Without coasts there is nothing to cut.
    expect(await keepChart(rt())).toBe(false);
    await move(here, here);
    const own = { name: 'a', at: '', credit: '', bounds: { west: 1, south: 1, east: 2, north: 2 }, features: [] };
    const before = (await value('chart')) as StoredChart;
    await db
      .update(setting)
      .set({ value: { ...before, world: 'old', own } })
      .where(eq(setting.key, 'chart'));
    expect(await keepChart(rt(() => move(here, there)))).toBe(false);
    expect(await boundsNow()).toBeLessThan(-40);
    await move(there, here);
    expect([await keepChart(rt()), await keepChart(rt())]).toEqual([true, false]);
    expect(await value('chart')).toMatchObject({ world: 'another', own, bounds: before.bounds });
  });
});
