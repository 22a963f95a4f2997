import { describe, expect, it } from 'vitest';
import { isoDay } from '../day/day';
import type { ListingContent } from '../listing/content';
import { rule } from '../recurrence/model';
import type { StoredRecurrencePart } from '../recurrence/stored';
import { linesOf, textWidth } from '../text/measure';
import { readHours } from '../venue/hours';
import { aPicture, good, SITE, TODAY, when } from '../../../tests/support/good-listing';
import type { PictureFacts } from './picture-checks';
import { NOTE_KINDS } from './kinds';
import { amountsIn, saysFree } from './cost-checks';
import { isMail, whyDead, withScheme } from './links';
import { datesIn, weekdaysIn } from './named-date-checks';
import { keyOf, waive } from './note';
import { type ValidationContext, validate, whatStopsOf } from './validate';
import { sentenceCase, tidied, withoutCopyWords } from './text-checks';

const venue = (part = {}) => ({ id: 'v', name: 'Net Loft', capacity: 40, hours: null, access: true, placed: true, binned: false, ...part });
const context = (part: Partial<ValidationContext> = {}): ValidationContext => ({
  ...SITE,
  venue: () => venue(),
  organizer: () => ({ name: 'Harbour Choir', binned: false }),
  ...part,
});
const notes = (part: Partial<ListingContent>, around: Partial<ValidationContext> = {}) => validate({ ...good, ...part }, context(around));
const kinds = (part: Partial<ListingContent>, around: Partial<ValidationContext> = {}): string[] =>
  notes(part, around)
    .filter((n) => n.severity !== 'good')
    .map((n) => n.kind);
const weekly = (limit: StoredRecurrencePart['limit'] = { kind: 'count', count: 10 }) => when({ rule: rule('weekly'), limit });
const text = (words: string): Partial<ListingContent> => ({ text: `<p>${words}</p>` });
const from = (start: string, days: number, minute: number) => ({ recurrence: when({ start, length: { days, minute } }) });

