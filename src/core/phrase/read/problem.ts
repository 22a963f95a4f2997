/** What in a phrase needs somebody's decision. */

export interface Offer {
  /** for programs: an ISO date, a time, or a word */
  value: string;
  /** what may stand in the phrase instead of the text in question */
  instead: string;
}

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
};

export interface PhraseProblem {
  kind: (typeof PHRASE_PROBLEMS)[number];
  /** the words in question, and where they stand in the phrase */
  text: string;
  from: number;
  to: number;
  offers: Offer[];
}
