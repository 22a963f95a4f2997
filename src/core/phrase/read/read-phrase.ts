/**
 * Reads a phrase such as `every 1st and 3rd Sunday 7:40am for 2 hours, March to October, not in August` as a recurrence.
 * Words that are not understood are handed back, never guessed away; what has two readings comes with both. English.
 */
import { ClauseReader } from './clause';
import type { Place } from './clause-state';
import { Cursor } from './cursor';
import { isLabel, slipsOf } from './fragments';
import type { Aside, PhraseProblem } from './phrase-problem';
import { Resolver, type Setting } from './resolve';
import { tokensOf } from './tokens';
import type { Recurrence } from '../../recurrence/model';

export type { Setting } from './resolve';
export type { Aside, Offer, PhraseProblem } from './phrase-problem';

/** A part of a phrase that nobody read. */
export interface Fragment extends Place {
  text: string;
}

/** What was understood of a phrase, what was not, and what has to be asked. */
export interface Reading {
  /** null when nothing says when, when it is not decided, or when words beside it were not understood */
  recurrence: Recurrence | null;
  /** what the rest gives where words were not understood: shown, never put */
  understood: Recurrence | null;
  /** what was not understood, in order */
  unread: Fragment[];
  problems: PhraseProblem[];
  /** what was decided and can be said otherwise */
  asides: Aside[];
}

/** Longer phrases than this are no phrases. */
export const MOST_CHARACTERS = 2_000;

/** A phrase that cannot be read at all: it is too long. */
export class PhraseError extends Error {
  override name = 'PhraseError';
}

/**
 * Words that are all about when, as a field for dates holds them: what is not understood is asked, and no date is made beside it.
 * Throws {@link PhraseError} for a phrase that is too long; anything else is read as far as it can be.
 */
export function readPhrase(setting: Setting): Reading {
  const reading = readTokens(setting);
  const unread = reading.unread.filter(({ text }) => !isLabel(text));
  if (!unread.length) return { ...reading, unread };
  const slips = slipsIn(setting, reading, () => true);
  const problems = [
    // Without a day or an hour it is because the words that say it were not understood.
    ...reading.problems.filter(({ kind }) => kind !== 'no-day' && kind !== 'no-hour'),
    ...slips,
    ...unread
      .filter(({ from, to }) => !slips.some((slip) => slip.from >= from && slip.to <= to))
      .map(({ text, from, to }): PhraseProblem => ({ kind: 'not-understood', text, from, to, offers: [] })),
  ];
  return { ...reading, unread, recurrence: null, understood: reading.recurrence, problems: inOrder(problems) };
}

/**
 * Words of which some are about when and the others are not, as a listing in one line: those are handed back. A slip in a word of time beside
 * others of them is still asked. Throws as {@link readPhrase} does.
 */
export function readAmongWords(setting: Setting): Reading {
  const reading = readTokens(setting);
  const slips = reading.unread.length ? slipsIn(setting, reading, (place) => isBesideTime(setting.phrase, reading, place)) : [];
  if (!slips.length) return reading;
  return { ...reading, recurrence: null, understood: reading.recurrence, problems: inOrder([...reading.problems, ...slips]) };
}

function readTokens(setting: Setting): Reading {
  const { phrase } = setting;
  if (phrase.length > MOST_CHARACTERS)
    throw new PhraseError(`The phrase is longer than ${MOST_CHARACTERS.toLocaleString('en')} characters`);
  const said = new ClauseReader(new Cursor(tokensOf(phrase)), phrase).read();
  const { recurrence, problems, asides } = new Resolver(setting).resolve(said);
  const unread = said.unread.map(({ from, to }) => ({ from, to, text: phrase.slice(from, to) }));
  return { recurrence, understood: null, unread, problems: inOrder(problems), asides };
}

const inOrder = (problems: readonly PhraseProblem[]): PhraseProblem[] => [...problems].sort((a, b) => a.from - b.from);

/** Words of one phrase that are looked at for a slip. */
const MOST_SLIPS = 6;

/** Words with a slip in them: with the word that was meant in their place, more of the phrase is read. */
function slipsIn(setting: Setting, reading: Reading, mayBe: (place: Place) => boolean): PhraseProblem[] {
  const { phrase } = setting;
  const words = reading.unread.flatMap((part) =>
    [...part.text.matchAll(/[\p{L}\p{N}'’]+/gu)].map((match) => ({
      text: match[0],
      from: part.from + match.index,
      to: part.from + match.index + match[0].length,
    })),
  );
  const size = wordsIn(reading.unread);
  const found: PhraseProblem[] = [];
  for (const { text, from, to } of words) {
    if (found.length >= MOST_SLIPS) break;
    if (!mayBe({ from, to })) continue;
    const offers = slipsOf(text)
      .slice(0, 3)
      .filter((word) => wordsIn(readTokens({ ...setting, phrase: phrase.slice(0, from) + word + phrase.slice(to) }).unread) < size)
      .map((word) => ({ value: word.toLowerCase(), instead: word }));
    if (offers.length) found.push({ kind: 'not-understood', text, from, to, offers });
  }
  return found;
}

const wordsIn = (unread: readonly Fragment[]): number =>
  unread.reduce((sum, { text }) => sum + (text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0), 0);

/** Does a word stand next to what was read, with no other unread word between? */
function isBesideTime(phrase: string, { unread }: Reading, { from, to }: Place): boolean {
  const part = unread.find((one) => one.from <= from && to <= one.to);
  if (!part) return false;
  const plain = (text: string): boolean => !/[\p{L}\p{N}]/u.test(text);
  const before = plain(phrase.slice(part.from, from)) && /[\p{L}\p{N}][^,;\p{L}\p{N}]*$/u.test(phrase.slice(0, part.from));
  const after = plain(phrase.slice(to, part.to)) && /^[^,;\p{L}\p{N}]*[\p{L}\p{N}]/u.test(phrase.slice(part.to));
  return before || after;
}
