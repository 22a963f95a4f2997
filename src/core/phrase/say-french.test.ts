import { describe, expect, it } from 'vitest';
import { between, generatePart, generateRule, pick, random, seedOf } from '../../../tests/support/generate';
import { FRENCH } from '../../../tests/words/french';
import { dayOf } from '../day/day';
import type { Recurrence } from '../recurrence/model';
import { expand } from '../recurrence/expand';
import { sayDay, sayDays, sayDistance, sayTime, sayWhen, type Style } from './format';
import { readPhrase } from './read/read-phrase';
import { sayRecurrence } from './say';

const ZONE = 'America/Halifax';
const ENGLISH: Style = { date: 'day-month', hours: '24' };
const FRENCH_STYLE: Style = { ...ENGLISH, language: 'fr' };
const NOW = { day: dayOf(2027, 3, 17), minute: 600 };

describe('recurrences in French', () => {
  it('are a hundred and fifty at least', () => expect(FRENCH.length).toBeGreaterThanOrEqual(150));

  it.each(FRENCH)('%s', (phrase, sentence) => {
    const { recurrence } = readPhrase({ phrase, now: NOW, zone: ZONE, weekStart: 0, style: ENGLISH });
    expect(recurrence && sayRecurrence(recurrence, FRENCH_STYLE)).toBe(sentence);
  });

  it('are never said alike when English tells them apart and their dates differ', () => {
    const r = random(seedOf() + 11);
    const english = new Map<string, { said: string; recurrence: Recurrence }>();
    const dates = (recurrence: Recurrence) =>
      expand(recurrence, [], dayOf(2027, 1, 1), dayOf(2033, 12, 31)).map(({ start, end }) => ({ start, end }));
    let alike = 0;
    // Few values for everything, so that many recurrences differ in one thing only.
    for (let round = 0; round < 12_000; round++) {
      const rule = generateRule(r);
      const part = generatePart(r, rule);
      const start = { day: dayOf(2027, 3, 22) + between(r, 0, 6), minute: pick(r, [null, 480]) };
      const length =
        start.minute === null
          ? { days: pick(r, [1, 2]), minute: null }
          : pick(r, [null, ...[0, 1, 2].map((days) => ({ days, minute: 600 }))]);
      const limit = pick(r, [
        { kind: 'open' as const },
        { kind: 'count' as const, count: between(r, 1, 3) },
        { kind: 'until' as const, day: dayOf(2027, 12, 20) },
      ]);
      const recurrence: Recurrence = {
        zone: ZONE,
        parts: [{ ...part, start, length, limit }],
        exdates: r() < 0.2 ? [{ day: start.day + 7, minute: start.minute }] : [],
        breaks: r() < 0.1 ? [{ from: dayOf(2027, 8, 1), to: dayOf(2027, 8, between(r, 1, 3)) }] : [],
      };
      const [said, inFrench] = [sayRecurrence(recurrence, ENGLISH), sayRecurrence(recurrence, FRENCH_STYLE)];
      const before = english.get(inFrench);
      if (before !== undefined) {
        // "On 23 March" and "on the 23rd of March" are one thing; English happens to keep how the rule puts it.
        if (said !== before.said) expect(dates(recurrence), `${inFrench} ${said} ${before.said}`).toEqual(dates(before.recurrence));
        alike++;
      }
      english.set(inFrench, { said, recurrence });
    }
    // Some were said twice, and thousands apart.
    expect(alike).toBeGreaterThan(20);
    expect(english.size).toBeGreaterThan(4000);
  });

  it('leave no English word and no empty place', () => {
    const r = random(seedOf() + 12);
    for (let round = 0; round < 3000; round++) {
      const part = generatePart(r, generateRule(r));
      const sentence = sayRecurrence({ zone: ZONE, parts: [part], exdates: [], breaks: [] }, FRENCH_STYLE);
      expect(sentence).not.toMatch(/undefined|NaN|\b(every|the|of|from|and|month|week|day)\b| {2}|, ,/);
    }
  });
});

describe('days and times in French', () => {
  const day = (text: string): number => dayOf(Number(text.slice(0, 4)), Number(text.slice(5, 7)), Number(text.slice(8)));
  it('have the first of a month as the first', () => {
    expect(sayDay(day('2027-03-01'), FRENCH_STYLE, { weekday: 'long', year: true })).toBe('lundi 1er mars 2027');
    expect(sayDay(day('2027-08-31'), FRENCH_STYLE, { weekday: 'short', month: 'short' })).toBe('mar. 31 août');
    expect(sayDay(day('2027-08-31'), { ...FRENCH_STYLE, date: 'iso' })).toBe('2027-08-31');
    expect(sayDays(day('2027-08-01'), day('2027-08-31'), FRENCH_STYLE, { year: true })).toBe('1er–31 août 2027');
    expect(sayDays(day('2027-12-30'), day('2028-01-02'), FRENCH_STYLE, { year: true })).toBe('30 décembre 2027 – 2 janvier 2028');
  });
  it('have a clock of twenty-four hours, whatever the site says in English', () => {
    for (const hours of ['12', '24'] as const)
      expect([0, 425, 720, 1140, 1170].map((minute) => sayTime(minute, { ...FRENCH_STYLE, hours }))).toEqual([
        'minuit',
        '7\u00a0h\u00a005',
        'midi',
        '19\u00a0h',
        '19\u00a0h\u00a030',
      ]);
    const evening = sayWhen({ day: day('2027-03-20'), minute: 1200 }, { day: day('2027-03-21'), minute: 120 }, FRENCH_STYLE);
    expect(evening).toBe('samedi 20 mars 2027, 20\u00a0h–2\u00a0h');
  });
  it('say how far away a day is', () =>
    expect([0, 1, -1, 4, -3].map((days) => sayDistance(days, 'fr'))).toEqual([
      'aujourd’hui',
      'demain',
      'hier',
      'dans 4 jours',
      'il y a 3 jours',
    ]));
});
