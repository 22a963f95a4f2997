import { describe, expect, it } from 'vitest';
import { dateIn, effectiveSummary } from '../dates/effective-date';
import { type ListingContent, picturesOf, type Translation } from './content';
import { emptyContent } from './fields';
import { contentIn, NO_TRANSLATION, withTranslation } from './translation';

const choir: ListingContent = {
  ...emptyContent(),
  title: 'Harbour Choir',
  shortTitle: 'Choir',
  summary: 'Forty voices.',
  text: '<p>We sing.</p>',
};
const french = (part: Partial<Translation>): ListingContent => withTranslation(choir, 'fr', part);
const shown = (content: ListingContent): string[] => {
  const { title, shortTitle, text } = contentIn(content, 'fr');
  return [title, shortTitle, effectiveSummary(contentIn(content, 'fr')), text];
};

describe('a listing in French', () => {
  it.each<[Partial<Translation>, string[]]>([
    [{}, ['Harbour Choir', 'Choir', 'Forty voices.', '<p>We sing.</p>']],
    // An English short title does not stand for a French title.
    [{ title: 'Le chœur' }, ['Le chœur', '', 'Forty voices.', '<p>We sing.</p>']],
    [{ title: 'Le chœur du port', shortTitle: 'Chœur' }, ['Le chœur du port', 'Chœur', 'Forty voices.', '<p>We sing.</p>']],
    [{ summary: 'Quarante voix.' }, ['Harbour Choir', 'Choir', 'Quarante voix.', '<p>We sing.</p>']],
    // A French text without a summary is its own summary.
    [{ text: '<p>Nous chantons.</p>' }, ['Harbour Choir', 'Choir', 'Nous chantons.', '<p>Nous chantons.</p>']],
  ])('%j', (part, expected) => expect(shown(french(part))).toEqual(expected));

  it('is its own words in English, and for who has none', () => {
    expect(contentIn(french({ title: 'Le chœur' }), 'en').title).toBe('Harbour Choir');
    expect(contentIn(choir, 'fr')).toBe(choir);
  });

  it('is no translation when everything is taken out again', () => {
    const emptied = withTranslation(french({ title: 'Le chœur', text: '<p>Oui.</p>' }), 'fr', { title: '', text: '<p></p>' });
    expect(emptied).toEqual(choir);
    expect('translations' in emptied).toBe(false);
  });

  it('may show pictures that its own text does not', () => {
    const id = '0190a1b2-0000-7000-8000-00000000000c';
    expect(picturesOf(french({ text: `<p><img src="/picture/${id}/640"></p>` }))).toEqual([id]);
  });

  it('stands in lists too', () => {
    const date = {
      title: 'Harbour Choir',
      shortTitle: 'Choir',
      summary: 'Forty voices.',
      translations: { fr: { ...NO_TRANSLATION, title: 'Le chœur' } },
    };
    expect(dateIn(date, 'fr')).toMatchObject({ title: 'Le chœur', shortTitle: '', summary: 'Forty voices.' });
    expect(dateIn(date, 'en')).toBe(date);
    expect(dateIn({ ...date, translations: null }, 'fr')).toMatchObject({ title: 'Harbour Choir' });
  });
});