/** [kind, said when it is so, silent when it nearly is …] */
const CASES: [string, Partial<ListingContent>, ...Partial<ListingContent>[]][] = [
  ['title-capitals', { title: 'SEED SWAP' }, { title: 'SEED swap' }, { title: 'U.S.' }, { title: 'Abba' }],
  ['title-copy', { title: 'Copy of Seed Swap' }, { title: 'Copying birds' }, { title: 'A copybook class' }],
  ['title-copy', { title: 'Seed Swap (copy 2)' }, { title: 'Copywriting for clubs' }],
  ['short-title-long', { title: 'A very long title that will never fit two lines' }, { title: 'Lantern Quay Market' }],
  ['spaces', { title: 'Seed  Swap' }, { title: 'Seed Swap' }, { summary: 'Bring seeds, jars; and tea.' }],
  ['spaces', { summary: 'Bring seeds , jars' }, { summary: 'Bring seeds, jars' }],
  [
    'weekday-differs',
    text('Every Friday we sing.'),
    text('Every Tuesday we sing.'),
    text('Not on Fridays.'),
    text('The Good Friday concert comes later.'),
    text('Tuesday and, later, Friday'),
  ],
  [
    'date-differs',
    text('On 24 March we sing.'),
    text('On 23 March we sing.'),
    text('Book by 10 March.'),
    text('March 23rd, 2027'),
    text('Since 3 May 1987.'),
    text('You may 5 times try'),
  ],
  ['year-differs', { title: 'Regatta 2026' }, { title: 'Regatta 2027' }, { title: 'Regatta since 2026' }, { title: 'Founded in 1987' }],
  [
    'cost-differs',
    { ...text('Free for everyone'), cost: { kind: 'amount', amount: '12.00', currency: 'CAD' }, summary: 'Entry free' },
    { ...text('Gluten-free cakes'), cost: { kind: 'amount', amount: '12.00', currency: 'CAD' } },
    { ...text('Under 12s free'), cost: { kind: 'amount', amount: '12.00', currency: 'CAD' } },
  ],
  ['cost-differs', text('Entry $8'), text('Begins at 19.30'), text('A walk of 8 km')],
  [
    'cost-differs',
    { ...text('Tickets $8'), cost: { kind: 'amount', amount: '12', currency: 'CAD' } },
    { ...text('Tickets $12, or $8 for members'), cost: { kind: 'amount', amount: '12', currency: 'CAD' } },
  ],
  ['odd-hour', from('2027-03-23T03:00', 0, 300), from('2027-03-23T05:30', 0, 500), from('2027-03-23T00:15', 0, 100)],
  ['late-end', from('2027-03-23T19:00', 1, 180), from('2027-03-23T19:00', 1, 120), from('2027-03-23T19:00', 0, 1260)],
  ['long', from('2027-03-23T08:00', 0, 1230), from('2027-03-23T08:00', 0, 1200)],
  ['short', from('2027-03-23T08:00', 0, 485), from('2027-03-23T08:00', 0, 490)],
  [
    'maybe-daily',
    from('2027-03-23T10:00', 4, 1020),
    from('2027-03-23T19:00', 1, 120),
    { recurrence: when({ start: '2027-03-23', length: { days: 4, minute: null } }) },
  ],
  ['endless', { recurrence: weekly({ kind: 'open' }) }, { recurrence: weekly() }, {}],
  ['room-small', { expected: 41 }, { expected: 40 }, { expected: null }],
  ['website-dead', { website: 'http://choir.local/x' }, { website: 'https://local.harbourchoir.example' }],
  ['website-unsafe', { website: 'https://http://shore.example' }, { website: 'https://shore.example/http' }],
  ['call-dead', { callAddress: 'http://choir.local/book' }, { callAddress: 'https://harbourchoir.example/book' }],
  ['call-unsafe', { callAddress: 'javascript:alert(1)' }, { callAddress: 'https://shore.example/book' }],
  ['website-dead', { website: 'https://shore.con' }, { website: 'https://shore.com.example' }],
  [
    'link-dead',
    text('<a href="http://192.168.1.4/x">here</a>'),
    text('<a href="https://shore.example">here</a>'),
    text('<a href="mailto:a@shore.example">write</a>'),
  ],
  ['category-missing', { categoryIds: [] }, {}],
];

