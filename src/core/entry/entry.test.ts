import { describe, expect, it } from 'vitest';
import { random } from '../../../tests/support/generate';
import { dayOf, isoDay } from '../day/day';
import { isoDateTime } from '../day/plain-date-time';
import { draftOf } from './drafts';
import { type LineSetting, LONGEST_LINE, readLine } from './read-line';
import { linesOf, MOST_LINES, readLines } from './read-lines';

const named = (list: string[]) => list.map((name) => ({ id: name, name }));
const setting: LineSetting = {
  now: { day: dayOf(2027, 3, 17), minute: 540 },
  zone: 'America/Halifax',
  weekStart: 0,
  style: { date: 'day-month', hours: '24' },
  currency: 'CAD',
  venues: named(['Gannet Bay Hall', 'St Bride’s Hall', 'Net Loft', 'Lantern Quay', 'Lantern Quay Workshop', 'Pilots’ House']),
  organizers: named(['Harbour Choir', 'Isles Skiff Club', 'The Mending Bench']),
  categories: named(['Music & dance', 'Choirs', 'Water & boats', 'Learn & make', 'Market & food']),
};
const read = (line: string) => {
  const r = readLine(line, setting);
  const first = r.recurrence?.parts[0];
  return [
    r.title,
    first ? isoDateTime(first.start) : null,
    r.venueId,
    r.cost.kind === 'amount' ? r.cost.amount : r.cost.kind,
    r.categoryId,
    r.organizerId,
  ];
};

describe('a listing in one line', () => {
  const cases: [string, (string | null)[]][] = [
    [
      'Choir practice tue 7pm at Gannet Bay Hall, free, music',
      ['Choir practice', '2027-03-23T19:00', 'Gannet Bay Hall', 'free', 'Music & dance', null],
    ],
    ['Seed Swap 3 April 10:00-12:00, Net Loft, $5, market', ['Seed Swap', '2027-04-03T10:00', 'Net Loft', '5', 'Market & food', null]],
    [
      'Knots for beginners every Thursday 19:30 at Lantern Quay Workshop by The Mending Bench',
      ['Knots for beginners', '2027-03-18T19:30', 'Lantern Quay Workshop', 'unsaid', null, 'The Mending Bench'],
    ],
    ['tomorrow 18:00 Rope Evening in the Net Loft', ['Rope Evening', '2027-03-18T18:00', 'Net Loft', 'unsaid', null, null]],
    ['“May Day Walk” 1 May 2027 at 9am', ['May Day Walk', '2027-05-01T09:00', null, 'unsaid', null, null]],
    [
      'Skiff rowing, sat 8am, Lantern Quay, 12.50, water',
      ['Skiff rowing', '2027-03-20T08:00', 'Lantern Quay', '12.50', 'Water & boats', null],
    ],
    ['Concert fri 20:00 at St Brdes Hall', ['Concert', '2027-03-19T20:00', 'St Bride’s Hall', 'unsaid', null, null]],
    ['Gluten-free baking sat 14:00', ['Gluten-free baking', '2027-03-20T14:00', null, 'unsaid', null, null]],
    ['Something without a date', ['Something without a date', null, null, 'unsaid', null, null]],
    ['', ['', null, null, 'unsaid', null, null]],
  ];
  for (const [line, parts] of cases) it(JSON.stringify(line), () => expect(read(line)).toEqual(parts));
  it('says which words it took for what, in their order and without overlapping', () => {
    const line = 'Choir practice tue 7pm at Gannet Bay Hall, free, music';
    const { parts } = readLine(line, setting);
    expect(parts.map((p) => [p.kind, p.text])).toEqual([
      ['title', 'Choir practice'],
      ['when', 'tue 7pm'],
      ['venue', 'at Gannet Bay Hall'],
      ['cost', 'free'],
      ['category', 'music'],
    ]);
    for (const [i, p] of parts.entries()) expect(p.from).toBeGreaterThanOrEqual(parts[i - 1]?.to ?? 0);
  });
  it.each([
    ['Choir practice tue 7pm at Old Barn, free, music', 'Choir practice', 'tue 7pm', 'Old Barn', '2027-03-23T19:00'],
    ['Choir practice, tue 7pm, at the old barn', 'Choir practice', 'tue 7pm', 'the old barn', '2027-03-23T19:00'],
    ['Picnic sat noon @ Stair Rocks', 'Picnic', 'sat noon', 'Stair Rocks', '2027-03-20T12:00'],
    ['“May Day Walk” 1 May 2027 at 9am at the Old Barn', 'May Day Walk', '1 May 2027 at 9am', 'the Old Barn', '2027-05-01T09:00'],
    // Before the dates it belongs to the title, and so it does where nothing else would be the title.
    ['Concert at the Proms fri 20:00', 'Concert at the Proms', 'fri 20:00', '', '2027-03-19T20:00'],
    ['Walk from Quay to Light sat 9am', 'Walk from Quay to Light', 'sat 9am', '', '2027-03-20T09:00'],
    ['tue 7pm at Old Barn', 'Old Barn', 'tue 7pm at', '', '2027-03-23T19:00'],
    ['Knots sat at 9am', 'Knots', 'sat at 9am', '', '2027-03-20T09:00'],
  ])('names a place that is not known yet: %s', (line, title, when, place, start) => {
    const r = readLine(line, setting);
    const first = r.recurrence?.parts[0];
    expect([r.title, r.when, r.place, first && isoDateTime(first.start), r.venueId]).toEqual([title, when, place, start, null]);
  });
  it('keeps colons and commas in a title, tells times from money, and does not take foreign money for ours', () => {
    const got = (line: string) => {
      const { title, when, cost } = readLine(line, setting);
      return [title, when, cost.kind === 'amount' ? `${cost.amount} ${cost.currency}` : cost.kind];
    };
    expect(got('Film night: The Long Haul, tue 7pm, $5')).toEqual(['Film night: The Long Haul', 'tue 7pm', '5 CAD']);
    expect(got('Nets, ropes and knots sat 8:00 am – 8:45 am')).toEqual(['Nets, ropes and knots', 'sat 8:00 am – 8:45 am', 'unsaid']);
    expect(got('Bread Talk sat 10.30-12, €5')).toEqual(['Bread Talk', 'sat 10.30-12', '5 EUR']);
    expect(got('Bread Talk sat 10am, 12.50')).toEqual(['Bread Talk', 'sat 10am', '12.50 CAD']);
    expect(got('Bread Talk sat 10.50')).toEqual(['Bread Talk', 'sat 10.50', 'unsaid']);
  });
  it('asks about a slip and about a day that is not said, and puts no date', () => {
    const asked = (line: string) => readLine(line, setting).problems.map(({ kind, text }) => `${kind} ${text}`);
    expect(asked('Choir Tusday 13 April 7pm')).toEqual(['not-understood Tusday']);
    expect(readLine('Choir Tusday 13 April 7pm', setting)).toMatchObject({ title: 'Choir', when: 'Tusday 13 April 7pm', recurrence: null });
    expect(asked('Rope Evening 18:00')).toEqual(['no-day 18:00']);
    expect(draftOf(readLine('Choir Tusday 13 April 7pm', setting))).toMatchObject({ recurrence: null, whenWords: 'Tusday 13 April 7pm' });
  });
  it('is put together from known parts in any order, and taken apart again', () => {
    const r = random(2027);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)] as T;
    let wrong = 0;
    for (let n = 0; n < 300; n++) {
      const title = pick(['Choir practice', 'Seed Swap', 'Story Hour', 'Bread Evening']);
      const venue = pick(setting.venues);
      const day = setting.now.day + 1 + Math.floor(r() * 200);
      const hour = 8 + Math.floor(r() * 13);
      const when = `${isoDay(day)} ${hour}:00`;
      const cost = pick(['free', '$8']);
      const pieces = [`${when} at ${venue.name}`, cost, 'music'].sort(() => r() - 0.5);
      const got = readLine(`${title}, ${pieces.join(', ')}`, setting);
      const start = got.recurrence?.parts[0]?.start;
      if (
        got.title !== title ||
        got.venueId !== venue.id ||
        !start ||
        isoDateTime(start) !== `${isoDay(day)}T${String(hour).padStart(2, '0')}:00` ||
        got.categoryId !== 'Music & dance' ||
        got.cost.kind === 'unsaid'
      )
        wrong++;
    }
    expect(wrong).toBe(0);
  });
  it('is bounded, whatever is typed', () => {
    for (const line of ['x'.repeat(5000), '$'.repeat(400), ', '.repeat(300), '“'.repeat(200), '\u0000\u202e'.repeat(50)])
      expect(readLine(line, setting).title.length).toBeLessThanOrEqual(LONGEST_LINE);
  });
});

