import { describe, expect, it } from 'vitest';
import { emptyContent } from '../listing/fields';
import { ARCHIVE_FORMAT, ARCHIVE_KIND, FORMER_FORMAT, FORMER_KIND } from './archive';
import { readJsonFile } from './read-json';

const file = (part: object): string => JSON.stringify({ kind: ARCHIVE_KIND, format: ARCHIVE_FORMAT, listings: [], ...part });

describe('our own JSON', () => {
  it('comes in without what no database keeps', () => {
    const content = { ...emptyContent(), title: 'Low\0-tide\ud800 Walk' };
    const { items } = readJsonFile(file({ listings: [{ id: '0190a1b2-0000-7000-8000-00000000000a', content }] }));
    expect(items.map((item) => item.content.title)).toEqual(['Low-tide\ufffd Walk']);
  });
  it('is read as earlier versions wrote it, listings alone', () => {
    const listings = [{ id: '0190a1b2-0000-7000-8000-00000000000a', content: { ...emptyContent(), title: 'Walk' } }];
    expect(readJsonFile(file({ kind: FORMER_KIND, format: FORMER_FORMAT, listings })).items).toHaveLength(1);
  });
  it.each([
    ['{"kind":', 'This is no JSON'],
    ['[]', 'This is no file of listings'],
    [file({ format: 9 }), 'The file has format 9'],
    [file({ kind: FORMER_KIND }), 'its kind is not'],
  ])('is refused in words: %s', (text, said) => expect(() => readJsonFile(text)).toThrow(said));
});
