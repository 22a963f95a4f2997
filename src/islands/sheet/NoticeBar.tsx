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
    <div className={`ds-notice ${notice?.tone === 'bad' && !hold ? 'bad' : ''}`}>
      <p role="status" aria-live="polite">
        {hold || notice?.text || (stale ? 'No answer from the site: what stands here may be old.' : '')}
        {!hold && !notice && cut && 'There are more dates than a sheet holds: choose fewer.'}
        {!hold && !notice && !stale && !cut && (
          <span className="quiet">
            <span className="by-mouse">Drag a date to another day, its end to lengthen it, or over days to begin a listing.</span>
            <span className="by-finger">Tap a day; its dates stand below, and can be moved there.</span>
          </span>
        )}
      </p>
      {!hold && (
        <div className="row">
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
