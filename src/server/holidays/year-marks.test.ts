import { describe, expect, it } from 'vitest';
import { yearMarks } from '../../../tests/support/year-marks';
import { isoDay, parseIsoDay } from '@/core/day/day';
import { isRedDay, redNames, sayMark } from '@/core/holidays/day-marks';
import { readHolidayLines, sayHolidayLines } from '@/core/holidays/holiday-lines';
import { sayTimes, type Style } from '@/core/phrase/format';
import { readHours } from '@/core/venue/hours';
import { Problem } from '../problem';
import { DEFAULT_SETTINGS, type SiteSettings } from '../site/settings';
import { addCalendar, type DaySettings, offersFor, readDaySettings, tickField } from './days-form';

const marks = yearMarks();
const day = (iso: string): number => parseIsoDay(iso) as number;
const HALIFAX = {
  ...DEFAULT_SETTINGS,
  zone: 'America/Halifax',
  lat: 44.65,
  lng: -63.58,
  holidayCountry: 'CA',
  holidayRegion: 'NS',
} satisfies SiteSettings;

async function named(settings: SiteSettings, from: string, to: string, language: 'en' | 'fr' = 'en'): Promise<string[]> {
  const found = await marks.between(settings, { from: day(from), to: day(to) }, language);
  return [...found]
    .sort(([a], [b]) => a - b)
    .flatMap(([at, all]) => all.map((mark) => `${isoDay(at)} ${mark.name}${mark.red ? '' : ' (not red)'}`));
}

describe('what the year says of days', () => {
  it('are the days off of a country’s region, in the reader’s language, with those that take their place', async () => {
    expect(await named(HALIFAX, '2027-06-25', '2027-09-10')).toEqual(['2027-07-01 Canada Day', '2027-09-06 Labour Day']);
    expect(await named(HALIFAX, '2027-06-25', '2027-09-10', 'fr')).toEqual(['2027-07-01 Fête du Canada', '2027-09-06 Fête du travail']);
    expect(await named({ ...HALIFAX, holidayCountry: 'GB', holidayRegion: 'ENG' }, '2027-12-24', '2027-12-31')).toEqual([
      '2027-12-25 Christmas Day',
      '2027-12-26 Boxing Day',
      '2027-12-27 Christmas Day (substitute day)',
      '2027-12-28 Boxing Day (substitute day)',
    ]);
    expect(await named({ ...HALIFAX, holidayCountry: '', holidayRegion: '' }, '2027-01-01', '2027-12-31')).toEqual([]);
    // A country that nothing is known of has none.
    expect(await named({ ...HALIFAX, holidayCountry: 'AQ', holidayRegion: '' }, '2027-01-01', '2027-12-31')).toEqual([]);
  });

  it('are those that were chosen, beside the site’s own lines, each once', async () => {
    const holidays = readHolidayLines('1 July Canada Day\n2 July Fog Day').rules;
    const holidayChoice = { 'Canada Day': false, 'Natal Day': true, 'Labour Day': false, "Father's Day": true };
    expect(await named({ ...HALIFAX, holidays, holidayChoice }, '2027-06-15', '2027-09-30')).toEqual([
      "2027-06-20 Father's Day",
      '2027-07-01 Canada Day',
      '2027-07-02 Fog Day',
      '2027-08-02 Natal Day',
    ]);
    expect(await named({ ...HALIFAX, holidays }, '2027-07-01', '2027-07-01')).toEqual(['2027-07-01 Canada Day']);
  });

  it('are the seasons and the changes of the clocks by the site’s place, where they are asked for', async () => {
    const both = { ...HALIFAX, holidayCountry: '', yearMarks: ['seasons', 'clocks'] } satisfies SiteSettings;
    expect(await named(both, '2027-03-01', '2027-11-30')).toEqual([
      '2027-03-14 Clocks go forward (not red)',
      '2027-03-20 Spring equinox (not red)',
      '2027-06-21 Summer solstice (not red)',
      '2027-09-23 Autumn equinox (not red)',
      '2027-11-07 Clocks go back (not red)',
    ]);
    expect(await named({ ...both, lat: -41.3, lng: 174.8, zone: 'Pacific/Auckland' }, '2027-09-20', '2027-09-30', 'fr')).toEqual([
      '2027-09-23 Équinoxe de printemps (not red)',
      '2027-09-26 On avance l’heure (not red)',
    ]);
    expect(await named({ ...both, zone: 'UTC' }, '2027-03-01', '2027-03-19')).toEqual([]);
  });

  it('are red-letter days alone for who asks only for them, the same as among all', async () => {
    const { rules } = readHolidayLines('2 July Fog Day\n1 July to 9 July Regatta\nat sunset every day Gun');
    const all = { ...HALIFAX, holidays: rules, yearMarks: ['seasons', 'clocks'] } satisfies SiteSettings;
    const span = { from: day('2027-01-01'), to: day('2028-12-31') };
    const red = await marks.redNames(all, span);
    expect([...red]).toEqual([...redNames(await marks.between(all, span))]);
    expect(red.get(day('2027-07-02'))).toEqual(['Fog Day']);
  });

  it('have small pictures by their English names, in every language', async () => {
    const holidays = readHolidayLines('2 July Fog Day\nat sunset on Fridays Lamps').rules;
    const dayPictures = [
      { name: 'Canada Day', pictureId: 'leaf' },
      { name: 'Fog Day', pictureId: 'fog' },
      { name: 'Lamps', pictureId: 'lamp' },
      { name: 'No Such Day', pictureId: 'none' },
    ];
    const found = await marks.between({ ...HALIFAX, holidays, dayPictures }, { from: day('2027-07-01'), to: day('2027-07-02') }, 'fr');
    expect([...found.values()].flat().map(({ name, picture }) => [name, picture])).toEqual([
      ['Fête du Canada', 'leaf'],
      ['Fog Day', 'fog'],
      ['Lamps', 'lamp'],
    ]);
  });

  it('say the publisher’s own hours where they are asked for: closed on red-letter days, by the reader’s clock and language', async () => {
    const { hours: openHours } = readHours(['9-12, 14-18', 'closed', 'all day', '20-2', '10-16', '', '']);
    const own = { ...HALIFAX, openHours };
    const span = { from: day('2027-06-28'), to: day('2027-07-04') };
    const said = async (settings: SiteSettings, language: 'en' | 'fr', style: Style): Promise<string[]> =>
      [...(await marks.between(settings, span, language, { hours: true }))]
        .sort(([a], [b]) => a - b)
        .map(([, all]) => all.map((mark) => sayMark(mark, style)).join(', '));
    const style = { date: 'day-month', hours: '24' } as const;
    const french = { ...style, language: 'fr' } as const;
    expect(await said(own, 'en', style)).toEqual([
      'Open 09:00–12:00, 14:00–18:00',
      'Closed',
      'Open all day',
      'Canada Day, Closed',
      'Open 10:00–16:00',
      'Closed',
      'Closed',
    ]);
    expect((await said({ ...own, closedOnRedDays: false }, 'fr', french)).slice(0, 4)).toEqual([
      `Ouvert ${sayTimes(540, 720, french)}, ${sayTimes(840, 1080, french)}`,
      'Fermé',
      'Ouvert toute la journée',
      `Fête du Canada, Ouvert ${sayTimes(1200, 120, french)}`,
    ]);
    // Sunday is no holiday by itself, and nothing is said to who does not ask or where no hours are given.
    expect([...(await marks.between(own, span)).values()].flat().map(({ name }) => name)).toEqual(['Canada Day']);
    expect((await marks.between(HALIFAX, span, 'en', { hours: true })).size).toBe(1);
  });

  it('goes on over the year’s end, and over more days than one', async () => {
    const eid = await marks.between(
      { ...HALIFAX, holidayCountry: 'EG', holidayRegion: '' },
      { from: day('2027-03-01'), to: day('2027-03-31') },
    );
    const fast = [...eid].filter(([, all]) => all.some(({ name }) => name.includes('Ramadan')));
    expect(fast.length).toBe(3);
    expect(fast.map(([at]) => isRedDay(eid, at))).toEqual([true, true, true]);
  });
});

