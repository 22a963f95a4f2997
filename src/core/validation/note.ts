/** What Proof says of a listing: each note has a kind, a severity, a place, what it says, and where possible a mend. */
import type { ListingContent } from '../listing/content';
import type { Saying } from './saying';

/** Where a note leads: the editor's field. */
export type ValidationField =
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
  | 'call'
  | 'contact'
  | 'access'
  | 'expected'
  | 'picture';

/** stops: cannot be published; look: worth a look, can be waived with a reason; good: said when it holds */
export type Severity = 'error' | 'warning' | 'good';

/** One way of putting it right: fields of the content as they would be. */
export interface QuickFix {
  /** "Write it in sentence case" */
  says: Saying;
  content: Partial<ListingContent>;
}

/** Another listing that a note is about. */
export interface Subject {
  listingId: string;
  title: string;
}

/** One thing that Proof says of a listing. */
export interface ValidationNote {
  kind: string;
  severity: Severity;
  field: ValidationField;
  says: Saying;
  quickFix?: QuickFix;
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
export function keyOf({ kind, subject }: Pick<ValidationNote, 'kind' | 'subject'>): string {
  return subject ? `${kind} ${subject.listingId}` : kind;
}

type More = Pick<ValidationNote, 'quickFix' | 'subject'>;

/** A note that stops publishing. */
export const asError = (kind: string, field: ValidationField, says: Saying, more: More = {}): ValidationNote => ({
  kind,
  severity: 'error',
  field,
  says,
  ...more,
});
/** A note that is worth a look, and can be answered for. */
export const asWarning = (kind: string, field: ValidationField, says: Saying, more: More = {}): ValidationNote => ({
  kind,
  severity: 'warning',
  field,
  says,
  ...more,
});
/** What is in order, said where a note would stand. */
export const good = (kind: string, field: ValidationField, says: Saying): ValidationNote => ({
  kind,
  severity: 'good',
  field,
  says,
});

/** Is there an error among these? */
export function stopsPublishing(notes: readonly ValidationNote[]): boolean {
  return notes.some((n) => n.severity === 'error');
}

/** Notes parted into those that are open and those that somebody answered for. What stops cannot be waived. */
export function waive(
  notes: readonly ValidationNote[],
  waivers: readonly Waiver[],
): { open: ValidationNote[]; waived: { note: ValidationNote; waiver: Waiver }[] } {
  const by = new Map(waivers.map((w) => [w.key, w]));
  const open: ValidationNote[] = [];
  const waived: { note: ValidationNote; waiver: Waiver }[] = [];
  for (const note of notes) {
    const waiver = note.severity === 'warning' ? by.get(keyOf(note)) : undefined;
    if (waiver) waived.push({ note, waiver });
    else open.push(note);
  }
  return { open, waived };
}
