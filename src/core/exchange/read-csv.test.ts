import { describe, expect, it } from 'vitest';
import { between, generateFullRule, generateRule, generatePart, random, seedOf } from '../../../tests/support/generate';
import { dayOf } from '@/core/day/day';
import { isoDateTime } from '@/core/day/plain-date-time';
import { sayRecurrence } from '@/core/phrase/say';
import { expand } from '@/core/recurrence/expand';
import { hasTimes } from '@/core/recurrence/sub-daily';
import { withOwnFirstDates } from '@/core/recurrence/first-dates';
import type { Recurrence } from '@/core/recurrence/model';
import { fromStored } from '@/core/recurrence/stored';
import { columnsOf, orderOf } from './csv-columns';
import { CSV_COLUMNS, writeCsv } from './csv';
import { decode } from './decode';
import { costOf } from './csv-cells';
import { type CsvFile, type CsvOptions, readCsv } from './read-csv';

const seed = seedOf();
const STYLE = { date: 'day-month', hours: '24' } as const;
const ZONE = 'America/Halifax';
const OPTIONS: CsvOptions = { now: { day: dayOf(2027, 3, 17), minute: 540 }, zone: ZONE, style: STYLE, weekStart: 0, currency: 'CAD' };
const read = (text: string, part: Partial<CsvOptions> = {}): CsvFile => readCsv(text, { ...OPTIONS, ...part });
const datesOf = (r: Recurrence, days = 400): string[] => {
  const from = Math.min(...r.parts.map((s) => s.start.day));
  return expand(r, [], from, from + days).map((o) => `${isoDateTime(o.start)}${o.end ? `/${isoDateTime(o.end)}` : ''}`);
};
const when = (file: CsvFile, i = 0): string[] => {
  const { recurrence } = file.items[i]?.content ?? {};
  return recurrence ? datesOf(fromStored(recurrence)) : [];
};

describe('the columns of a table', () => {
  it('are known by their names, in any order and case', () => {
    const headers = ['Event Name', 'DATE', 'Start Time', 'End time', 'Location', 'E-mail', 'Price', 'Description', 'Group', 'Mystery'];
    expect(columnsOf(headers, [])).toEqual(
      ['title', 'when', 'start-time', 'end-time', 'venue', 'mail', 'cost', 'text', 'organizer', 'skip'].map((c, i) =>
        i === 1 ? 'start-date' : c,
      ),
    );
  });
  it('are known by what stands in them where names say nothing', () => {
    const rows = [
      ['Net mending', '2027-04-03', '19:30', 'nets@loft.example', 'https://loft.example', '555-0142', 'free'],
      ['Sea songs', '2027-04-10', '7pm', 'sing@loft.example', 'https://sing.example', '555-0143', '8.00'],
    ];
    expect(columnsOf(['a', 'b', 'c', 'd', 'e', 'f', 'g'], rows)).toEqual([
      'title',
      'start-date',
      'start-time',
      'mail',
      'website',
      'phone',
      'cost',
    ]);
    // Words under "Date" are words; two columns of days are the first and the last.
    expect(
      columnsOf(
        ['Title', 'Date'],
        [
          ['x', 'Tuesdays 7pm'],
          ['y', 'first Sunday of the month'],
        ],
      ),
    ).toEqual(['title', 'when']);
    expect(columnsOf(['Title', 'From', 'x'], [['x', '2027-04-03', '2027-04-05']])).toEqual(['title', 'start-date', 'end-date']);
  });
  it('tell how dates are written, unless nothing in the table does', () => {
    expect([
      orderOf(['3/4/2027', '13/4/2027']),
      orderOf(['3/4/2027', '4/13/2027']),
      orderOf(['3/4/2027']),
      orderOf(['2027-04-03']),
    ]).toEqual(['day-month', 'month-day', undefined, 'day-month']);
  });
});

