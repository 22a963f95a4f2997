/** Makes an organizer in place, from the listing's editor. */
import { jsonEndpoint } from '@/server/http/endpoint';
import { organizerInput, saveOrganizer } from '@/server/organizers/write';

export const POST = jsonEndpoint(organizerInput, async ({ tx, input, actor }) => saveOrganizer(tx, null, input, actor));
