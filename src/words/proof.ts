/** Says what Proof found: its notes, its mends, its kinds. */
import type { NoteKind } from '@/core/validation/kinds';
import type { Saying, Sentences } from '@/core/validation/saying';
import en from './compiled/desk-proof.en.js';

/** A sentence that Proof has and the catalogue lacks does not compile, nor does one that takes something else. */
const SENTENCES: { [K in keyof Sentences]: (given: Sentences[K]) => string } = en.notes;
const KINDS: Record<NoteKind, () => string> = en.kinds;

/** What a note, or its mend, says. */
export function sayNote({ code, with: given }: Saying): string {
  return (SENTENCES[code] as (given: Saying['with']) => string)(given);
}

/** What a kind of note is called where many are listed together; one that is no more by its name in the code. */
export function sayKind(kind: string): string {
  return (KINDS as Record<string, () => string>)[kind]?.() ?? kind;
}
