/**
 * Phrases as posters, mails and minutes write them, with what they mean. Committed before the reader is changed for them: what is wrong here is
 * mended in the reader's mechanism, never by a case for one phrase.
 */
import { LISTS, SINGLE } from './dates';
import { CONTRADICTIONS, IMPOSSIBLE, NOT_TIME, OPEN, SLIPS } from './doubtful';
import type { Phrase } from './oracle';
import { PARTS_OF_DAY, RULES, SEVERAL_TIMES } from './rules';
import { SEASONS, SPANS } from './spans';

export const CORPUS: Readonly<Record<string, readonly Phrase[]>> = {
  'a span behind a rule': SPANS,
  'months of each year': SEASONS,
  'two rules in one': RULES,
  'parts of the day': PARTS_OF_DAY,
  'several times a day': SEVERAL_TIMES,
  'lists of days': LISTS,
  'single days': SINGLE,
  contradictions: CONTRADICTIONS,
  impossible: IMPOSSIBLE,
  'slips of the hand': SLIPS,
  'no date that could be known': OPEN,
  'not about time': NOT_TIME,
};
