/** Proof, beside the form: what stops publishing, what is worth a look; each leads to its field, and many can be mended there and then. */
import { siteAddress } from '@/client/site-root';
import { type KeyboardEvent, useState } from 'react';
import type { ListingContent } from '@/core/listing/content';
import { keyOf, type ValidationField, type ValidationNote } from '@/core/validation/note';
import type { Proof } from '../use-validation';
import { editorWords } from '@/words/desk';
import { sayNote } from '@/words/proof';

const w = editorWords.proofRail;

const SIGNS = { error: ['✕', 'red', w.stopsPublishing()], warning: ['!', 'amber', w.worthALook()], good: ['✓', '', w.good()] } as const;

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
    <section aria-label={w.proof()} id="proof" className="mt-5.5 scroll-mt-16">
      <div className="flex items-baseline justify-between border-b-2 border-b-rule-strong pb-1.75">
        <h2 className="text-[18px]">{w.proof()}</h2>
        <span className="small quiet" role="status">
          {count ? w.toLookAt({ count }) : calm ? '' : w.nothingToLookAt()}
        </span>
      </div>
      {calm && <p className="quiet small mt-1.5 mb-0">{w.whatToLookAt()}</p>}
      <ul className="proof">
        {open.map((note) => (
          <Note key={keyOf(note)} note={note} validation={validation} goTo={goTo} quickFix={quickFix} compare={compare} kept={kept} />
        ))}
      </ul>
      {waived.length > 0 && (
        <details className="small">
          <summary>{w.answeredFor({ n: waived.length })}</summary>
          <ul className="proof">
            {waived.map(({ note, waiver }) => (
              <li className="grid grid-cols-[20px_minmax(0,1fr)] py-1.75 border-b border-b-rule" key={waiver.key}>
                <span aria-hidden="true">–</span>
                <span>
                  {sayNote(note.says)} <q className="italic">{waiver.reason}</q> {waiver.by}.{' '}
                  <button
                    type="button"
                    className="link bg-transparent text-left underline decoration-rule underline-offset-[3px]"
                    onClick={() => void validation.askAgain(waiver.key)}
                  >
                    {w.askAgain()}
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
    <li className="grid grid-cols-[20px_minmax(0,1fr)] border-b border-b-rule py-1.75" onKeyDown={onKey}>
      <span className={`sign font-bold ${sign[1]}`} aria-hidden="true">
        {sign[0]}
      </span>
      {note.severity === 'good' ? (
        <span>{sayNote(note.says)}</span>
      ) : (
        <span>
          <button
            type="button"
            className="text-left underline decoration-rule underline-offset-[3px]"
            onClick={() => goTo(note.field)}
            aria-keyshortcuts={note.quickFix ? 'M' : undefined}
          >
            <span className="hidden-words">{sign[2]}</span>
            {sayNote(note.says)}
          </button>
          <span className="flex flex-wrap gap-y-0.5 gap-x-3">
            {note.quickFix && (
              <button
                type="button"
                className="link text-[13px] min-h-6 text-tide"
                onClick={() => note.quickFix && quickFix(note.quickFix.content)}
              >
                {sayNote(note.quickFix.says)}{' '}
                <kbd className="font-semibold text-[11px] leading-[normal] font-sans normal-nums border border-rule rounded-xs px-1">M</kbd>
              </button>
            )}
            {note.kind === 'lookalike' && (
              <button type="button" className="link text-[13px] min-h-6 text-tide" onClick={() => compare(note)}>
                {w.sideBySide()}
              </button>
            )}
            {note.subject && note.kind !== 'lookalike' && (
              <a className="text-[13px] min-h-6 text-tide" href={siteAddress(`/desk/listings/${note.subject.listingId}`)}>
                {w.openIt()}
              </a>
            )}
            {copyPart && (
              <button type="button" className="link text-[13px] min-h-6 text-tide" onClick={() => void validation.looked(copyPart)}>
                {w.itIsRightAs()}
              </button>
            )}
            {note.severity === 'warning' && kept && !answering && (
              <button type="button" className="link text-[13px] min-h-6 text-tide" onClick={() => setAnswering(true)}>
                {note.kind === 'lookalike' ? w.notTheSame() : w.rightAsItIs()}
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
  const [reason, setReason] = useState(note.kind === 'lookalike' ? w.anotherEvent() : '');
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
        aria-label={w.whyItIsRight()}
        placeholder={w.why()}
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
        {w.keepIt()}
      </button>
      {wrong && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
    </form>
  );
}
