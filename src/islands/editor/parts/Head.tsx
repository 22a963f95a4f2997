/** Over the form: what is being edited, how it stands, and what can be done with it as a whole. */
import { STAGE_WORDS } from '@/core/listing/content';
import { Redo2, Undo2 } from 'lucide-react';
import type { EditorStart } from '@/core/listing/editor';
import type { OtherEditor } from '../use-edits';
import type { Listing } from '../use-listing';
import { sayTimes } from './ByTime';

interface HeadProps {
  listing: Listing;
  start: EditorStart;
  stopped: boolean;
  onCopy: () => void;
  others: readonly OtherEditor[];
}

export function Head({ listing, start, stopped, onCopy, others }: HeadProps) {
  const { content, server, dirty, busy, note, save, act } = listing;
  const isPublic = server.stage === 'published';
  const preview = async (): Promise<void> => {
    // The window opens with the click; the page comes once the copy is saved.
    const tab = window.open('', '_blank');
    if (dirty || server.id === null) {
      if (!(await save())) {
        tab?.close();
        return;
      }
    }
    const id = location.pathname.split('/').at(-1);
    if (tab) tab.location.href = `/desk/listings/${id}/preview`;
    else location.assign(`/desk/listings/${id}/preview`);
  };
  const publishWords = isPublic ? 'Publish changes' : 'Publish';
  return (
    <div className="editor-head bg-sheet border-b border-b-rule py-2.5 px-5 flex flex-wrap gap-y-2 gap-x-3 items-center sticky top-0 z-5 max-[700px]:py-2 max-[700px]:px-3.5 max-[700px]:static">
      <h1 className="text-[23px] wrap-anywhere">{content.title.trim() || 'New listing'}</h1>
      <span className={`stage ${server.stage}`}>{STAGE_WORDS[server.stage]}</span>
      <EventStatus listing={listing} start={start} />
      {note && (
        <span className={`small ${note.tone === 'bad' ? 'red' : ''}`} role={note.tone === 'bad' ? 'alert' : undefined} data-note>
          {note.text} {note.link && <a href={note.link.href}>{note.link.text}</a>}
        </span>
      )}
      <Others others={others} />
      <div className="ml-auto flex flex-wrap gap-2">
        <button
          type="button"
          className="button icon"
          aria-label="Undo"
          title="Undo (Ctrl+Z)"
          onClick={() => listing.undo?.()}
          disabled={!listing.undo}
        >
          <Undo2 size={16} aria-hidden />
        </button>
        <button
          type="button"
          className="button icon"
          aria-label="Redo"
          title="Redo (Ctrl+Shift+Z)"
          onClick={() => listing.redo?.()}
          disabled={!listing.redo}
        >
          <Redo2 size={16} aria-hidden />
        </button>
        {isPublic && (
          <a className="button" href={`/what/${server.slug}`}>
            The page
          </a>
        )}
        {server.id && (
          <button type="button" className="button" onClick={onCopy} disabled={busy}>
            Copy
          </button>
        )}
        <button type="button" className="button" onClick={() => void preview()} disabled={busy}>
          Preview
        </button>
        <button type="button" className="button" onClick={() => void save()} disabled={busy}>
          {isPublic ? 'Save working copy' : 'Save draft'}
        </button>
        {start.mayPublish ? (
          <button
            type="button"
            className="button main max-[1080px]:hidden"
            onClick={() => void act('publish')}
            disabled={busy || (isPublic && !dirty && !server.edited)}
            title={stopped ? 'Proof stops it; press to see what' : undefined}
          >
            {publishWords}
          </button>
        ) : (
          <button
            type="button"
            className="button main max-[1080px]:hidden"
            onClick={() => void act('review')}
            disabled={busy || (server.stage === 'in-review' && !dirty)}
          >
            Send for review
          </button>
        )}
      </div>
    </div>
  );
}

function Others({ others }: { others: readonly OtherEditor[] }) {
  if (!others.length) return null;
  return (
    <span className="small amber" role="status">
      {others.map(({ name, typing }) => `${name} has it open too${typing ? ' and is changing it' : ''}`).join('; ')}
    </span>
  );
}

/** What is set for it, what went wrong with that, and whether what is typed is saved. */
function EventStatus({ listing, start }: Pick<HeadProps, 'listing' | 'start'>) {
  const { server, dirty, busy, keptAt } = listing;
  const times = sayTimes(server.times, start.site.style);
  const typed = keptAt ? 'kept, not saved yet' : 'not saved yet';
  const saved = server.edited ? 'saved; readers do not see the changes yet' : '';
  return (
    <>
      {times && <span className="small">{times}</span>}
      {server.scheduleWrong && (
        <span className="small red" role="alert">
          It was to go out and did not: {server.scheduleWrong}
        </span>
      )}
      <span className="small quiet">{busy ? 'Saving …' : dirty ? typed : saved}</span>
    </>
  );
}
