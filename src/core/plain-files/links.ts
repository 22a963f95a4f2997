/** How files of a copy name each other: by where they stand, or from the address that the copy will have. */

/** Where a copy will be, as links and feeds name it. */
export interface CopyAddress {
  /** `https://parish.example/events`, without a slash at its end; undefined = not known, so that links go from file to file */
  url?: string | undefined;
}

const INDEX = /(^|\/)index\.html$/;
const encoded = (file: string): string => file.split('/').map(encodeURIComponent).join('/').replaceAll('%3D', '=').replaceAll('%40', '@');

/** What a file's address is behind that of the copy: a folder's own page goes by the folder's name. */
const addressOf = (file: string): string => encoded(file.replace(INDEX, '$1'));

/** A link from one file of a copy to another. Without an address it names the file itself, so that it leads there from a disk too. */
export function linkTo(from: string, to: string, { url }: CopyAddress): string {
  if (url !== undefined) return `${new URL(url).pathname.replace(/\/$/, '')}/${addressOf(to)}`;
  const here = from.split('/').slice(0, -1);
  const there = to.split('/');
  let same = 0;
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++;
  const up = '../'.repeat(here.length - same);
  return `${up || './'}${encoded(there.slice(same).join('/'))}`;
}

/** The whole address of a file, for feeds and search engines. */
export const wholeLinkTo = (to: string, url: string): string => `${url}/${addressOf(to)}`;
