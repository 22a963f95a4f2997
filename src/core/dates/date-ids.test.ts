import { describe, expect, it } from 'vitest';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import { isoDay, parseIsoDay } from '../day/day';
import { type DateName, nameDates, type NamedDate } from './date-ids';

/** A listing whose dates change again and again. */
function history(...versions: string[][]): { dates: NamedDate[]; names: DateName[]; ended: string[] } {
  let [dates, names]: [NamedDate[], DateName[]] = [[], []];
  const ended: string[] = [];
  for (const originals of versions) {
    const next = nameDates(originals, dates, names);
    dates = originals.map((original) => ({ original, dateId: next.ids.get(original) as string }));
    names = next.names;
    ended.push(...next.ended.map(({ dateId }) => dateId));
  }
  return { dates, names, ended };
}
const idsOf = (...versions: string[][]): string[] => history(...versions).dates.map(({ dateId }) => dateId);

describe('ids of dates', () => {
  it('are their first starts, and keep nothing', () => {
    expect(history(['2027-03-02T19:00', '2027-03-09T19:00'])).toEqual({
      dates: [
        { original: '2027-03-02T19:00', dateId: '2027-03-02T19:00' },
        { original: '2027-03-09T19:00', dateId: '2027-03-09T19:00' },
      ],
      names: [],
      ended: [],
    });
  });

  it('stay when the rule is retimed, and the former start leads to the date', () => {
    const { dates, names } = history(['2027-03-02T19:00', '2027-03-09T19:00'], ['2027-03-02T20:00', '2027-03-09T20:00']);
    expect(dates.map(({ dateId }) => dateId)).toEqual(['2027-03-02T19:00', '2027-03-09T19:00']);
    expect(names).toContainEqual({ dateId: '2027-03-02T19:00', original: '2027-03-02T20:00', former: false });
    expect(names).toContainEqual({ dateId: '2027-03-02T19:00', original: '2027-03-02T19:00', former: true });
  });

  it('need no memory once everything is as it was', () => {
    const first = ['2027-03-02T19:00', '2027-03-09T19:00'];
    const { dates, names } = history(first, ['2027-03-02T20:00', '2027-03-09T20:00'], first);
    expect(dates.map(({ dateId }) => dateId)).toEqual(first);
    expect(names.every(({ former }) => former)).toBe(true);
  });

  it('are not given twice: a new date where another began gets one of its own', () => {
    const [moved, anew] = idsOf(['2027-03-02T19:00'], ['2027-03-04T19:00'], ['2027-03-02T19:00', '2027-03-04T19:00']).reverse();
    expect(moved).toBe('2027-03-02T19:00');
    expect(anew).toBe('2027-03-02T19:00~2');
  });

  it('come back with the date', () => {
    const three = ['2027-03-02T19:00', '2027-03-09T19:00', '2027-03-16T19:00'];
    const late = three.map((text) => text.replace('T19', 'T20'));
    const { dates, ended } = history(three, late, [late[0] as string, late[2] as string], late);
    expect(ended).toEqual(['2027-03-09T19:00']);
    expect(dates.map(({ dateId }) => dateId)).toEqual(three);
  });

  it('over generated changes: each is one date’s, none is lost without being told, and the index made anew has the same', () => {
    const r = random(seedOf() + 7);
    const day = parseIsoDay('2027-03-01') as number;
    let [renamed, over] = [0, 0];
    for (let round = 0; round < 400; round++) {
      let [dates, names]: [NamedDate[], DateName[]] = [[], []];
      for (let step = 0; step < 8; step++) {
        const gap = pick(r, [1, 3, 7, 14]);
        const first = day + between(r, 0, 20);
        const time = pick(r, ['', 'T10:00', 'T19:00', 'T19:30']);
        const originals = [
          ...new Set(
            Array.from({ length: between(r, 0, 10) }, (_, i) => `${isoDay(first + i * gap)}${between(r, 0, 5) ? time : 'T08:00'}`).filter(
              () => between(r, 0, 6) > 0,
            ),
          ),
        ];
        const next = nameDates(originals, dates, names);
        const ids = originals.map((original) => next.ids.get(original) as string);
        expect(new Set(ids).size).toBe(originals.length);
        const there = new Set(ids);
        const told = new Set(next.ended.map(({ dateId }) => dateId));
        for (const { dateId } of dates) expect([there.has(dateId), told.has(dateId)]).toContain(true);
        for (const { dateId } of next.ended) expect(there.has(dateId)).toBe(false);
        dates = originals.map((original, i) => ({ original, dateId: ids[i] as string }));
        names = next.names;
        // From the names alone, as an index that is made anew has them.
        const now = new Map(names.filter(({ former }) => !former).map(({ original, dateId }) => [original, dateId]));
        expect(originals.map((original) => now.get(original) ?? original)).toEqual(ids);
        renamed += now.size;
        over += told.size;
      }
    }
    expect(Math.min(renamed, over)).toBeGreaterThan(1000);
  });
});
