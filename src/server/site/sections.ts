/** The settings as the Desk has them: which stand together, under which address, and by what each is found. */
import { type Picked, pick } from '@/core/match/pick';
import { settingsWords } from '@/words/desk';
import type { SiteSettings } from './settings';

const w = settingsWords;

/** Sections that are one form of settings, in their order. */
export const FORM_SECTIONS = ['site', 'time', 'map', 'readers', 'sending', 'mail'] as const;
/** One of them. */
export type FormSection = (typeof FORM_SECTIONS)[number];

/** One that is saved, and taken back, by itself: those, and the days of the year with their own form. */
export type SettingsSection = FormSection | 'days';

/** A setting of a form; `holidays` and what else has a page of its own are no such settings. */
export type SettingName = keyof typeof w.fields;

/** Settings that stand together under a heading of their own; '' = none is needed. */
export interface SettingGroup {
  group: keyof typeof w.groups | '';
  names: readonly SettingName[];
}

/** Which settings a section has, in the order of its form. */
export const GROUPS: Record<FormSection, readonly SettingGroup[]> = {
  site: [{ group: '', names: ['name', 'about', 'address'] }],
  time: [{ group: '', names: ['zone', 'horizonMonths', 'firstWeekday', 'date', 'hours', 'currency', 'country'] }],
  map: [{ group: '', names: ['lat', 'lng', 'tileService', 'tileCredit', 'mapAddress', 'geocoder'] }],
  readers: [
    { group: 'views', names: ['views', 'firstView', 'firstViewPhone', 'weekDays'] },
    { group: 'filters', names: ['filters'] },
    { group: 'lists', names: ['listLength', 'listPictures', 'shortLength'] },
    { group: 'events', names: ['related', 'relatedOrder', 'beforeFirst', 'afterLast', 'beforeFirstFrench', 'afterLastFrench'] },
    { group: 'parties', names: ['venueShows', 'organizerShows'] },
    { group: 'language', names: ['english', 'secondLanguage'] },
  ],
  sending: [{ group: '', names: ['senders', 'passphrase'] }],
  mail: [{ group: '', names: ['mailFrom'] }],
};

/** The settings of a section, in the order of its form. */
export const namesOf = (section: FormSection): SettingName[] => GROUPS[section].flatMap(({ names }) => names);

/** A page of the settings. */
export interface SettingsPage {
  id: keyof typeof w.sections;
  href: string;
}

/** All pages of the settings, in their order. */
export const SETTINGS_PAGES: readonly SettingsPage[] = [
  { id: 'site', href: '/desk/set-up/site' },
  { id: 'time', href: '/desk/set-up/time' },
  { id: 'map', href: '/desk/set-up/map' },
  { id: 'days', href: '/desk/set-up/days' },
  { id: 'kinds', href: '/desk/categories' },
  { id: 'readers', href: '/desk/set-up/readers' },
  { id: 'sending', href: '/desk/set-up/sending' },
  { id: 'mail', href: '/desk/set-up/mail' },
  { id: 'people', href: '/desk/people' },
  { id: 'health', href: '/desk/health' },
];

/** Is this the name of a section that is one form? */
export const isFormSection = (id: string | undefined): id is FormSection => FORM_SECTIONS.some((section) => section === id);

/** What a setting is called. */
export const labelOf = (name: SettingName): string => w.fields[name].label();

/** A setting as it is found by words: itself, and where it stands. */
export interface FoundSetting {
  id: string;
  name: string;
  /** its section, and other words for it */
  more: string;
  section: string;
  href: string;
}

/** Every setting that a site shows: French words only where there is French. */
export function allSettings({ secondLanguage }: Pick<SiteSettings, 'secondLanguage'>): FoundSetting[] {
  return FORM_SECTIONS.flatMap((id) => {
    const section = w.sections[id].title();
    return namesOf(id)
      .filter((name) => isShown(name, secondLanguage))
      .map((name) => ({
        id: name,
        name: labelOf(name),
        more: `${section} ${w.fields[name].also()}`,
        section,
        href: `/desk/set-up/${id}#${name}`,
      }));
  });
}

/** Does the form have it now? */
export const isShown = (name: SettingName, secondLanguage: string): boolean => !name.endsWith('French') || secondLanguage !== '';

/** Settings that what was typed may mean, the likeliest first; slips are forgiven. */
export const findSettings = (typed: string, site: Pick<SiteSettings, 'secondLanguage'>): Picked<FoundSetting> =>
  pick(typed, allSettings(site), 12);
