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
const without = <F extends string>(facts: readonly F[], fact: F): F[] => facts.filter((one) => one !== fact);

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

  const left: [name: string, fact: string, whole: object, shown: object][] = [
    ...VENUE_FACTS.filter((fact) => !drawn.includes(fact)).map((fact): [string, string, object, object] => [
      'a venue’s',
      fact,
      VENUE,
      shownVenue(VENUE, without(VENUE_FACTS, fact)),
    ]),
    ...ORGANIZER_FACTS.map((fact): [string, string, object, object] => [
      'an organizer’s',
      fact,
      ORGANIZER,
      shownOrganizer(ORGANIZER, without(ORGANIZER_FACTS, fact)),
    ]),
  ];
  it.each(left)('leaves out %s %s alone', (_name, fact, whole, shown) => {
    const differing = Object.entries(whole).filter(
      ([key, value]) => JSON.stringify((shown as Record<string, unknown>)[key]) !== JSON.stringify(value),
    );
    expect(differing.map(([key]) => key)).toEqual([keyOf(fact)]);
  });
});
