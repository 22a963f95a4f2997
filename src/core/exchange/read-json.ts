/** The listings of our own JSON: what an archive holds of them, for a site that has listings of its own. The content's shape is checked by the server. */
import { mostOf } from '../listing/fields';
import { isObject, type Loose } from '../collections/is-object';
import { parseJson } from '../text/clean';
import { whyNoArchive } from './archive';
import { CONTENT_FORMAT, type ListingContent, upgradeContent } from '../listing/content';
import { INCOMING_FORMAT, type Incoming, type IncomingFile, type Named, type Unreadable } from './incoming';
import { FileError, MOST_EVENTS } from './read-ical';

const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** Names by the ids that the file's listings use. */
function namesOf(value: unknown): Map<string, Named> {
  return new Map(
    list(value)
      .filter(isObject)
      .map((row) => {
        const { lat, lng, mail } = row;
        const point = typeof lat === 'number' && typeof lng === 'number' ? { point: { lat, lng } } : {};
        return [text(row.id), { name: text(row.name), ...(text(mail) ? { mail: text(mail) } : {}), ...point }] as const;
      }),
  );
}

/** Reads a file. Throws {@link FileError} when it is none of ours, or of a later format. */
export function readJsonFile(source: string): IncomingFile {
  let file: unknown;
  try {
    file = parseJson(source);
  } catch {
    throw new FileError('This is no JSON: it could not be read.');
  }
  const why = isObject(file) ? whyNoArchive(file.kind, file.format) : 'This is no file of listings.';
  if (!isObject(file) || why) throw new FileError(why ?? 'This is no file of listings.');
  const listings = list(file.listings);
  if (listings.length > MOST_EVENTS)
    throw new FileError(`The file has more than ${MOST_EVENTS.toLocaleString('en')} listings; bring it in by parts.`);
  const names = { venues: namesOf(file.venues), organizers: namesOf(file.organizers), categories: namesOf(file.categories) };
  const items: Incoming[] = [];
  const unreadable: Unreadable[] = [];
  listings.forEach((raw, i) => {
    const content = isObject(raw) && isObject(raw.content) ? raw.content : undefined;
    const reason = whyNot(raw, content);
    if (reason) unreadable.push({ line: i + 1, title: text(content?.title).slice(0, mostOf('title')), reason });
    else items.push(itemOf(raw as Loose, upgradeContent(content as Loose) as unknown as ListingContent, i + 1, names));
  });
  return { items, unreadable, unknownZones: [] };
}

function whyNot(raw: unknown, content: Loose | undefined): string | undefined {
  if (!isObject(raw) || !content) return 'It has no content.';
  if (!/^[0-9a-f-]{36}$/.test(text(raw.id))) return 'Its id is missing.';
  if (!Number.isInteger(content.format) || Number(content.format) < 1 || Number(content.format) > CONTENT_FORMAT)
    return `Its content has format ${String(content.format).slice(0, 10)}; this version reads formats 1 to ${CONTENT_FORMAT}.`;
  return raw.stage === 'binned' ? 'It was in the bin.' : undefined;
}

function itemOf(
  raw: Loose,
  whole: ListingContent,
  line: number,
  names: Record<'venues' | 'organizers' | 'categories', Map<string, Named>>,
): Incoming {
  const { format: _format, venueIds, organizerIds, categoryIds, pictureId, galleryIds, tagIds: _tags, ...content } = whole;
  const found = (ids: unknown, of: Map<string, Named>): Named[] => list(ids).flatMap((id) => of.get(text(id)) ?? []);
  const places: Incoming['places'] = {};
  const changes = list(content.changes)
    .filter(isObject)
    .map(({ venueId, ...change }) => {
      const place = names.venues.get(text(venueId));
      if (place) places[text(change.original)] = place;
      return change;
    });
  const id = text(raw.id);
  return {
    format: INCOMING_FORMAT,
    uid: `json:${id}`,
    line,
    sequence: 0,
    content: { ...content, changes: changes as unknown as ListingContent['changes'] },
    html: true,
    venues: found(venueIds, names.venues),
    organizers: found(organizerIds, names.organizers),
    categories: found(categoryIds, names.categories).map(({ name }) => name),
    places,
    notes: pictureId || galleryIds.length ? ['Its picture is not in the file.'] : [],
    ownId: id,
  };
}
