/** The list beside the chart as the site makes it, where it has too many places to list them all. */
import { type Bounds, writeBounds } from '@/core/geo/geo';

/** Where not all places are listed, those of a part come from the site: its page; undefined where it did not come. */
export async function readPart(part: Bounds | undefined): Promise<Document | undefined> {
  const at = new URL(location.href);
  if (part) at.searchParams.set('part', writeBounds(part));
  const response = await fetch(at).catch(() => undefined);
  return response?.ok ? new DOMParser().parseFromString(await response.text(), 'text/html') : undefined;
}

/** Puts a page's list in the place of the one that is there. */
export function putList(list: HTMLElement, page: Document): void {
  const items = page.querySelector('[data-part="places"] ol');
  if (!items) return;
  list.querySelector('ol')?.replaceWith(items);
  list.querySelector('[data-part="not-listed"]')?.remove();
  const more = page.querySelector('[data-part="not-listed"]');
  if (more) items.after(more);
}
