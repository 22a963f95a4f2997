/** Decisions of Intake: one key each; a note where one is owed. */
import { openPage } from '@/client/site-root';
import { sayFailure, send } from './api';
import { clientWords } from '@/words/desk';

const w = clientWords.intake;

const bar = document.querySelector<HTMLElement>('[data-decide]');
const said = bar?.querySelector<HTMLElement>('[data-said]');
const dialog = bar?.querySelector('dialog');
const note = dialog?.querySelector('textarea');
let pending = '';

async function decide(decision: string, text: string): Promise<void> {
  if (!bar || !said) return;
  const places = decision === 'publish' ? newPlaces() : undefined;
  if (typeof places === 'string') {
    complain(said, places);
    return;
  }
  said.textContent = w.oneMoment();
  const outcome = await send<{ address: string }>('POST', `/api/v1/intake/${bar.dataset.decide}/${decision}`, {
    note: text,
    ...(places ? { places } : {}),
  });
  if (outcome.kind === 'done') {
    const decided = { publish: 'published', return: 'returned', decline: 'declined' }[decision] ?? '';
    openPage(`/desk/intake?decided=${decided}`);
    return;
  }
  const words = {
    offline: w.noConnectionNothingWas(),
    'signed-out': w.yourSessionHasEnded(),
  };
  complain(said, outcome.kind === 'refused' ? outcome.title : words[outcome.kind]);
}

function complain(at: HTMLElement, words: string): void {
  at.textContent = words;
  at.classList.add('red');
}

/** What is to be done with a place and people that are new; words where a choice is missing. */
function newPlaces(): Record<string, string> | string | undefined {
  const choices: Record<string, string> = {};
  for (const set of document.querySelectorAll<HTMLElement>('[data-new-place]')) {
    const chosen = set.querySelector<HTMLInputElement>('input:checked')?.value ?? 'make';
    const other = set.querySelector<HTMLSelectElement>('[data-other]');
    if (chosen === 'other' && !other?.value) {
      other?.focus();
      return w.chooseWhichOneIs();
    }
    choices[set.dataset.newPlace ?? ''] = chosen === 'other' ? (other?.value ?? '') : chosen;
  }
  return Object.keys(choices).length ? choices : undefined;
}

// Whoever chooses from the list means that answer.
for (const list of document.querySelectorAll<HTMLSelectElement>('[data-other]'))
  list.addEventListener('change', () => {
    const radio = list.closest('label')?.querySelector('input');
    if (radio) radio.checked = list.value !== '';
  });

const changes = document.querySelector<HTMLFormElement>('[data-changes]');
changes?.addEventListener('submit', async (event) => {
  event.preventDefault();
  const note = changes.querySelector<HTMLElement>('[data-changes-said]');
  const leave = (event.submitter as HTMLButtonElement | null)?.value === 'leave';
  const take = leave ? [] : [...changes.querySelectorAll<HTMLInputElement>('[name="take"]:checked')].map((box) => box.value);
  const outcome = await send<{ taken: number }>('POST', `/api/v1/intake/${changes.dataset.changes}/changes`, { take });
  if (outcome.kind === 'done') {
    location.assign(`${location.pathname}?decided=${outcome.value.taken ? 'taken' : 'left'}`);
  } else if (note) complain(note, sayFailure(outcome));
});

function begin(decision: string): void {
  if (decision === 'publish') {
    void decide('publish', '');
    return;
  }
  pending = decision;
  dialog?.showModal();
  note?.focus();
}

bar?.addEventListener('click', (event) => {
  const decision = (event.target as Element).closest<HTMLElement>('[data-decision]')?.dataset.decision;
  if (decision) begin(decision);
});
dialog?.addEventListener('close', () => {
  // Escape leads back to where the decision began, by key or by press.
  bar?.querySelector<HTMLElement>(`[data-decision="${CSS.escape(pending)}"]`)?.focus();
  if (dialog.returnValue === 'send' && note?.value.trim()) void decide(pending, note.value);
});
document.addEventListener('keydown', (event) => {
  if (event.altKey || event.ctrlKey || event.metaKey || dialog?.open || (event.target as Element).closest('input, textarea, select'))
    return;
  const lines = [...document.querySelectorAll<HTMLAnchorElement>('.pile a.line')];
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    const at = lines.findIndex((l) => l.hasAttribute('aria-current'));
    const next = lines[at + (event.key === 'ArrowDown' ? 1 : -1)];
    if (next) location.assign(next.href);
    return;
  }
  bar?.querySelector<HTMLElement>(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`)?.click();
});
