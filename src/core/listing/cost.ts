/** Costs as people type them: "free", "8", "$12.50", "12,50", anything else as words. */
import type { Cost } from './content';

/** The narrow sign of a currency, ISO 4217: "$" for CAD; its code where it has none. */
function signOf(currency: string): string {
  const parts = new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' }).formatToParts(1);
  return parts.find((part) => part.type === 'currency')?.value ?? currency;
}

/**
 * An amount in the currency's unit, as it is kept: "12", "12.50". A comma counts as a point, the currency's own sign or code may stand
 * before or behind. Undefined for anything else; a foreign sign is not ours to read.
 */
export function readAmount(text: string, currency: string): string | undefined {
  const typed = text.trim();
  const own = [signOf(currency), currency].map((mark) => mark.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
  const found = new RegExp(`^(?:${own})?\\s*(\\d{1,7})(?:[.,](\\d{1,2}|[–-]+))?\\s*(?:${own})?$`, 'i').exec(typed);
  if (!found) return undefined;
  const [, whole = '', part = ''] = found;
  const cents = /^\d+$/.test(part) ? part.padEnd(2, '0') : '';
  return cents && cents !== '00' ? `${Number(whole)}.${cents}` : String(Number(whole));
}

/** What was typed in one field, as what it is. */
export function readCost(text: string, currency: string): Cost {
  const typed = text.trim();
  if (!typed) return { kind: 'unsaid' };
  if (/^(free|nothing|none|0([.,]0+)?)$/i.test(typed)) return { kind: 'free' };
  const amount = readAmount(typed, currency);
  return amount === undefined ? { kind: 'words', words: typed } : { kind: 'amount', amount, currency };
}

const CURRENCY_OF: Readonly<Record<string, string>> = {
  '€': 'EUR',
  '£': 'GBP',
  '¥': 'JPY',
  '₹': 'INR',
  euro: 'EUR',
  euros: 'EUR',
  pounds: 'GBP',
};

/**
 * An amount with a sign or a word of money, in running text: that of another country makes it that country's money, never ours; one that
 * could be of several stays words.
 */
export function readMoney(text: string, currency: string): Cost {
  const amount = /\d{1,7}(?:[.,]\d{1,2})?/.exec(text)?.[0].replace(',', '.') ?? '';
  const mark = text.replace(/[\d.,\s]/g, '').toLowerCase();
  const foreign = CURRENCY_OF[mark] ?? (/^[a-z]{3}$/.test(mark) ? mark.toUpperCase() : undefined);
  if (foreign) return { kind: 'amount', amount, currency: foreign };
  const ours = mark === '' || mark === signOf(currency).toLowerCase() || (mark === 'dollars' && signOf(currency) === '$');
  return ours ? { kind: 'amount', amount, currency } : { kind: 'words', words: text.trim() };
}
