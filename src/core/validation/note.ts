/** What Proof says of a listing: each note has a kind, a severity, a place, a sentence, and where possible a mend. */
import type { ListingContent } from '../listing/content';

/** Where a note leads: the editor's field. */
export type ProofField =
  | 'title'
  | 'shortTitle'
  | 'categories'
  | 'summary'
  | 'text'
  | 'when'
  | 'venues'
  | 'online'
  | 'organizers'
  | 'cost'
  | 'website'
  | 'contact'
  | 'access'
  | 'expected'
  | 'picture';

/** stops: cannot be published; look: worth a look, can be waived with a reason; good: said when it holds */
export type Severity = 'stops' | 'look' | 'good';

/** One way of putting it right: fields of the content as they would be. */
export interface Mend {
  /** "Write it in sentence case" */
  words: string;
  content: Partial<ListingContent>;
}

/** Another listing that a note is about. */
export interface Subject {
  listingId: string;
  title: string;
}

export interface ProofNote {
  kind: string;
  severity: Severity;
  field: ProofField;
  sentence: string;
  mend?: Mend;
  subject?: Subject;
}

/** A "look" that somebody answered for. */
export interface Waiver {
  /** {@link keyOf} of the note */
  key: string;
  reason: string;
  by: string;
  /** ISO instant */
  at: string;
}

/** What a note is known by: its kind, and the listing that it is about. */
export function keyOf({ kind, subject }: Pick<ProofNote, 'kind' | 'subject'>): string {
  return subject ? `${kind} ${subject.listingId}` : kind;
}

type More = Pick<ProofNote, 'mend' | 'subject'>;

export const stops = (kind: string, field: ProofField, sentence: string, more: More = {}): ProofNote => ({
  kind,
  severity: 'stops',
  field,
  sentence,
  ...more,
});
export const look = (kind: string, field: ProofField, sentence: string, more: More = {}): ProofNote => ({
  kind,
  severity: 'look',
  field,
  sentence,
  ...more,
});
export const good = (kind: string, field: ProofField, sentence: string): ProofNote => ({ kind, severity: 'good', field, sentence });

export function stopsPublishing(notes: readonly ProofNote[]): boolean {
  return notes.some((n) => n.severity === 'stops');
}

/** Notes parted into those that are open and those that somebody answered for. What stops cannot be waived. */
export function waive(
  notes: readonly ProofNote[],
  waivers: readonly Waiver[],
): { open: ProofNote[]; waived: { note: ProofNote; waiver: Waiver }[] } {
  const by = new Map(waivers.map((w) => [w.key, w]));
  const open: ProofNote[] = [];
  const waived: { note: ProofNote; waiver: Waiver }[] = [];
  for (const note of notes) {
    const waiver = note.severity === 'look' ? by.get(keyOf(note)) : undefined;
    if (waiver) waived.push({ note, waiver });
    else open.push(note);
  }
  return { open, waived };
}
