import { describe, expect, it } from 'vitest';
import { demoListings } from '#demo/listings';
import { generateFullRule, generateRule, generatePart, random, seedOf } from '../../../tests/support/generate';
import { dayOf } from '../day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { startFits } from '../recurrence/days';
import { expand } from '../recurrence/expand';
import type { DateChange, Recurrence } from '../recurrence/model';
import { isTooDense } from '../recurrence/problems';
import { changesFromStored, fromStored } from '../recurrence/stored';
import { decode } from './decode';
import { writeIcal } from './ical';
import { FileError, type ReadFile, readIcal } from './read-ical';

const ZONE = 'America/Halifax';
const TODAY = dayOf(2027, 3, 17);
const HORIZON = TODAY + 1100;
const CANDIDATES = ['America/New_York', 'Europe/Berlin', 'Europe/Dublin', 'Australia/Sydney', 'Asia/Tokyo'];
const read = (text: string, chosen: [string, string][] = []): ReadFile =>
  readIcal(text, { siteZone: ZONE, chosen: new Map(chosen), candidates: CANDIDATES });
const file = (...lines: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]): string[] => ['BEGIN:VEVENT', 'UID:a@almanac.example', 'SUMMARY:Low-tide Walk', ...lines, 'END:VEVENT'];
const one = (...lines: string[]) => {
  const { events, unreadable } = read(file(...event(...lines)));
  if (!events[0]) throw new Error(JSON.stringify(unreadable));
  return events[0];
};
const datesOf = (recurrence: Recurrence, changes: DateChange[]): string[] => {
  const from = Math.min(...recurrence.parts.map((s) => s.start.day));
  return expand(recurrence, changes, from, HORIZON).map(
    (o) => `${isoDateTime(o.original)}>${isoDateTime(o.start)}/${o.end ? isoDateTime(o.end) : ''} ${o.eventStatus ?? ''}`,
  );
};
const w = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;

const write = (uid: string, recurrence: Recurrence, changes: DateChange[]): string =>
  writeIcal({
    name: 'Almanac',
    url: 'https://almanac.example',
    horizon: HORIZON,
    listings: [
      {
        uid,
        sequence: 4,
        created: 0,
        changed: 0,
        title: 'Walk; with, signs\\',
        description: 'One\n\nTwo',
        url: 'https://almanac.example/what/walk',
        location: 'Net Loft',
        categories: ['Walks', 'Wild'],
        eventStatus: 'going-ahead',
        recurrence,
        changes,
      },
    ],
  });

describe('what a file says that cannot be kept costs a note, not the event', () => {
  const notes = (...lines: string[]) => one('DTSTART;TZID=America/Halifax:20270321T074000', ...lines).notes.join(' ');
  it('a line without a colon, an unknown status, a dropped address, a length below nothing', () => {
    expect(notes('this is no line')).toMatch(/“this is no line” cannot be read/);
    expect(notes('STATUS:MAYBE')).toMatch(/“MAYBE” is no status/);
    expect(notes('URL:javascript:alert(1)')).toMatch(/“javascript:alert\(1\)” is left out/);
    expect(notes('DURATION:-PT1H')).toMatch(/less than nothing/);
    expect(notes(`DESCRIPTION:${'x'.repeat(60_010)}`)).toMatch(/longer than 60,000 characters/);
  });
  it('rules in small letters are read, signs in HTML come back, and a file that calls off says cancelled', () => {
    const small = one('DTSTART;TZID=America/Halifax:20270321T074000', 'RRULE:freq=weekly;count=3');
    expect(small.recurrence.parts[0]?.limit).toEqual({ kind: 'count', count: 3 });
    const html = one('DTSTART:20270321T074000', 'X-ALT-DESC;FMTTYPE=text/html:<p>Nets\\, ropes\\; tea\\nat six</p>');
    expect(html.description).toBe('<p>Nets, ropes; tea\nat six</p>');
    const off = read(file('METHOD:CANCEL', ...event('DTSTART:20270321T074000')));
    expect(off.events[0]?.eventStatus).toBe('cancelled');
  });
  it('without a UID they are known by what, when and where, and two alike are two', () => {
    const bare = (title: string) => ['BEGIN:VEVENT', `SUMMARY:${title}`, 'DTSTART:20270321T074000', 'END:VEVENT'];
    const { events } = read(file(...bare('Walk'), ...bare('Swim'), ...bare('Walk')));
    expect(new Set(events.map((e) => e.uid)).size).toBe(3);
    expect(events[0]?.notes.join()).toMatch(/no UID/);
  });
  it('folds that cut a letter in two are put right', () => {
    const bytes = new TextEncoder().encode('SUMMARY:Caf\u00e9');
    const cut = Uint8Array.from([...bytes.slice(0, -1), 13, 10, 32, ...bytes.slice(-1)]);
    expect(decode(cut)).toEqual({ text: 'SUMMARY:Caf\u00e9', encoding: 'UTF-8' });
  });
});

