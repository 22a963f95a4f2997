import { describe, expect, it } from 'vitest';
import { allSettings, FORM_SECTIONS, findSettings, namesOf } from './sections';
import { DEFAULT_SETTINGS } from './settings';

/** What has a page of its own. */
const DAYS = [
  'dayPictures',
  'openHours',
  'closedOnRedDays',
  'holidays',
  'holidayCountry',
  'holidayRegion',
  'holidayChoice',
  'yearMarks',
  'secondCalendar',
];
const FRENCH = { secondLanguage: 'fr' } as const;

describe('sections of the settings', () => {
  it('have every setting, each once', () => {
    const all = [...FORM_SECTIONS.flatMap(namesOf), ...DAYS, 'format'].sort();
    expect(all).toEqual(Object.keys(DEFAULT_SETTINGS).sort());
  });

  it('are found by what people call a setting, with a slip too, the likeliest first', () => {
    const first = (words: string): string | undefined => findSettings(words, FRENCH).shown[0]?.id;
    expect(
      ['currency', 'curency', 'clock', 'time zone', 'smtp', 'week begins', 'passphrase', 'LATITUDE', 'second language', 'domain'].map(
        first,
      ),
    ).toEqual(['currency', 'currency', 'zone', 'zone', 'mailFrom', 'firstWeekday', 'passphrase', 'lat', 'secondLanguage', 'address']);
    expect(findSettings('zeppelin', FRENCH).total).toBe(0);
  });

  it('have French words only where there is French', () => {
    const french = (secondLanguage: 'fr' | ''): string[] =>
      allSettings({ secondLanguage }).flatMap(({ id }) => (id.endsWith('French') ? id : []));
    expect([french(''), french('fr')]).toEqual([[], ['beforeFirstFrench', 'afterLastFrench']]);
  });
});
