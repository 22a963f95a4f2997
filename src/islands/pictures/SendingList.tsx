/** How far each file is, in words and as a bar. */
import type { UseSending } from './use-sending';

const WORDS = { waiting: 'waits its turn', sending: 'being sent', made: 'being made into its sizes', done: 'in the library', refused: '' };

export function SendingList({ sending, again, forget }: UseSending) {
  if (!sending.length) return null;
  const done = sending.filter((s) => s.state === 'done').length;
  const over = sending.every((s) => s.state === 'done' || s.state === 'refused');
  return (
    <section className="sending" aria-label="Pictures being sent">
      <div className="row">
        <strong role="status">
          {done} of {sending.length} {sending.length === 1 ? 'picture' : 'pictures'} in
        </strong>
        {over && (
          <button type="button" className="link" onClick={forget}>
            Put this list away
          </button>
        )}
      </div>
      <ul>
        {sending.map((s) => (
          <li key={s.key}>
            <span className="name">{s.name}</span>
            {s.state !== 'done' && s.state !== 'refused' && <progress value={s.part} max={1} aria-label={s.name} />}
            <span className={s.state === 'refused' ? 'wrong' : 'quiet'} role={s.state === 'refused' ? 'alert' : undefined}>
              {s.said || (s.state === 'sending' ? `${WORDS.sending}, ${Math.round(s.part * 100)} %` : WORDS[s.state])}
            </span>
            {s.state === 'refused' && (
              <button type="button" className="link" onClick={() => again(s.key)}>
                Try again
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
