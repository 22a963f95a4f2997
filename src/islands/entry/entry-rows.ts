/** The rows of an entry and what somebody corrected in them. Without React, so that it is tested as it is. */
import type { LineSetting } from '@/core/entry/read-line';
import { type LineRow, readLines } from '@/core/entry/read-lines';
import { type Reading, readPhrase } from '@/core/phrase/read/read-phrase';

/** What was chosen instead of what was read; absent = as it was read. */
export interface Correction {
  title?: string;
  when?: string;
  venueId?: string | null;
  organizerId?: string | null;
  categoryId?: string | null;
  make?: boolean;
}

export interface EntryRow extends LineRow {
  make: boolean;
  /** of the corrected words for when; null while the line's own count */
  reading: Reading | null;
  /** the words for when could not be read */
  unclear: boolean;
}

/** Rows as they stand: read from the text, then corrected. A correction stays with its line while that is not changed. */
export function rowsOf(text: string, corrections: ReadonlyMap<string, Correction>, setting: LineSetting): EntryRow[] {
  return readLines(text, setting).map((row, i) => {
    const { when, make, ...fix } = corrections.get(keyOf(row, i)) ?? {};
    const read = when === undefined ? undefined : readPhrase({ ...setting, phrase: when.slice(0, 400) });
    const recurrence = when === undefined ? row.recurrence : when.trim() ? (read?.recurrence ?? null) : null;
    const unclear = when === undefined ? row.problems.length > 0 : when.trim() !== '' && !read?.recurrence;
    const problems = when === undefined ? row.problems : (read?.problems ?? []);
    return { ...row, ...fix, when: when ?? row.when, reading: read ?? null, recurrence, problems, unclear, make: make ?? row.likely };
  });
}

export const keyOf = (row: { line: string }, index: number): string => `${index} ${row.line}`;
