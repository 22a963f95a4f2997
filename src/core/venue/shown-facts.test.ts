import { describe, expect, it } from 'vitest';
import { ORGANIZER_FACTS, shownOrganizer, shownVenue, VENUE_FACTS } from './shown-facts';

const VENUE = {
  name: 'Net Loft',
  street: '2 Quay',
  pictureId: 'p',
  hours: { mon: [] },
  phone: '1',
  mail: 'a@isles.example',
  website: 'https://x.example',
  capacity: 40,
};
const ORGANIZER = {
  name: 'Choir',
  pictureId: 'p',
  text: 'We sing.',
  phone: '1',
  mail: 'a@isles.example',
  website: 'https://x.example',
  profiles: { format: 1, list: [{ label: 'a' }] },
};
/** What a fact is kept in; a venue's chart and the way there are drawn from its position, which stays. */
const KEPT_IN: Record<string, string> = { picture: 'pictureId' };
const keyOf = (fact: string): string => KEPT_IN[fact] ?? fact;
const drawn = ['chart', 'directions'];

describe('what is shown of venues and organizers', () => {
  it('is all of it when all is ticked', () => {
    expect(shownVenue(VENUE, VENUE_FACTS)).toEqual(VENUE);
    expect(shownOrganizer(ORGANIZER, ORGANIZER_FACTS)).toEqual(ORGANIZER);
  });

  it('is names and addresses when nothing is', () => {
    expect(shownVenue(VENUE, [])).toEqual({
      name: 'Net Loft',
      street: '2 Quay',
      pictureId: null,
      hours: null,
      phone: '',
      mail: '',
      website: '',
      capacity: null,
    });
    expect(shownOrganizer(ORGANIZER, [])).toEqual({
      name: 'Choir',
      pictureId: null,
      text: '',
      phone: '',
      mail: '',
      website: '',
      profiles: { format: 1, list: [] },
    });
  });

  it.each(VENUE_FACTS.filter((fact) => !drawn.includes(fact)))('leaves out a venue’s %s alone', (fact) => {
    const shown = shownVenue(
      VENUE,
      VENUE_FACTS.filter((one) => one !== fact),
    ) as Record<string, unknown>;
    for (const [key, value] of Object.entries(VENUE))
      if (key === keyOf(fact)) expect(shown[key], key).not.toEqual(value);
      else expect(shown[key], key).toEqual(value);
  });

  it.each(ORGANIZER_FACTS)('leaves out an organizer’s %s alone', (fact) => {
    const shown = shownOrganizer(
      ORGANIZER,
      ORGANIZER_FACTS.filter((one) => one !== fact),
    ) as Record<string, unknown>;
    for (const [key, value] of Object.entries(ORGANIZER))
      if (key === keyOf(fact)) expect(shown[key], key).not.toEqual(value);
      else expect(shown[key], key).toEqual(value);
  });
});
