/** Origins of web addresses: scheme, host and port, as RFC 6454 has them. */

const LOOPBACK = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/i;

/** The origin of an http or https address, without a slash at the end; undefined for anything else. */
export function originOf(text: string): string | undefined {
  const typed = text.trim();
  if (!typed || !URL.canParse(typed)) return undefined;
  const { protocol, origin } = new URL(typed);
  return protocol === 'http:' || protocol === 'https:' ? origin : undefined;
}

/** Does an address lead nowhere but to the machine that it is opened on? */
export function isOnlyHere(address: string): boolean {
  return URL.canParse(address) && LOOPBACK.test(new URL(address).hostname);
}

/** How a server that listens on a host and a port is reached from its own machine. */
export function listeningAddress(host: string, port: number | string): string {
  const every = host === '0.0.0.0' || host === '::' || host === '';
  const name = every ? '127.0.0.1' : host.includes(':') ? `[${host}]` : host;
  return `http://${name}${String(port) === '80' ? '' : `:${port}`}`;
}

/**
 * How many proxies of the operator's stand before the site (`ALMANAC_BEHIND_PROXY`), 0 for none; undefined for what is no number from 0 to 9.
 */
export function proxyHops(env: Readonly<Record<string, string | undefined>>): number | undefined {
  const text = env.ALMANAC_BEHIND_PROXY ?? '';
  return /^[0-9]?$/.test(text) ? Number(text) : undefined;
}

/**
 * What the first of `hops` proxies put into a forwarded header. Each adds what it saw at the end, and what stands before came from outside;
 * undefined without proxies, or where they put nothing.
 */
export function forwardedBy(hops: number, header: string | null | undefined): string | undefined {
  const entries = (header ?? '')
    .split(',')
    .map((entry) => entry.trim())
    .filter(Boolean);
  return hops ? entries.at(-Math.min(hops, entries.length)) : undefined;
}
