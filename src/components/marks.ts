/** Marks as lean SVG: symbols once a page, one class a category with its two inks. */
import { ICONS } from '@/core/colour/icons';
import { pathOf, SHAPES } from '@/core/colour/mark';
import { escapeHtml } from '@/core/text/text';
import type { CategoryView } from '@/server/reference/read';

export const symbols = `<svg width="0" height="0" class="absolute" aria-hidden="true">${SHAPES.map((s) => `<symbol id="m-${s}" viewBox="0 0 12 12"><path fill-rule="evenodd" d="${pathOf(s)}"/></symbol>`).join('')}</svg>`;

/** The class that carries a category's inks. */
export const inkClass = (category: Pick<CategoryView, 'id'>): string => `k${category.id.slice(-12)}`;

export function inkStyles(categories: readonly CategoryView[]): string {
  return categories.map((c) => `.${inkClass(c)}{--ml:${c.light};--md:${c.dark}}`).join('');
}

/** A mark; with `named`, it says its category to screen readers. */
export function markHtml(category: CategoryView | undefined, named = false): string {
  if (!category) return '';
  const label = named ? `role="img" aria-label="${escapeHtml(category.name)}"` : 'aria-hidden="true"';
  return `<svg class="mark ${inkClass(category)}" ${label}><use href="#m-${category.shape}"/></svg>`;
}

/** The drawing that a category has beside its name; nothing for most. */
export function iconHtml(icon: string): string {
  const drawing = Object.hasOwn(ICONS, icon) ? ICONS[icon] : undefined;
  return drawing ? `<svg class="drawing" viewBox="0 0 24 24" aria-hidden="true">${drawing[1]}</svg>` : '';
}
