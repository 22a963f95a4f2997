/** Makes the filter form live: a change fetches the view and puts it in place; the address says what is shown. */

/** The address's query: what is ticked, in the order that caches. Nothing ticked in a group means all of it. */
function query(form: HTMLFormElement): string {
  const params = new URLSearchParams();
  const ticked = (name: string): string =>
    [...form.querySelectorAll<HTMLInputElement>(`input[name="${name}"]:checked`)]
      .map((box) => box.value)
      .sort()
      .join(',');
  for (const name of ['kind', 'place', 'free', 'tag']) {
    const values = ticked(name);
    if (values) params.set(name, values);
  }
  // The view's own choices go along.
  for (const own of form.querySelectorAll<HTMLInputElement>('input[type="hidden"]')) params.set(own.name, own.value);
  const words = form.querySelector<HTMLInputElement>('[name="words"]')?.value.trim();
  if (words) params.set('words', words);
  const text = params.toString().replaceAll('%2C', ',');
  return text ? `?${text}` : '';
}

let latest = 0;

async function show(form: HTMLFormElement): Promise<void> {
  const href = new URL(form.action).pathname + query(form);
  const mine = ++latest;
  const response = await fetch(href).catch(() => undefined);
  if (!response?.ok) {
    location.assign(href);
    return;
  }
  const page = new DOMParser().parseFromString(await response.text(), 'text/html');
  // An answer that was overtaken by a later choice is dropped.
  if (mine !== latest) return;
  const [view, next] = [document.querySelector('[data-view]'), page.querySelector('[data-view]')];
  if (!view || !next || document.querySelector('[data-reload]')) {
    location.assign(href);
    return;
  }
  history.replaceState(null, '', href);
  view.replaceWith(next);
  copyCounts(form, page);
  const said = form.querySelector('[data-said]');
  const summary = page.querySelector('[data-summary] span')?.textContent ?? '';
  if (said) said.textContent = summary;
}

function copyCounts(form: HTMLFormElement, page: Document): void {
  const fresh = page.querySelector('[data-filters]');
  if (!fresh) return;
  const key = (box: Element): string => `${box.getAttribute('name')}=${box.getAttribute('value')}`;
  const boxes = new Map([...fresh.querySelectorAll<HTMLInputElement>('input[type="checkbox"]')].map((b) => [key(b), b]));
  for (const box of form.querySelectorAll<HTMLInputElement>('input[type="checkbox"]')) {
    const other = boxes.get(key(box));
    if (!other) continue;
    box.checked = other.checked;
    const count = box.closest('label')?.querySelector('.n');
    if (count) count.textContent = other.closest('label')?.querySelector('.n')?.textContent ?? '';
  }
  const [mine, theirs] = [form.querySelector('[data-summary]'), fresh.querySelector('[data-summary]')];
  if (mine && theirs) mine.innerHTML = theirs.innerHTML;
  form.querySelector('[data-again]')?.toggleAttribute('hidden', fresh.querySelector('[data-again]')?.hasAttribute('hidden') ?? true);
}

const form = document.querySelector<HTMLFormElement>('[data-filters]');
if (form) {
  form.closest('.filters')?.setAttribute('data-live', '');
  form.addEventListener('change', (event) => {
    const target = event.target as HTMLInputElement;
    if (target.type === 'checkbox') void show(form);
  });
  let timer: ReturnType<typeof setTimeout> | undefined;
  form.addEventListener('input', (event) => {
    if ((event.target as HTMLInputElement).name !== 'words') return;
    clearTimeout(timer);
    timer = setTimeout(() => void show(form), 250);
  });
  form.addEventListener('submit', (event) => {
    event.preventDefault();
    void show(form);
  });
}
