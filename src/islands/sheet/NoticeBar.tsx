/** One line over a sheet: what is under way, what was done, what else could be meant, and the way back. */
import type { Commands } from './use-commands';

interface Props {
  commands: Commands;
  /** what is being carried or drawn */
  hold: string;
  stale: boolean;
  cut: boolean;
}

export function NoticeBar({ commands, hold, stale, cut }: Props) {
  const { notice } = commands;
  return (
    <div
      className={`flex flex-wrap gap-y-1 gap-x-3 items-center min-h-8.5 my-2 py-0.5 px-2.5 border-l-[3px] border-l-tide bg-tide-wash [&.bad]:border-amber [&.bad]:bg-amber-wash ds-notice ${notice?.tone === 'bad' && !hold ? 'bad' : ''}`}
    >
      <p className="flex-[1_1_300px]" role="status" aria-live="polite">
        {hold || notice?.text || (stale ? 'No answer from the site: what stands here may be old.' : '')}
        {!hold && !notice && cut && 'There are more dates than a sheet holds: choose fewer.'}
        {!hold && !notice && !stale && !cut && (
          <span className="quiet">
            <span className="[@media(pointer:_coarse),_(max-width:_700px)]:hidden">
              Drag a date to another day, its end to lengthen it, or over days to begin a listing.
            </span>
            <span className="hidden [@media(pointer:_coarse),_(max-width:_700px)]:inline">
              Tap a day; its dates stand below, and can be moved there.
            </span>
          </span>
        )}
      </p>
      {!hold && (
        <div className="row gap-2">
          {notice?.instead.map((other) => (
            <button
              type="button"
              key={other.label}
              className="button small"
              disabled={commands.busy}
              onClick={() => void commands.instead(other)}
            >
              {other.label}
            </button>
          ))}
          {notice?.mayPublish && notice.listingId && (
            <button
              type="button"
              className="button small"
              disabled={commands.busy}
              onClick={() => void commands.publish(notice.listingId ?? '')}
            >
              Publish changes
            </button>
          )}
          {notice?.listingId && (
            <a className="button small" href={`/desk/listings/${notice.listingId}`}>
              Open it
            </a>
          )}
          {commands.undo && (
            <button type="button" className="button small" disabled={commands.busy} onClick={() => void commands.undo?.()}>
              Undo
            </button>
          )}
          {commands.redo && (
            <button type="button" className="button small" disabled={commands.busy} onClick={() => void commands.redo?.()}>
              Redo
            </button>
          )}
        </div>
      )}
    </div>
  );
}
