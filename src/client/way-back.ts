/** The way back from an event to the view it was opened in, and the events beside it there. Kept in this tab alone. */

const KEPT = 'view';
/** A full year has more; what is far away nobody steps to. */
const MOST = 500;

interface KeptView {
  href: string;
  title: string;
  /** paths of its events with their titles, in order */
  events: [path: string, title: string][];
}

/** In a view: notes it as soon as one of its events is opened. */
function noteView(): void {
  document.addEventListener('click', ({ target }) => {
    const link = (target as Element).closest<HTMLAnchorElement>('[data-view] a[href*="/what/"]');
    if (!link) return;
    const events = new Map<string, string>();
    for (const one of document.querySelectorAll<HTMLAnchorElement>('[data-view] a[href*="/what/"]'))
      if (events.size < MOST && one.textContent?.trim() && !events.has(one.pathname)) events.set(one.pathname, one.textContent.trim());
    const title = document.querySelector('h1')?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
    const kept: KeptView = { href: location.pathname + location.search, title, events: [...events] };
    try {
      sessionStorage.setItem(KEPT, JSON.stringify(kept));
    } catch {
      // A browser that keeps nothing has its own way back.
    }
  });
}

function readView(): KeptView | undefined {
  try {
    return JSON.parse(sessionStorage.getItem(KEPT) ?? '') as KeptView;
  } catch {
    return undefined;
  }
}

/** On an event's page: offers the way back, if it was opened from a view. */
function offerWayBack(nav: HTMLElement): void {
  const kept = readView();
  const at = kept?.events.findIndex(([path]) => path === location.pathname) ?? -1;
  if (!kept || at < 0) return;
  const link = (href: string, text: string, label: string): HTMLAnchorElement => {
    const a = document.createElement('a');
    a.href = href;
    a.textContent = text;
    if (label) a.setAttribute('aria-label', label);
    a.className = 'max-w-56 truncate';
    return a;
  };
  const { back = '', before = '', after = '' } = nav.dataset;
  const [previous, next] = [kept.events[at - 1], kept.events[at + 1]];
  nav.append(link(kept.href, back.replace('{view}', kept.title), ''));
  if (previous) nav.append(link(previous[0], `‹ ${previous[1]}`, before.replace('{title}', previous[1])));
  if (next) nav.append(link(next[0], `${next[1]} ›`, after.replace('{title}', next[1])));
  nav.classList.remove('invisible');
}

const nav = document.querySelector<HTMLElement>('[data-way-back]');
if (nav) offerWayBack(nav);
else noteView();

export {};
