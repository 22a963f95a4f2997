/** Makes a venue in place, from the listing's editor; its position is looked up when only an address is given. */
import { searchGazetteer } from '@/core/geo/gazetteer';
import { rounded } from '@/core/geo/pin';
import { jsonEndpoint } from '@/server/http/endpoint';
import { readGazetteer } from '@/server/site/read';
import { venueInput } from '@/server/venues/input';
import { saveVenue } from '@/server/venues/write';

export const POST = jsonEndpoint(venueInput, async ({ tx, input, actor }) => {
  const said = [input.street, input.town, input.island].filter(Boolean).join(', ');
  // A comma behind: nothing is half typed any more.
  const [match] = input.lat === null && said ? searchGazetteer(`${said},`, await readGazetteer(tx), 1) : [];
  // A whole town or island is no position of a hall.
  const close = match && (match.exactness === 'house' || match.exactness === 'street' || match.exactness === 'landmark');
  const made = await saveVenue(tx, null, { ...input, ...(close ? rounded(match.point) : {}) }, actor);
  return { ...made, placed: input.lat !== null || Boolean(close) };
});
