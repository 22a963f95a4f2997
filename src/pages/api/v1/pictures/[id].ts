/** The words of a picture: what it shows, and who made it. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { picture } from '@/server/db/schema';
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/http/params';
import { notFound } from '@/server/http/problem';

const input = z.object({
  alt: z.string().trim().max(300, 'At most 300 characters'),
  credit: z.string().trim().max(120, 'At most 120 characters'),
});

export const PUT = jsonEndpoint(input, async ({ tx, input: words, context }) => {
  const [row] = await tx
    .update(picture)
    .set(words)
    .where(eq(picture.id, idOf(context.params.id, 'picture')))
    .returning({ id: picture.id });
  if (!row) throw notFound('picture');
  return words;
});
