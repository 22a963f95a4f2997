/** What can be chosen for a setting, as values with what they are called. */
import { zoneCity, zoneOffset } from '@/core/day/zone-words';
import { COUNTRY_NAMES } from '@/core/geo/countries';
import { DATE_STYLES, HOUR_STYLES, sayDay, sayTime, WEEKDAYS } from '@/core/phrase/format';
import { ENGLISH_TAGS } from '@/core/phrase/language';
import { VIEW_NAMES } from '@/core/views/views';
import type { SettingName } from '@/server/site/sections';
import { RELATED_ORDERS, SENDERS } from '@/server/site/settings';
import { settingsWords } from '@/words/desk';
import { READERS_WORDS } from '@/words/readers';

const w = settingsWords.choices;
const en = { language: 'en' } as const;
/** Half past seven, in minutes: what samples of a time say. */
export const EVENING = 19 * 60 + 30;

/** One of a list. */
export interface SettingChoice {
  value: string;
  label: string;
  /** other words that find it */
  also?: string;
}

const choice = (value: string, label: string, also = ''): SettingChoice => ({ value, label, also });
const views = (): SettingChoice[] => VIEW_NAMES.map((name) => choice(name, READERS_WORDS.en.views[name]()));

const WHOLE_LINE: readonly SettingName[] = [
  'name',
  'about',
  'address',
  'tileService',
  'tileCredit',
  'mapAddress',
  'geocoder',
  'beforeFirst',
  'afterLast',
  'beforeFirstFrench',
  'afterLastFrench',
  'mailFrom',
  'views',
  'filters',
  'venueShows',
  'organizerShows',
];

/** May it stand beside another one in the form? */
export const isShort = (name: SettingName): boolean => !WHOLE_LINE.includes(name);

/** The choices of short lists, on a day. */
export function shortChoices(name: SettingName, today: number): SettingChoice[] | undefined {
  switch (name) {
    case 'firstWeekday':
      return WEEKDAYS.map((weekday, i) => choice(String(i), weekday));
    case 'hours':
      return HOUR_STYLES.map((hours) => choice(hours, sayTime(EVENING, { ...en, hours, date: 'iso' })));
    case 'date':
      return DATE_STYLES.map((date) => choice(date, sayDay(today, { ...en, date, hours: '24' }, { year: true })));
    case 'firstView':
      return views();
    case 'firstViewPhone':
      return [choice('', w.theSame()), ...views()];
    case 'weekDays':
      return [choice('all', w.sevenDays()), choice('work', w.workdays())];
    case 'listPictures':
      return [choice('headlines', w.headlinesOnly()), choice('every-line', w.aSmallOne())];
    case 'relatedOrder':
      return RELATED_ORDERS.map((order) => choice(order, order === 'likest' ? w.mostAlike() : w.soonest()));
    case 'english': {
      const names = new Intl.DisplayNames('en', { type: 'language' });
      return ENGLISH_TAGS.map((tag) => choice(tag, names.of(tag) ?? tag)).sort((a, b) =>
        a.value === 'en' ? -1 : b.value === 'en' ? 1 : a.label.localeCompare(b.label, 'en'),
      );
    }
    case 'secondLanguage':
      return [choice('', w.none()), choice('fr', w.french())];
    case 'senders':
      return SENDERS.map((who) => choice(who, w.senders[who]()));
    default:
      return undefined;
  }
}

/** The choices of lists so long that they are searched, at an instant. */
export function longChoices(name: SettingName, ms: number): SettingChoice[] | undefined {
  switch (name) {
    case 'zone':
      return ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')].map((zone) => {
        const part = zone.split('/').slice(0, -1).join(', ').replaceAll('_', ' ');
        return choice(zone, [zoneCity(zone), part, zone === 'UTC' ? '' : zoneOffset(zone, ms)].filter(Boolean).join(', '), zone);
      });
    case 'currency': {
      const names = new Intl.DisplayNames('en', { type: 'currency' });
      return Intl.supportedValuesOf('currency').map((code) => choice(code, `${code} ${names.of(code) ?? ''}`.trim()));
    }
    case 'country':
      return [choice('', w.noCountry()), ...COUNTRY_NAMES.map(([code, name]) => choice(code, name, code))];
    default:
      return undefined;
  }
}
