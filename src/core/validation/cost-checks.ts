/** What the words say of the price, compared with the cost that is set. */
import { type ListingContent, sayCost } from '../listing/content';
import { plainText } from '../text/text';
import { asWarning, type ValidationField, type ValidationNote, asError } from './note';
import { says } from './saying';

/** "free" that is not about money. */
const OTHER_FREE =
  /\b(gluten|step|smoke|sugar|dairy|nut|lactose|alcohol|fat|plastic|car|hands|care|trouble|toll|duty|barrier|wheat|meat)[-\s]free\b|\bfree(\s+(of|from|to|the|parking|range|time|hand|will|spirit|speech|house|standing|style|choice|seating|wi-?fi|tea|coffee|refreshments|drinks?)\b|[-\s]?(range|standing|style|hand|lance))/gi;
const FREE = /\b(free( of charge| entry| admission| event)?|no charge|no entry fee|without charge|admission free)\b/i;
const UNDER = /\b(under|children|kids|members|students|carers|babies|infants|accompanied|over \d+s?)\b[^.;]{0,40}\bfree\b|\bfree\s+for\b/i;
const AMOUNT = /(?:[$€£]\s?(\d{1,5}(?:[.,]\d{1,2})?)|\b(\d{1,5}[.,]\d{2})\b(?!\s*(?:am|pm|h\b|:|km|m\b|kg|%)))/g;

/** Do these words say that it costs nothing? “Gluten-free” is no price. */
export function saysFree(text: string): boolean {
  const rest = text.replace(OTHER_FREE, ' ');
  return FREE.test(rest) && !UNDER.test(text);
}

/** Amounts of money in words, as numbers. A time such as 19.30 is none. */
export function amountsIn(text: string): number[] {
  return [...text.matchAll(AMOUNT)].flatMap((m) => {
    const marked = m[1];
    const bare = m[2];
    if (marked !== undefined) return [Number(marked.replace(',', '.'))];
    const value = Number(bare?.replace(',', '.'));
    const [hours, minutes] = (bare ?? '').split(/[.,]/).map(Number);
    const isClock =
      (hours ?? 99) < 24 && (minutes ?? 99) < 60 && /\b(at|from|until|till|to|by|around|about|–|-)\s*$/i.test(text.slice(0, m.index));
    return isClock ? [] : [value];
  });
}

/** What the words say of the price, beside the cost that is set. */
export function costNotes(content: ListingContent): ValidationNote[] {
  const { cost } = content;
  const notes: ValidationNote[] = [];
  if (cost.kind === 'amount' && !/^\d{1,7}([.]\d{1,2})?$/.test(cost.amount))
    return [asError('cost-unreadable', 'cost', says('amountUnreadable'))];
  const places: [ValidationField, string][] = [
    ['title', content.title],
    ['summary', content.summary],
    ['text', plainText(content.text)],
  ];
  const free = places.find(([, text]) => saysFree(text));
  const priced = places.find(([, text]) => amountsIn(text).some((n) => n > 0));
  const named = priced ? amountsIn(priced[1]).filter((n) => n > 0) : [];
  const isFree = { says: says('makeItFree'), content: { cost: { kind: 'free' as const } } };
  if (cost.kind === 'unsaid') {
    const more = free && !priced ? { quickFix: isFree } : {};
    notes.push(asWarning('cost-missing', 'cost', free ? says('freeUnset') : says('costMissing'), more));
  } else if (cost.kind === 'amount' && free)
    notes.push(asWarning('cost-differs', 'cost', says('freeButPriced', { field: free[0], cost: sayCost(cost) }), { quickFix: isFree }));
  else if (cost.kind === 'free' && priced && !free)
    notes.push(asWarning('cost-differs', 'cost', says('pricedButFree', { field: priced[0], money: sayMoney(named[0] ?? 0) })));
  else if (cost.kind === 'amount' && priced && !named.includes(Number(cost.amount)))
    notes.push(
      asWarning('cost-differs', 'cost', says('pricesDiffer', { field: priced[0], money: sayMoney(named[0] ?? 0), cost: sayCost(cost) })),
    );
  return notes;
}

const sayMoney = (n: number): string => (Number.isInteger(n) ? String(n) : n.toFixed(2));
