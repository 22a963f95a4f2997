import { describe, expect, it } from 'vitest';
import type { ListingContent } from './content';
import { emptyContent } from './fields';
import { differences, mergeContents, sameContent } from './merge';

const base: ListingContent = { ...emptyContent(), title: 'Harbour Choir', text: '<p>We sing.</p>', venueIds: ['hall'] };

describe('two contents', () => {
  it('are the same by what they say, whoever wrote their keys in which order', () => {
    const { title, ...rest } = base;
    expect(sameContent(base, { ...rest, title, venueIds: ['hall'] })).toBe(true);
    expect(sameContent(base, { ...base, venueIds: ['hall', 'loft'] })).toBe(false);
    expect(sameContent(base, { ...base, contact: { ...base.contact, phone: '555-0101' } })).toBe(false);
    // A translation that is not there is the same as one that never was.
    const untranslated = JSON.parse(JSON.stringify({ ...base, translations: undefined })) as ListingContent;
    expect(sameContent(base, untranslated)).toBe(true);
  });

  it('are not looked into where they share a field: a letter in a title costs a title', () => {
    const shut = new Proxy(base.cost, {
      ownKeys: () => {
        throw new Error('looked into');
      },
    });
    const [before, after] = [
      { ...base, cost: shut },
      { ...base, cost: shut, title: 'Harbour Choirs' },
    ];
    expect(differences(before, after)).toEqual(['title']);
    expect(sameContent(before, after)).toBe(false);
    // The guard would tell.
    expect(() => sameContent(before, { ...base, cost: { kind: 'unsaid' } })).toThrow('looked into');
  });

  it('merge what only one side changed, and name what both did', () => {
    const mine = { ...base, title: 'Choir', summary: 'Forty voices.' };
    const theirs = { ...base, title: 'The Choir', website: 'https://choir.example' };
    const { merged, collisions } = mergeContents(base, mine, theirs);
    expect(collisions).toEqual(['title']);
    expect(merged).toMatchObject({ title: 'Choir', summary: 'Forty voices.', website: 'https://choir.example' });
  });
});
