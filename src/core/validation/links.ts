/** Web and mail addresses that look wrong. Nothing is fetched: only what stands there is judged. */
import type { ListingContent } from '../listing/content';
import { asWarning, type ValidationNote, asError } from './note';
import { says } from './saying';

const WEB = /^https?:\/\/[^\s/]+\.[^\s]+$/i;
/** A name and a domain without what separates addresses, quotes or hides them; dots stand between other characters. */
const MAIL = /^(?=.{3,254}$)[^\s@,;:<>()[\]"\\.]+(?:\.[^\s@,;:<>()[\]"\\.]+)*@[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+$/u;

/** Is this an address that a browser can follow? */
export function isWebAddress(text: string): boolean {
  return WEB.test(text);
}

/** Does this look like a mail address: a name, an @, a domain? */
export function isMail(text: string): boolean {
  return MAIL.test(text);
}

/** Hosts that nobody outside of one machine or house reaches; RFC 6761 names and RFC 1918 addresses. */
const INSIDE =
  /^(localhost|.*\.(local|localhost|internal|lan|test|invalid))$|^(127\.|10\.|192\.168\.|172\.(1[6-9]|2\d|3[01])\.|169\.254\.|0\.)/i;

/** Why an address is likely to lead nowhere. */
export type DeadLink = 'unreadable' | 'inside' | 'slip' | 'ending' | 'signs' | 'no-address';

/** Why an address that is well-formed is likely to lead nowhere; undefined when it looks alive. */
export function whyDead(address: string): DeadLink | undefined {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return 'unreadable';
  }
  if (INSIDE.test(url.hostname)) return 'inside';
  if (/\.\.|^\.|,/.test(url.hostname) || /[,;]$/.test(address)) return 'slip';
  if (/\.(con|cmo|ogr|nte|htp)$/i.test(url.hostname)) return 'ending';
  if (/[<>"{}|\\^`]/.test(address)) return 'signs';
  return undefined;
}

/** What somebody meant by an address without its beginning: "www.shore.example" with https:// before it. */
export function withScheme(text: string): string | undefined {
  const typed = text.trim();
  const twice = /^https?:\/\/(https?:\/\/.+)$/i.exec(typed)?.[1];
  if (twice) return isWebAddress(twice) ? twice : undefined;
  if (/^[a-z][a-z0-9+.-]*:/i.test(typed) && !/^[\w-]+(\.[\w-]+)+:\d+/.test(typed)) return undefined;
  const candidate = `https://${typed.replace(/^\/+/, '')}`;
  return isWebAddress(candidate) ? candidate : undefined;
}

/**
 * A website as people type it, as an address that can be followed: "www.shore.example" and "shore.example/choir" get their https://, what
 * has a beginning keeps it. Undefined for what is no web address: a mail address, one word, `javascript:`.
 */
export function readWebAddress(text: string): string | undefined {
  const typed = text.trim();
  const address = isWebAddress(typed) ? typed : withScheme(typed);
  if (!address || !URL.canParse(address)) return undefined;
  const { hostname, username } = new URL(address);
  // "rue@dunlin.example" is a mail address, "8.30" a time.
  const plain = address === typed;
  if (!plain && (username || !/\.[a-z\u0080-\uffff-]{2,}$/i.test(hostname))) return undefined;
  return address;
}

/** Addresses of links in sanitised HTML, pictures that lead somewhere among them. */
export function linksOf(html: string): string[] {
  return [...html.matchAll(/<(?:a\b[^>]*\bhref|img\b[^>]*\bdata-link)="([^"]*)"/gi)].map((m) => (m[1] ?? '').replace(/&amp;/g, '&'));
}

/** Web and mail addresses of a content that look wrong. */
export function linkNotes(content: ListingContent): ValidationNote[] {
  const notes: ValidationNote[] = [];
  const website = content.website.trim();
  const online = content.onlineAddress.trim();
  notes.push(
    ...addressNotes(website, 'website', ['website-unsafe', 'website-dead'], (w) => ({ website: w })),
    ...addressNotes(content.callAddress.trim(), 'call', ['call-unsafe', 'call-dead'], (callAddress) => ({ callAddress })),
    ...addressNotes(online, 'online', ['online-unsafe', 'online-dead'], (onlineAddress) => ({ onlineAddress })),
  );
  const bad = linksOf(content.text).find((address) => !/^(mailto:|tel:|\/)/i.test(address) && (!isWebAddress(address) || whyDead(address)));
  if (bad !== undefined)
    notes.push(asWarning('link-dead', 'text', says('linkDead', { link: bad.slice(0, 60), why: whyDead(bad) ?? 'no-address' })));
  const mail = content.contact.mail.trim();
  if (mail && !isMail(mail)) notes.push(asError('mail-unreadable', 'contact', says('mailUnreadable')));
  return notes;
}

function addressNotes(
  address: string,
  field: 'website' | 'call' | 'online',
  [unsafe, dead]: [string, string],
  put: (address: string) => Partial<ListingContent>,
): ValidationNote[] {
  if (!address) return [];
  if (!isWebAddress(address)) {
    const meant = withScheme(address);
    const quickFix = meant ? { quickFix: { says: says('makeIt', { text: meant.slice(0, 60) }), content: put(meant) } } : {};
    return [asError(unsafe, field, says('addressUnsafe', { field }), quickFix)];
  }
  const why = whyDead(address);
  return why ? [asWarning(dead, field, says('addressDead', { field, why }))] : [];
}
