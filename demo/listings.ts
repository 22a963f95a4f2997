/** What happens on the Kittiwick Isles. Days are counted from `today`, so that the demo is never empty. */
import { dayOf, type Day, daysInMonth, firstDayOfMonth, isoDay, monthNumberOf, weekdayOf, ymdOf } from '@/core/day/day';
import { isoTime } from '@/core/day/wall';
import type { Cost, ListingContent } from '@/core/listing/content';
import { type Length, type Rule, rule, type Standing } from '@/core/recurrence/model';
import type { StoredChange, StoredLimit, StoredStretch } from '@/core/recurrence/stored';

export interface DemoListing {
  title: string;
  short?: string;
  cat: string;
  venue?: string[];
  org?: string[];
  pic?: string;
  summary: string;
  text: string;
  when: StoredStretch[];
  breaks?: { from: string; to: string }[];
  leftOut?: string[];
  changes?: StoredChange[];
  cost?: Cost;
  rest?: Partial<ListingContent>;
}

const [MON, TUE, WED, THU, FRI, SAT, SUN] = [0, 1, 2, 3, 4, 5, 6];
const open: StoredLimit = { kind: 'open' };
const at = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));

/** The first such weekday on or after a day. */
const next = (day: Day, weekday: number): Day => day + ((weekday - weekdayOf(day) + 7) % 7);
const lengthTo = (from: string, to: string | null): Length | null =>
  to === null ? null : { days: at(to) <= at(from) ? 1 : 0, minute: at(to) };

function timed(day: Day, from: string, to: string | null, r: Rule | null = null, limit: StoredLimit = open): StoredStretch {
  return { start: `${isoDay(day)}T${isoTime(at(from))}`, length: lengthTo(from, to), rule: r, limit };
}
function whole(day: Day, days = 1, r: Rule | null = null, limit: StoredLimit = open): StoredStretch {
  return { start: isoDay(day), length: { days, minute: null }, rule: r, limit };
}
const on = (...weekdays: number[]): Partial<Rule> => ({ byDay: weekdays.map((weekday) => ({ weekday, nth: 0 })) });
const nths = (weekday: number, ...list: number[]): Partial<Rule> => ({ byDay: list.map((nth) => ({ weekday, nth })) });
const until = (day: Day): StoredLimit => ({ kind: 'until', day: isoDay(day) });
const times = (count: number): StoredLimit => ({ kind: 'count', count });

/** The first day on or after `day` that is the nth weekday of its month. */
function nthFrom(day: Day, weekday: number, nth: number): Day {
  for (let month = monthNumberOf(day); ; month++) {
    const first = firstDayOfMonth(month);
    const { year, month: m } = ymdOf(first);
    const ones = Array.from({ length: daysInMonth(year, m) }, (_, i) => first + i).filter((d) => weekdayOf(d) === weekday);
    const found = nth > 0 ? ones[nth - 1] : ones[ones.length + nth];
    if (found !== undefined && found >= day) return found;
  }
}
/** The nth day of a month, on or after a day. */
function monthDayFrom(day: Day, n: number): Day {
  const { year, month, day: d } = ymdOf(day);
  return d <= n ? dayOf(year, month, n) : firstDayOfMonth(year * 12 + month) + n - 1;
}
const paid = (amount: string): Cost => ({ kind: 'amount', amount, currency: 'CAD' });
const free: Cost = { kind: 'free' };
const words = (text: string): Cost => ({ kind: 'words', words: text });
const change = (original: Day, time: string | null, rest: Partial<StoredChange>): StoredChange => ({
  original: time ? `${isoDay(original)}T${time}` : isoDay(original),
  movedTo: null,
  length: null,
  standing: null,
  note: '',
  ...rest,
});
const cancelled = (original: Day, time: string | null, note: string): StoredChange =>
  change(original, time, { standing: 'cancelled' as Standing, note });

/** The Saturday with nine dates: the third of the month in which the reader is. */
export function regattaDay(today: Day): Day {
  const first = firstDayOfMonth(monthNumberOf(today));
  return next(first, SAT) + 14;
}

