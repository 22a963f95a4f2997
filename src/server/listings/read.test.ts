import { expect, it } from 'vitest';
import { change, choir, freshDb, inTx, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { tableOf } from '../../../tests/support/site';
import { createListing } from './write';

it('the table by next date goes by the hour within a day, whole days first, listings without a date last', async () => {
  const db = await freshDb();
  const places = await seedPlaces(db);
  const at = (title: string, start: string | null) => {
    const recurrencePart = start && { start, length: null, rule: null, limit: { kind: 'open' as const } };
    const recurrence = recurrencePart
      ? { format: 3 as const, zone: SETTINGS.zone, parts: [recurrencePart], exdates: [], breaks: [] }
      : null;
    return inTx(db, (tx) => createListing(tx, choir(places, { title, recurrence }), change()));
  };
  await at('Evening', '2027-03-19T21:00');
  await at('Morning', '2027-03-19T07:00');
  await at('None', null);
  await at('Before', '2027-03-18T23:00');
  await at('All day', '2027-03-19');
  const titles = async (query: string): Promise<string> => (await tableOf(db, query)).rows.map((row) => row.title).join(', ');
  expect(await titles('sort=next')).toBe('Before, All day, Morning, Evening, None');
  expect(await titles('sort=next&down=1')).toBe('Evening, Morning, All day, Before, None');
});
