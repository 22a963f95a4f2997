/**
 * Where the site is reached. What was set (Set-up) comes first, then what the operator lists (`ALMANAC_ADDRESS`, several with commas), then
 * where the server listens. A request's own host counts only when it is one of these, or when a proxy that the operator declared says so: a
 * stranger's Host header never reaches a page, a file or a mail. Below a path of its host (`ALMANAC_PATH`), all of them end with it.
 */
import { forwardedBy, listeningAddress, originOf, proxyHops } from '@/core/text/origin';
import { readSitePaths, type SitePath } from '@/core/text/site-path';

/** Where the server listens, told by whatever opened the port: `http://127.0.0.1:4321`. */
export const LISTENING = 'ALMANAC_LISTENING';

const DEFAULT_PORT = '4321';
/** Which addresses are the site's, and which one a request came to. */
export class SiteAddresses {
  private readonly listed: readonly string[];
  private readonly hops: number;
  /** below which path of its host the site lies; '' = none */
  readonly path: SitePath;
  /** what the declared proxy said last: for mails that no request causes */
  private proxied: string | undefined;

  constructor(
    private readonly env: Readonly<Record<string, string | undefined>>,
    private readonly set: () => string,
  ) {
    this.listed = (env.ALMANAC_ADDRESS ?? '').split(',').flatMap((text) => originOf(text) ?? []);
    this.hops = proxyHops(env) ?? 0;
    this.path = readSitePaths(env.ALMANAC_PATH ?? '')?.now ?? '';
  }

  /** The address that pages name as the true one, and that mails carry. No slash at the end. */
  primary(): string {
    return this.below(this.set() || this.listed[0] || this.proxied || this.listening());
  }

  /** For one request: its own host where that is one of the site's, else the primary. */
  forRequest(headers: Headers): string {
    const known = this.known();
    const own = this.hostOf(headers, known);
    return own === undefined ? this.primary() : this.below(own);
  }

  private below(origin: string): string {
    return (originOf(origin) ?? origin) + this.path;
  }

  private known(): string[] {
    const set = originOf(this.set());
    return [...(set ? [set] : []), ...this.listed, this.listening()];
  }

  private hostOf(headers: Headers, known: readonly string[]): string | undefined {
    const forwarded = forwardedBy(this.hops, headers.get('x-forwarded-host'));
    if (forwarded) {
      const scheme = forwardedBy(this.hops, headers.get('x-forwarded-proto')) === 'https' ? 'https' : 'http';
      const origin = originOf(`${scheme}://${forwarded}`);
      // Many proxies pass on whatever host they were asked for: where names were set, only those count.
      if (this.set() || this.listed.length) return known.find((address) => address === origin);
      if (origin) this.proxied = origin;
      return origin;
    }
    const host = headers.get('host')?.toLowerCase();
    return host ? known.find((address) => new URL(address).host === host) : undefined;
  }

  private listening(): string {
    return this.env[LISTENING] || listeningAddress(this.env.HOST || '127.0.0.1', this.env.PORT || DEFAULT_PORT);
  }
}