describe('many lines', () => {
  const starts = (text: string) =>
    readLines(text, setting).map((row) => [
      row.title,
      row.recurrence?.parts[0] ? isoDateTime(row.recurrence.parts[0].start) : null,
      row.cascaded,
      row.likely,
    ]);
  it('take their day from the heading or the row before, and begin where that ended', () => {
    expect(starts('Saturday 3 April:\n10:00-11:00 Doors open\n11:30 Bread Talk\nTea\nSunday 4 April 9:00 Shore Walk')).toEqual([
      ['Doors open', '2027-04-03T10:00', true, true],
      ['Bread Talk', '2027-04-03T11:30', true, true],
      ['Tea', '2027-04-03T12:30', true, true],
      ['Shore Walk', '2027-04-04T09:00', false, true],
    ]);
  });
  it('take their place from a heading or the programme above, until one names another', () => {
    const places = (text: string) => readLines(text, setting).map((row) => [row.title, row.venueId, row.placeCascaded]);
    expect(places('Saturday 3 April at Net Loft\n2pm Knots\n3pm Splices at Pilots House\n4pm Tea\nSunday 4 April 9:00 Shore Walk')).toEqual(
      [
        ['Knots', 'Net Loft', true],
        ['Splices', 'Pilots’ House', false],
        ['Tea', 'Pilots’ House', true],
        ['Shore Walk', null, false],
      ],
    );
    // A line whose own day is in question takes neither, and gives none to those behind it.
    expect(places('Saturday 3 April at Net Loft\n2pm Knots\nChoir Tusday 13 April 7pm\n18:00 Rope Evening')).toEqual([
      ['Knots', 'Net Loft', true],
      ['Choir', null, false],
      ['Rope Evening', null, false],
    ]);
    expect(places('Saturday 3 April\nNet Loft:\n2pm Knots')).toEqual([['Knots', 'Net Loft', true]]);
  });
  it('of a mail leave greetings, quotation marks and signatures out', () => {
    const mail =
      'Hi Ivo,\n\n> * Seed Swap 3 April 10:00\n> - Story Hour 4 April 15:00 at Pilots House\nthe rest comes later\n\nThanks\n-- \nHester Quill, tue 7pm';
    expect(linesOf(mail)).toEqual(['Seed Swap 3 April 10:00', 'Story Hour 4 April 15:00 at Pilots House', 'the rest comes later']);
    expect(readLines(mail, setting).map((r) => r.venueId)).toEqual([null, 'Pilots’ House', null]);
  });
  it('are bounded in number', () => expect(readLines('Walk 3 April 10:00\n'.repeat(500), setting)).toHaveLength(MOST_LINES));
});
