/** Makes the first visit live: what is typed or pressed is sent while it is typed, kept, and what it changes is put in place. */
import { formBody, REST } from './form-body';
import { openPage, siteAddress } from './site-root';

const form = document.querySelector<HTMLFormElement>('[data-first-visit]');
let latest = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

async function show(sent: FormData): Promise<void> {
  const mine = ++latest;
  // It is of no use before the end.
  sent.delete('password');
  if (sent.get('do') !== 'farther') sent.set('do', 'look');
  const response = await fetch(siteAddress('/first-visit'), { method: 'POST', body: formBody(sent) }).catch(() => undefined);
  if (mine !== latest || !response) return;
  if (!response.ok) {
    // The page says why: the hour is over, or the site is set up.
    openPage('/first-visit');
    return;
  }
  const page = new DOMParser().parseFromString(await response.text(), 'text/html');
  if (mine !== latest) return;
  const focused = document.activeElement;
  for (const next of page.querySelectorAll('[data-seen]')) {
    const now = document.getElementById(next.id);
    if (!now) continue;
    if (now.innerHTML === next.innerHTML) {
      // As it was: but for what was unchecked while it was asked.
      for (const radio of now.querySelectorAll<HTMLInputElement>('[type="radio"]')) radio.checked = radio.defaultChecked;
      continue;
    }
    // What somebody is typing in stays theirs.
    if (now.contains(focused) && focused instanceof HTMLInputElement && focused.type === 'text') continue;
    const id = now.contains(focused) ? focused?.id || focused?.getAttribute('name') : undefined;
    now.replaceChildren(...next.childNodes);
    if (id) (document.getElementById(id) ?? now.querySelector<HTMLElement>(`[name="${id}"]`))?.focus({ preventScroll: true });
  }
}

if (form) {
  form.addEventListener('input', ({ target }) => {
    if (!(target instanceof HTMLInputElement || target instanceof HTMLSelectElement) || target.name === 'password') return;
    // Whoever types a town means one of those found; whoever types degrees means the point.
    const other = target.name === 'town' ? '' : target.name === 'lat' || target.name === 'lng' ? 'pin' : undefined;
    if (other !== undefined)
      for (const radio of form.querySelectorAll<HTMLInputElement>('[name="place"]')) radio.checked = radio.value === other;
    clearTimeout(timer);
    const sent = new FormData(form);
    timer = setTimeout(() => void show(sent), target.type === 'text' ? REST : 0);
  });
  form.addEventListener('submit', (event) => {
    const button = event.submitter;
    if (!(button instanceof HTMLButtonElement || button instanceof HTMLInputElement)) return;
    if (button.value === 'done') {
      // What was asked before is of no use from now on: its answer, that the site is set up, would lead away from where this leads.
      clearTimeout(timer);
      latest++;
      return;
    }
    event.preventDefault();
    void show(new FormData(form, button));
  });
}
