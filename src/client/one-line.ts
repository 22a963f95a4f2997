/** The header's field for a listing in one line: Alt+N goes there, and a paste of several lines opens the page that reads them. */
import { openPage } from '@/client/site-root';
import { PASTED_LINES } from './pasted';

document.addEventListener('keydown', (event) => {
  // By its place on the keyboard: with Alt some layouts type another sign.
  if (event.code !== 'KeyN' || !event.altKey || event.ctrlKey || event.metaKey || document.querySelector('dialog[open]')) return;
  const field = document.querySelector<HTMLInputElement>('#one-line');
  if (!field) return;
  event.preventDefault();
  field.focus();
});

document.querySelector<HTMLInputElement>('#one-line')?.addEventListener('paste', (event) => {
  const field = event.currentTarget as HTMLInputElement;
  const pasted = event.clipboardData?.getData('text/plain') ?? '';
  // A field of one line would run the lines into each other.
  if (!pasted.trim().includes('\n')) return;
  event.preventDefault();
  sessionStorage.setItem(PASTED_LINES, [field.value.trim(), pasted].filter(Boolean).join('\n'));
  openPage('/desk/entry');
});
