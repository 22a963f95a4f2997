import { describe, expect, it } from 'vitest';
import { type Filters, filterParts, filterQuery, readFilters, searchWords, unreadFilters } from './filters';

const read = (query: string): Filters => readFilters(new URLSearchParams(query));
const again = (query: string): string => filterQuery(read(query));
const unread = (query: string): string[] => unreadFilters(new URLSearchParams(query));

describe('choices in an address', () => {
  it.each([
    ['near=47.5678,-60.1234', '?near=47.57,-60.12'],
    ['near=47.5678,-60.1234&within=25', '?near=47.57,-60.12&within=25'],
    ['near=Port+Amble&within=5', '?near=Port+Amble'],
    ['within=25', ''],
    ['on=weekend&from=2027-03-01', '?on=weekend'],
    ['from=2027-03-01', '?from=2027-03-01'],
    ['upto=$12,50', '?upto=12.5'],
    ['upto=0', '?upto=0'],
    ['access=lift,step-free', '?access=lift,step-free'],
    ['part=evening,morning&ahead=1', '?part=evening,morning&ahead=1'],
  ])('%s is kept as %s', (query, expected) => {
    expect(again(query)).toBe(expected);
    expect(again(expected)).toBe(expected);
    expect(unread(query)).toEqual([]);
  });

  it('that are none are told, and ask nothing', () => {
    const query = 'on=someday&from=2027-02-30&to=x&part=noon&access=wings&how=by-post&within=7&free=yes&ahead=2&upto=cheap';
    expect(again(query)).toBe('');
    for (const part of query.split('&')) expect(unread(part)).toEqual([part]);
    expect(unread(query)).toHaveLength(8);
  });

  it('off the earth are a place that nobody knows', () => {
    for (const off of ['91,0', '0,181', '-90.01,0']) expect(read(`near=${off}`).near, off).toMatchObject({ place: off, at: undefined });
    expect(read('near=90,-180').near?.at).toEqual({ lat: 90, lng: -180 });
  });

  it('are said one by one, in the order of a sentence', () => {
    const parts = filterParts(read('kind=music&tag=kids&words=choir&free=1&on=weekend&part=evening&near=Amble&how=online&ahead=1'));
    expect(parts.map(({ name }) => name)).toEqual(['kind', 'tag', 'words', 'free', 'days', 'part', 'near', 'how', 'ahead']);
  });
});

describe('words that are looked for', () => {
  it.each([
    ['choir loft', ['choir', 'loft']],
    ['"Net Loft" Chœur', ['net loft', 'choeur']],
    ['“net loft”', ['net loft']],
    ['« net  loft » tea', ['net loft', 'tea']],
    ['"net loft', ['net', 'loft']],
    ['"" tea tea', ['tea']],
    ['', []],
  ])('%s', (words, expected) => {
    expect(searchWords({ words })).toEqual(expected);
  });
});
