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
] as const;

export interface PhraseProblem {
  kind: (typeof PHRASE_PROBLEMS)[number];
  /** the words in question, and where they stand in the phrase */
  text: string;
  from: number;
  to: number;
  offers: Offer[];
}
