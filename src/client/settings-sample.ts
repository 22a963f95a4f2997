/** Keeps the sample beside a section of the settings true while somebody types and chooses. Nothing is saved by it. */
import { formBody, REST } from './form-body';

const form = document.querySelector<HTMLFormElement>('[data-settings="sample"]');
let latest = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

async function show(sent: FormData): Promise<void> {
  const mine = ++latest;
  sent.set('do', 'show');
  const response = await fetch(location.pathname, { method: 'POST', body: formBody(sent) }).catch(() => undefined);
  // What is half typed may be wrong as it stands: the sample stays as it was until it is right, and saving says what is.
  if (!response?.ok || mine !== latest) return;
  const page = new DOMParser().parseFromString(await response.text(), 'text/html');
  const next = page.getElementById('sample');
  if (next && mine === latest) document.getElementById('sample')?.replaceChildren(...next.childNodes);
}

if (form) {
  const soon = (): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void show(new FormData(form)), REST);
  };
  form.addEventListener('input', soon);
  // A field that finds in a long list keeps what was chosen in a hidden one, which says nothing by itself.
  const told = new MutationObserver(soon);
  for (const part of form.querySelectorAll('astro-island'))
    told.observe(part, { subtree: true, attributes: true, attributeFilter: ['value'] });
}
