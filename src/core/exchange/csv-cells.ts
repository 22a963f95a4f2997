/** Single cells of a table: a web address, what it costs, how it stands. */
import type { Cost } from '../listing/content';
import { readMoney } from '../listing/cost';
import type { EventStatus } from '../recurrence/model';
import { fold } from '../text/text';

/** A web address, with its beginning put before it where that is missing; what is none is said and left out. */
export function addressOf(text: string, what: string, notes: string[]): string {
  if (!text) return '';
  const whole = /^https?:\/\//i.test(text) ? text : /^[\w-]+(\.[\w-]+)+(\/\S*)?$/.test(text) ? `https://${text}` : '';
  if (!whole) notes.push(`“${text.slice(0, 60)}” is no ${what} and is left out.`);
  return whole.slice(0, 500);
}

/** Free, an amount in the site's or a known currency, or the words as they are. */
export function costOf(text: string, currency: string): Cost {
  if (!text) return { kind: 'unsaid' };
  if (/^(free|gratis|no charge|0+([.,]0+)?)$/i.test(text)) return { kind: 'free' };
  const match = /^(?:[$€£¥₹]|[A-Z]{3})?\s?\d{1,7}(?:[.,]\d{1,2})?\s?(?:[A-Z]{3}|[$€£¥₹])?$/.exec(text);
  if (!match) return { kind: 'words', words: text.replace(/\s+/g, ' ').slice(0, 120) };
  return readMoney(text, currency);
}

/** What people write of how it stands; what is not known counts as going ahead, and is said. */
export function eventStatusOf(text: string, notes: string[]): EventStatus {
  const folded = fold(text);
  if (/cancel/.test(folded)) return 'cancelled';
  if (/postpone/.test(folded)) return 'postponed';
  if (/resched/.test(folded)) return 'rescheduled';
  if (/online/.test(folded)) return 'moved-online';
  if (folded && !/^(going ahead|goes ahead|confirmed|scheduled|on|yes|ok|active|published)$/.test(folded))
    notes.push(`The status “${text.slice(0, 40)}” is not known; it is taken as going ahead.`);
  return 'going-ahead';
}
