import { describe, expect, it } from 'vitest';
import type { ListingContent } from '@/core/listing/content';
import { fromStored } from '@/core/recurrence/stored';
import { sayRecurrence } from '@/core/phrase/say';
import { NOW, SETTINGS } from '../../../tests/support/db';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import type { Problem } from '../problem';
import type { ReferenceData } from '../reference/read';
import { BLANK_VENUE } from '../venues/input';
import { fieldsOf, type Fields, type FormResult, readAddForm } from './form';
import { readSenderChanges } from './sender-changes';

const venue = {
  ...BLANK_VENUE,
  id: 'v1',
  name: "St Bride's Hall",
  slug: 'st-brides-hall',
  town: 'Port Amble',
  island: 'Amble',
  lat: 43,
  lng: -57,
  hall: undefined,
  binnedAt: null,
  revision: 1,
};
const reference: ReferenceData = {
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
const NO_FIELDS: Fields = { day: '', starts: '', ends: '' };
const read = (part: Fields = {}) => readAddForm({ ...good, ...part }, reference, SETTINGS, NOW.day);
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
    [{ starts: '7', ends: '8.30 pm' }, 'Thursday 25 March 2027, 19:00–20:30.'],
    [
      { ...NO_FIELDS, when: 'Tuesdays 7pm, 13 April to 29 June, not 11 May' },
      'Every Tuesday, 19:00, from 13 April to 29 June 2027, except 11 May.',
    ],
    [{ ...NO_FIELDS, when: 'Thursday 25 March, 10:00' }, 'Thursday 25 March 2027, 10:00.'],
    [{ repeats: 'weekly', until: '2027-04-22' }, 'Every Thursday, 10:00–12:00, from 25 March to 22 April 2027.'],
    [{ repeats: 'second-week' }, 'Every other Thursday, 10:00–12:00, from 25 March 2027.'],
    [{ repeats: 'monthly' }, 'On the fourth Thursday of every month, 10:00–12:00, from 25 March 2027.'],
    [{ day: '2027-03-31', repeats: 'monthly' }, 'On the last Wednesday of every month, 10:00–12:00, from 31 March 2027.'],
  ];
  for (const [part, words] of whens) it(words, () => expect(sentence(part)).toBe(words));

  const wrongs: [string, Fields, string[]][] = [
    ['nothing filled in', { title: '', day: '', name: '', mail: '' }, ['title', 'name', 'mail', 'day']],
    ['an hour of morning or evening', { starts: '7', ends: '8' }, ['starts']],
    ['words that are not understood', { ...NO_FIELDS, when: 'Tusdays 7pm' }, ['when']],
    ['words that ask something', { ...NO_FIELDS, when: 'Friday 25 March 2027, 7pm' }, ['when']],
    ['words without a date', { ...NO_FIELDS, when: 'at' }, ['when']],
    ['words and fields that differ', { when: 'Friday 26 March, 10:00' }, ['when']],
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
        {
          senderName: first.name,
          senderMail: first.mail,
          senderPhone: first.phone,
          message: first.message,
          said: { where: first.where, who: first.who },
        },
        reference,
      );
      expect(readAddForm(again, reference, SETTINGS, NOW.day)).toEqual(first);
    }
  });
});

