/** Proof of the words: title, summary, what they leave out and what stands in them too often. */
import { type ListingContent, SUMMARY_SHOWN } from '../listing/content';
import { linesOf, MONTH_ENTRY, MONTH_LINES } from '../text/measure';
import { plainText, shorten } from '../text/text';
import { good, asWarning, type ValidationNote, asError } from './note';
import { says } from './saying';

/** Words that stay as they are when a title in capitals is written in sentence case: short ones, with a digit or dots. */
const isName = (word: string): boolean => /\d/.test(word) || /^(\p{L}\.)+$/u.test(word);

/** "SEED SWAP" to "Seed swap". */
export function sentenceCase(text: string): string {
  const lower = text
    .split(' ')
    .map((word) => (isName(word) ? word : word.toLowerCase()))
    .join(' ');
  return lower.replace(/(^|[.!?]\s+)(\p{L})/gu, (_, before: string, letter: string) => before + letter.toUpperCase());
}

const isShouting = (text: string): boolean =>
  text.length > 3 && text === text.toUpperCase() && (text.match(/\p{Lu}/gu)?.length ?? 0) > 3 && !(isName(text) && !text.includes(' '));

/** Words that a copy keeps from what it was copied from. */
const COPY_WORDS = /^\s*(copy of|kopie von|copie de)\s+|\s*[([]?\bcopy(\s*\d+)?[)\]]?\s*$/i;

/** A title without the "copy" that copying put there. */
export function withoutCopyWords(title: string): string {
  return title
    .replace(COPY_WORDS, '')
    .replace(/\s*[([–-]\s*$/, '')
    .trim();
}

/** Double or trailing spaces, spaces before commas. */
const LOOSE = /^\s|\s$|\s{2,}|\s[,.;:!?](\s|$)/;
/** A text without doubled spaces, and without a space before a comma. */
export function tidied(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
    .trim();
}

/** The first sentence of a text, as long as a summary may be. */
export function firstSentence(html: string): string {
  const text = plainText(html).replace(/\s+/g, ' ');
  const end = /[.!?](?=\s|$)/.exec(text);
  const sentence = end ? text.slice(0, end.index + 1) : text;
  return sentence.length <= SUMMARY_SHOWN.search ? sentence : shorten(text, SUMMARY_SHOWN.search);
}

/** What is wrong with title, summary and text, or missing. */
export function wordNotes(content: ListingContent): ValidationNote[] {
  return [...titleNotes(content), ...summaryNotes(content), ...looseNotes(content)];
}

function titleNotes(content: ListingContent): ValidationNote[] {
  const title = content.title.trim();
  if (!title) return [asError('title-missing', 'title', says('titleMissing'))];
  const notes: ValidationNote[] = [];
  if (isShouting(title))
    notes.push(
      asWarning('title-capitals', 'title', says('titleCapitals'), {
        quickFix: { says: says('writeTitle', { title: sentenceCase(title) }), content: { title: sentenceCase(title) } },
      }),
    );
  const bare = withoutCopyWords(title);
  if (bare !== title && bare)
    notes.push(
      asWarning('title-copy', 'title', says('titleCopy'), {
        quickFix: { says: says('makeItTitle', { title: bare }), content: { title: bare } },
      }),
    );
  const short = content.shortTitle.trim() || title;
  const lines = linesOf(short, MONTH_ENTRY);
  if (lines > MONTH_LINES)
    notes.push(asWarning('short-title-long', 'shortTitle', says('titleLong', { title: short.slice(0, 60), lines, most: MONTH_LINES })));
  else notes.push(good('title-fits', 'title', says('titleFits')));
  return notes;
}

function summaryNotes(content: ListingContent): ValidationNote[] {
  const summary = content.summary.trim();
  const first = firstSentence(content.text);
  if (!summary) {
    if (!first) return [asWarning('summary-missing', 'summary', says('nothingToRead'))];
    const quickFix = { says: says('firstSentence'), content: { summary: first } };
    return [asWarning('summary-missing', 'summary', says('summaryMissing'), { quickFix })];
  }
  if (summary.length <= SUMMARY_SHOWN.search) return [];
  const quickFix = { says: says('cutAtWord'), content: { summary: shorten(summary, SUMMARY_SHOWN.search) } };
  return [
    asWarning('summary-long', 'summary', says('summaryLong', { has: summary.length, most: SUMMARY_SHOWN.search }), {
      quickFix,
    }),
  ];
}

function looseNotes(content: ListingContent): ValidationNote[] {
  const { title, shortTitle, summary } = content;
  if (![title, shortTitle, summary].some((text) => LOOSE.test(text))) return [];
  const quickFix = {
    says: says('takeSpacesOut'),
    content: { title: tidied(title), shortTitle: tidied(shortTitle), summary: tidied(summary) },
  };
  return [asWarning('spaces', LOOSE.test(summary) && !LOOSE.test(title) ? 'summary' : 'title', says('spaces'), { quickFix })];
}