describe('Proof, rule by rule', () => {
  for (const [kind, bad, ...fine] of CASES) {
    it(`${kind}: said of ${JSON.stringify(bad).slice(0, 60)}, silent where it nearly is so`, () => {
      expect(kinds(bad)).toContain(kind);
      for (const near of fine) expect([near, kinds(near).includes(kind)]).toEqual([near, false]);
    });
  }
  it('knows the venue: its hours, its bin, its access', () => {
    const { hours } = readHours(['', '18–22', '', '', '', '', '']);
    expect(kinds({}, { venue: () => venue({ hours }) })).not.toContain('venue-closed');
    const note = notes(from('2027-03-24T19:00', 0, 1260), { venue: () => venue({ hours }) }).find((n) => n.kind === 'venue-closed');
    expect(note?.says).toEqual({ code: 'venueClosed', with: { name: 'Net Loft', partly: 'no', days: 'Wed 24 Mar', more: 0 } });
    expect(
      notes(from('2027-03-23T19:00', 0, 1350), { venue: () => venue({ hours }) }).find((n) => n.kind === 'venue-closed')?.says.with,
    ).toMatchObject({ partly: 'yes' });
    expect(
      kinds(
        {
          eventStatus: 'going-ahead',
          changes: [{ original: '2027-03-23T19:00', movedTo: null, length: null, eventStatus: 'cancelled', note: '' }],
        },
        { venue: () => venue({ hours: readHours(['9-10']).hours }) },
      ),
    ).not.toContain('venue-closed');
    expect(kinds({}, { venue: () => venue({ binned: true }) })).toContain('venue-binned');
    expect(kinds({}, { venue: () => venue({ placed: false }) })).toContain('venue-unplaced');
    expect(kinds({}, { venue: () => venue() })).not.toContain('venue-unplaced');
    expect(kinds({ attendance: 'online' }, { venue: () => venue({ placed: false }) })).not.toContain('venue-unplaced');
    expect(
      [kinds({}, { venue: () => venue({ access: false }) }), kinds({ access: 'Ramp' }, { venue: () => venue({ access: false }) })].map(
        (k) => k.includes('access-missing'),
      ),
    ).toEqual([true, false]);
    expect(kinds({}, { organizer: () => ({ name: 'x', binned: true }) })).toContain('organizer-binned');
  });
  it('knows what is around it', () => {
    const booking = { listingId: 'b', title: 'Supper' };
    const found = notes(
      {},
      {
        venueClashes: [{ booking, day: TODAY + 6, minute: 1140, count: 3 }],
        organizerClashes: [{ booking, day: TODAY + 6, minute: null, count: 1, organizer: 'Harbour Choir' }],
        lookalikes: [{ listingId: 'l', title: 'Harbor Choir', likeness: 0.9, because: { titles: 'same', times: 'same', places: 'same' } }],
        sameTitle: [
          { listingId: 'l', title: 'x' },
          { listingId: 'm', title: 'Harbour Choir' },
        ],
        holidays: new Map([[TODAY + 6, ['Isles Day']]]),
        unlooked: ['when'],
      },
    );
    const said = Object.fromEntries(found.filter((n) => n.severity !== 'good').map((n) => [keyOf(n), n.says]));
    expect(said).toMatchObject({
      'venue-clash b': { code: 'venueClash', with: { title: 'Supper', at: 'Tue 23 Mar 19:00', more: 2 } },
      'organizer-clash b': { code: 'organizerClash', with: { organizer: 'Harbour Choir', title: 'Supper', at: 'Tue 23 Mar', more: 0 } },
      'lookalike l': { code: 'lookalike', with: { title: 'Harbor Choir', titles: 'same', times: 'same', places: 'same' } },
      'same-title m': { code: 'sameTitle' },
      holiday: { code: 'holiday', with: { day: 'Tue 23 Mar 2027', names: 'Isles Day' } },
      'copy-when': { code: 'copyWhen' },
    });
    expect(found[0]?.severity).toBe('error');
  });
  it('says where a missing picture is missed', () => {
    const said = (headline: boolean, listPictures?: 'every-line') =>
      notes({ headline, pictureId: null }, { listPictures }).find((n) => n.kind === 'picture-missing')?.says.code;
    expect(said(false)).toBe('pictureMissing');
    expect(said(true)).toBe('pictureMissingHeadline');
    expect(said(false, 'every-line')).toBe('pictureMissingLine');
  });
  it('sees pictures that are small and inks that are pale', () => {
    const shown = (part: Partial<PictureFacts>, listing: Partial<ListingContent> = {}) => kinds(listing, { picture: () => aPicture(part) });
    expect(shown({})).toEqual([]);
    expect(shown({ alt: ' ' })).toEqual(['alt-missing']);
    expect(shown({ width: 640, height: 400 })).toEqual(['picture-small']);
    // High enough, but a cover shows a wide part: of 700 x 1600 pixels only 700.
    expect(shown({ width: 700, height: 1600 })).toEqual(['picture-small']);
    expect(shown({ width: 800, height: 450 })).toEqual([]);
    expect(shown({ detail: 0.25 })).toEqual(['picture-enlarged']);
    expect(shown({ detail: 0.6 })).toEqual([]);
    // Even a quarter of it is enough for what is shown.
    expect(shown({ width: 2400, height: 1350, detail: 0.4 })).toEqual([]);
    expect(notes({ galleryIds: ['q', 'r'] }, { picture: (id) => aPicture({ alt: id === 'p' ? 'x' : '' }) })[0]?.says).toEqual({
      code: 'altMissing',
      with: { n: 2 },
    });
    expect(kinds({ pictureId: null }, { category: { name: 'Seeds', ink: '#0c5a63', picture: true } })).toEqual([]);
    expect(kinds({}, { category: { name: 'Seeds', ink: '#ffe08a' } })).toContain('low-contrast');
    expect(kinds({}, { category: { name: 'Seeds', ink: '#0c5a63' } })).not.toContain('low-contrast');
  });
  it('says what stops without looking at the dates one by one, and says the same', () => {
    for (const [, bad, ...fine] of CASES)
      for (const part of [bad, ...fine, { title: '' }, { recurrence: null }, { attendance: 'online' as const }, { website: 'x' }]) {
        const all = notes(part).filter((n) => n.severity === 'error');
        expect(whatStopsOf({ ...good, ...part }, context())).toEqual(all);
      }
  });
  it('has a name for every kind that it says here', () => {
    const all = new Set(CASES.flatMap(([, bad]) => kinds(bad)));
    expect([...all].filter((kind) => !(NOTE_KINDS as readonly string[]).includes(kind))).toEqual([]);
  });
  it('knows twenty days of its own words at every date', () => {
    for (let d = 0; d < 20; d++) {
      const day = TODAY + 1 + d * 17;
      const iso = isoDay(day);
      const own = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
        new Date(`${iso}T00:00Z`),
      );
      const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone: 'UTC' }).format(new Date(`${iso}T00:00Z`));
      const found = kinds({ recurrence: when({ start: `${iso}T19:00` }), ...text(`${weekday} ${own}`) });
      expect([own, found.filter((k) => k.endsWith('-differs'))]).toEqual([own, []]);
    }
  });
});

