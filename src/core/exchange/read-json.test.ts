import { describe, expect, it } from 'vitest';
import { emptyContent } from '../listing/content';
import { JSON_FORMAT, JSON_KIND, readJsonFile } from './read-json';

const file = (part: object): string => JSON.stringify({ kind: JSON_KIND, format: JSON_FORMAT, listings: [], ...part });

describe('our own JSON', () => {
  it('comes in without what no database keeps', () => {
    const content = { ...emptyContent(), title: 'Low\0-tide\ud800 Walk' };
    const { items } = readJsonFile(file({ listings: [{ id: '0190a1b2-0000-7000-8000-00000000000a', content }] }));
    expect(items.map((item) => item.content.title)).toEqual(['Low-tide\ufffd Walk']);
  });
  it.each([
    ['{"kind":', 'This is no JSON'],
    ['[]', 'This is no file of listings'],
    [file({ format: 9 }), 'The file has format 9'],
  ])('is refused in words: %s', (text, said) => expect(() => readJsonFile(text)).toThrow(said));
});
