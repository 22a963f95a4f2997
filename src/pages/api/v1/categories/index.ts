/** Makes a category in place, from the listing's editor: at the top, with the shape and ink that are used least. */
import { z } from 'zod';
import { inksOf } from '@/core/colour/colour';
import { pathOf } from '@/core/colour/mark';
import { makeCategoryNamed } from '@/server/categories/write';
import { jsonEndpoint } from '@/server/http/endpoint';
import { serverWords } from '@/words/desk';

const w = serverWords.categories;

const input = z.object({ name: z.string().trim().min(1, w.theNameIsMissing()).max(60, w.theNameHasAt()) });

export const POST = jsonEndpoint(input, async ({ tx, input: { name }, actor }) => {
  const { id, shape, ink } = await makeCategoryNamed(tx, name, actor);
  const { light, dark } = inksOf(ink);
  // The page was made before there was such a category: the mark brings its own inks.
  const mark = `<svg class="mark" viewBox="0 0 12 12" style="--ml:${light};--md:${dark}" aria-hidden="true"><path fill-rule="evenodd" d="${pathOf(shape)}"/></svg>`;
  return { id, name, mark };
});