describe('mends', () => {
  /** Applies the mend of a kind and says what is left. */
  const fixed = (part: Partial<ListingContent>, kind: string): { left: string[]; content: ListingContent } => {
    const note = notes(part).find((n) => n.kind === kind);
    if (!note?.quickFix) throw new Error(`no mend for ${kind}`);
    const content = { ...good, ...part, ...note.quickFix.content };
    return { content, left: validate(content, context()).map((n) => n.kind) };
  };
  const able: [string, Partial<ListingContent>][] = [
    ['title-capitals', { title: 'SEED SWAP AT 9' }],
    ['title-copy', { title: 'Copy of Seed Swap' }],
    ['spaces', { title: 'Seed  Swap', summary: 'x , y' }],
    ['summary-missing', { summary: '' }],
    ['summary-long', { summary: 'word '.repeat(60) }],
    ['year-differs', { title: 'Regatta 2026' }],
    ['cost-missing', { cost: { kind: 'unsaid' }, summary: 'Entry free' }],
    ['cost-differs', { cost: { kind: 'amount', amount: '5', currency: 'CAD' }, summary: 'Admission free' }],
    ['website-unsafe', { website: 'www.shore.example' }],
    ['website-unsafe', { website: 'https://http://shore.example' }],
    ['end-before-start', from('2027-03-23T19:00', 0, 60)],
    ['odd-hour', from('2027-03-23T03:00', 0, 300)],
    ['late-end', from('2027-03-23T14:00', 1, 180)],
    ['maybe-daily', from('2027-03-23T10:00', 4, 1020)],
    ['endless', { recurrence: weekly({ kind: 'open' }) }],
    [
      'start-not-in-rule',
      { recurrence: when({ rule: rule('weekly', { byDay: [{ weekday: 3, nth: 0 }] }), limit: { kind: 'count', count: 3 } }) },
    ],
    [
      'break-reversed',
      { recurrence: { ...(weekly() as NonNullable<ListingContent['recurrence']>), breaks: [{ from: '2027-05-02', to: '2027-05-01' }] } },
    ],
  ];
  for (const [kind, part] of able) it(`of ${kind} leaves nothing of it`, () => expect(fixed(part, kind).left).not.toContain(kind));
  it('make one long date into daily ones', () => {
    const { content } = fixed(from('2027-03-23T10:00', 4, 1020), 'maybe-daily');
    expect(content.recurrence?.parts[0]).toMatchObject({
      start: '2027-03-23T10:00',
      length: { days: 0, minute: 1020 },
      rule: { freq: 'daily' },
      limit: { kind: 'until', day: '2027-03-27' },
    });
  });
});

