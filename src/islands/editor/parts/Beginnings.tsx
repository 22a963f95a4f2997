/** Over the form: what its sender said, and what somebody typed before and did not save. */
import { ask } from '@/client/api';
import type { EditorStart } from '@/core/listing/editor';
import { dropKept } from '../kept';
import type { Listing } from '../use-listing';

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
          Sent in by {submission.sender}.{submission.where && <> Where, in their words: “{submission.where}”.</>}
          {submission.who && <> Who: “{submission.who}”.</>}
          {submission.message && <> They add: “{submission.message}”</>}
        </div>
      )}
      {found && (
        <div className="note warn mt-3.5" role="alert">
          {server.id
            ? 'There is something that you typed and did not save, from before the listing was saved again.'
            : `You began a listing${found.content.title ? ` “${found.content.title}”` : ''} and did not save it.`}{' '}
          <button
            type="button"
            className="link"
            onClick={() => {
              setContent(() => found.content);
              setFound(null);
            }}
          >
            Go on with it here
          </button>{' '}
          <button type="button" className="link" onClick={drop}>
            Drop it
          </button>
        </div>
      )}
    </>
  );
}
