/** The archive: one JSON document that holds a site, with its pictures' files beside it or in one ZIP file. See docs/formats.md. */

/** What our own JSON files call themselves. */
export const ARCHIVE_KIND = 'plain-almanac';
/** Format 1 was a file of listings alone, of the kind below. */
export const ARCHIVE_FORMAT = 2;
/** What they called themselves when they held listings only. */
export const FORMER_KIND = 'plain-almanac-listings';
/** The only format of that kind. */
export const FORMER_FORMAT = 1;

/** The document's name within a ZIP file. */
export const ARCHIVE_DOCUMENT = 'almanac.json';

/** The kinds of files that pictures are kept as. */
export const PICTURE_ENDINGS = ['png', 'jpg', 'gif', 'webp', 'avif'] as const;
/** `pictures/<SHA-256>.<ending>`: the hash of the bytes that were sent in, which a picture is known by. */
export const PICTURE_FILE = new RegExp(`^pictures/[0-9a-f]{64}\\.(${PICTURE_ENDINGS.join('|')})$`);

/** Why a document with this kind and format cannot be read; undefined when it can. */
export function whyNoArchive(kind: unknown, format: unknown): string | undefined {
  const short = (value: unknown): string => String(value).slice(0, 30);
  if (kind === FORMER_KIND && format === FORMER_FORMAT) return undefined;
  if (kind !== ARCHIVE_KIND) return `This is no file of listings: its kind is not “${ARCHIVE_KIND}”.`;
  if (format !== ARCHIVE_FORMAT) return `The file has format ${short(format)}; this version reads formats 1 to ${ARCHIVE_FORMAT}.`;
  return undefined;
}
