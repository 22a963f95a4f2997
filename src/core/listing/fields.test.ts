import { describe, expect, it } from 'vitest';
import { READERS_WORDS } from '@/words/readers';
import { COLUMNS } from '../exchange/csv-columns';
import { emptyContent, FACTS, FIELD_NAMES, fieldOf, forReaders, NOT_IN_TABLES, optionsOf } from './fields';

describe('the fields of a listing', () => {
  it('are empty each by itself: what one listing is given, another has not', () => {
    const [one, other] = [emptyContent(), emptyContent()];
    one.venueIds.push('hall');
    one.contact.name = 'Ada';
    expect(other).toEqual(emptyContent());
    expect(other.venueIds).toEqual([]);
  });

  it('have a choice among their words that is the empty one', () => {
    for (const name of FIELD_NAMES) {
      const { type, empty } = fieldOf(name);
      if (type.is === 'choice') expect(Object.keys(type.words), name).toContain(empty);
    }
    expect(optionsOf('attendance').map(([value]) => value)).toEqual(['in-person', 'online', 'both']);
  });

  it('that editors alone know are not in what readers get', () => {
    const content = { ...emptyContent(), title: 'Rope Evening', expected: 40, whenWords: 'some Tuesday' };
    expect(forReaders(content)).toEqual({ ...emptyContent(), title: 'Rope Evening' });
    expect(content.expected).toBe(40);
  });

  it('that stand as facts on a page have a heading in each language', () => {
    for (const fact of FACTS) for (const words of Object.values(READERS_WORDS)) expect(words.event[fact]()).toMatch(/\S/);
  });

  it('have every column of tables among them, and name those that tables leave out', () => {
    const held = new Set(FIELD_NAMES.flatMap((name) => fieldOf(name).columns ?? []));
    // The id in the table is not the listing's, and a column that is left out holds nothing.
    expect(COLUMNS.filter((column) => !held.has(column))).toEqual(['skip', 'id']);
    expect(NOT_IN_TABLES).toContain('Tags');
    expect(NOT_IN_TABLES).not.toContain('Venues');
  });
});