export function demoListings(today: Day): DemoListing[] {
  const t = today;
  const month = firstDayOfMonth(monthNumberOf(t));
  const past = t - 240;
  const big = regattaDay(t);
  const choirStart = next(past, TUE);
  const walkStart = nthFrom(t - 120, SUN, 1);
  const walkMoved = nthFrom(month, SUN, 3);
  const fiddleStart = nthFrom(past, SAT, 4);
  const fiddleOff = nthFrom(month, SAT, 4);
  const councilStart = nthFrom(past, THU, 1);
  const boatBuilding = nthFrom(month, FRI, 1);
  return [
    {
      title: 'Harbour Choir',
      cat: 'choirs',
      venue: ['hall'],
      org: ['choir'],
      pic: 'choir',
      summary: 'Forty voices, no auditions. New singers sit beside an old one for the first month.',
      text: '<p>We sing sea songs, psalms and whatever the basses bring. Music is lent; tea is at half past eight.</p><p>The choir rests in the last week of December and for the herring in August.</p>',
      when: [timed(choirStart, '19:00', '21:00', rule('weekly', on(TUE)))],
      breaks: [{ from: isoDay(dayOf(ymdOf(t).year, 12, 24)), to: isoDay(dayOf(ymdOf(t).year, 12, 31)) }],
      cost: free,
    },
    {
      title: 'Mending Bench',
      cat: 'mending',
      venue: ['workshop'],
      org: ['menders'],
      pic: 'mending',
      summary: 'Bring what is torn, cracked or loose; we mend it together.',
      text: '<p>Two menders, a glue pot, and every size of needle. You hold the lamp and learn the trick of it.</p><ul><li>Clothes and sails before noon</li><li>Chairs, handles and crockery after</li></ul>',
      when: [timed(next(past, WED), '10:00', '12:30', rule('weekly', on(WED)))],
      cost: words('what it was worth to you'),
    },
    {
      title: 'Low-tide Walk',
      cat: 'walks',
      venue: ['causeway'],
      org: ['wardens'],
      pic: 'low-tide',
      summary: 'Two hours over sand that is sea for the rest of the week.',
      text: '<p>The sea leaves the causeway for about two hours. We go out with the ebb, as far as the Stair Rocks, and come back before it thinks better of it.</p><p>Expect cold feet, dog whelks, and the oldest mooring stone of the isles.</p>',
      when: [timed(walkStart, '07:40', '09:40', rule('monthly', nths(SUN, 1, 3)))],
      changes: [change(walkMoved, '07:40', { movedTo: `${isoDay(walkMoved)}T06:55`, note: 'Earlier: the ebb is at 07:20 that day' })],
      cost: free,
      rest: {
        contact: { name: 'Ada Fenwright', phone: '555-0142', mail: '' },
        access: 'Soft sand; two beach wheelchairs, ask a day before.',
      },
    },
    {
      title: 'Quay Market',
      cat: 'market',
      venue: ['quay'],
      org: ['market'],
      pic: 'market',
      summary: 'Twenty-two stalls; the bread oven is lit from ten.',
      text: '<p>Fish off the boat, greens off the salt gardens, and a stall that only sells string. In a gale the stalls move under the arches.</p>',
      when: [timed(next(past, SAT), '09:00', '13:00', rule('weekly', on(SAT)))],
      cost: free,
    },
    {
      title: 'Isles Council, public sitting',
      short: 'Isles Council',
      cat: 'town',
      venue: ['council'],
      org: ['council'],
      summary: 'Agenda on the door three days before. Anybody may speak for four minutes.',
      text: '<p>Ferry times, the slip, the lamp oil. Minutes are read aloud at the end so that nobody need wait for them.</p>',
      when: [timed(councilStart, '18:30', '20:30', rule('monthly', nths(THU, 1)))],
      cost: free,
      rest: { attendance: 'both', onlineAddress: 'https://council.example/sitting' },
    },
    {
      title: 'Navigation Evening: reading old charts',
      short: 'Navigation Evening',
      cat: 'navigation',
      venue: ['pilots'],
      org: ['pilots'],
      pic: 'chart',
      summary: "Six of the harbour's own charts, and what the soundings say.",
      text: '<p>Bring a pencil. We plot one passage each evening, by the marks that were there when the chart was drawn.</p>',
      when: [timed(nthFrom(t - 90, THU, 3), '19:30', '21:00', rule('monthly', nths(THU, 3)), times(14))],
      cost: paid('4'),
      rest: { attendance: 'both', onlineAddress: 'https://pilots.example/evening' },
    },
    {
      title: 'Night-sky Watch',
      cat: 'skies',
      venue: ['light'],
      org: ['skies'],
      pic: 'night-sky',
      summary: 'The Beehive and the season’s last Orion; red torches only.',
      text: '<p>Four telescopes in the light’s garden. If it is cloudy we go up to the lamp instead and hear about the wrecks.</p>',
      when: [timed(nthFrom(t - 200, FRI, 3), '21:00', '23:30', rule('monthly', nths(FRI, 3)))],
      cost: free,
    },
    {
      title: 'Fiddle Session',
      cat: 'music',
      venue: ['netloft'],
      org: ['ceilidh'],
      pic: 'fiddle',
      summary: 'A circle of chairs. Bring an instrument, or only your foot.',
      text: '<p>Slow tunes until nine, then as they come. Nobody counts anybody in.</p>',
      when: [timed(fiddleStart, '20:00', null, rule('monthly', nths(SAT, 4)))],
      changes: [cancelled(fiddleOff, '20:00', 'the loft floor is being caulked')],
      cost: free,
    },
    {
      title: 'Boat-building Weekend',
      cat: 'water',
      venue: ['slip'],
      org: ['skiffs'],
      summary: 'Three days on the club’s fourth skiff: steam, clench nails, and somebody’s soup.',
      text: '<p>Friday we steam the ribs, Saturday they go in, Sunday we stand about and look at them. All hands have a use.</p>',
      when: [whole(boatBuilding, 3)],
      cost: paid('25'),
      rest: { access: 'The shed is level; the slip is not.' },
    },
    {
      title: 'Ceilidh at the Net Loft',
      cat: 'ceilidhs',
      venue: ['netloft'],
      org: ['ceilidh'],
      pic: 'ceilidh',
      summary: 'Fiddles from three islands; the last ferry waits until 23:40.',
      text: '<p>A caller, so nobody needs to know a step. Children dance free and sleep on the coats.</p><p>There is soup at ten and a raffle that always ends in a ham.</p>',
      when: [
        timed(big, '20:00', '23:30'),
        timed(nthFrom(big + 20, SAT, 2), '20:00', '23:30', rule('monthly', { interval: 2, ...nths(SAT, 2) }), times(8)),
      ],
      cost: words('$8, children free'),
      rest: { headline: true },
    },
    {
      title: 'Skiff Racing, heat 2',
      cat: 'racing',
      venue: ['slip'],
      org: ['skiffs'],
      pic: 'skiffs',
      summary: 'Three skiffs, twice round the Sound mark.',
      text: '<p>Watch from the Harbour Steps; the wind has opinions.</p>',
      when: [timed(big, '16:00', '18:00')],
      changes: [cancelled(big, '16:00', `gale from the south-west; joins heat 3 a week later`)],
      cost: free,
    },
    {
      title: 'Skiff Racing, heat 3',
      cat: 'racing',
      venue: ['slip'],
      org: ['skiffs'],
      pic: 'skiffs',
      summary: 'Heats 2 and 3 together, so the Steps will be full.',
      text: '<p>Six boats from two clubs. Tea from the window of the Pilots’ House.</p>',
      when: [timed(big + 7, '15:00', '18:00')],
      cost: free,
    },
    {
      title: 'Seed Swap',
      cat: 'seeds',
      venue: ['glass'],
      org: ['seeds'],
      pic: 'seeds',
      summary: 'Bring what you saved, take what you will sow.',
      text: '<p>Salt-hardy kale, the blue bean of Skerry, and forty kinds of lettuce that nobody can tell apart.</p>',
      when: [timed(big, '14:00', '16:30')],
      cost: free,
      rest: { contact: { name: 'Rue Dunlin', phone: '555-0177', mail: 'salt@gardens.example' } },
    },
    {
      title: 'Bread Oven Day',
      cat: 'market',
      venue: ['oven'],
      org: ['market'],
      pic: 'bread',
      summary: 'Bring dough, take bread; the oven does six loaves a quarter of an hour.',
      text: '<p>Lit at six, hot at ten, good for biscuits until four. The last heat dries herbs.</p>',
      when: [timed(nthFrom(t - 60, SAT, 2), '13:00', '16:00', rule('monthly', nths(SAT, 2)))],
      cost: paid('2'),
    },
    {
      title: 'Lighthouse Open Stair',
      cat: 'wild',
      venue: ['light'],
      org: ['skies'],
      pic: 'lighthouse',
      summary: 'Ninety-six steps, one lamp, and the whole of the isles.',
      text: '<p>Small groups, on the hour. Shoes that grip; the top landing is open iron.</p>',
      when: [timed(nthFrom(t - 100, SUN, 2), '11:00', '15:00', rule('monthly', nths(SUN, 2)))],
      cost: words('by the box at the door'),
    },
    {
      title: 'Knots & Splices',
      cat: 'learn',
      venue: ['workshop'],
      org: ['pilots'],
      summary: 'Eight evenings from the bowline to the long splice.',
      text: '<p>Rope is given. The eighth evening ends with a fender that you take home.</p>',
      when: [timed(next(t - 20, THU) + 1 - 1, '19:30', '21:00', rule('weekly', { interval: 2, ...on(THU) }), times(8))],
      cost: paid('30'),
    },
    {
      title: 'Regatta Day: the Grand Row-past',
      short: 'Grand Row-past',
      cat: 'water',
      venue: ['slip'],
      org: ['skiffs'],
      pic: 'skiffs',
      summary: 'Everything that floats, in order of age.',
      text: '<p>The oldest boat was built for carrying peat. It leads, and nobody overtakes.</p>',
      when: [timed(big, '11:00', '12:30')],
      cost: free,
    },
    {
      title: 'Children’s Crab Count',
      short: 'Crab Count',
      cat: 'wild',
      venue: ['causeway'],
      org: ['wardens'],
      summary: 'Nets, buckets and a clipboard; every crab goes home.',
      text: '<p>The count has run for thirty-one years. Last year’s best bucket held nineteen.</p>',
      when: [timed(big, '10:30', '12:00')],
      cost: free,
    },
    {
      title: 'Herring Smoke',
      cat: 'market',
      venue: ['quay'],
      org: ['market'],
      summary: 'Two smokers, oak and juniper, until the herring is gone.',
      text: '<p>Bring your own plate and you jump the queue.</p>',
      when: [timed(big, '12:00', '15:00')],
      cost: words('by weight'),
    },
    {
      title: 'Shanty Hour',
      cat: 'music',
      venue: ['pilots'],
      org: ['choir'],
      summary: 'Songs with a rope in them, sung by people who have held one.',
      text: '<p>Sung from the steps if it is dry.</p>',
      when: [timed(big, '17:00', '18:00')],
      cost: free,
    },
    {
      title: 'Kittiwick Maritime Week',
      cat: 'water',
      venue: ['pilots'],
      org: ['pilots'],
      pic: 'ferry',
      summary: 'Models, engines, logbooks: the Pilots’ House is open every day.',
      text: '<p>Six rooms, one stove. The diesel in the yard is started at noon each day and argued about until one.</p>',
      when: [whole(big - 4, 7)],
      cost: free,
    },
    {
      title: 'Island Schools Exhibition',
      short: 'Schools Exhibition',
      cat: 'learn',
      venue: ['school'],
      org: ['council'],
      summary: 'Maps of the isles by everybody under twelve.',
      text: '<p>Some are to scale. The best ones are not.</p>',
      when: [whole(big - 2, 10)],
      cost: free,
    },
    {
      title: 'Morning Swim',
      cat: 'water',
      venue: ['slip'],
      org: ['skiffs'],
      summary: 'In at seven, out by ten past. Flask essential.',
      text: '<p>The safety boat is a skiff with a kettle.</p>',
      when: [timed(next(past, MON), '07:00', '07:30', rule('weekly', on(MON, FRI)))],
      cost: free,
      breaks: [{ from: isoDay(t + 30), to: isoDay(t + 44) }],
    },
    {
      title: 'Ferry Office Hours',
      cat: 'town',
      venue: ['quay'],
      org: ['council'],
      summary: 'Passes, freight, and what became of your parcel.',
      text: '<p>Every workday until the summer timetable is settled. The window closes when the boat blows.</p>',
      when: [timed(next(t + 26, MON), '08:30', '11:00', rule('weekly', on(MON, TUE, WED, THU, FRI)), until(t + 60))],
      cost: free,
    },
    {
      title: 'Tool Library',
      cat: 'mending',
      venue: ['workshop'],
      org: ['menders'],
      summary: 'Borrow a plane, bring it back sharp.',
      text: '<p>Two hundred tools and one rule.</p>',
      when: [
        timed(next(past, SAT), '10:00', '11:30', rule('weekly', { interval: 2, ...on(SAT) })),
        timed(next(past, THU), '17:00', '18:30', rule('weekly', on(THU))),
      ],
      cost: free,
    },
    {
      title: 'Skerry Story Circle',
      cat: 'talks',
      venue: ['school'],
      org: ['pilots'],
      pic: 'lighthouse',
      summary: 'One true story, one that should be.',
      text: '<p>Told, not read. Eight minutes by the school clock, which is slow.</p>',
      when: [timed(nthFrom(t - 150, WED, -1), '19:00', '20:30', rule('monthly', nths(WED, -1)))],
      cost: free,
    },
    {
      title: 'Rent and Rates Day',
      cat: 'town',
      venue: ['council'],
      org: ['council'],
      summary: 'The clerk sits from nine; bring the paper with the number on it.',
      text: '<p>On the last day of each month.</p>',
      when: [timed(monthDayFrom(t - 60, 1) - 1, '09:00', '12:00', rule('monthly', { byMonthDay: [-1] }))],
      cost: free,
    },
    {
      title: 'Oil and Lamp Round',
      cat: 'town',
      org: ['council'],
      summary: 'Put your can out the night before.',
      text: '<p>The cart goes round on the 5th and the 20th, whatever day that is.</p>',
      when: [whole(monthDayFrom(t - 60, 5), 1, rule('monthly', { byMonthDay: [5, 20] }))],
      cost: words('by the litre'),
    },
    {
      title: 'Lamp Night',
      cat: 'town',
      venue: ['quay'],
      org: ['council'],
      pic: 'lanterns',
      summary: 'Every window has a light in it for those at sea.',
      text: '<p>We walk from the quay to the Light with whatever burns. The bell is rung once for each boat.</p>',
      when: [timed(dayOf(ymdOf(t).year, 11, 11), '17:30', '19:30', rule('yearly'), times(3))],
      cost: free,
      rest: { headline: true },
    },
    {
      title: 'Isles Day Tug-of-war',
      cat: 'town',
      venue: ['causeway'],
      org: ['council'],
      summary: 'Amble against everybody. Gannet has the rope this year.',
      text: '<p>First Monday in June, at slack water, and the tide is the umpire.</p>',
      when: [timed(nthFrom(dayOf(ymdOf(t).year, 6, 1), MON, 1), '13:00', '15:00', rule('yearly', { byMonth: [6], ...nths(MON, 1) }))],
      cost: free,
    },
    {
      title: 'Gannet Count',
      cat: 'wild',
      venue: ['causeway'],
      org: ['wardens'],
      pic: 'gannets',
      summary: 'Ten mornings on the cliff with a clicker.',
      text: '<p>Beginners count the left half, which is only four thousand.</p>',
      when: [timed(t + 20, '06:30', '08:30', rule('daily'), times(10))],
      cost: free,
    },
    {
      title: 'Stove-side Knitting',
      cat: 'mending',
      venue: ['pilots'],
      org: ['menders'],
      pic: 'knitting',
      summary: 'Every second Monday: ganseys, mittens, and the long sock.',
      text: '<p>Patterns by island. Nobody minds a dropped stitch; several are famous.</p>',
      when: [timed(next(past, MON), '14:00', '16:00', rule('weekly', { interval: 2, ...on(MON) }))],
      cost: free,
    },
    {
      title: 'Whale Watch from the Light',
      cat: 'wild',
      venue: ['light'],
      org: ['wardens'],
      pic: 'whale',
      summary: 'Four hours with good glasses and better company.',
      text: '<p>Minke most years, humpback some, and once a very large log.</p>',
      when: [timed(nthFrom(t + 12, SUN, 4), '08:00', '12:00', rule('monthly', nths(SUN, 4)), times(5))],
      cost: paid('6'),
    },
    {
      title: 'Salt Garden Open Morning',
      cat: 'seeds',
      venue: ['glass'],
      org: ['seeds'],
      summary: 'Kale, samphire and a rhubarb of alarming size.',
      text: '<p>Cuttings go for a coin in the jar.</p>',
      when: [timed(nthFrom(t - 40, SUN, -1), '10:00', '12:30', rule('monthly', nths(SUN, -1)))],
      cost: free,
    },
    {
      title: 'Pruning by Example',
      cat: 'seeds',
      venue: ['glass'],
      org: ['seeds'],
      summary: 'One apple tree, twelve pairs of secateurs.',
      text: '<p>The tree has survived worse.</p>',
      when: [timed(nthFrom(t + 2, SAT, 1) + 7, '10:00', '12:00')],
      cost: paid('5'),
    },
    {
      title: 'First Aid Afloat',
      cat: 'learn',
      venue: ['school'],
      org: ['skiffs'],
      summary: 'Two Sundays: cold, cuts, and keeping calm.',
      text: '<p>The dummy is called Osric. Be kind to him.</p>',
      when: [timed(next(t + 10, SUN), '13:00', '17:00'), timed(next(t + 17, SUN), '13:00', '16:00')],
      cost: paid('18'),
    },
    {
      title: 'Concert: Three Winds',
      cat: 'music',
      venue: ['hall'],
      org: ['choir'],
      pic: 'choir',
      summary: 'Oboe, horn and bassoon, and the hall’s own draught.',
      text: '<p>Works for wind, one of them written for this hall, with the rattling window in it.</p>',
      when: [timed(nthFrom(t + 8, FRI, 2), '19:30', '21:15')],
      cost: words('$10, under 16 free'),
      rest: { headline: true },
    },
    {
      title: 'Supper Dance',
      cat: 'ceilidhs',
      venue: ['hall'],
      org: ['ceilidh'],
      pic: 'ceilidh',
      summary: 'Stovies, then reels.',
      text: '<p>Shoes without nails, please: the hall floor is new.</p>',
      when: [timed(nthFrom(t + 40, SAT, 3), '18:30', '23:00')],
      cost: paid('12'),
    },
    {
      title: 'Radio Operators’ Night',
      cat: 'navigation',
      org: ['pilots'],
      summary: 'Listening out on the old frequencies, from your own kitchen.',
      text: '<p>We meet on the air and on the screen. The log is kept by whoever has the best pencil.</p>',
      when: [timed(nthFrom(t - 80, TUE, 2), '20:00', '21:00', rule('monthly', nths(TUE, 2)))],
      cost: free,
      rest: { attendance: 'online', onlineAddress: 'https://pilots.example/radio' },
    },
    {
      title: 'Letters Home: an online reading',
      short: 'Letters Home',
      cat: 'talks',
      org: ['pilots'],
      summary: 'Six letters from the whaling years, read by those who found them.',
      text: '<p>One was in a clock.</p>',
      when: [timed(t + 16, '19:00', '20:00')],
      cost: free,
      rest: { attendance: 'online', onlineAddress: 'https://pilots.example/letters' },
    },
    {
      title: 'Harbour Clean',
      cat: 'wild',
      venue: ['slip'],
      org: ['wardens'],
      summary: 'Gloves and sacks are there; bring boots.',
      text: '<p>Last time: two anchors, nine crab pots, one piano lid.</p>',
      when: [timed(nthFrom(t - 90, SAT, 1), '08:30', '10:30', rule('monthly', { interval: 3, ...nths(SAT, 1) }))],
      cost: free,
    },
    {
      title: 'Beginners’ Rowing',
      cat: 'racing',
      venue: ['slip'],
      org: ['skiffs'],
      pic: 'skiffs',
      summary: 'Six Wednesdays. By the fourth it looks like rowing.',
      text: '<p>Minimum age fourteen, no maximum. We have had eighty-one.</p>',
      when: [timed(next(t + 3, WED), '18:00', '19:30', rule('weekly', on(WED)), times(6))],
      cost: paid('36'),
    },
    {
      title: 'Skiff Racing, heat 1',
      cat: 'racing',
      venue: ['slip'],
      org: ['skiffs'],
      pic: 'skiffs',
      summary: 'The season’s opener.',
      text: '<p>Won by a bow and a shout.</p>',
      when: [timed(big - 14, '15:00', '17:00')],
      cost: free,
    },
    {
      title: 'Lantern Making',
      cat: 'learn',
      venue: ['workshop'],
      org: ['menders'],
      pic: 'lanterns',
      summary: 'Willow, paper, one candle.',
      text: '<p>For the walk on Lamp Night, or for the stairs.</p>',
      when: [timed(nthFrom(t + 20, SAT, 1), '14:00', '17:00')],
      cost: paid('3'),
    },
    {
      title: 'Tide-table Talk',
      cat: 'talks',
      venue: ['pilots'],
      org: ['pilots'],
      pic: 'chart',
      summary: 'Why tomorrow’s low water is not today’s plus fifty minutes.',
      text: '<p>With string, an orange, and a moon made of a colander.</p>',
      when: [timed(nthFrom(t + 6, WED, 2), '19:30', '20:45')],
      cost: free,
    },
    {
      title: 'Amble Film Evening',
      short: 'Film Evening',
      cat: 'learn',
      venue: ['hall'],
      org: ['council'],
      summary: 'A silent film, and Maud at the piano.',
      text: '<p>Cushions help. The interval is when the reel ends.</p>',
      when: [timed(nthFrom(t - 180, FRI, -1), '19:30', '21:30', rule('monthly', nths(FRI, -1)))],
      cost: paid('4'),
      changes: [change(nthFrom(t + 25, FRI, -1), '19:30', { standing: 'postponed', note: 'the film is on the wrong island' })],
    },
    {
      title: 'Stargazers’ Weekend',
      cat: 'skies',
      venue: ['light', 'school'],
      org: ['skies'],
      pic: 'night-sky',
      summary: 'Three nights, tents allowed, porridge at two.',
      text: '<p>The moon is new. Talks in the schoolroom by day, sleeping is optional.</p>',
      when: [whole(nthFrom(t + 30, FRI, 2), 3)],
      cost: paid('15'),
      rest: { headline: true },
    },
    {
      title: 'Wreck Walk',
      cat: 'walks',
      venue: ['causeway'],
      org: ['wardens'],
      pic: 'low-tide',
      summary: 'The ribs of the Constance at the lowest water of the year.',
      text: '<p>Wellingtons. We turn when the warden turns.</p>',
      when: [timed(t + 33, '06:10', '08:10')],
      cost: free,
    },
    {
      title: 'Community Supper',
      cat: 'market',
      venue: ['hall'],
      org: ['market'],
      pic: 'bread',
      summary: 'One long table. Bring a dish with its name on it.',
      text: '<p>Second Wednesday, six o’clock. The choir’s kitchen does the potatoes.</p>',
      when: [timed(nthFrom(t - 160, WED, 2), '18:00', '20:00', rule('monthly', nths(WED, 2)))],
      cost: words('a dish'),
    },
    {
      title: 'Winter Fair',
      cat: 'market',
      venue: ['quay'],
      org: ['market'],
      pic: 'lanterns',
      summary: 'Candles, puddings, and the string stall’s annual sale.',
      text: '<p>Two days under the arches.</p>',
      when: [whole(nthFrom(dayOf(ymdOf(t).year, 12, 1), SAT, 2), 2, rule('yearly', { byMonth: [12], ...nths(SAT, 2) }), times(2))],
      cost: free,
    },
    {
      title: 'Skerry School Concert',
      cat: 'music',
      venue: ['school'],
      org: ['choir'],
      summary: 'Recorders. Many recorders.',
      text: '<p>Earplugs are sold for the roof fund.</p>',
      when: [timed(t + 44, '14:00', '15:00')],
      cost: free,
    },
    {
      title: 'Boat Jumble',
      cat: 'water',
      venue: ['quay'],
      org: ['skiffs'],
      summary: 'Half a mast, most of an outboard.',
      text: '<p>Everything must go, and usually comes back.</p>',
      when: [timed(nthFrom(t + 15, SUN, 1), '09:30', '13:00')],
      cost: free,
    },
    {
      title: 'Harbour Choir: open rehearsal',
      cat: 'choirs',
      venue: ['hall'],
      org: ['choir'],
      summary: 'Hear how it is made, mistakes and all.',
      text: '<p>The pews at the back are warmest.</p>',
      when: [timed(t + 21, '17:00', '18:30')],
      cost: free,
    },
    {
      title: 'Ferry Winter Timetable begins',
      short: 'Winter timetable',
      cat: 'town',
      org: ['council'],
      pic: 'ferry',
      summary: 'Last boat from Gannet Bay at 19:10.',
      text: '<p>The summer timetable comes back in April.</p>',
      when: [whole(dayOf(ymdOf(t).year, 11, 1), 1, rule('yearly'))],
      cost: { kind: 'unsaid' },
    },
    {
      title: 'Mussel Morning',
      cat: 'market',
      venue: ['oven'],
      org: ['market'],
      summary: 'Pots on at nine, empty by eleven.',
      text: '<p>Months with an r in them only.</p>',
      when: [timed(nthFrom(t - 300, SUN, 1), '09:00', '11:00', rule('monthly', { byMonth: [1, 2, 3, 4, 9, 10, 11, 12], ...nths(SUN, 1) }))],
      cost: words('$9 a pot'),
    },
    {
      title: 'Pilots’ Reading Room',
      cat: 'learn',
      venue: ['pilots'],
      org: ['pilots'],
      summary: 'The stove is lit and the logbooks are out.',
      text: '<p>Tuesdays and Fridays. Pencils only near the charts.</p>',
      when: [timed(next(past, TUE), '14:00', '17:00', rule('weekly', on(TUE, FRI)))],
      cost: free,
      leftOut: [`${isoDay(next(t + 8, TUE))}T14:00`],
    },
    {
      title: 'Skerry Bell Ringing',
      cat: 'music',
      venue: ['light'],
      org: ['skies'],
      summary: 'Six handbells, one bell rope.',
      text: '<p>Practice on the quarter hour, so as not to alarm the ferry.</p>',
      when: [timed(next(past, THU), '18:00', '19:00', rule('weekly', on(THU)), until(t + 200))],
      cost: free,
    },
    {
      title: 'Dawn Chorus Walk',
      cat: 'walks',
      venue: ['glass'],
      org: ['wardens'],
      summary: 'Wrens first, then everybody.',
      text: '<p>Home for breakfast.</p>',
      when: [timed(t + 12, '04:45', '06:30')],
      cost: free,
    },
    {
      title: 'Gansey Exhibition',
      cat: 'mending',
      venue: ['workshop'],
      org: ['menders'],
      pic: 'knitting',
      summary: 'Forty jerseys, each with its island in it.',
      text: '<p>Some have been to sea longer than their owners.</p>',
      when: [whole(t + 22, 12)],
      cost: free,
    },
    {
      title: 'Bird Ringing Demonstration',
      short: 'Bird Ringing',
      cat: 'wild',
      venue: ['causeway'],
      org: ['wardens'],
      pic: 'gannets',
      summary: 'Small birds, smaller rings.',
      text: '<p>In wind we drink tea instead.</p>',
      when: [timed(t + 27, '07:00', '09:30')],
      cost: free,
    },
    {
      title: 'Annual Meeting of the Skiff Club',
      short: 'Skiff Club meeting',
      cat: 'town',
      venue: ['pilots'],
      org: ['skiffs'],
      summary: 'Accounts, oars, any other business (oars).',
      text: '<p>Members vote; anybody may sigh.</p>',
      when: [timed(nthFrom(dayOf(ymdOf(t).year, 2, 1), MON, -1), '19:00', '21:00', rule('yearly', { byMonth: [2], ...nths(MON, -1) }))],
      cost: free,
    },
    {
      title: 'Sail Loft Course',
      cat: 'mending',
      venue: ['workshop'],
      org: ['menders'],
      pic: 'mending',
      summary: 'Three days from bolt rope to batten.',
      text: '<p>You leave with a ditty bag and sore thumbs.</p>',
      when: [timed(nthFrom(t + 50, FRI, 1), '09:30', '16:00', rule('daily'), times(3))],
      cost: paid('90'),
    },
    {
      title: 'Spring Plant Sale',
      cat: 'seeds',
      venue: ['glass'],
      org: ['seeds'],
      pic: 'seeds',
      summary: 'Hardened off by the wind itself.',
      text: '<p>Cash, or eggs.</p>',
      when: [timed(nthFrom(dayOf(ymdOf(t + 60).year, 5, 1), SAT, 2), '10:00', '14:00', rule('yearly', { byMonth: [5], ...nths(SAT, 2) }))],
      cost: free,
    },
    {
      title: 'New Year Dip',
      cat: 'water',
      venue: ['slip'],
      org: ['skiffs'],
      summary: 'In at noon. Out at one past.',
      text: '<p>A fire, a blanket, and a certificate in a firm hand.</p>',
      when: [timed(dayOf(ymdOf(t).year, 1, 1), '12:00', '12:30', rule('yearly'))],
      cost: free,
    },
  ];
}

