/** Over the form: what is being edited, how it stands, and what can be done with it as a whole. */
import { siteAddress, openPage } from '@/client/site-root';
import { STAGE_WORDS } from '@/core/listing/content';
import { Redo2, Undo2 } from 'lucide-react';
import type { EditorStart } from '@/core/listing/editor';
import type { OtherEditor } from '../use-edits';
import type { Listing } from '../use-listing';
import { sayTimes } from './ByTime';
import { editorWords } from '@/words/desk';

const w = editorWords.head;

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
    if (tab) tab.location.href = siteAddress(`/desk/listings/${id}/preview`);
    else openPage(`/desk/listings/${id}/preview`);
  };
  const publishWords = isPublic ? w.publishChanges() : w.publish();
  return (
    <div className="editor-head bg-sheet border-b border-b-rule py-2.5 px-5 flex flex-wrap gap-y-2 gap-x-3 items-center sticky top-0 z-5 max-[700px]:py-2 max-[700px]:px-3.5 max-[700px]:static">
      <h1 className="text-[23px] wrap-anywhere">{content.title.trim() || w.newListing()}</h1>
      <span className={`stage ${server.stage}`}>{STAGE_WORDS[server.stage]}</span>
      <EventStatus listing={listing} start={start} />
      {note && (
        <span className={`small ${note.tone === 'bad' ? 'red' : ''}`} role={note.tone === 'bad' ? 'alert' : undefined} data-note>
          {note.text} {note.link && <a href={note.link.href}>{note.link.text}</a>}
        </span>
      )}
      <Others others={others} />
      <div className="ml-auto flex flex-wrap gap-2">
        <UndoRedo listing={listing} />
        {isPublic && (
          <a className="button" href={siteAddress(`/what/${server.slug}`)}>
            {w.thePage()}
          </a>
        )}
        {server.id && (
          <button type="button" className="button" onClick={onCopy} disabled={busy}>
            {w.copy()}
          </button>
        )}
        <button type="button" className="button" onClick={() => void preview()} disabled={busy}>
          {w.preview()}
        </button>
        <button type="button" className="button" onClick={() => void save()} disabled={busy}>
          {isPublic ? w.saveWorkingCopy() : w.saveDraft()}
        </button>
        {start.mayPublish ? (
          <button
            type="button"
            className="button main max-[1080px]:hidden"
            onClick={() => void act('publish')}
            disabled={busy || (isPublic && !dirty && !server.edited)}
            title={stopped ? w.proofStopsItPress() : undefined}
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
            {w.sendForReview()}
          </button>
        )}
      </div>
    </div>
  );
}

function UndoRedo({ listing }: Pick<HeadProps, 'listing'>) {
  return (
    <>
      <button
        type="button"
        className="button icon"
        aria-label={w.undo()}
        title={w.undoCtrlZ()}
        onClick={() => listing.undo?.()}
        disabled={!listing.undo}
      >
        <Undo2 size={16} aria-hidden />
      </button>
      <button
        type="button"
        className="button icon"
        aria-label={w.redo()}
        title={w.redoCtrlShiftZ()}
        onClick={() => listing.redo?.()}
        disabled={!listing.redo}
      >
        <Redo2 size={16} aria-hidden />
      </button>
    </>
  );
}

function Others({ others }: { others: readonly OtherEditor[] }) {
  if (!others.length) return null;
  return (
    <span className="small amber" role="status">
      {others.map(({ name, typing }) => w.hasItOpenToo({ name, typing: typing ? 'yes' : 'no' })).join('; ')}
    </span>
  );
}

/** What is set for it, what went wrong with that, and whether what is typed is saved. */
function EventStatus({ listing, start }: Pick<HeadProps, 'listing' | 'start'>) {
  const { server, dirty, busy, keptAt } = listing;
  const times = sayTimes(server.times, start.site.style);
  const typed = keptAt ? w.keptNotSavedYet() : w.notSavedYet();
  const saved = server.edited ? w.savedReadersDoNot() : '';
  return (
    <>
      {times && <span className="small">{times}</span>}
      {server.scheduleWrong && (
        <span className="small red" role="alert">
          {w.itWasToGo({ scheduleWrong: server.scheduleWrong })}
        </span>
      )}
      <span className="small quiet">{busy ? w.saving() : dirty ? typed : saved}</span>
    </>
  );
}