describe('what was written is read again', () => {
  it('as the same dates, ends, moves and cancellations, for every listing of the demo', () => {
    let changed = 0;
    for (const demo of demoListings(TODAY)) {
      const recurrence = fromStored({
        format: 3,
        zone: ZONE,
        parts: demo.when,
        exdates: demo.exdates ?? [],
        breaks: demo.breaks ?? [],
      });
      const changes = changesFromStored(demo.changes ?? []);
      const { events, unreadable } = read(write('0190@almanac.example', recurrence, changes));
      expect(unreadable).toEqual([]);
      expect(events).toHaveLength(1);
      const again = events[0];
      if (!again) continue;
      // A date of its own that is called off says so as the event's own status; one that is moved has its new time.
      const alone = changes.length === 1 && recurrence.parts.length === 1 && !recurrence.parts[0]?.rule;
      const bare = (list: string[]) => (alone ? list.map((line) => line.replace(/^[^>]*>/, '')) : list);
      const back = datesOf(again.recurrence, again.changes).map((line) =>
        alone && again.eventStatus !== 'going-ahead' ? `${line}${again.eventStatus}` : line,
      );
      expect(bare(back), demo.title).toEqual(bare(datesOf(recurrence, changes)));
      changed += again.changes.length;
    }
    expect(changed).toBeGreaterThan(2);
  });

  it(`for generated listings with all parts of rules, seed ${seedOf()}`, () => {
    const r = random(seedOf() + 9);
    let full = 0;
    for (let n = 0; n < 200 || full < 12; ) {
      const wanted = r() < 0.8 ? generateFullRule(r) : generateRule(r);
      const recurrencePart = generatePart(r, wanted);
      recurrencePart.start = { day: TODAY + Math.floor(r() * 200), minute: recurrencePart.start.minute };
      if (recurrencePart.limit.kind === 'until') recurrencePart.limit = { kind: 'until', day: recurrencePart.start.day + 300 };
      if (!recurrencePart.rule || recurrencePart.rule.bySecond || (recurrencePart.start.minute === null && wanted.byHour)) continue;
      if (['secondly', 'minutely', 'hourly'].includes(wanted.freq) && recurrencePart.start.minute === null) continue;
      if (recurrencePart.rule.bySetPos && recurrencePart.start.minute === null) continue;
      if (isTooDense(recurrencePart) || !startFits(recurrencePart)) continue;
      const base: Recurrence = {
        zone: ZONE,
        parts: [recurrencePart, { start: w('2027-07-01T10:00'), length: { days: 0, minute: 700 }, rule: null, limit: { kind: 'open' } }],
        exdates: [],
        breaks: [],
      };
      if (recurrencePart.start.minute === null) base.parts.pop();
      const all = expand(base, [], recurrencePart.start.day, HORIZON).slice(0, 400);
      base.exdates = all.filter(() => r() < 0.05).map((o) => o.original);
      const kept = expand(base, [], recurrencePart.start.day, HORIZON).slice(0, 400);
      const changes: DateChange[] = kept
        .filter(() => r() < 0.05)
        .map((o) => ({
          original: o.original,
          movedTo: r() < 0.6 ? { day: o.original.day + 2, minute: o.original.minute } : null,
          length: null,
          eventStatus: r() < 0.5 ? 'cancelled' : null,
          note: '',
        }));
      const real = changes.filter((c) => c.movedTo || c.eventStatus);
      const text = write('0190@almanac.example', base, real);
      const again = read(text).events[0];
      if (!again) throw new Error(text);
      expect(datesOf(again.recurrence, again.changes), text).toEqual(datesOf(base, real));
      if (wanted.byHour || wanted.bySetPos || wanted.byYearDay || wanted.byWeekNo) full++;
      n++;
    }
    expect(full).toBeGreaterThanOrEqual(12);
  });
});

