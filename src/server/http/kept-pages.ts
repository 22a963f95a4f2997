/**
 * Readers' pages as they were made, with their compressed forms, in bounded memory: made once however many ask at the same moment,
 * and kept while their tag, which names the content's revision and the day, is the one that is asked for.
 */
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { LRUCache } from 'lru-cache';
import Negotiator from 'negotiator';
import pLimit from 'p-limit';
import { problemIn } from '../problem';

/** In which form a body is sent (RFC 9110 8.4.1). */
export type Encoding = 'br' | 'gzip' | 'identity';

/** A page as it was made. */
export interface KeptPage {
  etag: string;
  status: number;
  headers: readonly [string, string][];
  body: Uint8Array;
  /** the body compressed, from when somebody first asked for it */
  forms: Map<Encoding, Promise<Uint8Array>>;
}

/** A page that is asked for: its address, the tag of its present state, and how it is made. */
export interface Asked {
  address: string;
  etag: string;
  make: () => Promise<Response>;
}

/** Bodies of at most so many bytes are kept, compressed forms counted by a guess. */
const MOST_BYTES = 96 * 1024 * 1024;
/** One that is longer is made each time: it would push out hundreds of others. */
const LONGEST = 8 * 1024 * 1024;
/** So many pages are made at once, and so many more may wait for their turn, before others are told to come back. */
const AT_ONCE = 8;
const MOST_WAITING = 400;
/** While a new one is being made, the one before it may be shown for so long, in milliseconds. */
const OLD_FOR = 1000;
/** What is shorter gains nothing by being compressed. */
const LEAST_COMPRESSED = 1024;
const COMPRESSIBLE = /^(text\/|application\/(json|xml|ld\+json)|image\/svg)/;

interface Entry {
  page: KeptPage;
  /** when it was first asked for in a newer state; undefined while it is the newest */
  oldSince: number | undefined;
}

/** The kept pages of one site. */
export class KeptPages {
  readonly #entries: LRUCache<string, Entry>;
  readonly #making = new Map<string, { etag: string; page: Promise<KeptPage> }>();
  readonly #limit = pLimit(AT_ONCE);

  /** @param now milliseconds of any clock that only goes forward */
  constructor(
    private readonly now: () => number = () => performance.now(),
    mostBytes = MOST_BYTES,
  ) {
    this.#entries = new LRUCache({ maxSize: mostBytes, sizeCalculation: ({ page }) => 512 + Math.ceil(page.body.length * 1.5) });
  }

  /** How many bytes are kept, about. */
  get size(): number {
    return this.#entries.calculatedSize;
  }

  /** How many pages are being made, or wait to be. */
  get making(): number {
    return this.#limit.activeCount + this.#limit.pendingCount;
  }

  /** The page in its present state, or for a moment the one before. @throws whatever making it throws, and "busy" when too many wait */
  async answer(asked: Asked): Promise<KeptPage> {
    const { address, etag } = asked;
    const entry = this.#entries.get(address);
    if (entry?.page.etag === etag) return entry.page;
    if (entry) entry.oldSince ??= this.now();
    const old = entry && this.now() - (entry.oldSince ?? 0) < OLD_FOR ? entry.page : undefined;
    const making = this.#making.get(address);
    if (making) {
      if (old) return old;
      if (making.etag === etag) return making.page;
    }
    if (this.making >= AT_ONCE + MOST_WAITING) {
      if (old) return old;
      throw problemIn('busy', (w) => w.wrong.busy());
    }
    return this.#make(asked);
  }

  #make({ address, etag, make }: Asked): Promise<KeptPage> {
    const page = this.#limit(async () => pageOf(etag, await make()));
    const here = { etag, page };
    this.#making.set(address, here);
    /** Is this still the newest that was asked for? One that took long must not stand in the place of a newer one. */
    const over = (): boolean => this.#making.get(address) === here && this.#making.delete(address);
    return page.then(
      (made) => {
        if (over() && isKeepable(made)) this.#entries.set(address, { page: made, oldSince: undefined });
        return made;
      },
      (error: unknown) => {
        over();
        throw error;
      },
    );
  }
}

async function pageOf(etag: string, response: Response): Promise<KeptPage> {
  const headers = [...response.headers].filter(([name]) => name !== 'content-length');
  return { etag, status: response.status, headers, body: new Uint8Array(await response.arrayBuffer()), forms: new Map() };
}

/** Only whole pages for everybody are kept: no errors, and nothing that sets a cookie. */
function isKeepable({ status, headers, body }: KeptPage): boolean {
  return status === 200 && body.length <= LONGEST && !headers.some(([name]) => name === 'set-cookie');
}

/** The shortest encoding of a page that a reader's program takes. */
export function encodingFor(header: string | null, page: Pick<KeptPage, 'headers' | 'body'>): Encoding {
  const type = page.headers.find(([name]) => name === 'content-type')?.[1] ?? '';
  if (!header || page.body.length < LEAST_COMPRESSED || !COMPRESSIBLE.test(type)) return 'identity';
  const accepted = new Negotiator({ headers: { 'accept-encoding': header } }).encodings(['br', 'gzip']);
  if (accepted.includes('br')) return 'br';
  return accepted.includes('gzip') ? 'gzip' : 'identity';
}

const inBrotli = promisify(brotliCompress);
const inGzip = promisify(gzip);

/** A page's body in an encoding, compressed once however many ask. */
export function bodyIn(page: KeptPage, encoding: Encoding): Promise<Uint8Array> {
  if (encoding === 'identity') return Promise.resolve(page.body);
  const there = page.forms.get(encoding);
  if (there) return there;
  const made =
    encoding === 'br'
      ? inBrotli(page.body, { params: { [constants.BROTLI_PARAM_QUALITY]: 5, [constants.BROTLI_PARAM_SIZE_HINT]: page.body.length } })
      : inGzip(page.body);
  page.forms.set(encoding, made);
  made.catch(() => page.forms.delete(encoding));
  return made;
}

/** The answer that a reader gets of a page. */
export async function responseOf(page: KeptPage, acceptEncoding: string | null): Promise<Response> {
  const encoding = encodingFor(acceptEncoding, page);
  const body = await bodyIn(page, encoding);
  const headers = new Headers(page.headers as [string, string][]);
  headers.set('content-length', String(body.length));
  if (encoding !== 'identity') headers.set('content-encoding', encoding);
  return new Response(body as Uint8Array<ArrayBuffer>, { status: page.status, headers });
}