const BEFORE: DaySettings = HALIFAX;
const today = day('2027-03-17');
async function sent(fields: Record<string, string>, before: DaySettings = BEFORE): Promise<DaySettings> {
  return readDaySettings(marks, before, {
    fields: { holidayCountry: 'CA', holidayRegion: 'NS', shownCountry: 'CA', shownRegion: 'NS', holidays: '', ...fields },
    today,
  });
}
const usual = async (): Promise<Record<string, string>> => {
  const { offers } = await offersFor(marks, BEFORE, today);
  return Object.fromEntries(offers.filter(({ chosen }) => chosen).map(({ key }) => [tickField(key), 'on']));
};

describe('the form for the year’s days', () => {
  it('offers a country’s regions and days, days off first, each with its next day', async () => {
    const { known, regions, offers } = await offersFor(marks, BEFORE, today);
    expect(known).toBe(true);
    expect(regions.find(({ code }) => code === 'NS')?.name).toBe('Nova Scotia');
    expect(offers[0]).toMatchObject({
      key: 'Good Friday',
      type: 'public',
      chosen: true,
      next: [day('2027-03-26'), day('2028-04-14'), day('2029-03-30')],
    });
    const types = offers.map(({ type }) => type);
    expect(types.lastIndexOf('public')).toBeLessThan(types.indexOf('observance'));
    expect((await offersFor(marks, { ...BEFORE, holidayCountry: 'AQ' }, today)).known).toBe(false);
  });

  it('keeps only what differs from what is usual', async () => {
    expect((await sent(await usual())).holidayChoice).toEqual({});
    const { [tickField('Good Friday')]: _, ...rest } = await usual();
    const chosen = await sent({ ...rest, [tickField("Father's Day")]: 'on' });
    expect(chosen.holidayChoice).toEqual({ 'Good Friday': false, "Father's Day": true });
    // What was chosen of days that these years do not have stays.
    const kept = await sent(await usual(), { ...BEFORE, holidayChoice: { 'Jubilee Day': true, 'Good Friday': false } });
    expect(kept.holidayChoice).toEqual({ 'Jubilee Day': true });
  });

  it('takes ticks for the country that they were shown for alone', async () => {
    const other = await sent({ holidayCountry: 'NO', ...(await usual()) });
    expect(other).toMatchObject({ holidayCountry: 'NO', holidayRegion: '', holidayChoice: {} });
    const region = await sent({ holidayRegion: 'ON' });
    expect(region).toMatchObject({ holidayRegion: 'ON', holidayChoice: {} });
  });

  it.each([
    [{ holidayCountry: 'ZZ' }, 'holidayCountry', 'Choose one of the countries'],
    [{ holidays: '25 December Christmas\n32 Smarch X' }, 'holidays', 'Line 2, “32 Smarch X”'],
    [{ holidays: Array.from({ length: 501 }, () => '1 May May Day').join('\n') }, 'holidays', '501 lines; at most 500'],
    [{ holidays: `1 May ${'x'.repeat(61)}` }, 'holidays', 'at most 60 letters'],
    [{ secondCalendar: 'martian' }, 'secondCalendar', ''],
  ])('refuses %o at the field', async (fields, field, message) => {
    const error = await sent(fields as Record<string, string>).catch((reason) => reason as Problem);
    expect(error).toBeInstanceOf(Problem);
    expect((error as Problem).fields).toMatchObject([{ field, message: expect.stringContaining(message) }]);
  });

  it('takes pictures of days that are there, keeps those with a tick, and reads the hours', async () => {
    const picture = '0190a1b2-0000-7000-8000-000000000001';
    const first = await sent({ ...(await usual()), holidays: '2 July Fog Day', pictureDay: 'Fog Day', pictureId: picture });
    expect(first.dayPictures).toEqual([{ name: 'Fog Day', pictureId: picture }]);
    const more = { ...(await usual()), holidays: '2 July Fog Day', pictureDay: 'Good Friday', pictureId: picture };
    expect((await sent({ ...more, 'picture:Fog Day': 'on' }, first)).dayPictures.map(({ name }) => name)).toEqual([
      'Fog Day',
      'Good Friday',
    ]);
    expect((await sent(more, first)).dayPictures.map(({ name }) => name)).toEqual(['Good Friday']);
    const hours = await sent({ ...(await usual()), hours0: '9-17', hours6: 'closed', closedOnRedDays: 'on' });
    expect([hours.openHours?.week[0], hours.openHours?.week[6], hours.closedOnRedDays]).toEqual([[[540, 1020]], [], true]);
    expect(await sent(await usual())).toMatchObject({ openHours: null, closedOnRedDays: false, dayPictures: [] });
  });

  it.each([
    [{ pictureDay: 'Smarch Day', pictureId: '0190a1b2-0000-7000-8000-000000000001' }, 'pictureDay', 'Choose the day'],
    [{ pictureId: '0190a1b2-0000-7000-8000-000000000001' }, 'pictureDay', 'Choose the day'],
    [{ holidays: '2 July Fog Day', pictureDay: 'Fog Day' }, 'pictureId', 'Send a picture'],
    [{ hours2: 'tea to dusk' }, 'hours2', 'is not understood'],
  ])('refuses the picture or hours %o at the field', async (fields, field, message) => {
    const error = await sent({ ...(await usual()), ...(fields as Record<string, string>) }).catch((reason) => reason as Problem);
    expect((error as Problem).fields).toMatchObject([{ field, message: expect.stringContaining(message) }]);
  });

  it('adds a calendar’s days once, and names what it leaves out', async () => {
    const text = [
      'BEGIN:VCALENDAR',
      'BEGIN:VEVENT\nUID:1\nSUMMARY:Spring break\nDTSTART;VALUE=DATE:20270308\nDTEND;VALUE=DATE:20270313\nEND:VEVENT',
      'BEGIN:VEVENT\nUID:2\nSUMMARY:Council\nDTSTART:20270308T190000\nEND:VEVENT',
      'END:VCALENDAR',
    ].join('\n');
    const file = new File([text], 'school.ics');
    const once = await addCalendar('25 December Christmas Day\n', file, 'UTC');
    expect(once).toEqual({ text: '25 December Christmas Day\n8 March 2027 to 12 March 2027 Spring break', added: 1, left: ['Council'] });
    expect(sayHolidayLines(readHolidayLines(once.text).rules)).toBe(once.text);
    expect(await addCalendar(once.text, file, 'UTC')).toMatchObject({ text: once.text, added: 0 });
    await expect(addCalendar('', new File(['no calendar'], 'x.ics'), 'UTC')).rejects.toThrow('no iCalendar file');
    await expect(addCalendar('', new File([], 'x.ics'), 'UTC')).rejects.toThrow('Choose a file');
    await expect(addCalendar('', new File([new Uint8Array(2 * 1024 * 1024 + 1)], 'x.ics'), 'UTC')).rejects.toThrow('larger than 2 MB');
  });
});