describe('times and zones', () => {
  it('floating, UTC, named, and named with a path before the name', () => {
    expect(isoDateTime(one('DTSTART:20270321T074000').recurrence.parts[0]?.start ?? w('1970-01-01'))).toBe('2027-03-21T07:40');
    expect(isoDateTime(one('DTSTART:20270321T104000Z').recurrence.parts[0]?.start ?? w('1970-01-01'))).toBe('2027-03-21T07:40');
    const rule = one('DTSTART:20270321T104000Z', 'RRULE:FREQ=WEEKLY;COUNT=3').recurrence;
    expect([rule.zone, isoDateTime(rule.parts[0]?.start ?? w('1970-01-01'))]).toEqual(['UTC', '2027-03-21T10:40']);
    expect(one('DTSTART;TZID=Europe/Dublin:20270321T074000').recurrence.zone).toBe('Europe/Dublin');
    expect(one('DTSTART;TZID=/example.org/2007/Europe/Dublin:20270321T074000').recurrence.zone).toBe('Europe/Dublin');
  });

  it('of unknown names by their rules, else they are asked for, and taken as chosen', () => {
    const zone = (name: string, from: string, to: string, summer: boolean): string[] => [
      'BEGIN:VTIMEZONE',
      `TZID:${name}`,
      'BEGIN:STANDARD',
      'DTSTART:20071104T020000',
      ...(summer ? ['RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU'] : []),
      `TZOFFSETFROM:${to}`,
      `TZOFFSETTO:${from}`,
      'END:STANDARD',
      ...(summer
        ? [
            'BEGIN:DAYLIGHT',
            'DTSTART:20070311T020000',
            'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU',
            `TZOFFSETFROM:${from}`,
            `TZOFFSETTO:${to}`,
            'END:DAYLIGHT',
          ]
        : []),
      'END:VTIMEZONE',
    ];
    const at = (name: string): string[] => event(`DTSTART;TZID="${name}":20270321T074000`);
    const atlantic = read(file(...zone('Atlantic Standard Time', '-0400', '-0300', true), ...at('Atlantic Standard Time')));
    expect([atlantic.events[0]?.recurrence.zone, atlantic.unknownZones]).toEqual([ZONE, []]);
    const eastern = read(file(...zone('Eastern', '-0500', '-0400', true), ...at('Eastern')));
    expect(eastern.events[0]?.recurrence.zone).toBe('America/New_York');
    const odd = file(...zone('Moon Base', '+0217', '+0217', false), ...at('Moon Base'));
    // Its rules are in the file: 07:40 there is 05:23 in UTC, and that is said.
    const [own] = read(odd).events;
    expect([own?.recurrence.zone, own?.recurrence.parts[0]?.start, own?.notes.length]).toEqual([ZONE, { day: 20898, minute: 143 }, 1]);
    const bare = file(...at('Moon Base'));
    expect([read(bare).unknownZones, read(bare).events.length, read(bare).unreadable[0]?.reason]).toEqual([
      ['Moon Base'],
      0,
      expect.stringMatching(/time zone “Moon Base” is not known/),
    ]);
    expect(read(file(...at('Tokyo Standard Time'))).events[0]?.recurrence.zone).toBe('Asia/Tokyo');
    expect(read(odd, [['Moon Base', 'Asia/Tokyo']]).events[0]?.recurrence.zone).toBe('Asia/Tokyo');
  });

  it('ends by DTEND, DURATION or neither, several days, and all day', () => {
    const length = (...lines: string[]) => one(...lines).recurrence.parts[0]?.length;
    expect(length('DTSTART:20270321T200000', 'DTEND:20270322T010000')).toEqual({ days: 1, minute: 60 });
    expect(length('DTSTART:20270321T200000', 'DURATION:PT90M')).toEqual({ days: 0, minute: 1290 });
    expect(length('DTSTART:20270321T200000')).toBeNull();
    expect(length('DTSTART;VALUE=DATE:20270321', 'DTEND;VALUE=DATE:20270324')).toEqual({ days: 3, minute: null });
    expect(length('DTSTART;VALUE=DATE:20270321')).toEqual({ days: 1, minute: null });
    expect(one('DTSTART:20270321T200000', 'DTEND:20270321T190000').notes).toEqual(['It ends before it starts; its end is left aside.']);
  });
});

