/** A page of the site as a file of its copy: every address in it leads where the copy says, and everything else stays byte for byte. */
import { Parser } from 'htmlparser2';

/** Where a page's addresses lead in the copy. */
export interface PageLinks {
  /** how whole addresses begin that are to lead into the copy: what the site calls itself there, and its own address, which people's texts have */
  sites: readonly string[];
  /** from this page to an address of the site (`/month/2027-03#day`); undefined = nowhere */
  link: (address: string) => string | undefined;
  /** where a form is answered; undefined = by nobody */
  form: (address: string) => string | undefined;
  /** an address as a whole one, for search engines and cards */
  whole: (address: string) => string | undefined;
}

const ADDRESSES = ['href', 'src', 'action', 'formaction', 'poster', 'component-url', 'renderer-url', 'before-hydration-url', 'data-root'];
/** A part of a page's source and what stands in its place. */
interface Edit {
  from: number;
  to: number;
  text: string;
}
const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;');

/** Rewrites a page. A link that leads nowhere keeps its words; a form that nobody would answer goes. */
export function rewriteHtml(html: string, links: PageLinks): string {
  const rewriter = new Rewriter(html, links);
  const parser = new Parser({
    onopentag: (name, attribs) => rewriter.open(name, attribs, parser.startIndex, parser.endIndex + 1),
    onclosetag: (name) => rewriter.close(name, parser.startIndex, parser.endIndex + 1),
  });
  parser.end(html);
  return rewriter.result();
}

type Attributes = Record<string, string>;
/** One attribute as it is written, from the space before it on. */
const WRITTEN = /(\s)([^\s"'>/=]+)(\s*=\s*)("[^"]*"|'[^']*'|[^\s"'=<>`]+)/g;

/** Takes a page's tags as they come and remembers what is to be put in their place. */
class Rewriter {
  readonly #edits: Edit[] = [];
  /** where a form began that goes */
  #gone: number | undefined;
  /** a link whose words may be its address: what stands between its tags is text alone so far */
  #shown: { value: string; from: number; only: boolean } | undefined;

  constructor(
    private readonly html: string,
    private readonly links: PageLinks,
  ) {}

  open(name: string, attributes: Attributes, from: number, to: number): void {
    if (this.#shown) this.#shown.only = false;
    if (this.#gone !== undefined) return;
    const changed = changedIn(name, attributes, this.links);
    if (!changed.size) return;
    const nowhere = [...changed.values()].includes(undefined);
    if (nowhere && name === 'form') this.#gone = from;
    else if (nowhere && name === 'link') this.#edits.push({ from, to, text: '' });
    else this.#edits.push({ from, to, text: tagWith(this.html.slice(from, to), changed) });
    const { href } = attributes;
    if (name === 'a' && href !== undefined && changed.has('href')) this.#shown = { value: href, from: to, only: true };
  }

  close(name: string, from: number, to: number): void {
    if (name === 'form' && this.#gone !== undefined) {
      this.#edits.push({ from: this.#gone, to, text: '' });
      this.#gone = undefined;
    }
    if (name !== 'a' || !this.#shown) return;
    const { value, from: begin, only } = this.#shown;
    this.#shown = undefined;
    const shown = only ? shownAs(this.html.slice(begin, from), value, this.links) : undefined;
    if (shown !== undefined) this.#edits.push({ from: begin, to: from, text: escaped(shown) });
  }

  result(): string {
    let at = 0;
    let text = '';
    for (const { from, to, text: put } of this.#edits.sort((a, b) => a.from - b.from)) {
      text += this.html.slice(at, from) + put;
      at = to;
    }
    return text + this.html.slice(at);
  }
}

/** A tag as it is written, with other values; an attribute without one goes. */
function tagWith(tag: string, changed: ReadonlyMap<string, string | undefined>): string {
  return tag.replace(WRITTEN, (all, space: string, name: string, equals: string) => {
    const key = name.toLowerCase();
    if (!changed.has(key)) return all;
    const value = changed.get(key);
    return value === undefined ? '' : `${space}${name}${equals}"${escaped(value)}"`;
  });
}

/** Those attributes of a tag that say something else in the copy. */
function changedIn(tag: string, attributes: Attributes, links: PageLinks): Map<string, string | undefined> {
  const changed = new Map<string, string | undefined>();
  for (const [name, value] of Object.entries(attributes)) {
    const to = rewritten(tag, name, value, links);
    if (to && to.value !== value) changed.set(name, to.value);
  }
  return changed;
}

/** The address within the site that a value names, and the scheme that it stands in; undefined = of another site. */
function ownAddress(value: string, sites: readonly string[]): { address: string; scheme: 'path' | 'whole' | 'webcal' } | undefined {
  // Two of them, either way round, begin the address of another site.
  if (/^\/(?![/\\])/.test(value)) return { address: value, scheme: 'path' };
  const beginnings = sites.flatMap((site) => [['whole', site] as const, ['webcal', site.replace(/^https?:/, 'webcal:')] as const]);
  for (const [scheme, begins] of beginnings) {
    const rest = value.startsWith(begins) ? value.slice(begins.length) : undefined;
    if (rest !== undefined && /^([/?#]|$)/.test(rest)) return { address: rest.startsWith('/') ? rest : `/${rest}`, scheme };
  }
  return undefined;
}

/** What an attribute that names addresses of the site says in the copy; nothing where it names none. */
function rewritten(tag: string, name: string, value: string, links: PageLinks): { value: string | undefined } | undefined {
  if (name === 'srcset') return { value: rewriteSet(value, links) };
  const meta = name === 'content' && tag === 'meta';
  const own = meta || ADDRESSES.includes(name) ? ownAddress(value, links.sites) : undefined;
  if (!own) return undefined;
  if (!meta) return { value: lead(tag, own, links) };
  return own.scheme === 'whole' ? { value: links.whole(own.address) ?? value } : undefined;
}

function lead(tag: string, { address, scheme }: NonNullable<ReturnType<typeof ownAddress>>, links: PageLinks): string | undefined {
  const whole = (): string | undefined => links.whole(address);
  if (scheme === 'webcal') return whole()?.replace(/^https?:/, 'webcal:');
  if (tag === 'link' && scheme === 'whole') return whole();
  return tag === 'form' ? links.form(address) : links.link(address);
}

/** What a link says whose words are its own address; undefined = they are others. */
function shownAs(words: string, value: string, links: PageLinks): string | undefined {
  const own = ownAddress(value, links.sites);
  if (!own || (words !== value && !(words.endsWith(own.address) && /^https?:\/\/\S+$/.test(words)))) return undefined;
  return links.whole(own.address) ?? links.link(own.address);
}

const rewriteSet = (set: string, links: PageLinks): string =>
  set
    .split(/,\s+/)
    .map((one) => {
      const [address = '', ...size] = one.trim().split(/\s+/);
      const own = ownAddress(address, links.sites);
      return [(own && links.link(own.address)) ?? address, ...size].join(' ');
    })
    .join(', ');
