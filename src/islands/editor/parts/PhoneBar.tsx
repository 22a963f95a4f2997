/** On a phone: publishing, what Proof says and the dates stay in reach along the foot. */
import type { EditorStart } from '@/core/listing/editor';
import type { Listing } from '../use-listing';
import { editorWords } from '@/words/desk';

const w = editorWords.phoneBar;

interface PhoneBarProps {
  listing: Listing;
  start: EditorStart;
  /** notes of Proof to look at */
  notes: number;
  dates: number;
}

export function PhoneBar({ listing: { server, dirty, busy, act }, start, notes, dates }: PhoneBarProps) {
  const isPublic = server.stage === 'published';
  const idle = start.mayPublish ? isPublic && !dirty && !server.edited : server.stage === 'in-review' && !dirty;
  return (
    <nav
      aria-label={w.inReach()}
      className="fixed inset-x-0 bottom-0 z-[6] hidden items-center justify-between gap-2 border-t-2 border-ink bg-sheet px-3 py-2 max-[1080px]:flex print:hidden [@media(max-height:480px)]:static"
    >
      <a className="min-h-6 py-1" href="#dates">
        {w.date({ dates })}
      </a>
      <a className="min-h-6 py-1" href="#proof">
        {w.proof({ notes: notes || 'nothing' })}
      </a>
      <button
        type="button"
        className="button main"
        disabled={busy || idle}
        onClick={() => void act(start.mayPublish ? 'publish' : 'review')}
      >
        {start.mayPublish ? (isPublic ? w.publishChanges() : w.publish()) : w.sendForReview()}
      </button>
    </nav>
  );
}
