/** Makes a venue in place, from the listing's editor. */
import { jsonEndpoint } from '@/server/http/endpoint';
import { saveVenue, venueInput } from '@/server/venues/write';

export const POST = jsonEndpoint(venueInput, async ({ tx, input, actor }) => saveVenue(tx, null, input, actor));