export interface DemoSubmission {
  listing: DemoListing;
  sender: string;
  mail: string;
  message: string;
  where: string;
  daysAgo: number;
}

export function demoSubmissions(today: Day): DemoSubmission[] {
  return [
    {
      sender: 'Rue Dunlin',
      mail: 'rue@dunlin.example',
      message: 'We are new to this. Is the picture all right?',
      where: 'Stair Rocks, Gannet Bay',
      daysAgo: 2,
      listing: {
        title: 'Tide-pool Morning for Children',
        cat: 'wild',
        pic: 'low-tide',
        summary: '',
        text: '<p>Nets, buckets and a good guess at what lives under the weed. We put everything back where it was. Wellingtons, please; two grown-ups come along for every eight children.</p>',
        when: [timed(next(today + 10, SAT), '09:30', '11:30')],
        cost: paid('3'),
      },
    },
    {
      sender: 'Tam Ropewalk',
      mail: 'tam@ropewalk.example',
      message: '',
      where: '',
      daysAgo: 1,
      listing: {
        title: 'Net-making, six evenings',
        cat: 'learn',
        venue: ['workshop'],
        org: ['menders'],
        summary: 'From twine to a landing net in six Tuesdays.',
        text: '<p>Needles and gauges are lent. Left-handers are very welcome; so is patience.</p>',
        when: [timed(next(today + 14, TUE), '19:00', '21:00', rule('weekly', on(TUE)), times(6))],
        cost: paid('24'),
      },
    },
    {
      sender: 'Ola Brae',
      mail: 'ola@brae.example',
      message: 'Same as last year, I hope it is not too early to send it.',
      where: 'the glasshouse',
      daysAgo: 0,
      listing: {
        title: 'SEED SWAP',
        cat: 'seeds',
        summary: '',
        text: '<p>Swap seeds and cuttings. Tea.</p>',
        when: [timed(next(today + 18, SUN), '14:00', '16:00')],
        cost: { kind: 'unsaid' },
      },
    },
  ];
}
