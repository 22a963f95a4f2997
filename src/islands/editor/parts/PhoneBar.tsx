/** On a phone: publishing, what Proof says and the dates stay in reach along the foot. */
import type { EditorStart } from '@/core/listing/editor';
import { sayCount } from '@/core/phrase/format';
import type { Listing } from '../use-listing';

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
      aria-label="In reach"
      className="fixed inset-x-0 bottom-0 z-[6] hidden items-center justify-between gap-2 border-t-2 border-ink bg-sheet px-3 py-2 max-[1080px]:flex print:hidden [@media(max-height:480px)]:static"
    >
      <a className="min-h-6 py-1" href="#dates">
        {sayCount(dates, 'date')}
      </a>
      <a className="min-h-6 py-1" href="#proof">
        Proof: {notes || 'nothing'}
      </a>
      <button
        type="button"
        className="button main"
        disabled={busy || idle}
        onClick={() => void act(start.mayPublish ? 'publish' : 'review')}
      >
        {start.mayPublish ? (isPublic ? 'Publish changes' : 'Publish') : 'Send for review'}
      </button>
    </nav>
  );
}
