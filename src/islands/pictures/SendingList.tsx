/** How far each file is, in words and as a bar. */
import type { UseSending } from './use-sending';
import { picturesWords } from '@/words/desk';

const w = picturesWords.sendingList;

const WORDS = { waiting: w.waitsItsTurn(), sending: w.beingSent(), made: w.beingMadeIntoIts(), done: w.inTheLibrary(), refused: '' };

export function SendingList({ sending, again, forget }: UseSending) {
  if (!sending.length) return null;
  const done = sending.filter((s) => s.state === 'done').length;
  const over = sending.every((s) => s.state === 'done' || s.state === 'refused');
  return (
    <section className="mt-2.5 grid gap-1.5" aria-label={w.picturesBeingSent()}>
      <div className="row">
        <strong role="status">{w.ofPictureIn({ done, n: sending.length })}</strong>
        {over && (
          <button type="button" className="link" onClick={forget}>
            {w.putThisListAway()}
          </button>
        )}
      </div>
      <ul className="border-t border-t-rule-strong">
        {sending.map((s) => (
          <li className="flex flex-wrap gap-y-1 gap-x-3 items-center py-1 border-b border-b-rule" key={s.key}>
            <span className="name min-w-37.5 wrap-anywhere">{s.name}</span>
            {s.state !== 'done' && s.state !== 'refused' && (
              <progress
                className="appearance-none w-40 h-2 border border-rule-strong rounded-xs bg-wash overflow-hidden [&::-webkit-progress-bar]:bg-wash [&::-webkit-progress-value]:bg-tide [&::-moz-progress-bar]:bg-tide"
                value={s.part}
                max={1}
                aria-label={s.name}
              />
            )}
            <span className={s.state === 'refused' ? 'wrong' : 'quiet'} role={s.state === 'refused' ? 'alert' : undefined}>
              {s.said || (s.state === 'sending' ? `${WORDS.sending}, ${Math.round(s.part * 100)} %` : WORDS[s.state])}
            </span>
            {s.state === 'refused' && (
              <button type="button" className="link" onClick={() => again(s.key)}>
                {w.tryAgain()}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
