/** The words that phrases are made of. */
import type { Weekday } from '../../day/day';

const plain = <T>(groups: [string, T][]): Map<string, T> =>
  new Map(groups.flatMap(([words, value]) => words.split(' ').map((word) => [word, value] as const)));

/** Words for months; January is 1. */
export const MONTH_WORDS = plain<number>([
  ['january jan', 1],
  ['february feb', 2],
  ['march mar', 3],
  ['april apr', 4],
  ['may', 5],
  ['june jun', 6],
  ['july jul', 7],
  ['august aug', 8],
  ['september sept sep', 9],
  ['october oct', 10],
  ['november nov', 11],
  ['december dec', 12],
]);

/** Words for weekdays; Monday is 0. */
export const WEEKDAY_WORDS = plain<Weekday>([
  ['monday mon', 0],
  ['tuesday tue tues', 1],
  ['wednesday wed weds', 2],
  ['thursday thu thur thurs', 3],
  ['friday fri', 4],
  ['saturday sat', 5],
  ['sunday sun', 6],
]);

/** Said in the plural, a weekday repeats. */
export const WEEKDAYS_WORDS = plain<Weekday>([
  ['mondays', 0],
  ['tuesdays', 1],
  ['wednesdays', 2],
  ['thursdays', 3],
  ['fridays', 4],
  ['saturdays', 5],
  ['sundays', 6],
]);

/** Numbers as words. */
export const NUMBER_WORDS = new Map(
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'
    .split(' ')
    .map((word, i) => [word, i]),
);

/** Ordinal numbers as words; the last is −1. */
export const ORDINAL_WORDS = new Map([
  ['first', 1],
  ['second', 2],
  ['third', 3],
  ['fourth', 4],
  ['fifth', 5],
  ['sixth', 6],
  ['seventh', 7],
  ['eighth', 8],
  ['ninth', 9],
  ['tenth', 10],
]);

/** Days with a name: month and day, or days after Easter Sunday. */
export const NAMED_DAYS: [string, { month: number; day: number } | { easter: number }][] = [
  ["new year's eve", { month: 12, day: 31 }],
  ["new year's day", { month: 1, day: 1 }],
  ['christmas eve', { month: 12, day: 24 }],
  ['christmas day', { month: 12, day: 25 }],
  ['christmas', { month: 12, day: 25 }],
  ['good friday', { easter: -2 }],
  ['easter sunday', { easter: 0 }],
  ['easter monday', { easter: 1 }],
  ['easter', { easter: 0 }],
];

/** Words for units of time. */
export const UNIT_WORDS = plain<'minute' | 'hour' | 'day' | 'week' | 'month' | 'year' | 'fortnight'>([
  ['minute minutes min mins', 'minute'],
  ['hour hours hr hrs h', 'hour'],
  ['day days', 'day'],
  ['week weeks wk wks', 'week'],
  ['fortnight fortnights', 'fortnight'],
  ['month months', 'month'],
  ['year years', 'year'],
]);
/** A unit of time. */
export type Unit = 'minute' | 'hour' | 'day' | 'week' | 'month' | 'year' | 'fortnight';

/** What may stand between parts and says nothing by itself. */
export const FILLERS = new Set([
  'on',
  'at',
  'the',
  'and',
  'of',
  'in',
  'a',
  'an',
  'it',
  'is',
  'with',
  'then',
  'also',
  'always',
  ',',
  '.',
  '(',
  ')',
  '@',
  '&',
  '+',
  ':',
  '|',
  'inclusive',
  'incl',
]);

/** What names a date or a time without saying anything of it: `Date: 20 March`, `AGM`, `Next meeting:`. */
export const LABELS = new Set(
  'agm date dates day days event events following meet meeting meetings meets next session sessions start time times two when open opens all sharp prompt promptly repeated once starts'.split(
    ' ',
  ),
);

/** What makes a time of them that nobody can know: `most Tuesdays`, `around Easter`, `early April`. */
export const VAGUE = new Set(
  'most some several occasional occasionally sometimes usually often few about around circa roughly early mid late before after near during'.split(
    ' ',
  ),
);

/** Letters of zones, in minutes east of UTC. */
export const ZONE_LETTERS = new Map<string, number>([
  ['UTC', 0],
  ['GMT', 0],
  ['WET', 0],
  ['WEST', 60],
  ['BST', 60],
  ['CET', 60],
  ['CEST', 120],
  ['EET', 120],
  ['EEST', 180],
  ['NST', -210],
  ['NDT', -150],
  ['AST', -240],
  ['ADT', -180],
  ['EST', -300],
  ['EDT', -240],
  ['CST', -360],
  ['CDT', -300],
  ['MST', -420],
  ['MDT', -360],
  ['PST', -480],
  ['PDT', -420],
]);

/** Words behind a number that make it a count: "6 times". */
export const COUNTED = new Set(
  'times time x dates date occurrences occurrence sessions session evenings mornings afternoons nights classes lessons meetings occasions'.split(
    ' ',
  ),
);
/** Words that begin an exception. */
export const EXCEPT = new Set(
  'except excepting excluding without skipping skip but not no cancelled canceled closed omitting excl exc'.split(' '),
);
/** Words that begin an end. */
export const UNTIL = new Set('until till til through thru to ending ends finishing'.split(' '));
/** Words that begin a beginning. */
export const FROM = new Set('from starting beginning since commencing starts begins'.split(' '));
/** What does not happen then. */
export const NO_WHAT = new Set(
  'class rehearsal rehearsals practice practices event events lesson meeting meetings session sessions choir band club market'.split(' '),
);
