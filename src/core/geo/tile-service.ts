/** A map on another host, which readers' browsers ask for themselves: tiles as pictures or vectors, or a whole style. */

/** How such a map comes. */
export interface TileService {
  /** tiles as pictures; vector tiles in the layers of the open basemap schema; a MapLibre style, which says all else itself */
  kind: 'pictures' | 'vectors' | 'style';
  url: string;
  /** the one host that is asked, with its scheme */
  origin: string;
}

/** Where the tile and its zoom belong in an address. */
const PLACES = ['{z}', '{x}', '{y}'] as const;

/** The extensions of vector tiles, and of a style. */
const VECTORS = /\.(?:pbf|mvt)$/i;
const STYLE = /(?:\.json|\/style)$/i;

/**
 * Reads the address of such a map; undefined where it is none: not https (but on this machine), with a password or letters for several hosts,
 * or neither tiles nor a style.
 */
export function readTileService(address: string): TileService | undefined {
  if (/[\s"'<>;,]/.test(address) || !URL.canParse(address)) return undefined;
  const { protocol, host, hostname, origin, username, password, pathname } = new URL(address);
  const here = ['localhost', '127.0.0.1', '[::1]'].includes(hostname);
  if (username || password || (protocol !== 'https:' && !(protocol === 'http:' && here))) return undefined;
  // Braces in the host's name stand for several hosts; elsewhere there are those of the tile alone.
  if (/[{}]/.test(host)) return undefined;
  const braces = address.match(/\{[^}]*\}/g) ?? [];
  if (!braces.length) return STYLE.test(pathname) ? { kind: 'style', url: address, origin } : undefined;
  if (braces.length !== PLACES.length || !PLACES.every((place) => braces.includes(place))) return undefined;
  return { kind: VECTORS.test(decodeURI(pathname)) ? 'vectors' : 'pictures', url: address, origin };
}
