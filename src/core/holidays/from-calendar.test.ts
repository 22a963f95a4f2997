import { describe, expect, it } from 'vitest';
import { readIcal } from '../exchange/read-ical';
import { linesOfCalendar } from './from-calendar';
import { readHolidayLines, sayHolidayLines } from './holiday-lines';

const file = (...events: string[]): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Isles//EN',
    ...events.map((lines, i) => `BEGIN:VEVENT\nUID:${i}@isles.example\nDTSTAMP:20270101T000000Z\n${lines}\nEND:VEVENT`),
    'END:VCALENDAR',
  ].join('\n');
const read = (...events: string[]) =>
  linesOfCalendar(readIcal(file(...events), { siteZone: 'America/Halifax', chosen: new Map(), candidates: [] }).events);

describe('a calendar of holidays', () => {
  it('gives a line for each of its days and spans, once or every year', () => {
    const { lines, left } = read(
      'SUMMARY:Bridge opening\nDTSTART;VALUE=DATE:20270606\nDTEND;VALUE=DATE:20270607',
      'SUMMARY:Spring break\nDTSTART;VALUE=DATE:20271229\nDTEND;VALUE=DATE:20280103',
      'SUMMARY:Harbour Day\nDTSTART;VALUE=DATE:20260317\nRRULE:FREQ=YEARLY',
      'SUMMARY:Lamp Sunday\nDTSTART;VALUE=DATE:20261025\nRRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU;UNTIL=20301231',
    );
    expect(left).toEqual([]);
    expect(sayHolidayLines(lines).split('\n')).toEqual([
      '6 June 2027 Bridge opening',
      '29 December 2027 to 2 January 2028 Spring break',
      '17 March Harbour Day from 2026',
      'last Sunday in October Lamp Sunday from 2026 to 2030',
    ]);
    expect(readHolidayLines(sayHolidayLines(lines)).rules).toEqual(lines.map((line) => JSON.parse(JSON.stringify(line))));
  });

  it('names what no line can say', () => {
    const { lines, left } = read(
      'SUMMARY:Council\nDTSTART:20270606T190000',
      'SUMMARY:Bins\nDTSTART;VALUE=DATE:20270601\nRRULE:FREQ=WEEKLY',
      'SUMMARY:Thrice\nDTSTART;VALUE=DATE:20270601\nRRULE:FREQ=YEARLY;COUNT=3',
      'SUMMARY:Leap year meeting\nDTSTART;VALUE=DATE:20280229\nRRULE:FREQ=YEARLY;INTERVAL=4',
    );
    expect([lines, left]).toEqual([[], ['Council', 'Bins', 'Thrice', 'Leap year meeting']]);
  });

  it('leaves out, whole, what its line would say otherwise or cut', () => {
    const { lines, left } = read(
      'SUMMARY:Lamp Fair until 2030\nDTSTART;VALUE=DATE:20270606',
      `SUMMARY:${'Long '.repeat(13)}Day\nDTSTART;VALUE=DATE:20270606`,
      'SUMMARY:1998\nDTSTART;VALUE=DATE:20270606',
      'SUMMARY:Two\\nlines\nDTSTART;VALUE=DATE:20270606',
    );
    expect(sayHolidayLines(lines)).toBe('6 June 2027 Two lines');
    expect(left.map((title) => title.slice(0, 9))).toEqual(['Lamp Fair', 'Long Long', '1998']);
  });
});