describe('dates that differ', () => {
  const weekly = [
    'DTSTART;TZID=America/Halifax:20270302T190000',
    'DTEND;TZID=America/Halifax:20270302T210000',
    'RRULE:FREQ=WEEKLY;COUNT=5',
  ];
  const other = (...lines: string[]): string[] => [
    'BEGIN:VEVENT',
    'UID:a@almanac.example',
    'SUMMARY:Low-tide Walk',
    ...lines,
    'END:VEVENT',
  ];
  it('moved, longer, cancelled, left out, added, with a period', () => {
    const { events } = read(
      file(
        ...event(
          ...weekly,
          'EXDATE;TZID=America/Halifax:20270309T190000',
          'RDATE;VALUE=PERIOD;TZID=America/Halifax:20270401T100000/PT3H',
          'RDATE:20270402T130000Z',
        ),
        ...other(
          'RECURRENCE-ID;TZID=America/Halifax:20270316T190000',
          'DTSTART;TZID=America/Halifax:20270317T200000',
          'DTEND;TZID=America/Halifax:20270317T220000',
        ),
        ...other('RECURRENCE-ID:20270323T220000Z', 'DTSTART:20270323T220000Z', 'STATUS:CANCELLED'),
        ...other(
          'RECURRENCE-ID;VALUE=DATE:20270330',
          'DTSTART;TZID=America/Halifax:20270330T190000',
          'DTEND;TZID=America/Halifax:20270330T230000',
          'SUMMARY:Long one',
        ),
      ),
    );
    const [walk] = events;
    if (!walk) throw new Error('not read');
    expect(datesOf(walk.recurrence, walk.changes)).toEqual([
      '2027-03-02T19:00>2027-03-02T19:00/2027-03-02T21:00 ',
      '2027-03-16T19:00>2027-03-17T20:00/2027-03-17T22:00 ',
      '2027-03-23T19:00>2027-03-23T19:00/ cancelled'.replace('/ ', '/2027-03-23T21:00 '),
      '2027-03-30T19:00>2027-03-30T19:00/2027-03-30T23:00 ',
      '2027-04-01T10:00>2027-04-01T10:00/2027-04-01T13:00 ',
      '2027-04-02T10:00>2027-04-02T10:00/2027-04-02T12:00 ',
    ]);
  });
  it('a day left out of a timed rule takes that day’s date; a change of no date is noted', () => {
    const out = one(...weekly, 'EXDATE;VALUE=DATE:20270309');
    expect(out.recurrence.exdates.map(isoDateTime)).toEqual(['2027-03-09T19:00']);
    const { events } = read(file(...event(...weekly), ...other('RECURRENCE-ID:20270310T190000Z', 'DTSTART:20270311T190000Z')));
    expect(events[0]?.notes[0]).toContain('belongs to no date of the rule');
    const alone = read(file(...other('RECURRENCE-ID:20270310T190000Z', 'DTSTART:20270311T190000Z'))).events[0];
    expect(alone?.notes[0]).toContain('not in the file');
  });
  it('the higher SEQUENCE counts when a file has an event twice', () => {
    const { events } = read(
      file(
        ...event('DTSTART:20270321T200000', 'SEQUENCE:1'),
        ...event('DTSTART:20270322T200000', 'SEQUENCE:3'),
        ...event('DTSTART:20270323T200000', 'SEQUENCE:2'),
      ),
    );
    expect(events.map((e) => isoDateTime(e.recurrence.parts[0]?.start ?? w('1970-01-01')))).toEqual(['2027-03-22T20:00']);
  });
});

