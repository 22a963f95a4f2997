/** Marks as lean SVG: symbols once a page, one class a category with its two inks. */
import { html, type Html, NOTHING, safe } from './html';
import { ICONS } from '@/core/colour/icons';
import { pathOf, SHAPES } from '@/core/colour/mark';
import type { CategoryView } from '@/server/reference/read';

export const symbols = html`<svg width="0" height="0" class="absolute" aria-hidden="true">${SHAPES.map((s) => html`<symbol id="m-${s}" viewBox="0 0 12 12"><path fill-rule="evenodd" d="${pathOf(s)}"/></symbol>`)}</svg>`;

/** The class that carries a category's inks. */
export const inkClass = (category: Pick<CategoryView, 'id'>): string => `k${category.id.slice(-12)}`;

export function inkStyles(categories: readonly CategoryView[]): string {
  return categories.map((c) => `.${inkClass(c)}{--ml:${c.light};--md:${c.dark}}`).join('');
}

/** A mark; with `named`, it says its category to screen readers. */
export function markHtml(category: CategoryView | undefined, named = false): Html {
  if (!category) return NOTHING;
  const label = named ? html`role="img" aria-label="${category.name}"` : html`aria-hidden="true"`;
  return html`<svg class="mark ${inkClass(category)}" ${label}><use href="#m-${category.shape}"/></svg>`;
}

/** The drawing that a category has beside its name; nothing for most. */
export function iconHtml(icon: string): Html {
  const drawing = Object.hasOwn(ICONS, icon) ? ICONS[icon] : undefined;
  return drawing ? html`<svg class="drawing" viewBox="0 0 24 24" aria-hidden="true">${safe(drawing[1])}</svg>` : NOTHING;
}
