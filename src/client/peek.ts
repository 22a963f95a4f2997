/**
 * A look at an event without opening it: when a reader rests on its link in a view, or comes to it by keyboard, a panel beside it says when,
 * where and what. It is the published page's own text, fetched once; Escape or moving on takes it away, and the link leads to the page as ever.
 * A finger cannot rest: its first tap shows the panel, with a link to the page in it, and a second one opens the page.
 */

const REST_MS = 350;
const PANEL = 'peek';
/** In a list all of it is there already. */
const LINKS = '[data-view] a[href*="/what/"]';
const LISTED = '[data-part="ledger"]';

const kept = new Map<string, Promise<DocumentFragment | undefined>>();
let timer: ReturnType<typeof setTimeout> | undefined;
let shownFor: HTMLAnchorElement | undefined;

/** What of an event's page stands in the panel. */
async function readPage(href: string): Promise<DocumentFragment | undefined> {
  const response = await fetch(href).catch(() => undefined);
  if (!response?.ok) return undefined;
  const page = new DOMParser().parseFromString(await response.text(), 'text/html').querySelector('[data-part="event"]');
  if (!page) return undefined;
  const parts = document.createDocumentFragment();
  const add = (tag: string, text: string | null | undefined, looks: string): void => {
    const words = text?.replace(/\s+/g, ' ').trim();
    if (!words) return;
    const part = document.createElement(tag);
    part.textContent = words;
    part.className = looks;
    parts.append(part);
  };
  const from = page.querySelector('figure img')?.getAttribute('src');
  // As the event's own page names it, which may lie elsewhere.
  const picture = from && new URL(from, response.url).href;
  if (picture) {
    const image = document.createElement('img');
    Object.assign(image, { src: picture, alt: '', className: 'block w-full h-28 object-cover mb-1.5' });
    parts.append(image);
  }
  add('strong', page.querySelector('h1, h2')?.textContent, 'block font-serif text-[17px] leading-tight');
  add('span', page.querySelector('[data-part="sentence"]')?.textContent, 'block text-tide');
  const facts = [...page.querySelectorAll('[data-part="facts"] > div')].slice(0, 2);
  for (const fact of facts)
    add('span', fact.querySelector('dd')?.firstElementChild?.textContent ?? fact.querySelector('dd')?.textContent, 'block');
  add(
    'span',
    page.querySelector('p > strong')?.textContent ?? page.querySelector('.prose')?.textContent?.slice(0, 180),
    'block mt-1 text-ink-2',
  );
  return parts;
}

function fragmentOf(href: string): Promise<DocumentFragment | undefined> {
  const known = kept.get(href);
  if (known) return known;
  const asked = readPage(href);
  kept.set(href, asked);
  // What did not come is asked for again.
  void asked.then((parts) => parts ?? kept.delete(href));
  return asked;
}

function close(): void {
  clearTimeout(timer);
  shownFor?.removeAttribute('aria-describedby');
  shownFor = undefined;
  document.getElementById(PANEL)?.remove();
}

/** Beside its link, under it where there is room, and always on the screen. */
function place(panel: HTMLElement, link: HTMLElement): void {
  const at = link.getBoundingClientRect();
  const { width, height } = panel.getBoundingClientRect();
  const room = document.documentElement;
  const below = at.bottom + 6 + height <= room.clientHeight;
  panel.style.left = `${Math.max(8, Math.min(at.left, room.clientWidth - width - 8))}px`;
  panel.style.top = `${Math.max(8, below ? at.bottom + 6 : at.top - height - 6)}px`;
}

/** @returns the panel, unless another one was asked for meanwhile or there is nothing to show */
async function show(link: HTMLAnchorElement, role: 'tooltip' | 'dialog' = 'tooltip'): Promise<HTMLElement | undefined> {
  close();
  shownFor = link;
  const parts = await fragmentOf(link.href);
  if (!parts || shownFor !== link || !link.isConnected) return undefined;
  const panel = document.createElement('div');
  panel.id = PANEL;
  panel.setAttribute('role', role);
  panel.className =
    'fixed z-30 w-72 max-w-[calc(100vw-16px)] bg-sheet border border-rule-strong p-3 text-[14px] leading-[1.35] print:hidden';
  panel.append(parts.cloneNode(true));
  document.body.append(panel);
  if (role === 'tooltip') link.setAttribute('aria-describedby', PANEL);
  return panel;
}

async function showByMouse(link: HTMLAnchorElement): Promise<void> {
  const panel = await show(link);
  if (!panel) return;
  place(panel, link);
  // Whoever moves onto it may stay there.
  panel.addEventListener('pointerleave', close);
}

async function showByTouch(link: HTMLAnchorElement, words: string): Promise<void> {
  const panel = await show(link, 'dialog');
  // What did not come in time is asked for as a page.
  if (!panel) {
    if (shownFor === link) location.assign(link.href);
    return;
  }
  panel.setAttribute('aria-label', link.textContent?.trim() ?? '');
  const open = document.createElement('a');
  Object.assign(open, { href: link.href, textContent: words, className: 'button main mt-2.5' });
  panel.append(open);
  place(panel, link);
  open.focus({ preventScroll: true });
}

const linkOf = (target: EventTarget | null): HTMLAnchorElement | undefined => {
  const link = target instanceof Element ? target.closest<HTMLAnchorElement>(LINKS) : null;
  return link && !link.closest(LISTED) ? link : undefined;
};

function rest(link: HTMLAnchorElement): void {
  clearTimeout(timer);
  if (link !== shownFor) timer = setTimeout(() => void showByMouse(link), REST_MS);
}

document.addEventListener('pointerover', (event) => {
  if (event.pointerType !== 'mouse') return;
  const link = linkOf(event.target);
  if (link) rest(link);
});
document.addEventListener('pointerout', (event) => {
  if (!linkOf(event.target)) return;
  clearTimeout(timer);
  const into = event.relatedTarget instanceof Element ? event.relatedTarget : undefined;
  // From the link onto its panel there is a gap: it stays for a moment.
  if (shownFor && !into?.closest(`#${PANEL}`)) timer = setTimeout(() => !document.getElementById(PANEL)?.matches(':hover') && close(), 200);
});
const inPanel = (target: EventTarget | null): boolean => target instanceof Element && target.closest(`#${PANEL}`) !== null;
/** the link under a finger whose panel is there already: pressing it takes the focus out of the panel, which closes it before the tap is over */
let pressedAgain: HTMLAnchorElement | undefined;
document.addEventListener('pointerdown', ({ target, pointerType }) => {
  const link = linkOf(target);
  pressedAgain = link && link === shownFor ? link : undefined;
  if (pointerType === 'touch' && !inPanel(target) && !pressedAgain) close();
});
document.addEventListener('click', (event) => {
  const link = linkOf(event.target);
  const words = link?.closest<HTMLElement>('[data-open-words]')?.dataset.openWords;
  const touched = event instanceof PointerEvent && event.pointerType === 'touch';
  if (!link || !words || !touched || link === pressedAgain) return;
  event.preventDefault();
  void showByTouch(link, words);
});
document.addEventListener('focusin', (event) => {
  if (inPanel(event.target)) return;
  const link = linkOf(event.target);
  if (link?.matches(':focus-visible')) rest(link);
  else close();
});
document.addEventListener('focusout', ({ relatedTarget }) => !inPanel(relatedTarget) && close());
document.addEventListener('keydown', ({ key }) => key === 'Escape' && close());
document.addEventListener('scroll', close, { passive: true, capture: true });

export {};
