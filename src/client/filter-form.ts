/** Makes the filter form live: a change fetches the view and puts it in place; the address says what is shown. */

import { FILTER_NAMES, USUAL_DISTANCE } from '@/core/filters/filters';

/** The address's query: what is ticked and typed, in one order. Nothing in a group means all of it. */
function query(form: HTMLFormElement): string {
  const params = new URLSearchParams();
  const sent = new FormData(form);
  for (const name of FILTER_NAMES) {
    const values = sent
      .getAll(name)
      .map((value) => String(value).trim())
      .filter(Boolean)
      .sort();
    // A distance from nowhere says nothing.
    const needless = name === 'within' && (values[0] === String(USUAL_DISTANCE) || !params.has('near'));
    if (values.length && !needless) params.set(name, values.join(','));
  }
  // The view's own choices go along.
  for (const own of form.querySelectorAll<HTMLInputElement>('input[type="hidden"]')) params.set(own.name, own.value);
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
  copyCounts(form, page);
  view.replaceWith(next);
  const said = form.querySelector('[data-said]');
  const summary = page.querySelector('[data-summary] span')?.textContent ?? '';
  if (said) said.textContent = summary;
}

function copyCounts(form: HTMLFormElement, page: Document): void {
  const fresh = page.querySelector('[data-filters]');
  if (!fresh) return;
  const boxes = 'input[type="checkbox"], input[type="radio"]';
  const key = (box: Element): string => `${box.getAttribute('name')}=${box.getAttribute('value')}`;
  const known = new Map([...fresh.querySelectorAll<HTMLInputElement>(boxes)].map((b) => [key(b), b]));
  for (const box of form.querySelectorAll<HTMLInputElement>(boxes)) {
    const other = known.get(key(box));
    const count = box.closest('label')?.querySelector('.n');
    // A box that is not there anew has nothing more to show.
    if (!other) {
      if (count) count.textContent = '0';
      continue;
    }
    box.checked = other.checked;
    if (count) count.textContent = other.closest('label')?.querySelector('.n')?.textContent ?? '';
  }
  const [mine, theirs] = [form.querySelector('[data-summary]'), fresh.querySelector('[data-summary]')];
  if (mine && theirs) mine.innerHTML = theirs.innerHTML;
  const [quick, quickNow] = [form.querySelector('[data-quick]'), fresh.querySelector('[data-quick]')];
  if (quick && quickNow) quick.innerHTML = quickNow.innerHTML;
  const button = form.querySelector('[data-show] span');
  const total = page.querySelector('[data-part="chosen"] strong')?.textContent;
  if (button && total) button.textContent = total;
  form.querySelector('[data-again]')?.toggleAttribute('hidden', fresh.querySelector('[data-again]')?.hasAttribute('hidden') ?? true);
}

/** Days by a name and days from one to another are two ways to say it: whoever uses one leaves the other. */
function keepOneWay(form: HTMLFormElement, used: HTMLInputElement): void {
  if (used.name === 'on') for (const name of ['from', 'to']) for (const field of fields(form, name)) field.value = '';
  if (used.name === 'from' || used.name === 'to') for (const radio of fields(form, 'on')) radio.checked = radio.value === '';
}

const fields = (form: HTMLFormElement, name: string): HTMLInputElement[] => [
  ...form.querySelectorAll<HTMLInputElement>(`input[name="${name}"]`),
];

/** Where the reader is, asked for only on a press, and told to the site to about a kilometre. */
function offerPosition(form: HTMLFormElement): void {
  const said = form.querySelector<HTMLElement>('[data-position-said]');
  const [near] = fields(form, 'near');
  if (!said || !near) return;
  form.addEventListener('click', ({ target }) => {
    const button = (target as Element).closest<HTMLButtonElement>('[data-my-position]');
    if (!button) return;
    const done = (refused: boolean): void => {
      button.disabled = false;
      said.hidden = !refused;
    };
    done(false);
    if (!('geolocation' in navigator)) return done(true);
    button.disabled = true;
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        done(false);
        near.value = [coords.latitude, coords.longitude].map((degrees) => Math.round(degrees * 100) / 100).join(',');
        void show(form);
      },
      () => done(true),
      { timeout: 10_000, maximumAge: 600_000 },
    );
  });
}

const form = document.querySelector<HTMLFormElement>('[data-filters]');
if (form) {
  form.closest('.filters')?.setAttribute('data-live', '');
  offerPosition(form);
  form.addEventListener('change', (event) => {
    const target = event.target as HTMLInputElement;
    if (target.name === 'words') return;
    keepOneWay(form, target);
    void show(form);
  });
  let timer: ReturnType<typeof setTimeout> | undefined;
  form.addEventListener('input', (event) => {
    if ((event.target as HTMLInputElement).name !== 'words') return;
    clearTimeout(timer);
    timer = setTimeout(() => void show(form), 250);
  });
  form.addEventListener('submit', (event) => {
    event.preventDefault();
    // On a phone the filters are a sheet over the view: what they leave is shown.
    form.querySelector<HTMLDetailsElement>('details:has([data-summary])')?.removeAttribute('open');
    void show(form).then(() => document.querySelector<HTMLElement>('[data-view]')?.focus({ preventScroll: false }));
  });
}