describe('a form that is mended', () => {
  const shownOf = (content: ListingContent, first: FormResult): Fields =>
    fieldsOf(
      content,
      {
        ...{ senderName: first.name, senderMail: first.mail, senderPhone: first.phone, message: first.message },
        said: { where: first.where, who: first.who },
      },
      reference,
    );
  const quickFix = (before: ListingContent, shown: Fields, posted: Fields) =>
    readSenderChanges(before, posted, { shown, reference, settings: SETTINGS, today: NOW.day });

  it('goes out as it came back, whatever was typed (300 forms)', () => {
    const r = random(seedOf());
    const words = ['Nets', '<b>kelp</b>', '&amp; tea', '"quiet"', 'at 5 > 4', 'Ærø', "St Bride's", '–', '1.'];
    const sentence = (): string => Array.from({ length: between(r, 1, 6) }, () => pick(r, words)).join(pick(r, [' ', '  ', ' - ']));
    const text = (): string =>
      Array.from({ length: between(r, 0, 5) }, sentence).join(pick(r, ['\n', '\n\n', '\r\n', '\r\n\r\n', '\n \n\n', '\n\n\n\n']));
    let paragraphsSeen = 0;
    for (let i = 0; i < 300; i++) {
      const timed = r() < 0.7;
      const part: Fields = {
        ...{ title: sentence(), text: text(), message: text(), phone: pick(r, ['', '555-0177']), showContact: pick(r, ['', '1']) },
        ...{
          cost: pick(r, ['', 'free', '$3', '12,50', '8', 'a cake', '$8, children free']),
          where: pick(r, ['', "st bride's hall", sentence()]),
        },
        ...{ who: pick(r, ['', sentence()]), website: pick(r, ['', 'www.kelp.example', 'kelp.example/walk', 'https://kelp.example']) },
        ...{ starts: timed ? pick(r, ['9', '7.30 pm', 'noon']) : '', ends: timed ? pick(r, ['', 'midnight', '23:00']) : '' },
        ...{ repeats: pick(r, ['never', 'weekly', 'second-week', 'monthly']), until: pick(r, ['', '2027-06-30']) },
        ...(r() < 0.3 ? { lastDay: '2027-03-27' } : {}),
      };
      const first = read(part);
      if ((first.content.text.match(/<p>/g)?.length ?? 0) > 1) paragraphsSeen++;
      const shown = shownOf(first.content, first);
      expect(readAddForm(shown, reference, SETTINGS, NOW.day), JSON.stringify(part)).toEqual(first);
      // And a browser sends line ends as two characters.
      const posted = Object.fromEntries(Object.entries(shown).map(([name, value]) => [name, value.replace(/\n/g, '\r\n')]));
      const again = quickFix(first.content, shown, posted);
      expect([again.parts, again.content], JSON.stringify(part)).toEqual([[], first.content]);
    }
    expect(paragraphsSeen).toBeGreaterThan(60);
  });

  it('shows dates that the fields cannot hold in words, and keeps all of them', () => {
    const when = 'Tuesdays 7pm, 13 April to 29 June, not 11 May, plus Saturday 15 May at 6pm';
    const first = read({ ...NO_FIELDS, when });
    const shown = shownOf(first.content, first);
    expect([shown.day, shown.when]).toEqual([undefined, expect.stringContaining('also on Saturday 15 May 2027, 18:00')]);
    expect(readAddForm(shown, reference, SETTINGS, NOW.day).content.recurrence).toEqual(first.content.recurrence);
  });

  it('leaves what an editor made of it where the sender touched nothing', () => {
    const first = read({ text: 'One.\n\nTwo.' });
    const edited: ListingContent = {
      ...first.content,
      text: '<h2>One</h2><p>Two, <a href="https://kelp.example">more</a>.</p>',
      cost: { kind: 'amount', amount: '3.50', currency: 'CAD' },
      recurrence: first.content.recurrence && {
        ...first.content.recurrence,
        parts: [
          ...first.content.recurrence.parts,
          { start: '2027-05-01T10:00', length: null, rule: null, limit: { kind: 'count', count: 3 } },
        ],
      },
    };
    const shown = shownOf(edited, first);
    const { content, parts } = quickFix(edited, shown, { ...shown, title: 'Kelp Walk at Dawn' });
    expect(parts).toEqual(['title']);
    expect(content).toEqual({ ...edited, title: 'Kelp Walk at Dawn' });
  });

  it('takes websites as people type them', () => {
    for (const website of ['www.kelp.example', 'kelp.example', 'KELP.example/walk?x=1', 'https://kelp.example'])
      expect(read({ website }).content.website, website).toMatch(/^https:\/\//);
    for (const website of ['kelp', 'rue@kelp.example', 'javascript:alert(1)', '8.30', 'ftp://kelp.example'])
      expect(wrongAt({ website }), website).toEqual(['website']);
  });
  it('keeps the phone number for the editors whether readers may have it or not', () => {
    expect(read({ phone: '555-0177' })).toMatchObject({ phone: '555-0177', content: { contact: { phone: '' } } });
  });
});
