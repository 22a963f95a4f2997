/** A field's value in words, as an editor reads it: for comparing versions, and what two people saved. */
import { type Style, sayDay } from '../phrase/format';
import { parseIsoDay } from '../day/day';
import { sayChange, sayRecurrence } from '../phrase/say';
import { changesFromStored } from '../recurrence/stored';
import { plainText } from '../text/text';
import { type ListingContent, sayCost } from './content';
import { type ContentField, type FieldOf, fieldOf } from './fields';
import { readRecurrence } from '../dates/repeat-choices';

/** Names of what ids point to; undefined for what was removed. */
export type NameOf = (id: string) => string | undefined;

/** A field's value in words; empty when there is none. */
export function sayField(field: ContentField, content: ListingContent, nameOf: NameOf, style: Style): string {
  const { type } = fieldOf(field);
  const value = content[field];
  switch (type.is) {
    case 'own':
      return OWN[field as FieldOf<'own'>](content, style);
    case 'html':
      return plainText(String(value));
    case 'choice':
      return (type.words as Record<string, string>)[String(value)] ?? String(value);
    case 'flag':
      return value ? 'yes' : 'no';
    case 'ids':
      return (value as string[]).map((id) => nameOf(id) ?? 'removed').join(', ');
    case 'id':
      return value ? (nameOf(String(value)) ?? 'removed') : '';
    case 'day': {
      const day = parseIsoDay(String(value ?? ''));
      return day === undefined ? '' : sayDay(day, style, { year: true });
    }
    default:
      return value === null || value === undefined ? '' : String(value);
  }
}

/** What has a shape of its own. */
const OWN: Record<FieldOf<'own'>, (content: ListingContent, style: Style) => string> = {
  recurrence: (content, style) => {
    const recurrence = readRecurrence(content.recurrence);
    return recurrence ? sayRecurrence(recurrence, style) : '';
  },
  changes: (content, style) => {
    try {
      return changesFromStored(content.changes)
        .map((change) => sayChange(change, style))
        .join('; ');
    } catch {
      return `${content.changes.length} changed`;
    }
  },
  cost: ({ cost }) => sayCost(cost),
  contact: ({ contact: { name, phone, mail } }) => [name, phone, mail].filter(Boolean).join(', '),
  translations: ({ translations }) =>
    Object.values(translations ?? {})
      .flatMap(({ title, shortTitle, summary, text }) => [title, shortTitle, summary, plainText(text)])
      .filter(Boolean)
      .join(' · '),
};
