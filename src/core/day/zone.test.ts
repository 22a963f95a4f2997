import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import { dayOf } from './day';
import { clockChangeOn, gapsBetween, instantToDateTime, isoWithOffset, isZone, offsetAt, dateTimeToInstant } from './zone';

const ZONES = ['America/Halifax', 'Europe/Dublin', 'Australia/Lord_Howe', 'Pacific/Apia'];
const seed = seedOf();

const plain = (day: number, minute: number): Temporal.PlainDateTime =>
  Temporal.PlainDateTime.from('1970-01-01T00:00').add({ days: day, minutes: minute });
const ms = (day: number, minute: number, zone: string, disambiguation: 'compatible' | 'earlier' | 'later'): number =>
  plain(day, minute).toZonedDateTime(zone, { disambiguation }).epochMilliseconds;

describe(`wall times against Temporal, seed ${seed}`, () => {
  for (const zone of ZONES) {
    it(`${zone}: random times and the hours around every change from 2009 to 2030`, () => {
      const r = random(seed);
      const seen = { once: 0, gap: 0, twice: 0 };
      const check = (day: number, minute: number): void => {
        const ours = dateTimeToInstant(zone, { day, minute });
        seen[ours.kind]++;
        const earlier = ms(day, minute, zone, 'earlier');
        const later = ms(day, minute, zone, 'later');
        const exists = Temporal.Instant.fromEpochMilliseconds(earlier)
          .toZonedDateTimeISO(zone)
          .toPlainDateTime()
          .equals(plain(day, minute));
        const kind = earlier === later ? 'once' : exists ? 'twice' : 'gap';
        expect(ours.kind, `${plain(day, minute)} ${zone}`).toBe(kind);
        expect(ours.ms).toBe(kind === 'gap' ? later : earlier);
        if (ours.kind === 'once') expect(instantToDateTime(zone, ours.ms)).toEqual({ day, minute });
      };
      for (let i = 0; i < 600; i++) check(dayOf(2009, 1, 1) + between(r, 0, 8_000), between(r, 0, 1439));
      let at: Temporal.ZonedDateTime | null = Temporal.ZonedDateTime.from(`2009-01-01T00:00[${zone}]`);
      while (at && at.year < 2030) {
        at = at.getTimeZoneTransition('next');
        if (!at) break;
        const day = dayOf(at.year, at.month, at.day);
        for (let h = -30; h <= 30; h++) {
          const minute = at.hour * 60 + at.minute + h * 15;
          check(day + Math.floor(minute / 1440), ((minute % 1440) + 1440) % 1440);
        }
      }
      expect(seen.gap).toBeGreaterThan(1);
      expect(seen.twice).toBeGreaterThan(1);
    });
  }

  it('knows that Apia had no 30 December 2011', () => {
    const day = dayOf(2011, 12, 30);
    expect(dateTimeToInstant('Pacific/Apia', { day, minute: 720 })).toMatchObject({ kind: 'gap', minutes: 1440 });
    expect(gapsBetween('Pacific/Apia', day, day)).toHaveLength(1);
  });

  it('gives the offset of an instant as Temporal does', () => {
    const r = random(seed + 9);
    for (let i = 0; i < 2_000; i++) {
      const zone = pick(r, ZONES);
      const at = between(r, Date.UTC(2005, 0, 1) / 60_000, Date.UTC(2032, 0, 1) / 60_000) * 60_000;
      const expected = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).offsetNanoseconds / 1e6;
      expect(offsetAt(zone, at)).toBe(expected);
    }
  });

  it('tells a zone from a word that is none', () => {
    expect(['America/Halifax', 'Kittiwick/Amble', '__proto__', ''].map(isZone)).toEqual([true, false, false, false]);
  });

  it('writes an instant with its offset', () => {
    expect(isoWithOffset('America/Halifax', Date.UTC(2027, 2, 7, 11, 40))).toBe('2027-03-07T07:40:00-04:00');
    expect(isoWithOffset('Australia/Lord_Howe', Date.UTC(2027, 6, 1, 0, 0))).toBe('2027-07-01T10:30:00+10:30');
  });
});

describe('a day on which clocks change', () => {
  it.each([
    ['America/Halifax', dayOf(2027, 3, 14), { from: 120, to: 180, forward: true }],
    ['America/Halifax', dayOf(2027, 11, 7), { from: 120, to: 60, forward: false }],
    ['Australia/Lord_Howe', dayOf(2027, 10, 3), { from: 120, to: 150, forward: true }],
    ['America/Halifax', dayOf(2027, 3, 15), undefined],
    ['UTC', dayOf(2027, 3, 14), undefined],
  ])('%s on %i', (zone, day, change) => {
    expect(clockChangeOn(day, zone)).toEqual(change);
  });
});
