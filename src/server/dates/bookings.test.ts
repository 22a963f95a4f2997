import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import { isoDay } from '@/core/day/day';
import { isoDateTime } from '@/core/day/plain-date-time';
import { bookingOf, clashesOf, type Minutes, spansOf } from '@/core/dates/clashes';
import type { ListingContent } from '@/core/listing/content';
import type { Occurrence } from '@/core/recurrence/model';
import type { StoredRecurrence } from '@/core/recurrence/stored';
import type { Db } from '../db/client';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { readBookings } from './bookings';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));
const titles = async (not: string | null = null, venueIds = [places.venue]): Promise<string[]> => [
  ...new Set((await readBookings(db, { venueIds, not, from: NOW.day })).map(([title]) => title)),
];

describe('bookings of a venue', () => {
  it('are the dates of published listings and of those being prepared, but not of the one that asks', async () => {
    const draft = await make({ title: 'Draft' });
    const shown = await make({ title: 'Shown' });
    await inTx(db, (tx) => publishListing(tx, shown.id, shown.revision, change()));
    expect((await titles()).sort()).toEqual(['Draft', 'Shown']);
    expect(await titles(draft.id)).toEqual(['Shown']);
    expect(await readBookings(db, { venueIds: [places.venue], not: draft.id, from: NOW.day })).toHaveLength(10);
    expect(await readBookings(db, { venueIds: [], not: null, from: NOW.day })).toEqual([]);
  });

  it('leave out what takes no room: withdrawn, binned, online, cancelled as a whole or on a date', async () => {
    const gone = await make({ title: 'Gone' });
    await inTx(db, (tx) => moveToStage(tx, gone.id, 'withdrawn', change()));
    await make({ title: 'Online', attendance: 'online', onlineAddress: 'https://live.example' });
    await make({ title: 'Off', eventStatus: 'cancelled' });
    const part = { movedTo: null, length: null, note: '' } as const;
    await make({ title: 'Once off', changes: [{ ...part, original: '2027-03-30T19:00', eventStatus: 'cancelled' }] });
    const rows = await readBookings(db, { venueIds: [places.venue], not: null, from: NOW.day });
    expect([...new Set(rows.map(([title]) => title))]).toEqual(['Once off']);
    expect(rows).toHaveLength(9);
  });

  it('asked for some spans, lack none that meets one of them', async () => {
    const r = random(seedOf());
    const hour = (n: number): string => `${String(n).padStart(2, '0')}:00`;
    for (let i = 0; i < 25; i++) {
      const [start, nights] = [between(r, 0, 23), pick(r, [0, 0, 0, 1, 3])];
      const length =
        r() < 0.15 ? null : { days: nights, minute: nights ? between(r, 0, 23) * 60 : Math.min(1439, start * 60 + between(r, 15, 300)) };
      const first = isoDay(NOW.day + between(r, 0, 20));
      const whole = r() < 0.15;
      const recurrence = choir(places).recurrence as StoredRecurrence;
      const [recurrencePart] = recurrence.parts;
      if (!recurrencePart?.rule) throw new Error('the fixture has no rule');
      const own = {
        ...recurrencePart,
        start: whole ? first : `${first}T${hour(start)}`,
        length: whole ? null : length,
        limit: { kind: 'count', count: 6 } as const,
      };
      await make({
        title: `B${i}`,
        recurrence: {
          ...recurrence,
          parts: [{ ...own, rule: { ...recurrencePart.rule, freq: pick(r, ['daily', 'weekly'] as const), byDay: [] } }],
        },
      });
    }
    for (let i = 0; i < 40; i++) {
      const margin = pick(r, [0, 15, 120]);
      const asked = Array.from({ length: between(r, 1, 4) }, (_, k): Occurrence => {
        const day = NOW.day + between(r, 0, 40);
        const minute = r() < 0.15 ? null : between(r, 0, 1439);
        const start = { day, minute };
        const end =
          minute === null || r() < 0.2 ? null : { day: day + pick(r, [0, 0, 1, 2]), minute: Math.min(1439, minute + between(r, 1, 240)) };
        return {
          original: { day: day * 1000 + k, minute },
          start,
          end,
          eventStatus: 'going-ahead',
          note: '',
          moved: false,
        } as unknown as Occurrence;
      });
      const query = { venueIds: [places.venue], not: null, from: NOW.day };
      const met = async (spans?: readonly Minutes[]): Promise<string[]> => {
        const bookings = (await readBookings(db, { ...query, spans })).map(bookingOf);
        return [...clashesOf(asked, bookings, margin)]
          .flatMap(([key, list]) => list.map((b) => `${key} ${b.title} ${isoDateTime(b.start)}`))
          .sort();
      };
      const all = await met();
      expect(await met(spansOf(asked, margin))).toEqual(all);
      const fewer = (await readBookings(db, { ...query, spans: spansOf(asked, margin) })).length;
      expect(fewer).toBeLessThanOrEqual((await readBookings(db, query)).length);
    }
  });

  it('of a published listing follow what readers see until the changes are published', async () => {
    const other = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR));
    const row = await make({ title: 'Moving' });
    const published = await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, venueIds: [other.id] }, revision: published.revision }, change()),
    );
    expect([await titles(), await titles(null, [other.id])]).toEqual([['Moving'], []]);
    await inTx(db, (tx) => publishListing(tx, row.id, saved.revision, change()));
    expect([await titles(), await titles(null, [other.id])]).toEqual([[], ['Moving']]);
  });
});