describe('the rest of an event', () => {
  it('is read with its signs, folded lines, HTML, place, people, categories and attachments', () => {
    const walk = one(
      'DTSTART:20270321T074000',
      'DESCRIPTION:Bring boots\\, coats\\;\\nand',
      '  time.',
      'X-ALT-DESC;FMTTYPE=text/html:<p>Bring <b>boots</b></p><script>x</script>',
      'LOCATION:Causeway Slip\\, Gannet Bay',
      'GEO:43.12;-57.4',
      'ORGANIZER;CN="Shore Wardens":mailto:wardens@almanac.example',
      'CATEGORIES:Walks,Wild & outdoors',
      'CATEGORIES:Free',
      'URL:javascript:alert(1)',
      'ATTACH:https://pictures.example/a.png',
      'ATTACH;ENCODING=BASE64;VALUE=BINARY:AAAA',
      'STATUS:CANCELLED',
      'SEQUENCE:7',
    );
    expect(walk).toMatchObject({
      title: 'Low-tide Walk',
      html: true,
      location: 'Causeway Slip, Gannet Bay',
      point: { lat: 43.12, lng: -57.4 },
      organizer: { name: 'Shore Wardens', mail: 'wardens@almanac.example' },
      categories: ['Walks', 'Wild & outdoors', 'Free'],
      url: '',
      attachments: ['https://pictures.example/a.png'],
      eventStatus: 'cancelled',
      sequence: 7,
    });
    expect(one('DTSTART:20270321T074000', 'DESCRIPTION:Bring boots\\, coats\\;\\nand', '  time.').description).toBe(
      'Bring boots, coats;\nand time.',
    );
  });

  it('keeps parts of rules that forms do not show', () => {
    const rule = one('DTSTART:20270331T090000', 'RRULE:FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1;BYHOUR=9,14').recurrence.parts[0]
      ?.rule;
    expect(rule).toMatchObject({ bySetPos: [-1], byHour: [9, 14] });
  });

  it('comes in Latin-1, with a byte order mark, in UTF-16', () => {
    const text = file(...event('DTSTART:20270321T074000', 'LOCATION:Café Mühle'));
    const utf16 = new Uint8Array([0xff, 0xfe, ...[...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])]);
    const latin = Uint8Array.from(text, (c) => c.charCodeAt(0));
    const marked = new TextEncoder().encode(`\ufeff${text}`);
    const big = Uint8Array.from(utf16, (_, i) => utf16[i ^ 1] as number);
    for (const [bytes, encoding] of [
      [utf16, 'UTF-16'],
      [big, 'UTF-16'],
      // Without their marks.
      [utf16.slice(2), 'UTF-16'],
      [big.slice(2), 'UTF-16'],
      [latin, 'windows-1252'],
      [marked, 'UTF-8'],
    ] as const) {
      const decoded = decode(bytes);
      expect(decoded.encoding).toBe(encoding);
      expect(read(decoded.text).events[0]?.location).toBe('Café Mühle');
    }
    // A NUL that strayed into a file does not stay in a title.
    expect(decode(new TextEncoder().encode('Café\0 Mühle, Gannet Bay')).text).toBe('Café Mühle, Gannet Bay');
  });
});

