/** Proof, beside the form: what stops publishing, what is worth a look, each leading to its field. */
import type { ProofField, ProofNote } from '@/core/proof/proof';

const SIGNS = { stops: ['✕', 'red', 'Stops publishing: '], look: ['!', 'amber', 'Worth a look: '], good: ['✓', '', 'Good: '] } as const;

export function ProofRail({ notes, goTo }: { notes: readonly ProofNote[]; goTo: (field: ProofField) => void }) {
  const open = notes.filter((n) => n.severity !== 'good').length;
  return (
    <section aria-label="Proof">
      <div className="rail-head">
        <h2>Proof</h2>
        <span className="small quiet" role="status">
          {open ? `${open} to look at` : 'nothing to look at'}
        </span>
      </div>
      <ul className="proof">
        {notes.map((n) => (
          <li key={n.kind}>
            <span className={`sign ${SIGNS[n.severity][1]}`} aria-hidden="true">
              {SIGNS[n.severity][0]}
            </span>
            {n.severity === 'good' ? (
              <span>{n.sentence}</span>
            ) : (
              <button type="button" onClick={() => goTo(n.field)}>
                <span className="hidden-words">{SIGNS[n.severity][2]}</span>
                {n.sentence}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