describe('a table', () => {
  it('is read whatever parts its columns, whatever its line ends and its encoding', () => {
    for (const separator of [',', ';', '\t', '|']) {
      const text = [
        ['Title', 'When', 'Venue'],
        ['Mending café', 'Tuesdays 19:30-21:00 from 6 April 2027, 3 times', 'Net Loft'],
      ].map((row) => row.join(separator));
      // Commas in the words need their quotes where commas part the columns.
      const lines = separator === ',' ? [text[0], 'Mending café,"Tuesdays 19:30-21:00 from 6 April 2027, 3 times",Net Loft'] : text;
      for (const end of ['\n', '\r\n', '\r']) {
        const file = read(lines.join(end) + end);
        expect([file.table.separator, file.items[0]?.content.title, file.items[0]?.venues]).toEqual([
          separator,
          'Mending café',
          [{ name: 'Net Loft' }],
        ]);
        expect(when(file)).toEqual([
          '2027-04-06T19:30/2027-04-06T21:00',
          '2027-04-13T19:30/2027-04-13T21:00',
          '2027-04-20T19:30/2027-04-20T21:00',
        ]);
      }
    }
    const latin = Uint8Array.from('Title;Date\nCaf\xe9;2027-04-03\n', (c) => c.charCodeAt(0));
    expect(read(decode(latin).text).items[0]?.content.title).toBe('Café');
    const utf16 = new Uint8Array([0xff, 0xfe, ...[...'Title;Date\nTea;2027-04-03'].flatMap((c) => [c.charCodeAt(0), 0])]);
    expect(read(decode(utf16).text).items).toHaveLength(1);
  });
  it('says days and times in two columns, in one, in figures of both orders, and as words', () => {
    const cells: [string, string, string, string, string][] = [
      ['2027-04-03', '19:30', '', '21:00', '2027-04-03T19:30/2027-04-03T21:00'],
      ['3/4/2027', '7.30 pm', '', '9', '2027-04-03T19:30/2027-04-03T21:00'],
      ['3.4.27', '', '5.4.27', '', '2027-04-03/2027-04-06'],
      ['2027-04-03 19:30', '', '', '', '2027-04-03T19:30'],
      ['2027-04-03T22:00', '', '2027-04-04 01:00', '', '2027-04-03T22:00/2027-04-04T01:00'],
      ['3 April 2027', 'noon', '', '', '2027-04-03T12:00'],
      ['2027-04-03', '22:00', '', '1:00', '2027-04-03T22:00/2027-04-04T01:00'],
      ['2027/4/3', 'all day', '', '', '2027-04-03/2027-04-04'],
    ];
    const text = ['Title;First;Time;Last;To', ...cells.map((c, i) => `T${i};${c.slice(0, 4).join(';')}`)].join('\n');
    const file = read(text, { columns: ['title', 'start-date', 'start-time', 'end-date', 'end-time'], order: 'day-month' });
    expect(file.unreadable).toEqual([]);
    expect(cells.map((_, i) => when(file, i)[0])).toEqual(cells.map((c) => c[4]));
    expect(when(read('Title;Date\nA;3/4/2027', { order: 'month-day' }))[0]).toContain('2027-03-04');
    expect(read('Title;Date\nA;3/4/2027').table.ordered).toBe(false);
    const rules = read('Title;Date;Time;Repeats\nA;2027-04-06;19:00;FREQ=WEEKLY;x\nB;2027-04-06;19:00;weekly until 20 April', {
      columns: ['title', 'start-date', 'start-time', 'repeats'],
    });
    expect(when(rules, 1).slice(0, 3)).toEqual(['2027-04-06T19:00', '2027-04-13T19:00', '2027-04-20T19:00']);
  });
  it('keeps what the rest of a row says, and says what it cannot keep', () => {
    const [item] = read(
      'Title;When;Organizer;Category;Cost;URL;Status;Join;Phone;Text\nSea songs;3 April 2027 at 7:30pm blah;Choir; Music, Sea ;$8;loft.example;cancelled;not an address;555-0142;"Two\nlines"',
      { columns: ['title', 'when', 'organizer', 'categories', 'cost', 'website', 'eventStatus', 'online', 'phone', 'text'] },
    ).items;
    expect(item?.content).toMatchObject({
      cost: { kind: 'amount', amount: '8', currency: 'CAD' },
      website: 'https://loft.example',
      eventStatus: 'cancelled',
      onlineAddress: '',
      contact: { name: '', phone: '555-0142', mail: '' },
      text: 'Two\nlines',
    });
    expect([item?.organizers, item?.categories]).toEqual([[{ name: 'Choir' }], ['Music', 'Sea']]);
    expect([item?.content.recurrence, item?.content.whenWords]).toEqual([undefined, '3 April 2027 at 7:30pm blah']);
    expect(item?.notes).toEqual([
      '“blah” was not understood.',
      'It comes without dates, with these words to mend.',
      '“not an address” is no online address and is left out.',
    ]);
    expect([costOf('Free', 'CAD'), costOf('12,50 EUR', 'CAD'), costOf('by the box', 'CAD'), costOf('', 'CAD')]).toEqual([
      { kind: 'free' },
      { kind: 'amount', amount: '12.50', currency: 'EUR' },
      { kind: 'words', words: 'by the box' },
      { kind: 'unsaid' },
    ]);
  });
  it('gives a row the same name each time, by its id or by what and when it is; doubles are two', () => {
    const text = 'Id;Title;Date\n7;A;2027-04-03\n;B;2027-04-03\n;B;2027-04-03';
    expect(read(text).items.map((item) => item.uid)).toEqual(['csv:7', 'csv:b|2027-04-03|', 'csv:b|2027-04-03|#2']);
    expect(read(text.replace('A;', 'A2;')).items[0]?.uid).toBe('csv:7');
  });
});

