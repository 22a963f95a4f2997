/** Whose holidays a new site has: those of its town's country, and of its region where that has its own. */
import { countryName } from '@/core/geo/countries';
import { fold } from '@/core/text/text';
import type { YearMarks } from '../holidays/year-marks';
import type { SiteSettings } from '../site/settings';
import type { Look } from './follows';

/** Whose they are, and what that is called; all empty where nothing is known. */
export interface HolidaysThere extends Pick<SiteSettings, 'holidayCountry' | 'holidayRegion'> {
  label: string;
}

/** Whose holidays follow from where a site is. */
export async function holidaysThere(
  yearMarks: Pick<YearMarks, 'regionsOf'>,
  { place, settled: { country } }: Pick<Look, 'place' | 'settled'>,
): Promise<HolidaysThere> {
  if (!country) return { holidayCountry: '', holidayRegion: '', label: '' };
  const { known, regions } = await yearMarks.regionsOf(country);
  if (!known) return { holidayCountry: '', holidayRegion: '', label: '' };
  // The town's region is named as people there name it.
  const here = place?.country === country ? fold(place.region) : '';
  const region = here ? regions.find(({ name }) => fold(name) === here) : undefined;
  const label = [region?.name, countryName(country)].filter(Boolean).join(', ');
  return { holidayCountry: country, holidayRegion: region?.code ?? '', label };
}
