/** Goes from page to page of the site as its copy has it, and hands on each file: everything that can be reached, once. */
import { type CopyFile, type CopyPlan, type Target, targetOf } from '@/core/plain-files/plan';
import { linkTo, wholeLinkTo } from '@/core/plain-files/links';
import { rewriteHtml } from '@/core/plain-files/rewrite-html';
import { assetsIn, picturesIn, rewriteFeed, rewriteJson, rewriteSitemap } from '@/core/plain-files/rewrite-text';
import { escapeHtml } from '@/core/text/text';
import type { Answer, Ask, CopyOf } from './ask';

/** So many pages are asked for at once: while some wait for the database others are written; readers have their turn between them. */
const AT_ONCE = 6;
const FEED = /^(text\/calendar|text\/csv|application\/.*(xml|json))$/;

/** What a copy is of, and where its files go. */
export interface CrawlInput {
  ask: Ask;
  plan: CopyPlan;
  copy: CopyOf;
  /** how the site calls itself in the pages of this copy */
  site: string;
  /** its own address, as people's texts have it */
  own: string;
  /** addresses that lead on to others, as readers may still have them: `/what/old-name` */
  former: readonly string[];
  put: (file: string, content: string | Buffer) => Promise<void>;
  /** hears how far it is */
  progress?: (done: number, known: number) => void;
}

/** What was met on the way. */
export interface Crawl {
  files: Set<string>;
  /** pages that are no files of the copy, and how many links lead to them */
  server: number;
  /** links that lead further in time than the copy reaches */
  beyond: number;
  /** addresses that somebody's text links to and the site does not have */
  dead: string[];
  /** pages that could not be read, and how they were answered */
  failed: string[];
}

/** Reads the site and hands on all files of its copy. @throws whatever asking and putting throw */
export async function crawl(input: CrawlInput): Promise<Crawl> {
  const way = new Way(input);
  for (const address of ['/', '/sitemap.xml', '/robots.txt', '/chart.json', ...input.former]) way.add(address);
  for (const language of input.plan.languages) way.add(`/${language}`);
  const active = new Set<Promise<void>>();
  try {
    for (let next = way.next(); next || active.size; next = way.next()) {
      if (next) {
        const one: Promise<void> = way.write(next).finally(() => active.delete(one));
        active.add(one);
      }
      if (!next || active.size >= AT_ONCE) await Promise.race(active);
      input.progress?.(way.done, way.found.files.size);
    }
  } finally {
    // Whoever hears that it failed may tidy up: nothing is written any more.
    await Promise.allSettled(active);
  }
  await way.writeMissingPage();
  return way.found;
}

class Way {
  readonly found: Crawl = { files: new Set(), server: 0, beyond: 0, dead: [], failed: [] };
  done = 0;
  readonly #waiting: CopyFile[] = [];
  /** most pages link to the same addresses */
  readonly #targets = new Map<string, Target>();

  constructor(private readonly input: CrawlInput) {}

  next(): CopyFile | undefined {
    return this.#waiting.pop();
  }

  /** Takes an address of the site on; the file that it is, or why it is none. */
  add(address: string): Target {
    const known = this.#targets.get(address);
    if (known !== undefined) return known;
    const target = targetOf(address, this.input.plan);
    this.#targets.set(address, target);
    if (typeof target === 'object' && !this.found.files.has(target.file)) {
      this.found.files.add(target.file);
      this.#waiting.push(target);
    }
    return target;
  }

  async write({ address, file }: CopyFile): Promise<void> {
    const { ask, copy, put } = this.input;
    const answer = await follow(ask, copy, address, file);
    this.done++;
    if (answer.status >= 300 && answer.status < 400) return put(file, this.#leadOn(file, answer.location ?? '/'));
    const { files, dead, failed } = this.found;
    if (answer.status === 404) dead.push(address);
    else if (answer.status !== 200) failed.push(`${address} (${answer.status})`);
    // Whoever follows a dead link is told so, as on the site itself.
    if (answer.status === 200 || (answer.status === 404 && file.endsWith('.html'))) await put(file, this.#rewritten(file, answer));
    else files.delete(file);
  }

  /** What a web server shows for an address that it does not have. */
  async writeMissingPage(): Promise<void> {
    const { ask, copy, put } = this.input;
    const { body } = await ask('/404', copy);
    this.found.files.add('404.html');
    await put('404.html', this.#page('404.html', body.toString()));
  }

  #rewritten(file: string, { type, body }: Answer): string | Buffer {
    if (type === 'text/html') return this.#page(file, body.toString());
    if (type === 'text/css' || type === 'text/javascript') {
      for (const asset of assetsIn(body.toString())) this.add(asset);
      return body;
    }
    if (type === 'application/manifest+json') return rewriteJson(body.toString(), (address) => this.#link(file, address));
    if (file.startsWith('sitemap')) {
      const { xml, addresses } = rewriteSitemap(body.toString(), this.input.site, (address) => this.#whole(address));
      for (const address of addresses) this.add(address);
      return xml;
    }
    return FEED.test(type) ? this.#feed(body.toString(), type) : body;
  }

  #feed(text: string, type: string): string {
    const { copy, site } = this.input;
    if (copy.url === undefined) return text;
    for (const picture of picturesIn(text, site)) this.add(picture);
    // A calendar's events lead to their listings, whose pages are in the copy whatever its days.
    return type === 'text/calendar' ? text : rewriteFeed(text, site, (address) => this.#whole(address));
  }

  #page(file: string, text: string): string {
    const { copy, site, own } = this.input;
    // Whole addresses are the copy's own, or lead to the server that was named; with neither they would lead nowhere.
    const within = copy.url !== undefined || copy.server === undefined;
    return rewriteHtml(text, {
      sites: within ? [site, own] : [],
      link: (address) => this.#link(file, address),
      form: (address) => this.#onServer(address),
      whole: (address) => this.#whole(address),
    });
  }

  #link(from: string, whole: string): string | undefined {
    const [address = '', hash] = whole.split('#');
    const target = this.add(address);
    if (typeof target === 'object') return linkTo(from, target.file, this.input.copy) + (hash ? `#${hash}` : '');
    this.found[target]++;
    return this.#onServer(whole);
  }

  #whole(address: string): string | undefined {
    const { url } = this.input.copy;
    const target = this.add(address.split('#')[0] ?? '');
    if (typeof target !== 'object') return this.#onServer(address);
    return url === undefined ? undefined : wholeLinkTo(target.file, url);
  }

  #onServer(address: string): string | undefined {
    const { server } = this.input.copy;
    return server === undefined ? undefined : server + address;
  }

  /** A page at an address that something had before. */
  #leadOn(file: string, location: string): string {
    const { site } = this.input;
    const to = this.#link(file, location.startsWith(site) ? location.slice(site.length) || '/' : location) ?? './';
    const at = escapeHtml(to);
    return `<!doctype html>\n<meta charset="utf-8">\n<title>${at}</title>\n<meta http-equiv="refresh" content="0; url=${at}">\n<link rel="canonical" href="${at}">\n<p><a href="${at}">${at}</a></p>\n`;
  }
}

/** An answer; a file that has moved is taken from where it is now, since only a page can lead on. */
async function follow(ask: Ask, copy: CopyOf, address: string, file: string): Promise<Answer> {
  let answer = await ask(address, copy);
  for (let turns = 0; turns < 3 && !file.endsWith('.html') && answer.status >= 300 && answer.status < 400; turns++)
    answer = await ask(new URL(answer.location ?? '/', 'http://site.invalid').pathname, copy);
  return answer;
}
