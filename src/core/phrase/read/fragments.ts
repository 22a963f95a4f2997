/** What of a phrase nobody understood: as the phrases they are, with the words that may have been meant. */
import { slipsBetween } from '../../match/distance';
import type { Token } from './tokens';
import type { Place } from './clause-state';
import { LABELS, MONTH_WORDS, ORDINAL_WORDS, UNIT_WORDS, WEEKDAYS_WORDS, WEEKDAY_WORDS } from './vocabulary';

/** What became of a token. */
export type Fate = 'read' | 'filler' | 'unread';

/**
 * Runs of tokens that were not read, with the small words between them: "when the tide is low" is one. Signs alone are none, but for a question
 * mark, which doubts. What was cut out of a line leaves more than one space, and nothing is joined over it.
 */
export function fragmentsOf(tokens: readonly Token[], fates: readonly Fate[], phrase: string): Place[] {
  const found: Place[] = [];
  /** the last unread token of the run, or -1 */
  let last = -1;
  for (const [i, token] of tokens.entries()) {
    if (fates[i] === 'read') last = -1;
    if (fates[i] !== 'unread') continue;
    const run = found.at(-1);
    if (run && last >= 0 && !/\s{2}|[;|]/.test(phrase.slice(tokens[last]?.to, token.from))) run.to = token.to;
    else found.push({ from: token.from, to: token.to });
    last = i;
  }
  return found.filter(({ from, to }) => /[\p{L}\p{N}?]/u.test(phrase.slice(from, to)));
}

/** `Date:`, `Next meeting`: names what follows, and says nothing. */
export function isLabel(text: string): boolean {
  const words = text.toLowerCase().match(/[\p{L}\p{N}?]+/gu) ?? [];
  return words.every((word) => LABELS.has(word));
}

/** Words of time that a slip of the hand is looked for in; shorter ones are too near to others. */
const VOCABULARY = [
  ...[...MONTH_WORDS.keys(), ...WEEKDAY_WORDS.keys(), ...WEEKDAYS_WORDS.keys(), ...ORDINAL_WORDS.keys(), ...UNIT_WORDS.keys()],
  ...'every daily weekly fortnightly monthly quarterly yearly annually today tomorrow tonight noon midday midnight until weekdays weekend'.split(
    ' ',
  ),
  ...'morning mornings afternoon afternoons evening evenings easter christmas except from'.split(' '),
].filter((word) => word.length > 3 && !['hour', 'mins', 'weeks', 'days'].includes(word));

/** Words that are one letter from a word of time and mean something else. */
const OTHER_WORDS = new Set(
  'soon moon very ever form farm marsh match money dairy friary part party hours hour week weeks months days years later'.split(' '),
);

/** Words of the vocabulary that the fewest slips lead to, one or two of them. */
export function slipsOf(text: string): string[] {
  const word = text.toLowerCase().replaceAll('’', "'");
  const figures = word.replaceAll('o', '0').replaceAll(/[il]/g, '1');
  if (/^\d[\doil]*$/.test(word) && figures !== word) return [figures];
  if (word.length < 3 || word.length > 14 || OTHER_WORDS.has(word)) return [];
  const most = word.length >= 7 ? 2 : 1;
  const near = VOCABULARY.map((one) => ({ one, far: one === word ? most + 1 : slipsBetween(word, one, most) }));
  const nearest = Math.min(most, ...near.map(({ far }) => far));
  return near
    .filter(({ far }) => far === nearest)
    .map(({ one }) => (/^\p{Lu}/u.test(text) || isName(one) ? one.charAt(0).toUpperCase() + one.slice(1) : one));
}

const isName = (word: string): boolean =>
  [MONTH_WORDS, WEEKDAY_WORDS, WEEKDAYS_WORDS].some((words) => words.has(word)) || word === 'easter' || word === 'christmas';