/** Written by us: each is one fault that people and programs make, and what is said of it. */
const MALFORMED: [name: string, text: string, said: RegExp][] = [
  ['no rows', 'Title;Date', /no row under its first line/],
  ['one column', 'Title\nA\nB', /nothing parts its columns/],
  ['words', 'just some words, and more\n', /no row/],
  ['no title', 'Date;Time\n2027-04-03;19:00', /No column of the table is a title/],
  ['no such date', 'Title;Date\nA;2027-02-30', /There is no date “2027-02-30”/],
  ['no such day', 'Title;Start date\nA;31/4/2027\nB;2027-05-01', /There is no date “31\/4\/2027”/],
  [
    'no such time',
    'Title;Date;Time\nA;2027-04-03;25:00\nB;2027-04-03;10:00\nC;2027-04-03;11:00\nD;2027-04-03;12:00',
    /There is no time “25:00”/,
  ],
  ['no date', 'Title;Date\nA;\nB;2027-04-03', /It does not say when it is/],
  ['no name', 'Title;Date\n;2027-04-03', /It has no title/],
  ['ends first', 'Title;Date;End date\nA;2027-04-03;2027-04-01', /It ends before it begins/],
  ['words without a date', 'Title;When\nA;soon', /were not understood: “soon”/],
  ['words with a slip', 'Title;When\nA;Tusdays 7pm', /“Tusdays” was not understood: write “Tuesdays”/],
  ['ambiguous words', 'Title;When\nA;on 3/4 at 19:00', /could be two dates: write/],
  ['weekday', 'Title;When\nA;Tuesday 18 March 2027', /is another weekday: write/],
  ['zone', 'Title;Date;Time zone\nA;2027-04-03;Kittiwick/Amble', /The time zone “Kittiwick\/Amble” is not known/],
  ['rule', 'Title;Date;Repeats\nA;2027-04-03;now and then', /How it repeats was not understood/],
  ['dense rule', 'Title;Date;Time;Repeats\nA;2027-04-03;10:00;FREQ=SECONDLY', /./],
  ['open quote', 'Title;Date\n"A;2027-04-03\nB;2027-04-04', /quotation mark is opened and never closed/],
];

describe('what of a table is easily lost', () => {
  const item = (text: string) => {
    const { items, unreadable } = read(text);
    if (!items[0]) throw new Error(JSON.stringify(unreadable));
    return items[0];
  };
  it('hours in columns of their own, beside days in words', () => {
    const recurrencePart = item('Title|Date|Start|End\nChoir|3 September 2027|8pm|11pm').content.recurrence?.parts[0];
    expect([recurrencePart?.start, recurrencePart?.length]).toEqual(['2027-09-03T20:00', { days: 0, minute: 1380 }]);
    const weekly = item('Title|Dates|Start time\nChoir|every Tuesday in May 2027|8pm').content.recurrence?.parts[0];
    expect(weekly?.start).toBe('2027-05-04T20:00');
  });
  it('cells too many and too few, and columns that mean nothing here, are named', () => {
    const text = 'Title,Date,Volunteers,Urn\nTea,2027-04-03,6\nSwap,2027-04-04,2,yes,more';
    const [tea, swap] = read(text).items.map((one) => one.notes.join(' '));
    expect(tea).toBe('The row has 3 cells where the first line has 4; the last ones are empty. Left out: Volunteers “6”.');
    expect(swap).toBe('The row has more cells than the first line; left out: “more”. Left out: Volunteers “2”, Urn “yes”.');
  });
  it('changed dates, as our own table says them', () => {
    const text = (changes: string) => `Title,When,Changed dates\nChoir,"every Tuesday 19:00 from 6 April 2027","${changes}"`;
    expect(
      item(
        text(
          'Tuesday 13 April 2027, 19:00 moves to Wednesday 14 April 2027, 20:00: A day later; Tuesday 20 April 2027, 19:00 is cancelled',
        ),
      ).content.changes,
    ).toEqual([
      { original: '2027-04-13T19:00', movedTo: '2027-04-14T20:00', length: null, eventStatus: null, note: 'A day later' },
      { original: '2027-04-20T19:00', movedTo: null, length: null, eventStatus: 'cancelled', note: '' },
    ]);
    const strange = item(text('all of April is off'));
    expect([strange.content.changes, strange.notes.join()]).toEqual([undefined, expect.stringContaining('“all of April is off”')]);
  });
  it('money of another country is not ours', () => {
    expect(costOf('€8', 'CAD')).toEqual({ kind: 'amount', amount: '8', currency: 'EUR' });
    expect(costOf('$8', 'EUR')).toEqual({ kind: 'words', words: '$8' });
    expect(costOf('8.50', 'CAD')).toEqual({ kind: 'amount', amount: '8.50', currency: 'CAD' });
  });
});