describe('waivers', () => {
  it('answer for what is worth a look, never for what stops', () => {
    const all = notes({ title: '', summary: '' });
    const at = { reason: 'so', by: 'Ivo Skerrit', at: '2027-03-17T12:00:00Z' };
    const { open, waived } = waive(all, [
      { key: 'summary-missing', ...at },
      { key: 'title-missing', ...at },
      { key: 'gone', ...at },
    ]);
    expect([open.some((n) => n.kind === 'title-missing'), waived.map((w) => w.note.kind)]).toEqual([true, ['summary-missing']]);
  });
});

describe('small readers of words', () => {
  it('weekdays, dates and money', () => {
    expect(weekdaysIn('Tuesdays, but not Fridays; Sunday roast; Palm Sunday').map((w) => w.words)).toEqual(['Tuesdays']);
    expect(datesIn('3rd of May, May 4, 5 Sept. 2027, until 6 June, 31 February').map((d) => `${d.month}-${d.day}-${d.year ?? ''}`)).toEqual(
      ['5-3-', '5-4-', '9-5-2027'],
    );
    expect(amountsIn('$8, 12.50 at 19.30 and €3,20')).toEqual([8, 12.5, 3.2]);
    expect(['Free entry', 'step-free', 'free parking', 'a freely told tale', 'no charge'].map(saysFree)).toEqual([
      true,
      false,
      false,
      false,
      true,
    ]);
  });
  it('cases, copies and spaces', () => {
    expect([sentenceCase('SEED SWAP 2027: BRING JARS'), withoutCopyWords('Seed Swap - copy'), tidied(' a  b , c ')]).toEqual([
      'Seed swap 2027: bring jars',
      'Seed Swap',
      'a b, c',
    ]);
  });
  it('addresses', () => {
    expect([
      whyDead('https://shore.example'),
      withScheme('www.shore.example'),
      withScheme('javascript:alert(1)'),
      withScheme('not an address'),
    ]).toEqual([undefined, 'https://www.shore.example', undefined, undefined]);
  });
  it('widths: longer is wider, and lines are counted as they wrap', () => {
    expect(textWidth('mm', 10)).toBeCloseTo(2 * textWidth('m', 10), 9);
    expect([
      linesOf('one', { width: 100, size: 12 }),
      linesOf('one two three four five six', { width: 60, size: 12 }),
      linesOf('x'.repeat(100), { width: 60, size: 12 }),
    ]).toEqual([1, 3, Math.ceil(textWidth('x'.repeat(100), 12) / 60)]);
  });
});

describe('a mail address', () => {
  it.each(['rue@dunlin.example', 'rue.o’hara+net@mail.dunlin.example', 'é@dunlin.example', 'a@b-c.de', 'rue@brücke.example'])(
    '%s is one',
    (text) => expect(isMail(text)).toBe(true),
  );
  it.each([
    'rue',
    'rue@dunlin',
    'a,b@x.example',
    'a;b@x.example',
    'a@b@x.example',
    '<rue@dunlin.example>',
    'rue@dunlin.example, ivo@dunlin.example',
    'rue@.example',
    'rue@dunlin..example',
    '.rue@dunlin.example',
    'rue.@dunlin.example',
    'rue@dunlin.example.',
    '"rue"@dunlin.example',
    `${'x'.repeat(250)}@dunlin.example`,
    'rue@dun lin.example',
    'rue@dunlin.example\nbcc: x@y.example',
  ])('%s is none', (text) => expect(isMail(text)).toBe(false));
});
