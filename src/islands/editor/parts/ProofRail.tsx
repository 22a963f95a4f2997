/** Proof, beside the form: what stops publishing, what is worth a look; each leads to its field, and many can be mended there and then. */
import { type KeyboardEvent, useState } from 'react';
import type { ListingContent } from '@/core/listing/content';
import { keyOf, type ValidationField, type ValidationNote } from '@/core/validation/note';
import type { Proof } from '../use-validation';

const SIGNS = { error: ['✕', 'red', 'Stops publishing: '], warning: ['!', 'amber', 'Worth a look: '], good: ['✓', '', 'Good: '] } as const;

interface RailProps {
  validation: Proof;
  goTo: (field: ValidationField) => void;
  quickFix: (content: Partial<ListingContent>) => void;
  compare: (note: ValidationNote) => void;
  /** is the listing kept already? Only then an answer can be remembered */
  kept: boolean;
  /** a new form: notes come as its sections are filled in */
  calm?: boolean;
}

export function ValidationRail({ validation, goTo, quickFix, compare, kept, calm = false }: RailProps) {
  const { open, waived } = validation;
  const count = open.filter((n) => n.severity !== 'good').length;
  return (
    <section aria-label="Proof" id="proof" className="scroll-mt-16">
      <div className="rail-head">
        <h2>Proof</h2>
        <span className="small quiet" role="status">
          {count ? `${count} to look at` : calm ? '' : 'nothing to look at'}
        </span>
      </div>
      {calm && <p className="quiet small mt-1.5 mb-0">What to look at shows here as you go, and all of it when you publish.</p>}
      <ul className="proof">
        {open.map((note) => (
          <Note key={keyOf(note)} note={note} validation={validation} goTo={goTo} quickFix={quickFix} compare={compare} kept={kept} />
        ))}
      </ul>
      {waived.length > 0 && (
        <details className="small">
          <summary>{waived.length} answered for</summary>
          <ul className="proof">
            {waived.map(({ note, waiver }) => (
              <li key={waiver.key}>
                <span aria-hidden="true">–</span>
                <span>
                  {note.sentence} <q>{waiver.reason}</q> {waiver.by}.{' '}
                  <button type="button" className="link" onClick={() => void validation.askAgain(waiver.key)}>
                    Ask again
                  </button>
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

interface NoteProps extends RailProps {
  note: ValidationNote;
}

function Note({ note, validation, goTo, quickFix, compare, kept }: NoteProps) {
  const [answering, setAnswering] = useState(false);
  const sign = SIGNS[note.severity];
  // One key mends: M, while the note has the focus.
  const onKey = (event: KeyboardEvent): void => {
    if (event.key.toLowerCase() !== 'm' || !note.quickFix || event.ctrlKey || event.metaKey || event.altKey) return;
    if ((event.target as Element).closest('input')) return;
    event.preventDefault();
    quickFix(note.quickFix.content);
  };
  const copyPart = note.kind === 'copy-title' ? 'title' : note.kind === 'copy-when' ? 'when' : undefined;
  return (
    <li onKeyDown={onKey}>
      <span className={`sign ${sign[1]}`} aria-hidden="true">
        {sign[0]}
      </span>
      {note.severity === 'good' ? (
        <span>{note.sentence}</span>
      ) : (
        <span>
          <button type="button" onClick={() => goTo(note.field)} aria-keyshortcuts={note.quickFix ? 'M' : undefined}>
            <span className="hidden-words">{sign[2]}</span>
            {note.sentence}
          </button>
          <span className="note-ways">
            {note.quickFix && (
              <button type="button" className="link" onClick={() => note.quickFix && quickFix(note.quickFix.content)}>
                {note.quickFix.words} <kbd>M</kbd>
              </button>
            )}
            {note.kind === 'lookalike' && (
              <button type="button" className="link" onClick={() => compare(note)}>
                Side by side
              </button>
            )}
            {note.subject && note.kind !== 'lookalike' && <a href={`/desk/listings/${note.subject.listingId}`}>Open it</a>}
            {copyPart && (
              <button type="button" className="link" onClick={() => void validation.looked(copyPart)}>
                It is right as it is
              </button>
            )}
            {note.severity === 'warning' && kept && !answering && (
              <button type="button" className="link" onClick={() => setAnswering(true)}>
                {note.kind === 'lookalike' ? 'Not the same' : 'Right as it is'}
              </button>
            )}
          </span>
          {answering && <Reason note={note} validation={validation} onClose={() => setAnswering(false)} />}
        </span>
      )}
    </li>
  );
}

function Reason({ note, validation, onClose }: { note: ValidationNote; validation: Proof; onClose: () => void }) {
  const [reason, setReason] = useState(note.kind === 'lookalike' ? 'Another event' : '');
  const [wrong, setWrong] = useState('');
  const say = async (): Promise<void> => {
    const why = await validation.answerFor(note, reason);
    if (why) setWrong(why);
    else onClose();
  };
  return (
    <form
      className="row"
      onSubmit={(event) => {
        event.preventDefault();
        event.stopPropagation();
        void say();
      }}
    >
      <input
        className="box"
        aria-label="Why it is right as it is"
        placeholder="Why?"
        maxLength={300}
        value={reason}
        // biome-ignore lint/a11y/noAutofocus: somebody just asked for this field
        autoFocus
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onClose();
        }}
      />
      <button type="submit" className="button small">
        Keep it
      </button>
      {wrong && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
    </form>
  );
}
