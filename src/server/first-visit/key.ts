/**
 * The one-time key with which a site is set up: made by whoever starts the server, shown on that console alone, good for an hour and for the
 * first browser that opens it. Held in memory: a restart makes another.
 */
import { hashToken, newToken } from '../db/ids';

/** How long a key is good, in ms. */
export const KEY_LASTS = 3_600_000;

/** Under what name the browser that opened it keeps its pass. */
export const PASS_COOKIE = 'almanac_first';

/**
 * The pass as a `Set-Cookie` header. It stands in the answer, since the framework's own cookies are added only after the middleware has led
 * an answer below the site's path and kept its cookies to https.
 */
export const passCookie = (pass: string): string =>
  `${PASS_COOKIE}=${pass}; Max-Age=${KEY_LASTS / 1000}; Path=/first-visit; HttpOnly; SameSite=Lax`;

/** What became of a key that somebody came with. */
export type Opened = { kind: 'opened'; pass: string } | { kind: 'used' | 'late' | 'wrong' };

/** The key of a process, and the pass of the browser that opened it. */
export class FirstVisitKey {
  #key: { hash: string; madeAt: number; pass: string | undefined } | undefined;

  /** A new key; the one before, and whoever came by it, no longer count. */
  make(now: number): string {
    const key = newToken();
    this.#key = { hash: hashToken(key), madeAt: now, pass: undefined };
    return key;
  }

  /** Opens the site's first visit with a key. `pass` is what this browser got before, if it did. */
  open(key: string, pass: string, now: number): Opened {
    const known = this.#key;
    if (!known || hashToken(key) !== known.hash) return { kind: 'wrong' };
    if (now - known.madeAt > KEY_LASTS) return { kind: 'late' };
    if (known.pass !== undefined) return this.admits(pass, now) ? { kind: 'opened', pass } : { kind: 'used' };
    const fresh = newToken();
    known.pass = hashToken(fresh);
    return { kind: 'opened', pass: fresh };
  }

  /** May this browser go on? */
  admits(pass: string, now: number): boolean {
    const known = this.#key;
    return known?.pass !== undefined && pass !== '' && hashToken(pass) === known.pass && now - known.madeAt <= KEY_LASTS;
  }

  /** The site is set up: nothing opens it any more. */
  end(): void {
    this.#key = undefined;
  }
}
