import { describe, expect, it } from 'vitest';
import { READERS_WORDS } from '@/words/readers';
import { emptyContent, FACTS, FIELD_NAMES, fieldOf, forReaders, optionsOf } from './fields';

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
});
