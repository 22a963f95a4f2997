import { describe, expect, it } from 'vitest';
import { random as randomOf } from '../../../tests/support/generate';
import { dayOf, weekdayOf } from '../day/day';
import { sayTimes, type Style, WEEKDAYS } from '../phrase/format';
import { IN_ENGLISH, type OpeningHours, openFor, readHours, readSpans, sayHours, sayHoursOn, type Span, spansText } from './hours';
import { sharesSpace, whyNoRoom } from './rooms';

const MONDAY = dayOf(2027, 3, 15);

describe('opening hours', () => {
  it('are read as people write them', () => {
    const cases: [string, Span[]][] = [
      ['9-17', [[540, 1020]]],
      [
        '9:00–12:30, 14:00–18:00',
        [
          [540, 750],
          [840, 1080],
        ],
      ],
      ['10am to 4pm', [[600, 960]]],
      ['7pm until 2am', [[1140, 1560]]],
      ['20:00-24:00', [[1200, 1440]]],
      ['8 to midnight', [[480, 1440]]],
      ['all day', [[0, 1440]]],
      ['closed', []],
      ['', []],
    ];
    for (const [text, spans] of cases) expect([text, readSpans(text)]).toEqual([text, spans]);
  });
  it('say what is wrong', () => {
    for (const text of ['9', 'nine-ish', '9:00-9:00', '9-12, 11-14', '9-10,'.repeat(9), '25-26', '9-12-15'])
      expect([text, typeof readSpans(text)]).toEqual([text, 'string']);
    expect(readHours(['9-17', 'soon', '', '', '', '', '']).problems).toEqual([{ weekday: 1, message: expect.stringContaining('“soon”') }]);
    expect(readHours(['', '', ' ', '', '', '', ''])).toEqual({ hours: null, problems: [] });
  });
  it('are written so that they are read again as the same', () => {
    const random = randomOf(31);
    for (let n = 0; n < 400; n++) {
      const cuts = [...new Set(Array.from({ length: 2 + 2 * Math.floor(random() * 2) }, () => Math.floor(random() * 96) * 15))].sort(
        (a, b) => a - b,
      );
      const spans: Span[] = [];
      for (let i = 0; i + 1 < cuts.length; i += 2) spans.push([cuts[i] as number, cuts[i + 1] as number]);
      expect([spansText(spans), readSpans(spansText(spans))]).toEqual([spansText(spans), spans]);
    }
    expect(readSpans(spansText([[1200, 1560]]))).toEqual([[1200, 1560]]);
  });
  it('are said with like days together', () => {
    const { hours } = readHours(['9-17', '9-17', '9-17', '9-17', '9-20', '', '']);
    expect(sayHours(hours as OpeningHours, WEEKDAYS)).toEqual([
      { days: 'Monday to Thursday', hours: '09:00–17:00' },
      { days: 'Friday', hours: '09:00–20:00' },
      { days: 'Saturday and Sunday', hours: 'closed' },
    ]);
  });
  it('are said by the clock of whoever reads them', () => {
    const { hours } = readHours(['9-17', '20:00-02:00', 'all day', '9-12, 14-24', '', '', '']);
    const said = (style: Style) =>
      sayHours(hours as OpeningHours, WEEKDAYS, { ...IN_ENGLISH, times: (from, to) => sayTimes(from, to, style) });
    expect(said({ hours: '12', date: 'day-month', language: 'en' }).map((line) => line.hours)).toEqual([
      '9 am–5 pm',
      '8 pm–2 am',
      'all day',
      '9 am–noon, 2 pm–midnight',
      'closed',
    ]);
    expect(said({ hours: '24', date: 'day-month', language: 'fr' })[0]?.hours).toMatch(/^9\sh–17\sh$/);
  });
  it('are those of one day, or none', () => {
    const { hours } = readHours(['9-17', '', '', '', '', '', '']);
    const on = (day: number) => sayHoursOn(hours as OpeningHours, day, IN_ENGLISH);
    expect([on(MONDAY), on(MONDAY + 1), on(MONDAY + 7)]).toEqual(['09:00–17:00', undefined, '09:00–17:00']);
  });
  it('are compared with a date as minute by minute', () => {
    const random = randomOf(5);
    const seen = new Set<string>();
    for (let n = 0; n < 600; n++) {
      const week = Array.from({ length: 7 }, (): Span[] => {
        if (random() < 0.3) return [];
        const from = Math.floor(random() * 20) * 60;
        return [[from, from + 60 + Math.floor(random() * 12) * 60]];
      });
      const hours: OpeningHours = { format: 1, week };
      const day = MONDAY + Math.floor(random() * 7);
      const minute = Math.floor(random() * 24) * 60;
      const length = 30 + Math.floor(random() * 12) * 30;
      const end = day * 1440 + minute + length;
      const isOpen = (at: number): boolean =>
        [0, 1].some((back) => {
          const d = Math.floor(at / 1440) - back;
          return (week[weekdayOf(d)] ?? []).some(([from, to]) => at >= d * 1440 + from && at < d * 1440 + to);
        });
      const minutes = Array.from({ length }, (_, i) => isOpen(day * 1440 + minute + i));
      const slow = minutes.every(Boolean) ? 'open' : minutes.some(Boolean) ? 'partly' : 'closed';
      seen.add(slow);
      expect(openFor(hours, { day, minute }, { day: Math.floor(end / 1440), minute: end % 1440 })).toBe(slow);
    }
    expect([...seen].sort()).toEqual(['closed', 'open', 'partly']);
  });
  it('let whole days and long dates in when the venue opens at all', () => {
    const { hours } = readHours(['9-17', '', '', '', '', '', '']) as { hours: OpeningHours };
    expect(openFor(hours, { day: MONDAY, minute: null }, null)).toBe('open');
    expect(openFor(hours, { day: MONDAY + 1, minute: null }, null)).toBe('closed');
    expect(openFor(hours, { day: MONDAY - 2, minute: null }, { day: MONDAY + 1, minute: null })).toBe('open');
    expect(openFor(hours, { day: MONDAY, minute: 600 }, null)).toBe('open');
  });
});

describe('rooms', () => {
  const venues = [
    { id: 'hall', name: 'Gannet Bay Hall', parentId: null },
    { id: 'upper', name: 'Upper room', parentId: 'hall' },
    { id: 'kitchen', name: 'Kitchen', parentId: 'hall' },
    { id: 'slip', name: 'Port Amble Slip', parentId: null },
  ];
  it('share space with their hall, not with each other', () => {
    expect(sharesSpace('hall', venues)).toEqual(['hall', 'upper', 'kitchen']);
    expect(sharesSpace('upper', venues)).toEqual(['upper', 'hall']);
    expect(sharesSpace('slip', venues)).toEqual(['slip']);
    expect(sharesSpace('gone', venues)).toEqual(['gone']);
  });
  it('are one level deep, and never their own hall', () => {
    expect(whyNoRoom('hall', 'hall', venues)).toContain('room of itself');
    expect(whyNoRoom('slip', 'upper', venues)).toContain('“Upper room” is a room itself');
    expect(whyNoRoom('hall', 'slip', venues)).toContain('“Upper room” is a room of this one');
    expect(whyNoRoom('slip', 'nowhere', venues)).toContain('gone');
    expect([whyNoRoom(null, 'hall', venues), whyNoRoom('slip', 'hall', venues)]).toEqual([undefined, undefined]);
  });
});