describe('malformed tables', () => {
  it.each(MALFORMED)('%s', (_name, text, said) => {
    let found: string;
    try {
      const { unreadable, items } = read(text);
      found = [...unreadable.map((u) => u.reason), ...items.flatMap((item) => item.notes)].join(' ');
      for (const { line } of unreadable) expect(line).toBeGreaterThan(0);
    } catch (error) {
      found = (error as Error).message;
    }
    expect(found).toMatch(said);
  });
  it('with too many columns or rows are refused, with wild cells survived', () => {
    expect(() => read(`${'a;'.repeat(150)}\n${'b;'.repeat(150)}`)).toThrow('more than 100 columns');
    expect(() => read(`Title;Date\n${'A;2027-04-03\n'.repeat(50_010)}`)).toThrow('more than 50,000 rows');
    const r = random(seed);
    for (let i = 0; i < 200; i++) {
      const cell = (): string => Array.from({ length: between(r, 0, 12) }, () => String.fromCharCode(between(r, 32, 260))).join('');
      const text = `Title;When;Date\n${Array.from({ length: 5 }, () => `${cell()};${cell()};${cell()}`).join('\n')}`;
      const { items, unreadable } = read(text);
      expect(items.length + unreadable.length).toBeGreaterThan(0);
    }
  });
});

describe(`a table of our own, seed ${seed}`, () => {
  it('is read again to the same dates, whatever the rule', () => {
    const r = random(seed);
    const blank = Object.fromEntries(CSV_COLUMNS.map((c) => [c, ''])) as Record<(typeof CSV_COLUMNS)[number], string>;
    const all = Array.from({ length: 400 }, (_, i): Recurrence => {
      let recurrencePart = generatePart(r, i % 4 ? generateRule(r) : generateFullRule(r));
      // A rule with times of its own leaves by its text, not in words.
      while (recurrencePart.rule && hasTimes(recurrencePart.rule)) recurrencePart = generatePart(r, generateFullRule(r));
      return { zone: ZONE, parts: [recurrencePart], exdates: [], breaks: [] };
    });
    const rows = all.map((recurrence, i) => ({
      ...blank,
      Id: String(i),
      Title: `=T${i}`,
      When: sayRecurrence(withOwnFirstDates(recurrence), STYLE, { whole: true, weekStart: 0 }),
      'Time zone': ZONE,
    }));
    const text = writeCsv(CSV_COLUMNS, rows);
    expect(text.startsWith('\uFEFFId,Title')).toBe(true);
    expect(text).toContain(`"'=T0"`.replaceAll('"', ''));
    const { items, unreadable } = read(text);
    expect(items[0]?.content.title).toBe('=T0');
    const back = new Map(items.map((item) => [item.uid, item.content.recurrence]));
    let compared = 0;
    for (const [i, recurrence] of all.entries()) {
      const again = back.get(`csv:${i}`);
      if (!again) continue;
      expect(datesOf(fromStored(again)), rows[i]?.When).toEqual(datesOf(recurrence));
      compared++;
    }
    // What comes back as unreadable is what a listing could not have: a date each minute, or none at all.
    expect(
      unreadable.every((u) => /no date|too often|many dates|48|day/i.test(u.reason)),
      JSON.stringify(unreadable.slice(0, 3)),
    ).toBe(true);
    expect(compared).toBeGreaterThan(300);
  });
});
