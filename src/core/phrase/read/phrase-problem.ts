/** What in a phrase needs somebody's decision. */

/** Words that can stand in the place of those that were not understood. */
export interface Offer {
  /** for programs: an ISO date, a time, or a word */
  value: string;
  /** what may stand in the phrase instead of the text in question */
  instead: string;
}

/** What can be wrong with a phrase. */
export const PHRASE_PROBLEMS = [
  'ambiguous-date',
  'ambiguous-time',
  'ambiguous-repeat',
  'weekday-mismatch',
  'no-such-date',
  'no-dates',
  'end-before-start',
  'exception-without-date',
  'bad-rule',
  'no-hour',
  'part-mismatch',
  'no-day',
  'no-such-time',
  'not-understood',
  'either-or',
  'two-rules',
  'two-dates',
  'two-ends',
  'two-times',
  'past-time',
  'which-midnight',
  'once-or-weekly',
  'each-day-or-through',
  'year-or-time',
  'other-zone',
  'vague',
  'other-number',
  'no-sun',
] as const;

/** What is the matter, behind the words in question: "3/4" could be two dates. */
export const PROBLEM_WORDS: Record<(typeof PHRASE_PROBLEMS)[number], string> = {
  'ambiguous-date': 'could be two dates',
  'ambiguous-time': 'could be morning or evening',
  'ambiguous-repeat': 'could be two rhythms',
  'weekday-mismatch': 'is another weekday',
  'no-such-date': 'is no date that exists',
  'no-dates': 'gives no date',
  'end-before-start': 'ends before it begins',
  'exception-without-date': 'has no date to leave out',
  'bad-rule': 'is no rule that can be read',
  'no-hour': 'does not say at what time',
  'part-mismatch': 'does not fit the time',
  'no-day': 'does not say on which day',
  'no-such-time': 'is no time that a clock shows',
  'not-understood': 'was not understood',
  'either-or': 'leaves open which of them',
  'two-rules': 'does not fit the rest of the rhythm',
  'two-dates': 'is another day than the rest says',
  'two-ends': 'does not fit the other end that is said',
  'two-times': 'does not fit the other time that is said',
  'past-time': 'is already over',
  'which-midnight': 'could be where the day begins or where it ends',
  'once-or-weekly': 'could be once or every week',
  'each-day-or-through': 'could be the hours of each day, or one time from the first to the last',
  'year-or-time': 'could be a year or a time',
  'other-zone': 'is the time of another zone',
  vague: 'does not say exactly when',
  'other-number': 'is another number than the days that are said',
  'no-sun': 'hangs on the sun, and the settings do not say where this calendar is',
};

/** One thing that is wrong, with its place and what could stand there. */
export interface PhraseProblem {
  kind: (typeof PHRASE_PROBLEMS)[number];
  /** the words in question, and where they stand in the phrase */
  text: string;
  from: number;
  to: number;
  offers: Offer[];
}

/** Something that was decided and can be said otherwise: `August` beside a rule that goes on is every August. */
export interface Aside extends Omit<PhraseProblem, 'kind'> {
  kind: 'each-year';
}

/** A problem in a sentence, with what may be written instead, where buttons are out of reach: in a form without a script, beside a row of a file. */
export function sayProblem({ kind, text, offers }: PhraseProblem): string {
  const offered = offers.map(({ instead }) => `“${instead}”`).join(' or ');
  return `“${text.slice(0, 60)}” ${PROBLEM_WORDS[kind]}${offered ? `: write ${offered}` : ''}.`;
}
