/** Decisions of Intake: one key each; a note where one is owed. */
import { send } from './api';

const bar = document.querySelector<HTMLElement>('[data-decide]');
const said = bar?.querySelector<HTMLElement>('[data-said]');
const dialog = bar?.querySelector('dialog');
const note = dialog?.querySelector('textarea');
let pending = '';

async function decide(decision: string, text: string): Promise<void> {
  if (!bar || !said) return;
  said.textContent = 'One moment …';
  const outcome = await send<{ address: string }>('POST', `/api/v1/intake/${bar.dataset.decide}/${decision}`, { note: text });
  if (outcome.kind === 'done') {
    const words =
      { publish: 'Published; the sender has a mail.', return: 'Returned with your note.', decline: 'Declined with your note.' }[decision] ??
      '';
    location.assign(`/desk/intake?said=${encodeURIComponent(words)}`);
    return;
  }
  const words = {
    offline: 'No connection; nothing was decided. Try again.',
    'signed-out': 'Your session has ended; sign in in another window and try again.',
  };
  said.textContent = outcome.kind === 'refused' ? outcome.title : words[outcome.kind];
  said.classList.add('red');
}

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
