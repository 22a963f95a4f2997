/**
 * Reads a phrase such as `every 1st and 3rd Sunday 7:40am for 2 hours, March to October, not in August` as a recurrence.
 * Words that are not understood are handed back, never guessed away; what has two readings comes with both. English.
 */
import { ClauseReader } from './clause';
import type { Place } from './clause-state';
import { Cursor } from './cursor';
import type { PhraseProblem } from './problem';
import { Resolver, type Setting } from './resolve';
import { tokensOf } from './tokens';
import type { Recurrence } from '../../recurrence/model';

export type { Setting } from './resolve';
export type { Offer, PhraseProblem } from './problem';

export interface Fragment extends Place {
  text: string;
}

export interface Reading {
  /** null when nothing says when, or when it is not decided */
  recurrence: Recurrence | null;
  /** what was not understood, in order */
  unread: Fragment[];
  problems: PhraseProblem[];
}

/** Longer phrases than this are no phrases. */
export const MOST_CHARACTERS = 2_000;

export class PhraseError extends Error {
  override name = 'PhraseError';
}

/** Throws {@link PhraseError} for a phrase that is too long; anything else is read as far as it can be. */
export function readPhrase(setting: Setting): Reading {
  const { phrase } = setting;
  if (phrase.length > MOST_CHARACTERS)
    throw new PhraseError(`The phrase is longer than ${MOST_CHARACTERS.toLocaleString('en')} characters`);
  const said = new ClauseReader(new Cursor(tokensOf(phrase))).read();
  const { recurrence, problems } = new Resolver(setting).resolve(said);
  const unread = said.unread.map(({ from, to }) => ({ from, to, text: phrase.slice(from, to) }));
  return { recurrence, unread, problems: problems.sort((a, b) => a.from - b.from) };
}
