/** One line over a sheet: what is under way, what was done, what else could be meant, and the way back. */
import { siteAddress } from '@/client/site-root';
import type { Commands } from './use-commands';
import { sheetWords } from '@/words/desk';

const w = sheetWords.noticeBar;

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
        {hold || notice?.text || (stale ? w.noAnswerFromThe() : '')}
        {!hold && !notice && cut && w.thereAreMoreDates()}
        {!hold && !notice && !stale && !cut && (
          <span className="quiet">
            <span className="[@media(pointer:_coarse),_(max-width:_700px)]:hidden">{w.dragADateTo()}</span>
            <span className="hidden [@media(pointer:_coarse),_(max-width:_700px)]:inline">{w.tapADayIts()}</span>
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
              {w.publishChanges()}
            </button>
          )}
          {notice?.listingId && (
            <a className="button small" href={siteAddress(`/desk/listings/${notice.listingId}`)}>
              {w.openIt()}
            </a>
          )}
          {commands.undo && (
            <button type="button" className="button small" disabled={commands.busy} onClick={() => void commands.undo?.()}>
              {w.undo()}
            </button>
          )}
          {commands.redo && (
            <button type="button" className="button small" disabled={commands.busy} onClick={() => void commands.redo?.()}>
              {w.redo()}
            </button>
          )}
        </div>
      )}
    </div>
  );
}
