import { describe, expect, it, vi } from 'vitest';
import { parseIsoDateTime } from './plain-date-time';
import { firstZone, inZone, zoneCity, zoneLabel } from './zone-words';

const MS = Date.UTC(2027, 5, 24);

describe('zones as people name them', () => {
  it('are a city with its offset at the time', () => {
    expect(['Asia/Tokyo', 'America/Argentina/Buenos_Aires', 'UTC'].map(zoneCity)).toEqual(['Tokyo', 'Buenos Aires', 'UTC']);
    expect([zoneLabel('Asia/Tokyo', MS), zoneLabel('America/Halifax', MS), zoneLabel('UTC', MS)]).toEqual([
      'Tokyo, UTC+9',
      'Halifax, UTC−3',
      'UTC',
    ]);
  });
  it('is said of hundreds of zones at once, so it looks at one instant, not at years of transitions', () => {
    const asked = vi.spyOn(Intl.DateTimeFormat.prototype, 'formatToParts');
    const zones = Intl.supportedValuesOf('timeZone');
    for (const zone of zones) zoneLabel(zone, MS + 1);
    expect(asked.mock.calls.length).toBeLessThanOrEqual(zones.length);
    asked.mockRestore();
  });
  it('a place has its own time first, online the site’s', () => {
    const of = (attendance: string, hasPlace: boolean) => firstZone({ zone: 'Asia/Tokyo', attendance, hasPlace }, 'America/Halifax');
    expect([of('in-person', true), of('both', true), of('online', false), of('in-person', false), of('online', true)]).toEqual([
      'Asia/Tokyo',
      'Asia/Tokyo',
      'America/Halifax',
      'America/Halifax',
      'America/Halifax',
    ]);
  });
  it('the same moment is another wall time there, a whole day the same day', () => {
    const wall = parseIsoDateTime('2027-06-24T09:00');
    if (!wall) throw new Error('no wall');
    expect(inZone(wall, 'Asia/Tokyo', 'America/Halifax')).toEqual({ day: wall.day - 1, minute: 1260 });
    expect(inZone({ ...wall, minute: null }, 'Asia/Tokyo', 'America/Halifax')).toEqual({ day: wall.day, minute: null });
  });
});
