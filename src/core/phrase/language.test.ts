import { describe, expect, it } from 'vitest';
import { ENGLISH_TAGS, englishOf, tagOf } from './language';

describe('what a page says its language is', () => {
  it('is the English of a country where it is at home, and English alone elsewhere', () => {
    expect(['CA', 'GB', 'NZ', 'NO', '', 'XX'].map(englishOf)).toEqual(['en-CA', 'en-GB', 'en-NZ', 'en', 'en', 'en']);
    expect([tagOf('en', 'en-GB'), tagOf('fr', 'en-GB')]).toEqual(['en-GB', 'fr-CA']);
  });
  it('is a tag as the standard writes it', () => expect(Intl.getCanonicalLocales([...ENGLISH_TAGS])).toEqual([...ENGLISH_TAGS]));
});
