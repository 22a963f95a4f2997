import { describe, expect, it } from 'vitest';
import { read } from '../problem';
import { settingsInput } from './write';

describe('settings', () => {
  const good = {
    name: 'Kittiwick Isles Almanac',
    zone: 'America/Halifax',
    lat: '43.1',
    lng: '-57.4',
    firstWeekday: '0',
    firstView: 'month',
    hours: '24',
    date: 'day-month',
    currency: 'cad',
    horizonMonths: '36',
    listLength: '40',
    shortLength: '8',
  };
  it('come in as text and are bounded', () => {
    expect(read(settingsInput, good)).toMatchObject({ lat: 43.1, currency: 'CAD', horizonMonths: 36, country: '' });
    expect(read(settingsInput, { ...good, country: 'IS' }).country).toBe('IS');
    expect(() => read(settingsInput, { ...good, country: 'XX' })).toThrow('countries');
    const map = 'https://map.example/?at={lat},{lng}';
    expect(read(settingsInput, { ...good, mapAddress: map }).mapAddress).toBe(map);
    for (const mapAddress of ['javascript:alert({lat},{lng})', 'https://map.example/?at={lat}', 'map.example/{lat}/{lng}'])
      expect(() => read(settingsInput, { ...good, mapAddress }), mapAddress).toThrow('{lat} and {lng}');
    for (const [name, value] of Object.entries({
      zone: 'Isles/Nowhere',
      lat: '91',
      firstWeekday: '7',
      firstView: 'spiral',
      horizonMonths: '0',
      listLength: '4.5',
      currency: 'DOLLAR',
      address: 'javascript:x',
      name: '',
    })) {
      expect(() => read(settingsInput, { ...good, [name]: value }), name).toThrow();
    }
  });
});
