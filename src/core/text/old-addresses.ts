/** Addresses of a site's former life: a table of old and new, read and checked before anything leads on. */
import Papa from 'papaparse';

/** One old address and where it leads. */
export interface OldAddress {
  /** path and query, as {@link addressKey} writes them */
  from: string;
  /** path, query and part of a page of this site */
  to: string;
  /** line of the table, from 1 */
  line: number;
}

/** Why a line of a table is not taken. */
export type AddressProblem = 'no-pair' | 'not-an-address' | 'elsewhere' | 'leads-to-itself' | 'twice' | 'in-a-circle' | 'too-long';

/** A line that is not taken. */
export interface WrongLine {
  line: number;
  text: string;
  problem: AddressProblem;
}

/** What became of a table that was taken in. */
export interface AddressReport {
  fresh: number;
  changed: number;
  same: number;
  /** lines that are not taken, and why */
  wrong: { line: number; text: string; reason: string }[];
  /** taken, and led on only once the site no longer has a page of its own there */
  answered: { line: number; from: string }[];
  /** taken, though nothing is there now */
  lost: { line: number; to: string }[];
  /** addresses that were not looked at, since there are so many */
  unasked: number;
  /** no longer in the table */
  removed: number;
}

/** The longest address. */
export const LONGEST_ADDRESS = 2000;

const HOST = 'http://here.invalid';

function parsed(text: string): URL | undefined {
  // People write addresses with or without the host, and with letters that an address has in other signs.
  const whole = /^https?:\/\//i.test(text)
    ? text
    : /^\/(?![/\\])/.test(text)
      ? HOST + text
      : /^[\w-]+(\.[\w-]+)+(:\d+)?\//.test(text)
        ? `http://${text}`
        : '';
  return whole && URL.canParse(whole) ? new URL(whole) : undefined;
}

const trimmed = (path: string): string => (path.length > 1 ? path.replace(/\/+$/, '') || '/' : path);

/** How an address is looked up: its path without a slash at the end, and its query in the order of names. */
export function addressKey({ pathname, search }: Pick<URL, 'pathname' | 'search'>): string {
  const query = new URLSearchParams(search);
  query.sort();
  const said = query.toString();
  return `${trimmed(pathname)}${said ? `?${said}` : ''}`;
}

/** In which order an address is looked up: with its query, then without. */
export const addressKeys = (url: Pick<URL, 'pathname' | 'search'>): string[] => [...new Set([addressKey(url), trimmed(url.pathname)])];

/** A comma may be part of an address: a table has it between its columns where nothing rarer is. */
function delimiterOf(text: string): string {
  const lines = text.split(/\r?\n/).filter((line) => line.trim());
  return ['\t', ';'].find((sign) => lines.every((line) => line.includes(sign))) ?? ',';
}

/**
 * Reads a table of two columns, old and new, with commas, semicolons or tabs between; a first line that names them is none of them.
 * @param own the site's own hosts: an old address leads to none other
 */
export function readOldAddresses(text: string, own: readonly string[]): { addresses: OldAddress[]; wrong: WrongLine[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimiter: delimiterOf(text), skipEmptyLines: false });
  const wrong: WrongLine[] = [];
  const byFrom = new Map<string, OldAddress>();
  for (const [i, cells] of data.entries()) {
    const line = i + 1;
    const [old = '', fresh = ''] = cells.map((cell) => cell.trim());
    if (!old && !fresh) continue;
    if (line === 1 && !/[/.]/.test(old) && !/[/.]/.test(fresh)) continue;
    const found = pairOf(old, fresh, own);
    if (typeof found === 'string') {
      wrong.push({ line, text: cells.join(', ').slice(0, 200), problem: found });
      continue;
    }
    const known = byFrom.get(found.from);
    if (!known) byFrom.set(found.from, { ...found, line });
    else if (known.to !== found.to) wrong.push({ line, text: cells.join(', ').slice(0, 200), problem: 'twice' });
  }
  return straightened(byFrom, wrong);
}

function pairOf(old: string, fresh: string, own: readonly string[]): { from: string; to: string } | AddressProblem {
  if (!old || !fresh) return 'no-pair';
  if (old.length > LONGEST_ADDRESS || fresh.length > LONGEST_ADDRESS) return 'too-long';
  const [from, to] = [parsed(old), parsed(fresh)];
  if (!from || !to) return 'not-an-address';
  if (to.origin !== HOST && !own.includes(to.host)) return 'elsewhere';
  // Two slashes would begin another host's address.
  const target = `${to.pathname.replace(/^\/{2,}/, '/')}${to.search}${to.hash}`;
  return addressKey(from) === addressKey(to) ? 'leads-to-itself' : { from: addressKey(from), to: target };
}

/** Leads each old address straight to where the last of a row leads; those that come back to themselves are wrong. */
function straightened(byFrom: ReadonlyMap<string, OldAddress>, wrong: WrongLine[]): { addresses: OldAddress[]; wrong: WrongLine[] } {
  const addresses: OldAddress[] = [];
  for (const one of byFrom.values()) {
    const seen = new Set([one.from]);
    let { to } = one;
    for (;;) {
      const key = addressKey(new URL(to, HOST));
      if (seen.has(key)) {
        wrong.push({ line: one.line, text: `${one.from}, ${one.to}`, problem: 'in-a-circle' });
        break;
      }
      const next = byFrom.get(key);
      if (!next) {
        addresses.push({ ...one, to });
        break;
      }
      seen.add(key);
      to = next.to;
    }
  }
  return { addresses, wrong: wrong.sort((a, b) => a.line - b.line) };
}
