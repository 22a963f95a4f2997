import { describe, expect, it } from 'vitest';
import { fromStored } from '@/core/recurrence/stored';
import { sayRecurrence } from '@/core/phrase/say';
import { NOW, SETTINGS } from '../../../tests/support/db';
import type { Problem } from '../http/problem';
import type { Lookup } from '../public/lookup';
import { BLANK_VENUE } from '../venues/input';
import { costOf, fieldsOf, type Fields, readAddForm } from './form';

const venue = {
  ...BLANK_VENUE,
  id: 'v1',
  name: "St Bride's Hall",
  address: 'st-brides-hall',
  town: 'Port Amble',
  island: 'Amble',
  lat: 43,
  lng: -57,
  hall: undefined,
  binnedAt: null,
  revision: 1,
};
const found: Lookup = {
  categories: [],
  category: new Map(),
  venues: [venue],
  venue: new Map([[venue.id, venue]]),
  tags: [],
  tag: new Map(),
  organizers: [],
  organizer: new Map(),
  towns: ['Port Amble'],
};
const good: Fields = {
  title: 'Kelp Walk',
  day: '2027-03-25',
  starts: '10:00',
  ends: '12:00',
  name: 'Rue Dunlin',
  mail: 'rue@dunlin.example',
};
const read = (part: Fields = {}) => readAddForm({ ...good, ...part }, found, SETTINGS, NOW.day);
const wrongAt = (part: Fields): string[] => {
  try {
    read(part);
  } catch (error) {
    return (error as Problem).fields.map((f) => f.field);
  }
  return [];
};
const sentence = (part: Fields): string => {
  const { recurrence } = read(part).content;
  return recurrence ? sayRecurrence(fromStored(recurrence), { date: 'day-month', hours: '24' }) : '';
};

describe('the readers’ form', () => {
  const whens: [Fields, string][] = [
    [{}, 'Thursday 25 March 2027, 10:00–12:00.'],
    [{ starts: '', ends: '' }, 'Thursday 25 March 2027.'],
    [{ starts: '', ends: '', lastDay: '2027-03-27' }, 'Thursday 25 March – Saturday 27 March 2027.'],
    [{ ends: '01:30' }, 'Thursday 25 March 2027, 10:00–01:30.'],
    [{ starts: '7.30 pm', ends: '9' }, 'Thursday 25 March 2027, 19:30–21:00.'],
    [{ starts: 'noon', ends: '14h' }, 'Thursday 25 March 2027, 12:00–14:00.'],
    [{ repeats: 'weekly', until: '2027-04-22' }, 'Every Thursday, 10:00–12:00, from 25 March to 22 April 2027.'],
    [{ repeats: 'second-week' }, 'Every second Thursday, 10:00–12:00, from 25 March 2027.'],
    [{ repeats: 'monthly' }, 'On the fourth Thursday of every month, 10:00–12:00, from 25 March 2027.'],
    [{ day: '2027-03-31', repeats: 'monthly' }, 'On the last Wednesday of every month, 10:00–12:00, from 31 March 2027.'],
  ];
  for (const [part, words] of whens) it(words, () => expect(sentence(part)).toBe(words));

  const wrongs: [string, Fields, string[]][] = [
    ['nothing filled in', { title: '', day: '', name: '', mail: '' }, ['title', 'name', 'mail', 'day']],
    ['31 February', { day: '2027-02-31' }, ['day']],
    ['an end before its start', { ends: '09:00' }, ['ends']],
    ['an end without a start', { starts: '' }, ['starts']],
    ['a last day before the first', { lastDay: '2027-03-24' }, ['lastDay']],
    ['a year-long event', { lastDay: '2028-03-24' }, ['lastDay']],
    ['a limit before the first date', { repeats: 'weekly', until: '2027-03-01' }, ['until']],
    ['a script as website', { website: 'javascript:alert(1)' }, ['website']],
    ['a mail address without @', { mail: 'rue.dunlin.example' }, ['mail']],
    ['the trap', { homepage: 'x' }, ['homepage']],
    ['200,000 characters', { text: 'x'.repeat(200_000) }, ['text']],
  ];
  for (const [name, part, fields] of wrongs) it(`names what is wrong: ${name}`, () => expect(wrongAt(part)).toEqual(fields));

  it('knows a venue by its name however it is written, and keeps other words for the editor', () => {
    expect(read({ where: 'st bride’s HALL' })).toMatchObject({ where: '', content: { venueIds: ['v1'] } });
    expect(read({ where: 'behind the hall' })).toMatchObject({ where: 'behind the hall', content: { venueIds: [] } });
  });
  it('makes text harmless and shows a contact only when asked to', () => {
    expect(read({ text: '<script>x</script>' }).content.text).toBe('<p>&lt;script&gt;x&lt;/script&gt;</p>');
    expect(read().content.contact.name).toBe('');
    expect(read({ showContact: '1', phone: '555-0177' }).content.contact).toEqual({ name: 'Rue Dunlin', phone: '555-0177', mail: '' });
  });
  it('reads costs', () => {
    const cases: [string, unknown][] = [
      ['', { kind: 'unsaid' }],
      ['Free', { kind: 'free' }],
      ['0', { kind: 'free' }],
      ['$3', { kind: 'amount', amount: '3', currency: 'CAD' }],
      ['12,50', { kind: 'amount', amount: '12.50', currency: 'CAD' }],
      ['8 CAD', { kind: 'amount', amount: '8', currency: 'CAD' }],
      ['$8, children free', { kind: 'words', words: '$8, children free' }],
      ['3 eggs', { kind: 'words', words: '3 eggs' }],
    ];
    for (const [text, cost] of cases) expect(costOf(text, 'CAD'), text).toEqual(cost);
  });
  it('gives its fields back as they were, for mending', () => {
    for (const part of [
      {},
      { repeats: 'weekly', until: '2027-04-22' },
      { starts: '', ends: '', lastDay: '2027-03-27' },
      { ends: '01:30' },
      { where: 'behind the hall', cost: '$3' },
    ] as Fields[]) {
      const first = read(part);
      const again = fieldsOf(
        first.content,
        { senderName: first.name, senderMail: first.mail, message: first.message, said: { where: first.where, who: first.who } },
        found,
      );
      expect(readAddForm(again, found, SETTINGS, NOW.day)).toEqual(first);
    }
  });
});