describe('what cannot be read', () => {
  /** what is wrong, the lines of an event, what the reason names */
  const BROKEN: [string, string[], RegExp][] = [
    ['no start', ['LOCATION:Net Loft'], /DTSTART/],
    ['an empty start', ['DTSTART:'], /DTSTART|date/i],
    ['a start that is no date', ['DTSTART:tomorrow'], /./],
    ['30 February', ['DTSTART;VALUE=DATE:20270230'], /no date “2027-02-30”/],
    ['a 25th hour', ['DTSTART:20270321T250000'], /no time/],
    ['a 61st minute', ['DTSTART:20270321T076100'], /no time/],
    ['a 13th month', ['DTSTART:20271321T074000'], /no date/],
    ['year zero day zero', ['DTSTART:00000000T000000'], /no date/],
    ['an end that is no date', ['DTSTART:20270321T074000', 'DTEND:20270399T074000'], /no date/],
    ['no frequency', ['DTSTART:20270321T074000', 'RRULE:INTERVAL=2'], /./],
    ['an unknown frequency', ['DTSTART:20270321T074000', 'RRULE:FREQ=OFTEN'], /FREQ/i],
    ['interval 0', ['DTSTART:20270321T074000', 'RRULE:FREQ=DAILY;INTERVAL=0'], /./],
    ['an interval in words', ['DTSTART:20270321T074000', 'RRULE:FREQ=DAILY;INTERVAL=two'], /./],
    ['a 13th month in a rule', ['DTSTART:20270321T074000', 'RRULE:FREQ=YEARLY;BYMONTH=13'], /BYMONTH/i],
    ['a 32nd day', ['DTSTART:20270321T074000', 'RRULE:FREQ=MONTHLY;BYMONTHDAY=32'], /BYMONTHDAY/i],
    ['a weekday of no name', ['DTSTART:20270321T074000', 'RRULE:FREQ=WEEKLY;BYDAY=XX'], /./],
    ['a numbered weekday by the week', ['DTSTART:20270321T074000', 'RRULE:FREQ=WEEKLY;BYDAY=2MO'], /BYDAY/],
    ['COUNT and UNTIL', ['DTSTART:20270321T074000', 'RRULE:FREQ=DAILY;COUNT=2;UNTIL=20270401'], /UNTIL/],
    ['a day of the month by the week', ['DTSTART:20270321T074000', 'RRULE:FREQ=WEEKLY;BYMONTHDAY=3'], /BYMONTHDAY/],
    ['week numbers by the month', ['DTSTART:20270321T074000', 'RRULE:FREQ=MONTHLY;BYWEEKNO=3'], /BYWEEKNO/],
    ['BYSETPOS alone', ['DTSTART:20270321T074000', 'RRULE:FREQ=DAILY;BYSETPOS=1'], /BYSETPOS/],
    ['a date each second', ['DTSTART:20270321T074000', 'RRULE:FREQ=SECONDLY'], /at most 48 dates a day/],
    ['hours on a whole day', ['DTSTART;VALUE=DATE:20270321', 'RRULE:FREQ=HOURLY'], /time of day/],
    ['a left-out date that is none', ['DTSTART:20270321T074000', 'RRULE:FREQ=DAILY', 'EXDATE:20270231T074000'], /no date/],
    ['a further date that is none', ['DTSTART:20270321T074000', 'RDATE:20270231T074000'], /no date/],
    ['a duration that is none', ['DTSTART:20270321T074000', 'DURATION:two hours'], /./],
    ['a changed date that is none', ['DTSTART:20270321T074000', 'RECURRENCE-ID:20270231T074000'], /no date/],
    ['a quote that never ends', ['DTSTART;TZID="Europe:20270321T074000'], /./],
  ];
  const good = ['BEGIN:VEVENT', 'UID:good@almanac.example', 'SUMMARY:Good one', 'DTSTART:20270321T074000', 'END:VEVENT'];
  it.each(BROKEN)('%s: the line and the reason are said, and the next event is read', (_, lines, reason) => {
    const { events, unreadable } = read(file(...event(...lines), ...good));
    expect(unreadable).toHaveLength(1);
    expect(unreadable[0]).toMatchObject({ line: 4, title: 'Low-tide Walk' });
    expect(unreadable[0]?.reason).toMatch(reason);
    expect(unreadable[0]?.reason).toMatch(/[.!?]$/);
    expect(events.map((e) => e.title)).toEqual(['Good one']);
  });

  it('a file that breaks off, an event inside an event, no end, and what is no calendar at all', () => {
    const cut = read(['BEGIN:VCALENDAR', ...good, 'BEGIN:VEVENT', 'SUMMARY:Cut off', 'DTST'].join('\r\n'));
    expect(cut.events).toHaveLength(1);
    expect(cut.unreadable).toEqual([{ line: 7, title: 'Cut off', reason: 'The file ends inside of it.' }]);
    const nested = read(['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'SUMMARY:Open', ...good, 'END:VCALENDAR'].join('\n'));
    expect([nested.events.length, nested.unreadable[0]?.reason]).toEqual([1, 'It has no END:VEVENT before line 4.']);
    for (const text of ['', 'hello', '<html></html>', '{"a":1}', 'BEGIN:VCARD\r\nEND:VCARD', '\u0000\u0001'])
      expect(() => read(text), text).toThrow(FileError);
    expect(read(file()).events).toEqual([]);
  });
});
