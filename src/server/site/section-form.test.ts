import { beforeEach, describe, expect, it } from 'vitest';
import { EDITOR, freshDb, NOW, SETTINGS } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { readSettings } from './read';
import { checkStamp, formValues, lastChange, putBack, readSection, saveSection, stampOf } from './section-form';
import { type FormSection, FORM_SECTIONS } from './sections';
import type { SiteSettings } from './settings';

let db: Db;
beforeEach(async () => {
  db = await freshDb();
});

const at = new Date(NOW.ms);
const storedNow = async (): Promise<SiteSettings> => (await readSettings(db)).settings;

/** Types into a section's form and saves it. */
async function type(section: FormSection, typed: Readonly<Record<string, string>>, undone = false): Promise<string[]> {
  const stored = await storedNow();
  const next = readSection(section, { ...formValues(stored), ...typed }, stored);
  return db.transaction((tx) => saveSection(tx, stored, next, { section, by: EDITOR, at, undone }));
}

describe('a section of the settings', () => {
  it('comes back from its own form as it is', () => {
    const rich: SiteSettings = {
      ...SETTINGS,
      views: ['year', 'month'],
      filters: ['cost', 'days'],
      venueShows: ['phone'],
      organizerShows: [],
      firstView: 'year',
    };
    for (const section of FORM_SECTIONS) expect(readSection(section, formValues(rich), rich), section).toEqual(rich);
  });

  it('changes its own settings alone, and leaves what its form did not have', () => {
    const stored: SiteSettings = { ...SETTINGS, beforeFirstFrench: 'Apportez une lampe.' };
    const { beforeFirstFrench: _, afterLastFrench: __, ...sent } = formValues(stored);
    const next = readSection('readers', { ...sent, listLength: '12', currency: 'EUR' }, stored);
    expect(next).toEqual({ ...stored, listLength: 12 });
  });

  it.each([
    ['time', { zone: 'Mars/Olympus' }, 'zone'],
    ['time', { currency: 'dollars' }, 'currency'],
    ['map', { lat: '91' }, 'lat'],
    ['readers', { 'view-month': 'x' }, 'view-month'],
    ['readers', { firstView: 'map', 'view-map': '' }, 'view-map'],
    ['sending', { senders: 'passphrase', passphrase: '' }, 'passphrase'],
  ] as const)('says what is wrong in %s with %o', async (section, typed, field) => {
    const wrong = await problem((async () => readSection(section, { ...formValues(SETTINGS), ...typed }, SETTINGS))());
    expect(wrong.fields.map((one) => one.field)).toEqual([field]);
  });

  it('keeps what it was before and puts it back, and that back again', async () => {
    const before = await storedNow();
    expect(await type('time', { currency: 'EUR', hours: '12' })).toEqual(['hours', 'currency']);
    expect(await type('mail', { mailFrom: 'desk@almanac.example' })).toEqual(['mailFrom']);
    const last = await lastChange(db, 'time', await storedNow());
    expect(last).toMatchObject({
      before: { currency: before.currency, hours: before.hours },
      after: { currency: 'EUR', hours: '12' },
      by: EDITOR.name,
    });
    const undo = async (): Promise<string[]> => {
      const stored = await storedNow();
      const back = await putBack(db, 'time', stored);
      return db.transaction((tx) => saveSection(tx, stored, back.next, { section: 'time', by: EDITOR, at, undone: back.undone }));
    };
    await undo();
    // Another section's change stays.
    expect(await storedNow()).toEqual({ ...before, mailFrom: 'desk@almanac.example' });
    await undo();
    expect((await lastChange(db, 'time', await storedNow()))?.undone).toBe(false);
    expect(await storedNow()).toMatchObject({ currency: 'EUR', hours: '12', mailFrom: 'desk@almanac.example' });
  });

  it('leaves another section’s change alone that was saved meanwhile, and says so of its own', async () => {
    const stale = await storedNow();
    await type('site', { name: 'The Outer Almanac' });
    const next = readSection('time', { ...formValues(stale), currency: 'EUR' }, stale);
    await db.transaction((tx) => saveSection(tx, stale, next, { section: 'time', by: EDITOR, at }));
    expect(await storedNow()).toMatchObject({ name: 'The Outer Almanac', currency: 'EUR' });
    const now = await storedNow();
    expect((await problem((async () => checkStamp('site', { was: stampOf('site', stale) }, now))())).kind).toBe('conflict');
    for (const section of ['map', 'readers', 'mail'] as const)
      expect(() => checkStamp(section, { was: stampOf(section, stale) }, now)).not.toThrow();
    expect(() => checkStamp('site', {}, now)).not.toThrow();
  });

  it('puts nothing back that was changed since, and writes nothing where nothing differs', async () => {
    await type('site', { name: 'The Outer Almanac' });
    expect(await type('site', { name: 'The Outer Almanac' })).toEqual([]);
    const other = { ...(await storedNow()), name: 'Changed elsewhere' };
    expect(await lastChange(db, 'site', other)).toBeUndefined();
    expect((await problem(putBack(db, 'site', other))).kind).toBe('conflict');
    expect((await problem(putBack(db, 'mail', await storedNow()))).kind).toBe('conflict');
  });
});
