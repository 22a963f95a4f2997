/** The tag of a name, made when there is none: typed in the listing's editor. */
import { z } from 'zod';
import { jsonEndpoint } from '@/server/http/endpoint';
import { findOrMakeTag, tagName } from '@/server/tags/write';

export const POST = jsonEndpoint(z.object({ name: tagName }), async ({ tx, actor, input: { name } }) => findOrMakeTag(tx, name, actor));
