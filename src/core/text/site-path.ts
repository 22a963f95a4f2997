/** Where on its host a site lies: at its root, or below a path such as `/events`; and where it lay before. */

/** A path below which a site lies, without a slash at its end; '' is the root of its host. */
export type SitePath = string;

/** Where a site lies now, and the paths that it had before, whose addresses lead on. */
export interface SitePaths {
  now: SitePath;
  former: readonly SitePath[];
}

const SEGMENT = /^[a-z0-9][\w.~-]{0,62}$/i;

/** One path as it is typed (`/events`, `events/`, `/`); undefined for what is none. */
function sitePathOf(text: string): SitePath | undefined {
  const segments = text.trim().replace(/^\//, '').replace(/\/$/, '').split('/');
  if (segments.length === 1 && segments[0] === '') return '';
  return segments.length <= 5 && segments.every((segment) => SEGMENT.test(segment)) ? `/${segments.join('/')}` : undefined;
}

/** Reads the path that a site has and, behind commas, those that it had: `/events, /calendar, /`. Nothing at all is the root; undefined for what is no path. */
export function readSitePaths(text: string): SitePaths | undefined {
  const paths = text.split(',').map(sitePathOf);
  const [now, ...former] = paths;
  if (now === undefined || former.includes(undefined)) return undefined;
  return { now, former: former.filter((path): path is SitePath => path !== undefined && path !== now) };
}

/** What an address asks of a site: one of its own addresses, to be led on to one, or nothing of it. */
export type Placed = { kind: 'own' | 'moved'; address: string } | { kind: 'elsewhere' };

/** The address within the site (`/month/2027-03?kinds=music`) that an address of the host names: by the longest path that it lies below. */
export function placedIn({ now, former }: SitePaths, address: string): Placed {
  const end = address.search(/[?#]/);
  const path = end < 0 ? address : address.slice(0, end);
  const [found] = [now, ...former].filter((one) => path === one || path.startsWith(`${one}/`)).sort((a, b) => b.length - a.length);
  if (found === undefined) return { kind: 'elsewhere' };
  // Two slashes, either way round, would begin the address of another host.
  const rest = found ? address.slice(found.length).replace(/^[/\\]+/, '') : address.slice(1);
  return { kind: found === now ? 'own' : 'moved', address: `/${rest}` };
}
