/** Over the form: what its sender said, and what somebody typed before and did not save. */
import { ask } from '@/client/api';
import type { EditorStart } from '@/core/listing/editor';
import { dropKept } from '../kept';
import type { Listing } from '../use-listing';
import { editorWords } from '@/words/desk';

const w = editorWords.beginnings;

export function Beginnings({ listing, start }: { listing: Listing; start: EditorStart }) {
  const { submission } = start;
  const { found, setFound, setContent, server } = listing;
  const drop = (): void => {
    dropKept(localStorage, start.userId, server.id);
    void ask(`/api/v1/edits/${server.id ?? 'new'}`, {
      method: 'PUT',
      body: JSON.stringify({ revision: server.revision, content: null }),
      headers: { 'content-type': 'application/json' },
    });
    setFound(null);
  };
  return (
    <>
      {submission && (
        <div className="note mt-3.5">
          {w.sentInBy({ sender: submission.sender })}
          {submission.where && <> {w.whereInTheirWords({ where: submission.where })}</>}
          {submission.who && <> {w.who({ who: submission.who })}</>}
          {submission.message && <> {w.theyAdd({ message: submission.message })}</>}
        </div>
      )}
      {found && (
        <div className="note warn mt-3.5" role="alert">
          {server.id ? w.thereIsSomethingThat() : w.youBeganAListing({ called: found.content.title ? ` “${found.content.title}”` : '' })}{' '}
          <button
            type="button"
            className="link"
            onClick={() => {
              setContent(() => found.content);
              setFound(null);
            }}
          >
            {w.goOnWithIt()}
          </button>{' '}
          <button type="button" className="link" onClick={drop}>
            {w.dropIt()}
          </button>
        </div>
      )}
    </>
  );
}
